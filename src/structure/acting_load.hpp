// Loads as they act on a member: in global axes, per length of member; changes of length and curvature as strains.
#pragma once

#include "corvex/structure.hpp"

namespace corvex {

Vector in_global_axes(const Structure& structure, const Member& member, const Vector& v, LoadAxes axes);

// Length of ground plan over length of member.
double plan_share(const Structure& structure, const Member& member);

// A force along [from, to] of a member, changing linearly, and the moment per length that its lever about the axis
// brings about (Through).
struct ActingLine {
  MemberId on;
  double from = 0, to = 0;
  Vector first, last;
  Vector first_moment{}, last_moment{};
};
ActingLine acting(const Structure& structure, const LineLoad& load);
// That of each member.
std::vector<ActingLine> acting(const Structure& structure, const SpreadLoad& load);
std::vector<ActingLine> acting(const Structure& structure, const GravityLoad& load);
// With the moment of its lever about the axis.
MemberLoad acting(const Structure& structure, const MemberLoad& load);
PointLoad acting(const Structure& structure, const PointLoad& load);

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
