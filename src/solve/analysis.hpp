// From a description to movements and reactions.
#pragma once

#include <array>

#include "corvex/expected.hpp"
#include "solve/freedoms.hpp"
#include "solve/span_load.hpp"

namespace corvex::solver {

struct CaseAnalysis {
  SpanLoads loads;
  std::vector<Movement> movement;  // of each point
  std::vector<Six> reaction;       // of each support, as given to the structure; global axes
  Resultant applied;
};

struct Analysis {
  Spans spans;
  Freedoms freedoms;
  std::vector<CaseAnalysis> cases;
  Problems notes;
};

// Refuses, with the reasons, what cannot be solved.
Expected<Analysis, Problems> analyse(const Structure& structure);

}  // namespace corvex::solver
