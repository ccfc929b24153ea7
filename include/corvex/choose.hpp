// Corvex: the lightest listed sections with which a structure meets every limit.
//
//     corvex::Choosing wanted{.groups = {{.section = "rail", .from = corvex::profiles_of("SHS")}},
//                             .limits = {{.kind = corvex::Limit::Kind::safety, .required = 1.5}}};
//     const auto choice = corvex::choose(trestle, wanted);
//     fmt::print("{} found, {}\n", choice->found.size(), choice->proven);   // 4 found, true
//
// Choices are tried in the order of their mass, so that the first one that holds is the lightest: no other way of
// searching is trusted, since a heavier section may be the weaker one. A limit holds where check_limits says that it is
// met in every case that it looks at. Stress beyond the strength, compression above the Euler force and a load factor
// below 1 count as not met, whatever the limits ask for.
//
// Threads: `choose` uses several of its own, and may be called from several at once. The result does not depend on
// their number.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "corvex/catalogue.hpp"
#include "corvex/expected.hpp"
#include "corvex/limits.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// A section of the structure, and what it may be.
struct ChoiceGroup {
  std::string section{};
  std::vector<Profile> from{};
};

struct Choosing {
  std::vector<ChoiceGroup> groups{};
  Limits limits{};
  // The next best choices that are looked for when the lightest is found.
  std::size_t runners_up = 3;
  // At most so many choices are tried.
  std::size_t most_tried = 200000;
  unsigned threads = 0;  // as many as there are processors if 0
  // Asked before each choice, from several threads: the search ends where it says yes.
  std::function<bool()> stop{};
  // Told now and then how many were tried, from one thread at a time.
  std::function<void(std::size_t)> progress{};
};

struct FoundChoice {
  std::vector<std::string> designations{};  // of each group
  Mass mass;                                // of the whole structure
  // Warnings of its solution and results. None is beyond its strength or Euler's force: such choices are not proposed.
  Problems warnings{};
};

struct SectionChoice {
  // The lightest first, then the runners-up by mass; empty where no choice holds, or none was found.
  std::vector<FoundChoice> found{};
  // Every lighter choice was tried and does not hold; or, where none was found, every choice.
  bool proven = false;
  std::size_t tried = 0, possible = 0;
};

// Refused if no limit is given, a limit cannot be checked, a section is not one of the structure's, a list is empty,
// a material has no density, or there are more than ten million choices.
Expected<SectionChoice, Problems> choose(const Structure& structure, const Choosing& wanted);

}  // namespace corvex

#pragma GCC visibility pop
