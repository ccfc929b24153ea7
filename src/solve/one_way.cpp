#include "solve/one_way.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "solve/motion_words.hpp"

namespace corvex::solver {
namespace {

struct OneWay {
  std::size_t member = 0, span = 0;
  Acts acts{};
};
using State = std::vector<bool>;  // of each such member: slack

class Search {
 public:
  Search(const Structure& s, Analysis& a, Equations& equations, std::vector<OneWay> members, std::size_t load_case)
      : s_(s), a_(a), equations_(equations), members_(std::move(members)), case_(load_case) {}

  Problems run(JointForces& need) {
    State state(members_.size(), false);
    bool one_at_a_time = false;
    std::vector<State> seen{state};
    while (true) {
      const std::vector<double> wrong = wrong_forces(state, need);
      if (std::none_of(wrong.begin(), wrong.end(), [](double w) { return w > 0; })) return {};
      State next = one_at_a_time ? with_worst_changed(state, wrong) : with_all_changed(state, wrong);
      if (!one_at_a_time && std::find(seen.begin(), seen.end(), next) != seen.end()) {
        one_at_a_time = true;
        seen = {state};
        next = with_worst_changed(state, wrong);
      }
      if (const auto it = std::find(seen.begin(), seen.end(), next); it != seen.end()) return {cycle({it, seen.end()})};
      Problems problems = solve(next, need);
      if (!problems.empty() && !one_at_a_time) {
        one_at_a_time = true;
        seen = {state};
        next = with_worst_changed(state, wrong);
        problems = solve(next, need);
      }
      if (!problems.empty()) return nothing_holds(next, std::move(problems));
      seen.push_back(next);
      state = next;
    }
  }

 private:
  // By how much the force of each member, or that which a slack one would have, has the wrong sign; 0 where it is
  // right.
  std::vector<double> wrong_forces(const State& state, const JointForces& need) const {
    constexpr double rounding = 1e-10;
    std::vector<double> wrong(members_.size(), 0);
    const CaseAnalysis& c = a_.cases[case_];
    for (std::size_t i = 0; i < members_.size(); ++i) {
      const OneWay& m = members_[i];
      const Span& span = a_.spans.all[m.span];
      const auto loads = c.loads.on(m.span);
      const Ends e = ends<long double>(a_.spans.axes[m.member], span, c.movement[span.a], c.movement[span.b]);
      const double sign = m.acts == Acts::tension ? 1 : -1;
      const double taut = sign * (a_.elements[m.span].pull(e, loads) - Element::resting_pull(m.acts, loads));
      const double beyond = state[i] ? taut : -taut;
      // Measured against the single loads too, which may cancel in the sum.
      if (beyond > rounding * std::max(need.largest, c.gross)) wrong[i] = beyond;
    }
    return wrong;
  }

  static State with_all_changed(State state, const std::vector<double>& wrong) {
    for (std::size_t i = 0; i < state.size(); ++i)
      if (wrong[i] > 0) state[i] = !state[i];
    return state;
  }
  static State with_worst_changed(State state, const std::vector<double>& wrong) {
    const auto worst = static_cast<std::size_t>(std::max_element(wrong.begin(), wrong.end()) - wrong.begin());
    state[worst] = !state[worst];
    return state;
  }

  Problems solve(const State& state, JointForces& need) {
    auto elements = std::make_shared<std::vector<Element>>(a_.elements);
    for (std::size_t i = 0; i < members_.size(); ++i)
      if (state[i]) (*elements)[members_[i].span] = a_.elements[members_[i].span].slack(members_[i].acts);
    a_.cases[case_].elements = std::move(elements);
    std::vector<JointForces> one(1);
    Problems problems = equations_.solve({case_}, one);
    if (problems.empty()) need = std::move(one[0]);
    return problems;
  }

  const std::string& case_name() const { return a_.loads(s_, case_).name(); }

  std::string names(const std::vector<bool>& which) const {
    std::vector<std::string> all;
    for (std::size_t i = 0; i < members_.size(); ++i)
      if (which[i]) all.push_back(s_.members()[members_[i].member].name);
    return list(all);
  }

  Problem cycle(const std::vector<State>& states) const {
    std::vector<bool> changes(members_.size(), false);
    for (const State& s : states)
      for (std::size_t i = 0; i < s.size(); ++i) changes[i] = changes[i] || s[i] != states.front()[i];
    return {fmt::format("in case '{}' there is no state in which all members that act one way only keep their sign: {} "
                        "change from taut to slack and back without end",
                        case_name(), names(changes)),
            {Subject::Kind::load_case, case_name()}};
  }

  Problems nothing_holds(const State& state, Problems problems) const {
    for (Problem& p : problems) {
      p.text = fmt::format("in case '{}', with {} slack, {}", case_name(), names(state), p.text);
      p.subject = {Subject::Kind::load_case, case_name()};
      p.key.clear();
    }
    return problems;
  }

  const Structure& s_;
  Analysis& a_;
  Equations& equations_;
  std::vector<OneWay> members_;
  std::size_t case_;
};

}  // namespace

bool some_act_one_way(const Structure& s) {
  return std::any_of(s.members().begin(), s.members().end(), [](const Member& m) { return m.acts != Acts::always; });
}

Problems find_slack(const Structure& s, Analysis& a, Equations& equations, Cases cases,
                    std::vector<JointForces>& needs) {
  std::vector<OneWay> members;
  for (std::size_t i = 0; i < s.members().size(); ++i)
    if (const Acts acts = s.members()[i].acts; acts != Acts::always) members.push_back({i, a.spans.first[i], acts});
  Problems problems;
  if (members.empty()) return problems;
  for (std::size_t i = 0; i < cases.size(); ++i)
    for (Problem& p : Search(s, a, equations, members, cases[i]).run(needs[i])) problems.push_back(std::move(p));
  return problems;
}

}  // namespace corvex::solver
