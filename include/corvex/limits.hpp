// Corvex: limits, and whether they are met.
//
// Each limit is held against the combinations of a structure, or its load cases where it has none, and reports the
// worst of them for every member, stretch or point that it is about.
//
//     const corvex::Limits limits{{.kind = corvex::Limit::Kind::safety, .required = 1.5},
//                                 {.kind = corvex::Limit::Kind::sag, .required = 1.0 / 300, .on = {rail}}};
//     const auto verdicts = corvex::check_limits(solution, limits);
//     const std::size_t met = verdicts->count(corvex::Verdict::State::met);
//     fmt::print("{} of {} met\n", met, verdicts->verdicts.size());   // 4 of 4 met
//
// Safety is yield (or allowable) over von Mises stress; sag is that of solution.hpp over the length of the stretch,
// judged on each stretch that the member has in some case, or between two points; of an overhang the movement of its
// tip against its root over its length. A verdict says in its note what was taken for a support. Figures are those of
// solution.hpp, as exact.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// What a limit asks for: a plain number, or a quantity. A limit of a movement with a plain number is refused.
class Required {
 public:
  Required() = default;
  Required(double number) : value_(number, dimension::number) {}  // NOLINT: meant to convert
  Required(const Quantity& quantity) : value_(quantity) {}        // NOLINT: meant to convert
  template <int L, int M, int T, int K, int A>
  Required(Measure<L, M, T, K, A> measure) : value_(measure) {}  // NOLINT: meant to convert

  const Quantity& quantity() const { return value_; }
  double si() const { return value_.si; }

 private:
  Quantity value_{};
};

struct Limit {
  // Buckling: the least load factor of each case; frequency: the lowest natural one (modes.hpp).
  enum class Kind { safety, sag, movement, buckling, frequency };
  Kind kind = Kind::safety;
  // At least (safety, buckling: a number; frequency), at most (sag over length: a number; movement: a length).
  Required required{};
  std::vector<MemberRef> on{};                           // safety, sag: all if empty
  std::vector<PointId> at{};                             // movement
  std::optional<std::pair<PointId, PointId>> between{};  // sag: from one point of a member to another
  Part part = Part::size;                                // movement: x, y, z or size
  std::vector<std::string> cases{};                      // load cases and combinations: those that are judged if empty
};
using Limits = std::vector<Limit>;

// The worst case of one limit for one member, stretch or point.
struct Verdict {
  std::size_t limit = 0;  // which of the limits
  Limit::Kind kind{};
  std::string on{};                                              // the member or point
  std::optional<std::pair<std::string, std::string>> between{};  // the points of a stretch
  std::string load_case{};
  std::optional<Quantity> value{};  // nothing: not known, or without end (a safety without stress)
  Quantity required{};
  // What could not be evaluated is not met either.
  enum class State { met, exceeded, not_checked };
  State state = State::not_checked;
  std::optional<Length> at{};  // along the member
  std::string note{};          // why a value is not known; what holds a stretch
};

struct LimitCheck {
  std::vector<Verdict> verdicts;
  Problems notes;

  std::size_t count(Verdict::State state) const;
  bool all_met() const { return count(Verdict::State::met) == verdicts.size(); }
};

// Refuses limits that name what is not there.
Expected<LimitCheck, Problems> check_limits(const Solution& solution, const Limits& limits);

}  // namespace corvex

#pragma GCC visibility pop
