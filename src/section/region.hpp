// Shapes as outlines.
#pragma once

#include <optional>

#include "corvex/section.hpp"
#include "outline/outline.hpp"

namespace corvex::section {

// The outline of a shape that can exist, standing on its centroid; none for given properties.
std::optional<Region> region(const Shape& shape);

}  // namespace corvex::section
