// The loads of a combination as one load case: every load of its terms, scaled.
#pragma once

#include "corvex/structure.hpp"

namespace corvex {

LoadCase combined(const Structure& structure, const Combination& combination);
// The loads of a load case or a combination. Throws std::out_of_range where there is none of that name.
LoadCase case_loads(const Structure& structure, std::string_view name);
// The same structure with nothing but one load case: these loads times a factor.
Structure with_single_case(const Structure& structure, std::string_view name, double factor);

// The same structure, analysed at first order and without imperfection.
Structure at_first_order(Structure structure);

}  // namespace corvex
