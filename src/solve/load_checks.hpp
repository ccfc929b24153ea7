// What is to be said about loads once it is known which freedoms the structure has.
#pragma once

#include "solve/analysis.hpp"

namespace corvex::solver {

// Loads where the structure has nothing to take them: refused.
Problems loads_without_hold(const Structure& structure, const Freedoms& f);

// What is worth knowing about a structure that was solved: loads across links, shear centres, welds.
Problems notes(const Structure& structure, const Analysis& analysis);

}  // namespace corvex::solver
