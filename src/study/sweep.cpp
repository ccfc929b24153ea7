#include "corvex/sweep.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/evaluation.hpp"
#include "corvex/number.hpp"
#include "study/at_once.hpp"

namespace corvex {

bool Varied::is_number() const {
  return !values.empty() &&
         std::all_of(values.begin(), values.end(), [](const SweptValue& v) { return v.quantity.has_value(); });
}

namespace {

Problem sweep_fault(std::string text) {
  Problem p;
  p.text = std::move(text);
  p.key = "sweeps";
  return p;
}

// In floating point, which does not run over.
double possible_runs(const Sweep& s) {
  double runs = 1;
  for (const Varied& v : s.vary) {
    const auto count = static_cast<double>(v.values.size());
    runs = s.together ? count : runs * count;
  }
  return runs;
}

}  // namespace

Problems check(const Sweep& s) {
  Problems problems;
  if (s.vary.empty()) problems.push_back(sweep_fault("there is nothing to vary"));
  for (const Varied& v : s.vary) {
    if (v.values.empty())
      problems.push_back(sweep_fault(fmt::format("'{}' is to be varied but has no values", v.name)));
    if (s.together && v.values.size() != s.vary.front().values.size())
      problems.push_back(
          sweep_fault(fmt::format("values that change together are as many: '{}' has {} and '{}' has {}",
                                  s.vary.front().name, s.vary.front().values.size(), v.name, v.values.size())));
    if (!v.is_number()) continue;
    const Dimension& kind = v.values.front().quantity->dimension;
    const auto other = std::find_if(v.values.begin(), v.values.end(),
                                    [&](const SweptValue& value) { return value.quantity->dimension != kind; });
    if (other != v.values.end())
      problems.push_back(sweep_fault(fmt::format("the values of '{}' are of different kinds: {} and {}", v.name,
                                                 name(kind), name(other->quantity->dimension))));
  }
  if (const double runs = possible_runs(s); problems.empty() && runs > static_cast<double>(most_sweep_runs))
    problems.push_back(sweep_fault(fmt::format("{} combinations are more than can be solved ({}): give fewer values",
                                               short_number(runs, 3), most_sweep_runs)));
  return problems;
}

std::size_t run_count(const Sweep& s) {
  return static_cast<std::size_t>(possible_runs(s));
}

Picks picks_of(const Sweep& s, std::size_t run) {
  Picks picks(s.vary.size(), run);
  if (s.together) return picks;
  for (std::size_t i = s.vary.size(); i-- > 0;) {
    picks[i] = run % s.vary[i].values.size();
    run /= s.vary[i].values.size();
  }
  return picks;
}

namespace {

// The requirement of a limit on the same figure of the same object.
std::optional<Quantity> required_of(const ShownFigure& shown, const Limit& l, const Structure& s) {
  const Figure& f = shown.figure;
  const auto of_member = [&] {
    const auto is_named = [&](const MemberRef& m) { return s[s.at(m)].name == f.of; };
    return l.on.empty() || std::any_of(l.on.begin(), l.on.end(), is_named);
  };
  if (!l.cases.empty() && std::find(l.cases.begin(), l.cases.end(), shown.load_case) == l.cases.end()) return {};
  if (f.at) return {};
  if (f.kind == Figure::Kind::safety && l.kind == Limit::Kind::safety && of_member()) return l.required.quantity();
  if (f.kind == Figure::Kind::displacement && l.kind == Limit::Kind::movement && f.part == l.part)
    for (const PointId p : l.at)
      if (s[p].name == f.of) return l.required.quantity();
  // Between supports a limit looks at each stretch; the whole length is one where nothing is between its ends.
  if (f.kind == Figure::Kind::sag && l.kind == Limit::Kind::sag && !l.between && of_member())
    if (const auto m = s.find_member(f.of); m && s[*m].through.size() == 2)
      return l.required.quantity().dimension == dimension::length
                 ? l.required.quantity()
                 : Quantity(l.required.si() * s.length_of(s[*m]), dimension::length);
  return {};
}

// The strictest of all limits.
std::optional<Quantity> required_of(const ShownFigure& shown, const Limits& limits, const Structure& s) {
  std::optional<Quantity> strictest;
  const bool at_least = shown.figure.kind == Figure::Kind::safety;
  for (const Limit& l : limits)
    if (const auto q = required_of(shown, l, s);
        q && (!strictest || (at_least ? q->si > strictest->si : q->si < strictest->si)))
      strictest = q;
  return strictest;
}

// Exceeded limits are listed before unchecked ones.
bool is_worse(const Verdict& a, const Verdict& b) {
  const bool exceeded = a.state == Verdict::State::exceeded, other = b.state == Verdict::State::exceeded;
  return exceeded != other ? exceeded : utilisation(a) > utilisation(b);
}

void solve_run(const Sweep& sweep, const Candidate& candidate, Solver& solver, SweepRun& run) {
  run.refused = candidate.refused;
  if (!run.refused.empty()) return;
  const Evaluation e = evaluate(solver.solve(candidate.structure),
                                {.limits = candidate.limits, .acceptances = candidate.acceptances, .inspected = false});
  const auto values = shown_values(e.solution, sweep.show);
  run.refused = e.problems();
  if (e.solution.ok() && !values) run.refused.insert(run.refused.begin(), values.error().begin(), values.error().end());
  if (!run.refused.empty()) return;
  run.shown = *values;
  for (const ShownFigure& f : sweep.show) run.required.push_back(required_of(f, candidate.limits, candidate.structure));
  run.warnings = warnings_of(e.findings);
  if (e.limits.verdicts.empty()) return;
  run.limits_met = e.limits.all_met();
  for (const Verdict& v : e.limits.verdicts)
    if (v.state != Verdict::State::met && (!run.exceeded || is_worse(v, *run.exceeded))) run.exceeded = v;
}

}  // namespace

Expected<std::vector<SweepRun>, Problems> sweep(const Sweep& sweep, const std::function<Candidate(const Picks&)>& build,
                                                const SweepOptions& options) {
  if (Problems problems = check(sweep); !problems.empty()) return problems;
  std::vector<SweepRun> runs(run_count(sweep));
  std::vector<Solver> solvers(study::threads_for(options.threads));
  std::mutex mutex;
  std::size_t done = 0;
  study::at_once(runs.size(), options.threads, [&](std::size_t i, unsigned thread) {
    runs[i].picks = picks_of(sweep, i);
    solve_run(sweep, build(runs[i].picks), solvers[thread], runs[i]);
    if (!options.progress) return;
    const std::lock_guard lock(mutex);
    options.progress(++done);
  });
  return runs;
}

}  // namespace corvex
