// Corvex: one structure with many values of one thing, or of several: figures against them.
//
//     const corvex::Sweep sweep{
//         .name = "wall",
//         .vary = {{.name = "wall", .values = {2_mm, 3_mm, 4_mm}}},
//         .show = {{.figure = {.kind = corvex::Figure::Kind::safety, .of = "all"}}}};
//     const auto runs = corvex::sweep(sweep, [&](const corvex::Picks& picks) {
//       corvex::Structure s = trestle;
//       const corvex::Length wall = corvex::Length::si(sweep.vary[0].values[picks[0]].quantity->si);
//       s.replace_section("rail", corvex::SquareTube{.width = 60_mm, .wall = wall});
//       return corvex::Candidate{.structure = s};
//     });
//     fmt::print("{:.2f} {:.2f}\n", runs->front().shown[0]->si, runs->back().shown[0]->si);   // 1.54 2.62
//
// Each run is solved by itself; its figures equal those of its own solution. Figures without a case are the
// worst of the cases and combinations that are assessed. SI units.
//
// Threads: `sweep` uses several of its own and calls `build` from them; the result does not depend on their number.
// It may be called from several threads at once.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "corvex/compare.hpp"
#include "corvex/expected.hpp"
#include "corvex/limits.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// Value of a varied parameter: a quantity, or words such as the designation of a profile.
struct SweptValue {
  std::string words{};
  std::optional<Quantity> quantity{};

  SweptValue() = default;
  SweptValue(std::string text) : words(std::move(text)) {}  // NOLINT: meant to convert
  SweptValue(const char* text) : words(text) {}             // NOLINT: meant to convert
  SweptValue(const Quantity& q) : quantity(q) {}            // NOLINT: meant to convert
  template <int L, int M, int T, int K, int A>
  SweptValue(Measure<L, M, T, K, A> m) : quantity(Quantity(m)) {}  // NOLINT: meant to convert
};

struct Varied {
  std::string name{};  // "wall", "/sections/rail"
  std::vector<SweptValue> values{};
  // The unit in which the values are printed, and its SI value; that of the model where it is empty.
  std::string unit{};
  double unit_si = 1;

  // Every value is a quantity.
  bool is_number() const;
};

struct Sweep {
  std::string name{};
  std::vector<Varied> vary{};
  // The first values of all, then the second ones, and so on; else every combination, the last one changing fastest.
  bool together = false;
  std::vector<ShownFigure> show{};
};

// Of each thing that is varied the number of the value that it takes.
using Picks = std::vector<std::size_t>;

inline constexpr std::size_t most_sweep_runs = 100000;
// Error in the sweep: nothing to vary, no values, a different number of values where all change together, more than
// `most_sweep_runs` runs.
Problems check(const Sweep& sweep);
// Of a sweep without faults.
std::size_t run_count(const Sweep& sweep);
Picks picks_of(const Sweep& sweep, std::size_t run);

struct SweepRun {
  Picks picks{};
  Problems refused{};                            // why it has no results
  std::vector<std::optional<Quantity>> shown{};  // empty if the section does not define it
  // Limits of the run for each figure shown: a minimum safety factor, a displacement or sag at most.
  std::vector<std::optional<Quantity>> required{};
  std::optional<bool> limits_met{};   // nothing where there are none, or no results
  Problems warnings{};                // of the solution and its results, not accepted
  std::optional<Verdict> exceeded{};  // of the limits that are not met the one that is furthest from it
};

struct SweepOptions {
  unsigned threads = 0;  // as many as there are processors if 0
  // Told now and then how many runs are done, from one thread at a time.
  std::function<void(std::size_t)> progress{};
};

// In the order of the runs. Refused where check() tells why; a run that cannot be solved reports it, and the others
// remain valid.
Expected<std::vector<SweepRun>, Problems> sweep(const Sweep& sweep, const std::function<Candidate(const Picks&)>& build,
                                                const SweepOptions& options = {});

}  // namespace corvex

#pragma GCC visibility pop
