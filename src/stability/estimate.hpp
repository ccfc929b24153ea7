// A lower bound of the load factor at which a stretch of a member buckles by torsion, by bending and torsion, or
// laterally under its bending moments.
//
// The second variation of the potential energy of a thin-walled beam, for lateral displacements u and v of the shear
// centre along the principal axes and a twist φ (Trahair, Flexural-Torsional Buckling of Structures, ch. 2):
//
//     2 Π = ∫ E I1 u″² + E I2 v″² + G J φ′² + E Cw φ″² dx
//           − α ∫ P (u′² + v′² + r0² φ′² + 2 (v0 u′ − u0 v′) φ′) + (M1 β1 + M2 β2) φ′² dx + 2 α ∫ M1 φ v″ + M2 φ u″ dx
//
// with the compression P and the moments M1, M2 of the case, load factor α, shear centre (u0, v0) and Wagner's
// coefficients β. Each part is bounded by what resists it: ∫ P v′² ≤ P/P_v · ∫ E I2 v″² with the largest P and
// P_v = π² E I2/L², and similarly the others; |2 ∫ M1 φ v″| by completing the square, E I2 v″² + 2 α M1 φ v″ ≥
// −(α M1 φ)²/(E I2), which needs no condition for v at all. What is left is a 3 × 3 problem whose lowest factor is a
// lower bound. For compression and bending about one axis it is the familiar (1 − N/N_z)(1 − N/N_φ) = (M/M_cr)².
//
// The shape of the moment diagram enters through the largest value of ∫ M1² φ²/(E I2) dx over the energy of torsion,
// found exactly for the given diagram with sines and linear functions for φ. The usual factor C1 is that value over
// the one of a uniform moment; it is never above the exact one.
#pragma once

#include <limits>
#include <vector>

#include "section/stability_figures.hpp"

namespace corvex::stability {

inline constexpr double infinity = std::numeric_limits<double>::infinity();

// SI units. Infinity: a rigid restraint.
struct StretchInput {
  section::StabilityFigures section;
  double E = 0, G = 0;
  double length = 0;                      // between places that restrain the twist
  double twist_start = 0, twist_end = 0;  // stiffness of these restraints, N·m/rad
  bool twist_along = false;               // the twist is restrained everywhere
  // Euler's force of the displacement along u and along v; infinity where it is restrained everywhere.
  double euler_u = 0, euler_v = 0;
  // The same displacement is restrained everywhere: then bending and twist are not coupled by it.
  bool u_along = false, v_along = false;
  double lever = 0;  // the largest distance from the shear centre to the place where a load acts
  // Of the case, evenly along the stretch: compression positive, moments in principal axes, the change of the shear
  // force since the place before.
  struct Sample {
    double P = 0, M1 = 0, M2 = 0, change = 0;
  };
  std::vector<Sample> samples{};
};

enum class EstimatedKind { none, flexural, torsional, flexural_torsional, lateral_torsional, combined };
struct Estimate {
  double factor = 0;  // infinity: no load factor
  EstimatedKind kind = EstimatedKind::none;
  bool bounded = true;  // false: nothing restrains the twist
};
Estimate estimate(const StretchInput& input);

}  // namespace corvex::stability
