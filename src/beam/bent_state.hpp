// Equilibrium of the spans on the displaced structure.
#pragma once

#include <utility>
#include <vector>

#include "beam/course.hpp"
#include "beam/released.hpp"

namespace corvex::solver {

struct BentForces {
  Vector12 forces;  // of the points on the span, along its undeformed axes
  Vector12 own;     // movements of its own ends
  std::vector<CoursePiece> course;
};

struct BentState {
  std::vector<BentForces> spans;
  // The moment that the loads and axial forces have because the structure is displaced, in addition to that about the
  // places where it stood; global axes.
  Vector displaced{};
  // Of large displacements: shares of the load at which equilibrium was found, and the largest movement then.
  std::vector<std::pair<double, double>> steps{};
};

}  // namespace corvex::solver
