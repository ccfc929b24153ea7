// From a description to movements and reactions.
#pragma once

#include <array>

#include "corvex/expected.hpp"
#include "solve/element.hpp"
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
  std::vector<Element> elements;  // of each span
  std::vector<CaseAnalysis> cases;
  Problems notes;
};

struct Kept;

// Refuses, with the reasons, what cannot be solved. Uses what an earlier call left in `kept`, where it fits.
Expected<Analysis, Problems> analyse(const Structure& structure, Kept& kept);

}  // namespace corvex::solver
