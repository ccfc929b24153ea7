// Corvex: one member read from place to place.
//
//     const corvex::MemberResult member = solution["product"][rail];
//     for (const corvex::TracePlace& p : corvex::extreme_places(member))
//       if (p.is_extreme_of("moment_z")) fmt::print("{:.2f} m, ", p.at.in(corvex::units::m));
//     fmt::print("{} places\n", corvex::even_places(member, 5).size());   // 0.00 m, 1.20 m, 6 places
//
// Places count from the member's start. Where a force or moment acts the internal forces jump: such a place is given
// twice, before and after. Values there are those of `MemberResult::at`, exact as the diagrams are.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct TracePlace {
  Length at;
  Side side = Side::after;
  // The figures that are largest or least here, by their names in the results: "moment_z", "max"; or "zero", where a
  // bending moment changes its sign.
  std::vector<std::pair<std::string, std::string>> extremes{};

  bool is_extreme_of(std::string_view figure) const;
};

// Both ends, every place where an internal force, a deflection or the sag is largest or least, where a bending moment
// passes through zero, the points of the member, and where a load acts, begins or ends.
std::vector<TracePlace> extreme_places(const MemberResult& member);
// The same of the envelope: a figure counts where it is largest or least over all assessed cases.
std::vector<TracePlace> extreme_places(const Solution& solution, const MemberRef& member);
inline constexpr int most_places = 100'000;
// So many places evenly from end to end, 2 to `most_places`; others throw std::invalid_argument. Where a quantity
// jumps, there are two places: before and after.
std::vector<TracePlace> even_places(const MemberResult& member, int count);
// One place: before and after a jump, once where there is none.
std::vector<TracePlace> places_at(const MemberResult& member, Length at);
// Before and after where it jumps in any assessed case.
std::vector<TracePlace> places_at(const Solution& solution, const MemberRef& member, Length at);

}  // namespace corvex

#pragma GCC visibility pop
