#pragma once

#include "corvex/section.hpp"

namespace corvex::section {

// Where and how stress is evaluated on a shape that can exist.
StressMap stress_map(const Shape& shape, const SectionProperties& p);

}  // namespace corvex::section
