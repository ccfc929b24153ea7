// Limits of buckling: all that stability takes, or not checked.

#include "corvex/number.hpp"
#include "judge/limit_evaluation.hpp"
#include "stability/snap.hpp"
#include "structure/combined.hpp"

namespace corvex::judging {
namespace {

class BucklingLimit : public LimitEvaluation {
 public:
  BucklingLimit(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases)
      : LimitEvaluation(checks, limit, cases) {}
  // Everything that stability takes, in each case: bending of the structure by its linear load factor, torsional and
  // lateral buckling of members by estimates, snap-through by large displacements. The limit is met where all of it was
  // examined and stays above the required factor.
  void run();

 private:
  void snap_through(const std::vector<CaseBuckling>& all, double required, Verdict& v, std::string& uncovered,
                    std::string& uncovered_case);
  Solution solution_of_first_order() const;
};

void BucklingLimit::run() {
  Verdict v{.on = "the structure", .state = Verdict::State::met};
  if (!l_.on.empty()) {
    v.state = Verdict::State::not_checked;
    v.note = "load factors are those of the structure: omit 'on'";
    return add(std::move(v));
  }
  ModesOptions options;
  for (const std::size_t c : cases_)
    if (solution_.base_of(c) == c) options.buckling.emplace_back(solution_[c].name(), 1);
  const auto found = modes(solution_, options);
  if (!found) return not_known(found.error());
  const double required = l_.required.si();
  std::string uncovered, uncovered_case;
  for (const CaseBuckling& one : found->buckling) {
    if (v.load_case.empty()) v.load_case = one.load_case;
    if (!one.estimates.not_checked.empty() && uncovered.empty()) {
      uncovered = words_of(one.estimates.not_checked);
      uncovered_case = one.load_case;
    }
    const auto lowest = one.lowest();
    if (!lowest || (v.value && !is_less(*lowest, v.value->si))) continue;
    v.value = Quantity(*lowest, dimension::number);
    v.load_case = one.load_case;
    v.state = met_if(*lowest >= required);
    v.note = one.governing(s_);
    if (one.if_all_acted)
      v.note += fmt::format("; {} if the untensioned members acted too", short_number(*one.if_all_acted, 4));
  }
  // An exceeded limit needs no further check.
  if (v.state == Verdict::State::met) snap_through(found->buckling, required, v, uncovered, uncovered_case);
  if (v.state == Verdict::State::met && !uncovered.empty()) {
    v.state = Verdict::State::not_checked;
    v.load_case = uncovered_case;
    // A factor that leaves a part out is not the value of this limit.
    v.note = uncovered;
    if (v.value) v.note += fmt::format("; covered part: {}", short_number(v.value->si, 4));
    v.value.reset();
  }
  add(std::move(v));
}

void BucklingLimit::snap_through(const std::vector<CaseBuckling>& all, double required, Verdict& v,
                                 std::string& uncovered, std::string& uncovered_case) {
  const auto first_order = solution_of_first_order();
  for (const CaseBuckling& one : all) {
    if (one.modes.empty()) continue;
    const auto large =
        stability::stable_with_large_displacements(first_order, one.load_case, required, one.modes.front().factor);
    if (large.examined && large.stable && one.load_case == v.load_case && large.computed)
      v.note += fmt::format("{}stable with large displacements at {} times the loads", v.note.empty() ? "" : "; ",
                            short_number(required, 4));
    if (!large.examined) {
      if (uncovered.empty()) uncovered = large.reason, uncovered_case = one.load_case;
      continue;
    }
    if (large.stable) continue;
    v.state = Verdict::State::exceeded;
    v.value = Quantity(large.reached * required, dimension::number);
    v.load_case = one.load_case;
    v.note = "snap-through or buckling with large displacements";
    return;
  }
}

Solution BucklingLimit::solution_of_first_order() const {
  if (s_.analysis().order == Order::first) return solution_;
  return solve(at_first_order(s_));
}

}  // namespace

void check_buckling(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases) {
  BucklingLimit(checks, limit, cases).run();
}

}  // namespace corvex::judging
