// Loads and masses at places where no member can carry them.
#pragma once

#include "linear_system/dofs.hpp"

namespace corvex::solver {

// Each with its reason; a structure with one of them is refused.
Problems loads_without_hold(const Structure& structure, const Dofs& f);

}  // namespace corvex::solver
