// Stiffness of a member and its principal axes, shared by the solver and the derivation by hand.
#pragma once

#include "corvex/structure.hpp"

namespace corvex {

// Resistance of a cross-section of its material. Zero shear stiffness means: shear deformation is left out.
struct Rigidity {
  double EA = 0, EIy = 0, EIz = 0, GJ = 0, GAy = 0, GAz = 0;
  // Of unsymmetric sections: the angle by which a shear force along one principal axis shears the other direction, per
  // force (1/N).
  double coupling = 0;
};
// By how much the axes in which a member bends are turned from its local y towards z.
double principal_turn(const Structure& structure, const Member& member);
Rigidity rigidity(const Structure& structure, const Member& member);

// One over each rigidity; zero where that is none.
struct Flexibility {
  double EA = 0, EIy = 0, EIz = 0, GJ = 0, GAy = 0, GAz = 0, coupling = 0;

  Flexibility() = default;
  explicit Flexibility(const Rigidity& r);
};

// In a plane structure a member bends in the plane, however it is rolled: its axes with y in the plane, and what an end
// releases (`freed`, in the member's local axes) in these.
Axes axes_in_plane(const Structure& structure, const Member& member);
std::array<bool, 6> releases_in_plane(const Structure& structure, const Member& member,
                                      const std::array<bool, 6>& freed);

}  // namespace corvex
