// A structure that is its own mirror image in an upright plane.
#pragma once

#include "corvex/structure.hpp"

namespace corvex::inspection {

struct Mirror {
  double Vector::*axis = &Vector::x;  // normal to the plane
  std::vector<std::size_t> point;     // the image of each point
  std::vector<std::size_t> member;    // of each member
  std::vector<bool> runs_back;        // whether the image runs from its end to its start
};

// The plane through the middle of the structure, perpendicular to this axis; empty if points or members have no image.
// Takes the square of the number of points.
std::optional<Mirror> mirror(const Structure& structure, double Vector::*axis);

}  // namespace corvex::inspection
