// The kinds of limits in one table: their words, what they ask for, and how they are evaluated.
#pragma once

#include <string_view>
#include <vector>

#include "corvex/limits.hpp"

#pragma GCC visibility push(default)

namespace corvex::judging {

struct LimitChecks;

struct LimitKind {
  // How values are written: as a number, as a share of a length (1/300), or with three digits.
  enum class Written { number, share, three_digits };

  Limit::Kind kind;
  const char* words;
  // Its key in the model file; null where `most` or `least` shows what it is.
  const char* key;
  // The keys that go with it.
  std::vector<std::string_view> with;
  // Of what is required; any of these. None where the figure decides.
  std::vector<Dimension> dimensions;
  bool at_least;
  Written written;
  void (*evaluate)(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases);
};

// In the order of Limit::Kind.
const std::vector<LimitKind>& limit_kinds();
// Throws std::out_of_range for a number that is none of them.
const LimitKind& kind_of(Limit::Kind kind);

}  // namespace corvex::judging

#pragma GCC visibility pop
