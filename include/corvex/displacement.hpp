// Corvex: displacements of points, and shapes of modes.
//
//     const corvex::Displacement d = solution[0].displacement(c);
//     fmt::print("{:.3f} mm\n", d.y.in(corvex::units::mm));   // -3.549 mm
//
// Along and about the global axes, right-handed.
#pragma once

#include <cstddef>
#include <vector>

#include "corvex/quantity.hpp"
#include "corvex/vector.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct Displacement {
  Length x, y, z;
  Angle rx, ry, rz;
};

// How a structure moves in a mode; the largest movement is 1.
struct ModeShape {
  std::vector<Displacement> points{};  // of each point
  // Of each member: movements at places evenly from end to end, in metres along it and along the global axes.
  struct Place {
    double at = 0;
    Vector by{};
  };
  std::vector<std::vector<Place>> members{};
  std::size_t member_of_largest = 0;  // the member with the largest displacement
};

}  // namespace corvex

#pragma GCC visibility pop
