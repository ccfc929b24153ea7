// Profiles and materials as pages.
#pragma once

#include <vector>

#include "corvex/file.hpp"
#include "page.hpp"

namespace corvex::cli {

// Every figure of one section, under both naming habits of the axes.
void add_profile(Page& page, const Profile& profile, const CatalogueFormat& format, int digits);
// One line each.
Page profile_list(const std::vector<Profile>& profiles, const CatalogueFormat& format);
// All there is: series and materials.
Page contents_page(const std::vector<Material>& materials);
Page materials_page(const std::vector<Material>& materials);

}  // namespace corvex::cli
