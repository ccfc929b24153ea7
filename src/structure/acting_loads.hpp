// How loads act on a member (corvex/acting.hpp): the parts of it that the solver uses too.
#pragma once

#include "corvex/acting.hpp"

namespace corvex {

Vector in_global_axes(const Structure& structure, const Member& member, const Vector& v, LoadAxes axes);

// Length of ground plan over length of member.
double plan_share(const Structure& structure, const Member& member);

// The forces and moments on points and on places of members alone, in the order of the loads.
std::vector<ActingForce> acting_forces(const Structure& structure, const LoadCase& loads);

// The only beam that goes through a point; nothing if there is none or more than one.
std::optional<MemberId> only_beam_at(const Structure& structure, PointId point);

}  // namespace corvex
