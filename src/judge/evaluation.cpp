#include "corvex/evaluation.hpp"

#include <algorithm>

namespace corvex {
namespace {

void append(Problems& all, const Problems& some) {
  all.insert(all.end(), some.begin(), some.end());
}

Problems findings_of(const Evaluation& e, const EvaluationOptions& options) {
  Problems findings = options.inspected ? inspect(e.solution, options.limits).findings : e.solution.notes();
  append(findings, options.notes);
  append(findings, e.limits.notes);
  append(findings, assess(e.solution, e.limits, e.hand));
  accept(findings, options.acceptances, options.inspected);
  // An acceptance may be of what only the description shows.
  if (!options.inspected) std::erase_if(findings, [](const Problem& p) { return p.finding == "unmatched-acceptance"; });
  std::stable_sort(findings.begin(), findings.end(),
                   [](const Problem& a, const Problem& b) { return a.severity < b.severity; });
  return findings;
}

}  // namespace

Problems Evaluation::problems() const {
  if (!solution.ok()) return solution.problems();
  Problems all = refused_hand;
  append(all, refused_limits);
  return all;
}

Evaluation evaluate(Solution solution, const EvaluationOptions& options) {
  Evaluation e{.solution = std::move(solution)};
  if (!e.solution.ok()) return e;
  if (auto hand = verify(e.solution, options.hand); hand)
    e.hand = std::move(hand.value());
  else
    e.refused_hand = std::move(hand.error());
  if (auto limits = check_limits(e.solution, options.limits); limits)
    e.limits = std::move(limits.value());
  else
    e.refused_limits = std::move(limits.error());
  e.findings = findings_of(e, options);
  return e;
}

Evaluation evaluate(const Structure& structure, const EvaluationOptions& options) {
  return evaluate(solve(structure), options);
}

}  // namespace corvex
