#include "findings.hpp"

#include <algorithm>
#include <set>

namespace corvex::cli {
namespace {

bool is_quiet(const Problem& p) {
  static const std::set<std::string> for_inspect = {"crossing",        "weak-axis-up",      "no-combination",
                                                    "unused-section",  "unused-material",   "unused-parameter",
                                                    "load-on-support", "unsymmetric-answer"};
  static const std::set<std::string> told_elsewhere = {"limit-exceeded", "hand-factor", "hand-shear"};
  if (p.is_accepted() || told_elsewhere.contains(p.finding)) return true;
  return p.severity == Problem::Severity::note && for_inspect.contains(p.finding);
}

}  // namespace

void tell_briefly(const Problems& findings, const std::string& model) {
  constexpr std::size_t most = 12;
  std::size_t told = 0, left = 0;
  for (const Problem& p : findings) {
    if (is_quiet(p)) continue;
    if (told < most)
      tell(p), ++told;
    else
      ++left;
  }
  if (left > 0) say("and {} more: corvex inspect {}\n", left, model == "-" ? "MODEL" : model);
}

void tell_failures(const LimitCheck& limits, const Verification& hand, const ModelUnits& units) {
  for (const Verdict& v : limits.verdicts)
    if (v.state != Verdict::State::met) tell_failure(verdict_in_words(v, units));
  for (const Comparison& c : hand.comparisons)
    if (!c.agrees) tell_failure(comparison_in_words(c, units));
}

int refuse(const Model& model, const Problems& problems) {
  const Problems with = model.located(with_remedies(model.structure, problems));
  std::string last;
  for (const Problem& p : with) {
    tell(p);
    last = p.remedy.empty() ? last : p.remedy;
  }
  if (!last.empty()) say("  remedy: {}\n", last);
  // A post that only touches its rail, or a coordinate in another unit, is often why.
  Problems causes = inspect_description(model.structure, model.limits).findings;
  causes.insert(causes.end(), model.notes.begin(), model.notes.end());
  accept(causes, model.acceptances, false);
  const auto is_reported = [&](const Problem& p) {
    return std::any_of(problems.begin(), problems.end(), [&](const Problem& told) { return told.text == p.text; });
  };
  std::erase_if(causes, [&](const Problem& p) { return p.finding.empty() || is_reported(p); });
  std::stable_sort(causes.begin(), causes.end(),
                   [](const Problem& a, const Problem& b) { return a.severity < b.severity; });
  tell_briefly(model.located(std::move(causes)), model.file);
  return refused;
}

}  // namespace corvex::cli
