// Checks of a description without solving: each check is one small function.
#pragma once

#include "corvex/structure.hpp"

namespace corvex {

// Beyond these a figure is a slip of a unit or an exponent, and products of several would leave the range of
// numbers.
inline constexpr double longest = 1e6, shortest = 1e-6;  // m
inline constexpr double stiffest = 1e20, softest = 1;    // Pa
inline constexpr double densest = 1e6;                   // kg/m³; platinum has 2e4
inline constexpr double most_expansion = 1;              // 1/K
inline constexpr double heaviest = 1e30;                 // N, N·m, N/m, m/s²
inline constexpr std::size_t longest_name = 200;         // bytes

// Whether one of them is an error, not a warning or a note.
bool has_errors(const Problems& problems);

// The errors among what `validate` reports.
Problems errors_of(const Structure& structure);

// Whether every member has a section and points of the structure.
bool is_whole(const Structure& structure);

void check_members(const Structure& structure, Problems& problems);
void check_supports(const Structure& structure, Problems& problems);
void check_loads(const Structure& structure, Problems& problems);

// In a plane structure: rolled by an odd number of quarter turns; rolled by something else.
bool bends_about_y(const Member& member);
bool leaves_plane(const Member& member);

// Context shared by the checks.
class Checks {
 public:
  Checks(const Structure& s, Problems& problems) : s_(s), problems_(problems) {}

 protected:
  using Kind = Subject::Kind;

  void add(std::string text, Subject subject, std::string key = {}) {
    problems_.push_back({std::move(text), std::move(subject), std::move(key)});
  }

  const Structure& s_;
  Problems& problems_;
};

}  // namespace corvex
