// Vibration of a plane structure out of its plane, between the places that hold its members there.
#pragma once

#include "corvex/modes.hpp"

namespace corvex::stability {

// Each member as hinged beams between supports and bracing, f = π/(2 L²) √(EI/m) less shear deformation and rotary
// inertia, and in torsion between restraints of its twist, f = √(GJ/(ρ (Iy + Iz)))/(2 L). Masses at points that nothing
// holds out of the plane, or whose inertia can twist a member, are not covered.
OutOfPlaneVibration out_of_plane_vibration(const Structure& structure);

}  // namespace corvex::stability
