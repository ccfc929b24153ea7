// Corvex: loads as they act, supports as they hold, sections as they are drawn: for programs that show a structure.
//
//     const corvex::Structure& s = solution.structure();
//     for (const corvex::Load& load : s.load_cases()[0].loads())
//       if (const auto* line = std::get_if<corvex::LineLoad>(&load)) {
//         const corvex::ActingLine acts = acting(s, *line);
//         fmt::print("{} from {} m to {} m\n", acts.first.y, acts.from, acts.to);   // -800 from 0 m to 2.4 m
//       }
//
// Global axes, right-handed; SI units: m, N, N·m, N/m. Of a sound structure only (`validate`). Threads: every function
// may be called from several threads at once.
#pragma once

#include <vector>

#include "corvex/structure.hpp"

#pragma GCC visibility push(default)

namespace corvex {

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

// Square axes, of which the first `count` are held: they span all directions that the support names. Where these are
// global axes, so are all three.
struct HeldAxes {
  Axes axes{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
  int count = 0;
  bool skew = false;  // else the global axes are held as `PointSupport::held` says, and `axes`, `count` are not used
};
HeldAxes held_axes(const Structure& structure, const PointSupport& support);

// The outline of a section and its holes as polygons about the centroid, each arc cut into this many pieces; the outer
// one runs counter-clockwise. Empty for given properties.
std::vector<std::vector<Outline::Point>> outline_polygons(const Section& section, int pieces_of_arc = 16);

}  // namespace corvex

#pragma GCC visibility pop
