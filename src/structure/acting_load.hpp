// Loads as they act on a member: in global axes, per length of member; changes of length and curvature as strains.
#pragma once

#include "corvex/acting.hpp"

namespace corvex {

Vector in_global_axes(const Structure& structure, const Member& member, const Vector& v, LoadAxes axes);

// Length of ground plan over length of member.
double plan_share(const Structure& structure, const Member& member);

// The only beam that goes through a point; nothing if there is none or more than one.
std::optional<MemberId> only_beam_at(const Structure& structure, PointId point);

// What a free member does by itself, the same all along: elongation per length, and the slope per length that its axis
// takes in the local x–y and x–z planes (positive: it sags).
struct FreeStrain {
  double along = 0, curve_y = 0, curve_z = 0;
};
FreeStrain free_strain(const Structure& structure, const HeatLoad& load);
FreeStrain free_strain(const Structure& structure, const ShortenLoad& load);

}  // namespace corvex
