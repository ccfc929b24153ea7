// Corvex: structures side by side: variants of one, or different ones.
//
//     corvex::Structure thick = trestle;
//     thick.replace_section("rail", corvex::SquareTube{.width = 60_mm, .wall = 6_mm});
//     const std::vector<corvex::Candidate> both{{.name = "original", .structure = trestle},
//                                               {.name = "thick", .structure = thick}};
//     const auto sides = corvex::compare(both);
//     fmt::print("{:.2f}\n", sides[1].mass->si() / sides[0].mass->si());   // 1.26
//
// Each is solved by itself; its figures equal those of its own solution, whatever the number of threads.
// Worst figures are those of the cases and combinations that are assessed. SI units.
//
// Threads: `compare` uses several of its own, and may be called from several at once.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/findings.hpp"
#include "corvex/hand.hpp"
#include "corvex/limits.hpp"
#include "corvex/modes.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// A figure to be shown, of one case, or of all assessed cases: then the largest by size, or what `take` names.
struct ShownFigure {
  Figure figure{};
  std::string load_case{};
};
// "moment rail max in full"
std::string words(const ShownFigure& shown);
// The values of figures; empty where the section does not define it. Refused where a figure names something that does
// not exist.
Expected<std::vector<std::optional<Quantity>>, Problems> shown_values(const Solution& solution,
                                                                      const std::vector<ShownFigure>& figures);

// The modes requested by a model as figures to be shown: its frequencies, and the smallest critical load factor of
// all assessed cases.
std::vector<ShownFigure> figures_of(const ModesOptions& modes);

struct Candidate {
  std::string name{};
  Structure structure;
  Limits limits{};
  HandCalculation hand{};
  std::vector<Acceptance> acceptances{};
  // Why it could not be read; it is not solved then.
  Problems refused{};
};

// Where a figure is worst.
struct Worst {
  Quantity value{};
  std::string on{};  // the member or point
  std::string load_case{};
  std::optional<Length> at{};  // along the member
};

struct Compared {
  std::string name{};
  Problems refused{};  // why it has no results
  std::optional<Mass> mass{};
  std::optional<Worst> displacement{}, reaction{}, sag{}, stress{}, safety{};
  LimitCheck limits{};
  Verification hand{};
  std::vector<std::optional<Quantity>> shown{};
  // Findings of `inspect` and `assess`; accepted ones are marked.
  Problems findings{};

  // Errors and warnings that are not accepted, without those that repeat the result of a limit.
  Problems warnings() const;

  // Nothing where there are none, or no results.
  std::optional<bool> limits_met() const;
  std::optional<bool> hand_agrees() const;
};

// In the order of the candidates. Refused where a figure to be shown, a limit or a hand value is not of a candidate:
// then of that candidate alone. `threads`: as many as there are processors if 0.
std::vector<Compared> compare(const std::vector<Candidate>& candidates, const std::vector<ShownFigure>& show = {},
                              unsigned threads = 0);

}  // namespace corvex

#pragma GCC visibility pop
