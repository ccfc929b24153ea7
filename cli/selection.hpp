// What of the results is shown: cases, members and points by name.
#pragma once

#include <string>
#include <vector>

#include "corvex/file.hpp"

namespace corvex::cli {

struct Selection {
  std::vector<std::size_t> cases;
  // Whether members (points) are shown at all, and which.
  std::vector<bool> members, points;
  bool some_members = true, some_points = true;
  // Nothing was chosen by name: the limits, sums and hand calculation are shown too.
  bool whole = true;
  // Tables whole and in the order of the model; else short, what governs first.
  bool all = false;
};

// How many rows short tables have.
inline constexpr std::size_t short_members = 6, short_points = 8;

struct Wanted {
  std::vector<std::string> cases{}, members{}, points{};
  bool all = false;
};

// All that is judged where nothing is named; members alone, or points alone, leave the other tables out. A name stands
// for a whole family too. The reason where a name is not known.
Expected<Selection, std::string> select(const Solution& solution, const Wanted& wanted);

}  // namespace corvex::cli
