// Whether a stable equilibrium exists at a multiple of the loads of a case, with displacements of any size: this covers
// snap-through, which linear load factors do not show.
#pragma once

#include <string>

#include "corvex/solution.hpp"

namespace corvex::stability {

struct LargeCheck {
  bool examined = false;  // else `reason` says why not
  bool stable = false;
  bool computed = false;  // with large displacements, not by the bound
  double reached = 0;     // where it is not: the share of these loads at which equilibrium ends
  std::string reason{};
};
// `factor` times the loads of the case; `linear`: its linear load factor.
LargeCheck stable_with_large_displacements(const Solution& first_order, std::string_view load_case, double factor,
                                           double linear);

}  // namespace corvex::stability
