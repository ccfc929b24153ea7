#include "corvex/compare.hpp"

#include <algorithm>
#include <cmath>

#include "corvex/evaluation.hpp"
#include "hand/work_out.hpp"
#include "study/at_once.hpp"

namespace corvex {

std::string words(const ShownFigure& shown) {
  return hand::words(shown.figure) + (shown.load_case.empty() ? "" : " in " + shown.load_case);
}

Expected<std::vector<std::optional<Quantity>>, Problems> shown_values(const Solution& solution,
                                                                      const std::vector<ShownFigure>& figures) {
  const Structure& s = solution.structure();
  const std::vector<std::size_t> assessed = solution.assessed();
  HandCalculation asked;
  for (const ShownFigure& f : figures) {
    const Dimension d = hand::dimension_of(f.figure);
    // A hand calculation that compares nothing finds names and places.
    Expectation e{.figure = f.figure, .is = Quantity(1, d), .within = Quantity(1, d), .load_case = f.load_case};
    if (e.load_case.empty() && hand::is_of_case(f.figure.kind) && !assessed.empty())
      e.load_case = solution[assessed.front()].name();
    asked.expect.push_back(std::move(e));
  }
  const auto worked = hand::work_out(s, asked);
  if (!worked) return worked.error();
  std::vector<std::optional<Quantity>> values;
  for (std::size_t i = 0; i < figures.size(); ++i) {
    const Figure& f = figures[i].figure;
    const hand::Worked& w = worked->expectations[i];
    if (!hand::is_of_case(f.kind)) {
      values.push_back(hand::computed(solution, w.load_case, f, w.target, 0));
      continue;
    }
    const std::vector<std::size_t> cases =
        figures[i].load_case.empty() ? assessed : std::vector<std::size_t>{w.load_case};
    std::optional<Quantity> taken;
    for (const std::size_t c : cases)
      if (const auto value = hand::computed(solution, c, f, w.target, 0);
          value && (!taken || hand::is_taken_before(f, value->si, taken->si)))
        taken = value;
    values.push_back(taken);
  }
  return values;
}

std::vector<ShownFigure> figures_of(const ModesOptions& modes) {
  std::vector<ShownFigure> all;
  for (std::size_t i = 1; i <= modes.vibration; ++i)
    all.push_back({{.kind = Figure::Kind::frequency, .of = std::to_string(i)}, modes.under});
  if (!modes.buckling.empty()) all.push_back({{.kind = Figure::Kind::buckling, .of = "1"}, {}});
  return all;
}

std::optional<bool> Compared::limits_met() const {
  if (limits.verdicts.empty()) return std::nullopt;
  return limits.all_met();
}

std::optional<bool> Compared::hand_agrees() const {
  if (hand.comparisons.empty()) return std::nullopt;
  return hand.all_agree();
}

Problems Compared::warnings() const {
  return warnings_of(findings);
}

namespace {

void keep_larger(std::optional<Worst>& worst, Worst other) {
  if (!worst || other.value.si > worst->value.si) worst = std::move(other);
}

void find_worst(const Solution& solution, Compared& c) {
  const Structure& s = solution.structure();
  for (const std::size_t number : solution.assessed()) {
    const CaseResult result = solution[number];
    const std::string& name = result.name();
    for (const PointSupport& p : s.supports()) {
      const Reaction r = result.reaction(p.at);
      keep_larger(c.reaction, {ForceSize::si(std::hypot(r.x.si(), r.y.si(), r.z.si())), s[p.at].name, name, {}});
    }
    for (std::size_t i = 0; i < s.members().size(); ++i) {
      const MemberResult m = result[MemberId{i}];
      const std::string& member = s.members()[i].name;
      const Extreme move = m.movement(), sag = m.sag();
      keep_larger(c.displacement, {move.value, member, name, move.at});
      keep_larger(c.sag, {sag.value, member, name, sag.at});
      const auto stress = m.von_mises();
      if (!stress) continue;
      keep_larger(c.stress, {stress->value, member, name, stress->at});
      const auto safety = m.safety_against(stress->value);
      if (safety && (!c.safety || *safety < c.safety->value.si))
        c.safety = Worst{Quantity(*safety, dimension::number), member, name, stress->at};
    }
  }
}

Compared compared(const Candidate& candidate, const std::vector<ShownFigure>& show, Solver& solver) {
  Compared c{.name = candidate.name, .refused = candidate.refused};
  if (!c.refused.empty()) return c;
  Evaluation e = evaluate(solver.solve(candidate.structure),
                          {.limits = candidate.limits, .hand = candidate.hand, .acceptances = candidate.acceptances});
  const auto values = shown_values(e.solution, show);
  // A hand calculation of the original model may refer to parts that a variant does not have.
  c.refused = e.solution.ok() ? e.refused_limits : e.solution.problems();
  if (e.solution.ok() && !values) c.refused.insert(c.refused.end(), values.error().begin(), values.error().end());
  if (!c.refused.empty()) return c;
  c.mass = candidate.structure.mass();
  c.limits = std::move(e.limits);
  c.hand = std::move(e.hand);
  c.shown = *values;
  find_worst(e.solution, c);
  c.findings = std::move(e.findings);
  return c;
}

}  // namespace

std::vector<Compared> compare(const std::vector<Candidate>& candidates, const std::vector<ShownFigure>& show,
                              unsigned threads) {
  std::vector<Compared> all(candidates.size());
  std::vector<Solver> solvers(study::threads_for(threads));
  study::at_once(candidates.size(), threads,
                 [&](std::size_t i, unsigned thread) { all[i] = compared(candidates[i], show, solvers[thread]); });
  return all;
}

}  // namespace corvex
