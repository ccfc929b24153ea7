// The degrees of freedom that exist.
//
// Plane structures have x, y and rz a point. A point has rotations only where something rigid could turn with
// it: the end of a beam that passes moments on, a beam that runs through, a rigid arm, a spring. Where only links and
// hinged ends meet there is none in the plane; in space, hinged ends still bring torsion about their axes, other
// releases one bending moment (see spin.hpp).
//
// Movements of most points are counted along the global axes; where a support holds a direction of its own they are
// counted along a frame of which the first axes are held.
#pragma once

#include <array>
#include <vector>

#include "beam/span.hpp"

namespace corvex::solver {

enum class Status : unsigned char {
  absent,  // the structure has no such degree of freedom: nothing there could resist or use it
  held,    // by a support
  idle,    // a spin that no inner force resists or needs; kept at rest
  free,
};

// Global axes; the ground may move with a load case.
struct PointSpring {
  std::size_t point = 0, support = 0;
  Six stiffness{};
};

struct Dofs {
  std::vector<std::array<Status, 6>> status;  // of each point
  std::vector<bool> used;                     // some member goes through the point
  std::vector<bool> rigid;                    // a beam or a rigid arm turns with the point
  std::vector<PointSpring> springs;
  std::vector<Axes> frames;      // of points with skew supports
  std::vector<int> frame_index;  // of each point, −1 for the global axes; empty where all are
  // Number of the equation of each free degree of freedom, −1 for the others; given by `number`.
  std::vector<std::array<int, 6>> equation;
  int equations = 0;
  std::vector<int> first_equation;  // of each point in elimination order, one more at the end

  bool exists(std::size_t point, int freedom) const {
    return status[point][static_cast<std::size_t>(freedom)] != Status::absent;
  }
  int free_count(std::size_t point) const;
  const Axes* frame(std::size_t point) const {
    return frame_index.empty() || frame_index[point] < 0 ? nullptr : &frames[frame_index[point]];
  }
  // Six components along the local axes of the point, and back to the global ones.
  Six in_frame(std::size_t point, const Six& global) const;
  Six in_global(std::size_t point, const Six& own) const;
  // The six global components of what the equations' vector says of a point; zero where it has no equation.
  Six of_point(std::size_t point, const double* equations_vector) const;
};

Dofs dofs(const Structure& structure, const Spans& spans);

// Numbers the free degrees of freedom point after point, in this order of the points that have any.
void number(Dofs& f, const std::vector<std::size_t>& order);

}  // namespace corvex::solver
