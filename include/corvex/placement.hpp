// Corvex: places found from other places, as a drawing dimensions them.
//
// Positions are vectors in metres from the global origin. `Structure::point` takes one; a `LoadCase` takes a force made
// by `toward` or `at_angle`.
//
//     corvex::Structure rafter = corvex::Structure::plane("rafter");
//     const auto eaves = rafter.point("eaves", 0_m, 3_m);
//     const auto ridge = rafter.point("ridge", corvex::polar(rafter[eaves].position, 4_m, 30_deg));
//     const auto other = rafter.point("other eaves", mirrored(rafter[eaves].position, corvex::Axis::x, 3.4641_m));
//     fmt::print("{:.2f} {:.2f}\n", rafter[ridge].position.y, rafter[other].position.x);   // 5.00 6.93
#pragma once

#include "corvex/load_case.hpp"

#pragma GCC visibility push(default)

namespace corvex {

enum class Axis { x, y, z };

// From a place by these distances along the global axes.
Vector moved(const Vector& from, Length x, Length y, Length z = {});
// In the plane: this far, in a direction counter-clockwise from x.
Vector polar(const Vector& from, Length distance, Angle angle);
// On the straight line from a to b: at this share of the way, or this far from a.
Vector between(const Vector& a, const Vector& b, double share);
Vector between(const Vector& a, const Vector& b, Length from_a);
// On the other side of the plane where the coordinate along `axis` is `at`.
Vector mirrored(const Vector& p, Axis axis, Length at);

// A force of this size from one place toward another. The two must differ.
Force toward(ForceSize size, const Vector& from, const Vector& to);
// In the plane: a force of this size in a direction counter-clockwise from x.
Force at_angle(ForceSize size, Angle angle);

}  // namespace corvex

#pragma GCC visibility pop
