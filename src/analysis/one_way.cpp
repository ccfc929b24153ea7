#include "analysis/one_way.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "structure/words.hpp"

namespace corvex::solver {
namespace {

struct OneWay {
  std::size_t member = 0, span = 0;
  Acts acts{};
};
using Slack = std::vector<bool>;  // of each such member

class Search {
 public:
  Search(const Structure& s, const System& system, const SolveWith& solve, std::vector<OneWay> members,
         const LoadedCase& load_case)
      : s_(s), system_(system), solve_(solve), members_(std::move(members)), case_(load_case) {}

  Expected<Solved, Problems> run(Solved solved) {
    Slack state(members_.size(), false);
    for (std::size_t i = 0; i < state.size() && solved.elements; ++i)
      state[i] = (*solved.elements)[members_[i].span].is_slack();
    bool one_at_a_time = false;
    std::vector<Slack> seen{state};
    while (true) {
      const std::vector<double> wrong = wrong_forces(state, solved);
      if (std::none_of(wrong.begin(), wrong.end(), [](double w) { return w > 0; })) return solved;
      Slack next = one_at_a_time ? with_worst_changed(state, wrong) : with_all_changed(state, wrong);
      if (!one_at_a_time && std::find(seen.begin(), seen.end(), next) != seen.end()) {
        one_at_a_time = true;
        seen = {state};
        next = with_worst_changed(state, wrong);
      }
      if (const auto it = std::find(seen.begin(), seen.end(), next); it != seen.end())
        return Problems{cycle({it, seen.end()})};
      auto found = solve(next);
      if (!found && !one_at_a_time) {
        one_at_a_time = true;
        seen = {state};
        next = with_worst_changed(state, wrong);
        found = solve(next);
      }
      if (!found) return nothing_holds(next, found.error());
      solved = std::move(found.value());
      seen.push_back(next);
      state = next;
    }
  }

 private:
  // By how much the force of each member, or that which a slack one would have, has the wrong sign; 0 where it is
  // right.
  std::vector<double> wrong_forces(const Slack& state, const Solved& solved) const {
    constexpr double rounding = 1e-10;
    std::vector<double> wrong(members_.size(), 0);
    const Acting& acting = *case_.acting;
    for (std::size_t i = 0; i < members_.size(); ++i) {
      const OneWay& m = members_[i];
      const Span& span = system_.spans.all[m.span];
      const auto loads = acting.loads.on(m.span);
      const Ends e =
          ends<long double>(system_.spans.axes[m.member], span, solved.movement[span.a], solved.movement[span.b]);
      const double sign = m.acts == Acts::tension ? 1 : -1;
      const double taut = sign * (system_.elements[m.span].pull(e, loads) - Element::resting_pull(m.acts, loads));
      const double beyond = state[i] ? taut : -taut;
      // Measured against the single loads too, which may cancel in the sum.
      if (beyond > rounding * std::max(solved.need.largest, acting.gross)) wrong[i] = beyond;
    }
    return wrong;
  }

  static Slack with_all_changed(Slack state, const std::vector<double>& wrong) {
    for (std::size_t i = 0; i < state.size(); ++i)
      if (wrong[i] > 0) state[i] = !state[i];
    return state;
  }
  static Slack with_worst_changed(Slack state, const std::vector<double>& wrong) {
    const auto worst = static_cast<std::size_t>(std::max_element(wrong.begin(), wrong.end()) - wrong.begin());
    state[worst] = !state[worst];
    return state;
  }

  Expected<Solved, Problems> solve(const Slack& state) {
    auto elements = std::make_shared<std::vector<Element>>(system_.elements);
    for (std::size_t i = 0; i < members_.size(); ++i)
      if (state[i]) (*elements)[members_[i].span] = system_.elements[members_[i].span].slack(members_[i].acts);
    return solve_(std::move(elements));
  }

  const std::string& case_name() const { return case_.loads->name(); }

  std::string names(const std::vector<bool>& which) const {
    std::vector<std::string> all;
    for (std::size_t i = 0; i < members_.size(); ++i)
      if (which[i]) all.push_back(s_.members()[members_[i].member].name);
    return list(all);
  }

  Problem cycle(const std::vector<Slack>& states) const {
    std::vector<bool> changes(members_.size(), false);
    for (const Slack& s : states)
      for (std::size_t i = 0; i < s.size(); ++i) changes[i] = changes[i] || s[i] != states.front()[i];
    return {fmt::format("in case '{}' there is no state in which all members that act one way only keep their sign: {} "
                        "change between taut and slack without end",
                        case_name(), names(changes)),
            {Subject::Kind::load_case, case_name()}};
  }

  Problems nothing_holds(const Slack& state, Problems problems) const {
    for (Problem& p : problems) {
      p.text = fmt::format("in case '{}', with {} slack, {}", case_name(), names(state), p.text);
      p.subject = {Subject::Kind::load_case, case_name()};
      p.key.clear();
    }
    return problems;
  }

  const Structure& s_;
  const System& system_;
  const SolveWith& solve_;
  std::vector<OneWay> members_;
  LoadedCase case_;
};

}  // namespace

bool some_act_one_way(const Structure& s) {
  return std::any_of(s.members().begin(), s.members().end(), [](const Member& m) { return m.acts != Acts::always; });
}

Expected<Solved, Problems> find_slack(const Structure& s, const System& system, const SolveWith& solve,
                                      const LoadedCase& load_case, Solved from) {
  std::vector<OneWay> members;
  for (std::size_t i = 0; i < s.members().size(); ++i)
    if (const Acts acts = s.members()[i].acts; acts != Acts::always)
      members.push_back({i, system.spans.first[i], acts});
  if (members.empty()) return from;
  return Search(s, system, solve, std::move(members), load_case).run(std::move(from));
}

}  // namespace corvex::solver
