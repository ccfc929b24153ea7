// Corvex: limits, and whether they are met.
//
// Each limit is evaluated for the combinations of a structure, or its load cases where it has none, and reports the
// worst of them for every member, stretch or point that it is about.
//
//     const corvex::Limits limits{{.kind = corvex::Limit::Kind::safety, .required = 1.5},
//                                 {.kind = corvex::Limit::Kind::sag, .required = 1.0 / 300, .on = {rail}}};
//     const auto verdicts = corvex::check_limits(solution, limits);
//     const std::size_t met = verdicts->count(corvex::Verdict::State::met);
//     fmt::print("{} of {} met\n", met, verdicts->verdicts.size());   // 4 of 4 met
//
// A limit is met only if everything that it covers was computed; else it is not checked, with the reason and a remedy,
// and that is not met.
// - Safety is yield (or allowable) over von Mises stress, of the whole member or at places.
// - Sag is the worst reading of the deflection (MemberResult::stretches) over its length, or as a length; or the
//   distance from the chord between two points.
// - Drift is the difference of the displacements across a member over the distance of its points.
// - Buckling covers bending of the structure (linear load factor), torsional, flexural-torsional and lateral torsional
//   buckling of members and buckling out of a plane structure (estimates of stability.hpp), and snap-through (a stable
//   equilibrium with large displacements under the required multiple of the loads). The lowest factor governs; the note
//   says which it is.
// - Frequency is the lowest natural one, at least; or no natural frequency lies within a band. In a plane structure it
//   covers vibration out of the plane between bracing and supports.
// - Figure is any figure of hand.hpp, at most or at least.
// - Range is the largest change of the normal stress of a section between two cases, at a place.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/hand.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// The value required by a limit: a plain number, or a quantity. A limit of a movement with a plain number is refused.
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

// A distance from the member's first point, or a share of its length.
struct PlaceAlong {
  double value = 0;  // m, or from 0 to 1
  bool is_share = false;
};

struct Limit {
  enum class Kind { safety, sag, movement, buckling, frequency, drift, figure, range };
  Kind kind = Kind::safety;
  // At least (safety, buckling: a number; frequency); at most (sag, drift: a number, over the length, or a length;
  // movement: a length; range: a stress); figure: what it is, at most unless `at_least`.
  Required required{};
  std::vector<MemberRef> on{};                           // safety, sag, drift: all if empty; range: one
  std::vector<PointId> at{};                             // movement; safety, range: points of the members
  std::optional<PlaceAlong> place{};                     // safety, range: a place along the members
  std::optional<std::pair<PointId, PointId>> between{};  // sag: from one point of a member to another
  Part part = Part::size;                                // movement: x, y, z or size
  std::optional<Quantity> band_end{};                    // frequency: none from `required` to this
  std::optional<Figure> figure{};
  bool at_least = false;
  std::pair<std::string, std::string> range_of{};  // the two cases of a range
  std::vector<std::string> cases{};                // load cases and combinations: all assessed ones if empty
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
  std::optional<Quantity> band_end{};
  bool at_least = false;  // the value is to be at least what is required, else at most
  std::string what{};     // the limit in words: "safety", "stress rail at 1.2 m"
  // A limit that could not be evaluated is not met either.
  enum class State { met, exceeded, not_checked };
  State state = State::not_checked;
  std::optional<Length> at{};  // along the member
  std::string note{};          // why a value is not known; what governs
};

// Utilisation: required over value, or value over required: beyond 1 it is exceeded. 0 where there is no value.
double utilisation(const Verdict& verdict);
// Of the model file: "safety"; "figure" and "range" have no word of their own.
const char* words(Limit::Kind kind);

struct LimitCheck {
  std::vector<Verdict> verdicts;
  Problems notes;

  std::size_t count(Verdict::State state) const;
  bool all_met() const { return count(Verdict::State::met) == verdicts.size(); }
};

// Refuses limits that name what is not there, and a refused solution with its problems.
Expected<LimitCheck, Problems> check_limits(const Solution& solution, const Limits& limits);

}  // namespace corvex

#pragma GCC visibility pop
