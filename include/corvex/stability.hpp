// Corvex: torsional, flexural-torsional and lateral torsional buckling of members, estimated.
//
// The linear load factors of modes.hpp are those of bending about both axes. Torsional, flexural-torsional and lateral
// torsional buckling of a member, and in a plane structure every kind of buckling out of the plane, are estimated here
// by closed forms with the torsion constant, the warping constant, the shear centre, r0 and Wagner's coefficient of the
// section. The estimate is a lower bound of the load factor (derivation: docs/theory.md, "Member buckling"), between
// the places that restrain the twist of the member. Moment diagrams are used exactly, axial force and moments act
// together. A load acts at the place of the section that the model gives, the shear centre by default.
//
// Restraints: in space what the structure itself resists a twist with at each point of the member, and bracing; in a
// plane structure supports that hold a displacement (hinged out of the plane) and bracing, and nothing else.
//
//     const auto estimates = corvex::member_buckling(corvex::solve(trestle), "product");
//     fmt::print("{} not covered\n", estimates.not_checked.size());   // 3 not covered
//
// SI units. Threads: may be called from several at once.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

enum class BucklingKind { flexural, torsional, flexural_torsional, lateral_torsional, combined };
// "lateral torsional buckling".
const char* words(BucklingKind kind);

// Of a member its lowest estimated load factor: the loads of the case times this.
struct MemberBuckling {
  MemberId member;
  Length from, to;          // between places that restrain its twist
  std::string first, last;  // the points there
  BucklingKind kind{};
  double factor = 0;          // greater than 0
  bool out_of_plane = false;  // of a plane structure
};
// "lateral torsional buckling of 'beam' between 'A' and 'B' (estimated)".
std::string words(const Structure& structure, const MemberBuckling& member, bool estimated = true);
// A member in compression or bending that no closed form covers.
struct UncoveredMember {
  MemberId member;
  std::string reason;  // "its end at B is not restrained out of the plane"
  std::string remedy;
};
struct MemberEstimates {
  std::vector<MemberBuckling> members{};  // by their factors, the lowest first
  std::vector<UncoveredMember> not_checked{};
};

// Of a case or combination, at first order. `linear`: its linear load factor where it is known, which bounds what
// bending alone does; infinity where nothing buckles by bending. Throws std::out_of_range for an unknown case.
MemberEstimates member_buckling(const Solution& solution, std::string_view load_case, double linear = 0);

}  // namespace corvex

#pragma GCC visibility pop
