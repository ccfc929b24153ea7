// Profiles and materials as text.
#pragma once

#include <string>
#include <vector>

#include "corvex/file.hpp"

namespace corvex::cli {

// Every figure of one section, under both naming habits of the axes.
std::string profile_text(const Profile& profile, const CatalogueFormat& format, int digits);
// One line each.
std::string profile_list(const std::vector<Profile>& profiles, const CatalogueFormat& format, int digits);
// All there is: series and materials.
std::string contents_text(const std::vector<Material>& materials);
std::string material_text(const std::vector<Material>& materials);

}  // namespace corvex::cli
