// Data that are reused from one structure to the next while only values change: the order of elimination, the places of
// the entries and the analysis of the factorisation.
#pragma once

#include <optional>

#include "analysis/system.hpp"
#include "linear_system/factor.hpp"

namespace corvex::solver {

struct Reusable {
  std::optional<Pattern> pattern;
  Dofs dofs;                                              // numbered
  std::vector<std::pair<std::size_t, std::size_t>> ends;  // the points that each span joins
  LowerMatrix K;
  std::optional<Factor> factor;
  // The factor was made for one matrix alone.
  bool single_use = false;

  // Numbers `f`: as before if it is of the same topology, else anew, and then K and the factor are dropped.
  [[gnu::visibility("hidden")]] void number(const Spans& spans, Dofs& f);
  // The stiffness of these elements, in K.
  [[gnu::visibility("hidden")]] void assemble(const System& system, const std::vector<Element>& elements);
};

}  // namespace corvex::solver
