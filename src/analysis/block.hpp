// Cases that are solved together: they have the same elements.
#pragma once

#include "analysis/case_state.hpp"

namespace corvex::solver {

// A load case with what acts in it. Neither is owned.
struct LoadedCase {
  const LoadCase* loads;
  const Acting* acting;
};

struct Block {
  const Structure& structure;
  const System& system;
  const std::vector<Element>& elements;
  std::vector<LoadedCase> cases;
  std::vector<std::vector<Movement>> movement;  // of each point, in each case

  std::size_t size() const { return cases.size(); }
};

}  // namespace corvex::solver
