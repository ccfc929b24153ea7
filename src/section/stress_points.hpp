// Where stress is evaluated on a section, and the shear stress there.
#pragma once

#include "corvex/section.hpp"
#include "section/warping.hpp"

namespace corvex::section {

StressMap ring_map(double outside_radius, double inside_radius, const SectionProperties& p);
StressMap bar_map(double height, double width);
// Of any outline: its convex corners and arcs, where it crosses the axes of the centroid, where each shear stress is
// largest, and the foot of each fillet. Notches are left out: in a sharp re-entrant corner the shear stress of the
// theory has no bound, and in a fillet it depends on the radius more than on the section.
StressMap outline_map(const Warping& warping, const SectionProperties& p);

// T over the largest shear stress of torsion at the points; zero where it brings about none.
SectionModulus torsion_modulus(const StressMap& map);

}  // namespace corvex::section
