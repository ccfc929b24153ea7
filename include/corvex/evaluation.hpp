// Corvex: the evaluation of a structure: solution, limits, hand values and findings together.
//
//     const corvex::Limits safe{{.kind = corvex::Limit::Kind::safety, .required = 1.5}};
//     const corvex::Evaluation all = corvex::evaluate(trestle, {.limits = safe});
//     for (const corvex::Problem& p : all.problems()) fmt::print("{}\n", describe(p));
//     fmt::print("{}\n", all.passes() ? "passes" : "does not pass");   // passes
//
// Everything that shows results takes an evaluation. A structure that cannot be solved, and a limit or a hand value
// that names what the structure does not have, are values in it: nothing throws.
//
// Threads: `evaluate` may be called from several threads at once; an evaluation is constant.
#pragma once

#include <vector>

#include "corvex/findings.hpp"
#include "corvex/hand.hpp"
#include "corvex/limits.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct EvaluationOptions {
  Limits limits{};
  HandCalculation hand{};
  std::vector<Acceptance> acceptances{};
  // Findings about where the description comes from, as a file; they are accepted and sorted with the others.
  Problems notes{};
  // Whether the description is inspected too. Many runs of one description need that once.
  bool inspected = true;
};

struct Evaluation {
  Solution solution{};
  // Without verdicts, or comparisons, where there are none, or where the problems below say why not.
  LimitCheck limits{};
  Verification hand{};
  // Hand values, and limits, that name what the structure does not have.
  Problems refused_hand{}, refused_limits{};
  // Of the description, the solution, the limits and the results, errors first; accepted ones are marked.
  Problems findings{};

  // Whether there is a solution, and every limit and hand value could be evaluated.
  bool ok() const { return solution.ok() && refused_hand.empty() && refused_limits.empty(); }
  // Why it is not ok: of the solution, else of the hand values and the limits. Empty if it is ok.
  Problems problems() const;
  // Whether it is ok, every limit is met and every hand value agrees; true where there are none of either. Findings
  // have no influence.
  bool passes() const { return ok() && limits.all_met() && hand.all_agree(); }
};

[[nodiscard]] Evaluation evaluate(const Structure& structure, const EvaluationOptions& options = {});
// Of a structure that was solved already.
[[nodiscard]] Evaluation evaluate(Solution solution, const EvaluationOptions& options = {});

}  // namespace corvex

#pragma GCC visibility pop
