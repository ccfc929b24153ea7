// Properties of a section on which torsional, flexural-torsional and lateral torsional buckling depend.
//
// In principal axes u (of the larger second moment, I1 = ∫u² dA) and v, with the origin at the centroid. Source:
// Chen and Atsuta, Theory of Beam-Columns, vol. 2, ch. 2; Trahair, Flexural-Torsional Buckling of Structures, ch. 2.
#pragma once

#include <optional>

#include "corvex/section.hpp"

namespace corvex::section {

// SI units.
struct StabilityFigures {
  double A = 0, I1 = 0, I2 = 0;
  double A1 = 0, A2 = 0;                // shear areas for forces along u and v; 0: not known
  double angle = 0;                     // from y towards z to u
  double J = 0, Cw = 0;                 // torsion constant; warping constant about the shear centre
  double centre_u = 0, centre_v = 0;    // shear centre
  double polar = 0;                     // r0² = (I1 + I2)/A + centre_u² + centre_v²
  double wagner_u = 0, wagner_v = 0;    // ∫u ρ² dA / I1 and ∫v ρ² dA / I2, ρ from the shear centre
  double central_u = 0, central_v = 0;  // the same with ρ from the centroid
};
// Nothing where the section does not give them: properties without both second moments and J. Sections given by their
// properties are taken as doubly symmetric, with Cw = 0. Takes a few milliseconds for an open section the first time.
std::optional<StabilityFigures> stability_figures(const Section& section);

}  // namespace corvex::section
