// The sum of the reactions against the sum of the loads: a check of equilibrium that does not use the stiffness matrix.
#pragma once

#include "analysis/analysis.hpp"

namespace corvex::solver {

struct Reacted {
  Vector force, moment;  // the moment about the global origin
  // The largest imbalance over the largest single force, applied or reacted; moments count as pairs of forces
  // that span the structure. 0 when all vanish.
  double error = 0;
};
Reacted reacted(const Structure& structure, const Resultant& applied, const CaseState& state);

// Problems for the cases whose reactions and loads do not balance to six digits: errors where no digit is reliable,
// else warnings.
Problems imbalances(const Structure& structure, const Analysis& analysis);

}  // namespace corvex::solver
