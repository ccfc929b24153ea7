// Limits of any figure of hand.hpp.

#include "hand/work_out.hpp"
#include "judge/limit_evaluation.hpp"

namespace corvex::judging {
namespace {

class FigureLimit : public LimitEvaluation {
 public:
  FigureLimit(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases)
      : LimitEvaluation(checks, limit, cases) {}
  void run();
};

void FigureLimit::run() {
  Figure f = *l_.figure;
  // Without a part of the diagram named: the largest by size against a most, the least against a least.
  if (f.take == Take::extreme && !f.at) f.take = l_.at_least ? Take::min : Take::size;
  HandCalculation asked;
  asked.expect.push_back({.figure = f, .is = Quantity(1, hand::dimension_of(f)), .within = 1.0});
  asked.expect.back().within = Quantity(1, hand::dimension_of(f));
  const bool of_case = hand::is_of_case(f.kind);
  if (of_case && !cases_.empty()) asked.expect.back().load_case = solution_[cases_.front()].name();
  const auto worked = hand::work_out(s_, asked);
  if (!worked) {
    for (const Problem& p : worked.error()) fail(p.text, p.key);
    return;
  }
  Verdict v{.on = f.of.empty() ? "the structure" : f.of, .what = hand::words(*l_.figure)};
  const std::vector<std::size_t> looked = of_case ? cases_ : std::vector<std::size_t>{0};
  for (const std::size_t c : looked) {
    const auto value = hand::computed(solution_, c, f, worked->expectations.front().target, 0);
    if (!value) {
      v.value.reset();
      v.load_case = of_case ? solution_[c].name() : "";
      v.note = "this figure is not known";
      break;
    }
    if (v.value && !(l_.at_least ? value->si < v.value->si : value->si > v.value->si)) continue;
    v.value = *value;
    v.load_case = of_case ? solution_[c].name() : "";
  }
  if (v.value) v.state = met_if(l_.at_least ? v.value->si >= l_.required.si() : v.value->si <= l_.required.si());
  add(std::move(v));
}

}  // namespace

void check_figure(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases) {
  FigureLimit(checks, limit, cases).run();
}

}  // namespace corvex::judging
