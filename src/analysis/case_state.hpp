// Loads of a case, and the state of the structure under them.
#pragma once

#include <memory>

#include "analysis/system.hpp"
#include "beam/bent_state.hpp"
#include "beam/span_load.hpp"

namespace corvex::solver {

struct Acting {
  SpanLoads loads;
  std::vector<ActingForce> on_points;
  std::vector<ActingMass> masses;
  std::vector<Six> ground;  // how each support moves by itself; empty where none does
  Resultant applied;
  // Forces that loads, temperature changes, lack of fit and settlements would cause, each by itself, if fully
  // restrained.
  double gross = 0;
};
Acting acting_in(const Structure& structure, const System& system, const LoadCase& loads);

struct CaseState {
  std::vector<Movement> movement;  // of each point
  std::vector<Six> reaction;       // of each support, as given to the structure; global axes
  double error = 0;                // of its movements, as a share of the largest
  double largest = 0;              // of the forces and moments that meet at points: reference size for rounding error
  // The larger of `largest` and what acts by itself: forces below 1e-13 of it, and movements below what such forces do
  // to the stiffest span (`still`), are rounding. In a combination the sum over its terms.
  double gross = 0, still = 0;
  double moved = 0;  // the largest movement of a point
  // Supports settle or members grow, but nothing resists: all forces are rounding.
  bool forceless = false;
  // Of each span, where members that act one way only are slack; else those of the system count.
  std::shared_ptr<const std::vector<Element>> elements;
  // Of second order: the spans on the displaced structure.
  std::shared_ptr<const BentState> bent{};
};

}  // namespace corvex::solver
