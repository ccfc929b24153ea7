// What stays from one structure to the next while only values change: the order of elimination, the places of the
// entries and the analysis of the factorisation.
#pragma once

#include <optional>

#include "solve/factor.hpp"

namespace corvex::solver {

struct Reusable {
  std::optional<Pattern> pattern;
  Freedoms freedoms;                                      // numbered
  std::vector<std::pair<std::size_t, std::size_t>> ends;  // the points that each span joins
  LowerMatrix K;
  std::optional<Factor> factor;

  // The same freedoms, joined by the same spans.
  [[gnu::visibility("hidden")]] bool fits(const Spans& spans, const Freedoms& f) const;
};

}  // namespace corvex::solver
