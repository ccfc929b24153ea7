// Only the freedoms that exist.
//
// Plane structures have x, y and rz a point. A point has rotations only where something rigid could turn with
// it: the end of a beam without a hinge, or a beam that runs through. Where only links and hinged ends meet
// there is none in the plane; in space, hinged ends still bring torsion about their own axes (see spin.hpp).
#pragma once

#include <array>
#include <vector>

#include "solve/span.hpp"

namespace corvex::solver {

enum class Status : unsigned char {
  absent,  // the structure has no such freedom: nothing there could resist or use it
  held,    // by a support
  idle,    // a spin that no inner force resists or needs; kept at rest
  free,
};

struct Freedoms {
  std::vector<std::array<Status, 6>> status;  // of each point
  std::vector<bool> used;                     // some member goes through the point
  std::vector<bool> rigid;                    // a beam turns with the point
  // Number of the equation of each free freedom, −1 for the others; given by `number`.
  std::vector<std::array<int, 6>> equation;
  int equations = 0;
  std::vector<int> first_equation;  // of each point in elimination order, one more at the end

  bool exists(std::size_t point, int freedom) const {
    return status[point][static_cast<std::size_t>(freedom)] != Status::absent;
  }
  int free_count(std::size_t point) const;
};

Freedoms freedoms(const Structure& structure, const Spans& spans);

// Numbers the free freedoms point after point, in this order of the points that have any.
void number(Freedoms& f, const std::vector<std::size_t>& order);

}  // namespace corvex::solver
