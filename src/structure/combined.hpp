// The loads of a combination as one load case: every load of its terms, scaled.
#pragma once

#include "corvex/structure.hpp"

namespace corvex {

LoadCase combined(const Structure& structure, const Combination& combination);

}  // namespace corvex
