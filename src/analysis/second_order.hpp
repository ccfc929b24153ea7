// Equilibrium on the displaced structure (second order, small rotations) of one case.
//
// Each span is in equilibrium on its bent axis under its axial force (bent_span.hpp), each rigid arm in its turned
// place; the axial forces follow from the movements along the members as at first order. For given axial forces the
// equations are linear. They are solved again with the axial forces that come out, until none changes: a fixed point,
// sought with Anderson's mixing. The equilibrium is stable where the stiffness has no negative pivot; beyond that the
// structure has buckled, and is refused with the load factor of linear buckling (Petersen, Statik und Stabilität der
// Baukonstruktionen, ch. 7; EN 1993-1-1, 5.2).
#pragma once

#include "analysis/equations.hpp"

namespace corvex::solver {

class SecondOrder {
 public:
  SecondOrder(const Structure& structure, const System& system, Reusable& reusable)
      : structure_(structure), system_(system), reusable_(reusable) {}

  // From the solution at first order of the same case.
  Expected<Solved, Problems> solve(const LoadedCase& load_case, const Solved& first);

 private:
  const Structure& structure_;
  const System& system_;
  Reusable& reusable_;
};

}  // namespace corvex::solver
