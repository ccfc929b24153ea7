// The directions in which a support holds movement.
#pragma once

#include "corvex/structure.hpp"

namespace corvex {

// Square axes, of which the first `count` are held: they span all directions that the support names. Where these are
// global axes, so are all three.
struct HeldAxes {
  Axes axes{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
  int count = 0;
  bool skew = false;  // else the global axes are held as `PointSupport::held` says, and `axes`, `count` are not used
};
HeldAxes held_axes(const Structure& structure, const PointSupport& support);

// What is left of a movement of the support where neither a hold nor a spring goes with it.
Vector beside_hold(const PointSupport& support, const Vector& movement);

}  // namespace corvex
