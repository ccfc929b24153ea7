#pragma once

#include "corvex/section.hpp"

namespace corvex::section {

// Errors in a drawn outline: too few points, sides that cross or touch, holes outside.
std::vector<ShapeFault> outline_faults(const Outline& outline);

}  // namespace corvex::section
