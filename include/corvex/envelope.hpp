// Corvex: the envelope of a structure's combinations (or of its load cases, where it has none): of every figure the
// largest and the least value, its place, and the case that governs.
//
//     const corvex::GoverningExtreme most = corvex::envelope(solution, rail).moment_z.max;
//     fmt::print("{} in {}\n", corvex::to_text(most.value, 4), most.load_case);   // 1458 N·m in product
//     const corvex::Range there = corvex::envelope_at(solution, rail, 0.3_m).moment_z;
//     fmt::print("{} in {}\n", corvex::to_text(there.min.value, 3), there.min.load_case);   // -306 N·m in product
//
// Stress is the worst of each case, never built from forces of different ones. Of equal values the first case is named.
// Signs, places and accuracy are those of solution.hpp and diagram.hpp.
#pragma once

#include <array>
#include <string>

#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct GoverningExtreme {
  Quantity value;
  Length at;  // along the member
  std::string load_case;
};
struct Range {
  GoverningExtreme max, min;
};
struct GoverningStress {
  std::optional<StressExtreme> stress;
  std::string load_case;
};

struct MemberEnvelope {
  Range axial, shear_y, shear_z, torsion, moment_y, moment_z, deflection_y, deflection_z;
  GoverningExtreme sag;
  GoverningStress max_stress, min_stress, von_mises;
  // Of the worst von Mises stress.
  std::optional<double> safety;
};
MemberEnvelope envelope(const Solution& solution, const MemberRef& member);

// Whether in any assessed case the stress of restrained warping, which is not computed, could govern.
bool leaves_out_warping(const Solution& solution, const MemberRef& member);

// The same at one place of the member, with the stress of the section there.
struct SectionEnvelope {
  Range axial, shear_y, shear_z, torsion, moment_y, moment_z, deflection_y, deflection_z, x, y, z;
  GoverningStress max_stress, min_stress, von_mises;
};
SectionEnvelope envelope_at(const Solution& solution, const MemberRef& member, Length place, Side side = Side::after);

// Of the assessed cases, the one that comes nearest to the strength of a material; where no strength is known,
// the one with the largest stress, and where there is no stress the one with the largest displacement. Of equal ones
// the first. Of one member, or of all.
std::size_t governing_case(const Solution& solution);
std::size_t governing_case(const Solution& solution, const MemberRef& member);

// Six components: x y z, then about x y z.
std::array<Range, 6> displacement_envelope(const Solution& solution, PointId point);
std::array<Range, 6> reaction_envelope(const Solution& solution, PointId point);

}  // namespace corvex

#pragma GCC visibility pop
