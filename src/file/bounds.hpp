// How large a model may be. docs/bounds.md lists these bounds; each is checked before the work that it bounds.
#pragma once

#include <cstddef>

namespace corvex::file {

inline constexpr std::size_t most_points = 500000, most_members = 500000;
// Points of one member; the work grows with their square.
inline constexpr std::size_t most_points_of_member = 2000;
// A load on a family counts once for each of its members.
inline constexpr std::size_t most_loads = 2000000;
// Number of errors that are reported; further ones are counted.
inline constexpr std::size_t most_problems = 1000;

}  // namespace corvex::file
