// What the supports give in all, against what the loads ask for: the check that needs no stiffness.
#pragma once

#include "solve/analysis.hpp"

namespace corvex::solver {

struct Reacted {
  Vector force, moment;  // the moment about the global origin
  // The largest imbalance over the largest single force, applied or reacted; moments count as pairs of forces
  // that span the structure. 0 when all vanish.
  double error = 0;
};
Reacted reacted(const Structure& structure, const CaseAnalysis& result);

// Cases whose reactions and loads do not balance as they should: refused where no digit can be trusted, else
// told.
Problems imbalances(const Structure& structure, const Analysis& analysis);

}  // namespace corvex::solver
