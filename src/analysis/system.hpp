// Data common to all load cases of a structure. Made once, then constant.
#pragma once

#include "beam/element.hpp"
#include "corvex/expected.hpp"
#include "linear_system/dofs.hpp"

namespace corvex::solver {

struct Reusable;

struct System {
  Spans spans;
  Dofs dofs;                      // numbered in the order of elimination
  std::vector<Element> elements;  // of each span, with all members acting
  double stiffest = 0;            // the largest EA/L of a span
};

// Refuses, with the reasons, a structure that is incomplete or that moves as a whole. Takes the numbering from
// `reusable` if it is of the same topology, and leaves it there.
Expected<System, Problems> make_system(const Structure& structure, Reusable& reusable);

}  // namespace corvex::solver
