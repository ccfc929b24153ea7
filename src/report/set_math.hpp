// Typeset formulas.
#pragma once

#include "report/math.hpp"
#include "report/paper.hpp"

namespace corvex::reporting {

// At the paper's place, set in by `indent`; broken before a sign where it is too wide, and onto further pages.
void add_math(Paper& paper, const Math& math, double indent);

}  // namespace corvex::reporting
