// Equilibrium with turns of any size, of one case.
//
// Members are cut into a few pieces, each solved to the last digit as a power series (large_rod.hpp); what is unknown
// are the places and turns of points and of the cuts, and the forces at the start of each piece. Newton's method finds
// them for a share of the load that grows in steps of its own choice. A step is taken only where equilibrium is stable
// (no negative pivot of the symmetric part of the tangent stiffness) and where the structure moves about as far as its
// tangent foretells, so that no step leaps over a limit point: towards one the steps become shorter and shorter, and
// the share at which they end is reported (Crisfield, Non-linear Finite Element Analysis of Solids and Structures, ch.
// 9).
#pragma once

#include "analysis/equations.hpp"

namespace corvex::solver {

class LargeOrder {
 public:
  LargeOrder(const Structure& structure, const System& system) : structure_(structure), system_(system) {}

  // Refused where a limit point comes before the whole load.
  // `reached`: then the share of the load at which equilibrium ends, 0 where none is found at all.
  Expected<Solved, Problems> solve(const LoadedCase& load_case, double* reached = nullptr) const;

 private:
  const Structure& structure_;
  const System& system_;
};

}  // namespace corvex::solver
