// The rule for what counts as zero: a figure below 1e-9 of the largest of its kind is round-off, and is shown as 0.
#pragma once

#include <vector>

#include "corvex/model_units.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex::format {

inline constexpr double noise = 1e-9;

// The largest figure of each kind in a case, SI units.
struct Sizes {
  double force = 0, moment = 0, move = 0, turn = 0, stress = 0;
};
// Of forces and movements; `stress` is 0.
Sizes sizes_of(const Structure& structure, const CaseResult& result, const std::vector<MemberResult>& members);

// In the unit for print, round-off as 0.
double clean(double si, const NamedUnit& unit, double size);

}  // namespace corvex::format

#pragma GCC visibility pop
