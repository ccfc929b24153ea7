#include "analysis/analysis.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "analysis/balance.hpp"
#include "analysis/case_states.hpp"
#include "analysis/large_order.hpp"
#include "analysis/one_way.hpp"
#include "analysis/second_order.hpp"
#include "corvex/stop.hpp"
#include "structure/checks.hpp"
#include "structure/combined.hpp"
#include "structure/words.hpp"

namespace corvex::solver {
namespace {

// A spin that nothing resists is harmless until a load works on it.
Problem spinning_load(const Structure& s, std::size_t point, const std::string& load_case) {
  Problem p{
      fmt::format("in case '{}' a load rotates point '{}', where only hinged ends and links meet: nothing restrains it",
                  load_case, s.points()[point].name),
      {Subject::Kind::load_case, load_case}};
  p.others = {{Subject::Kind::point, s.points()[point].name}};
  return as_finding("free-to-move", std::move(p));
}

class Run {
 public:
  Run(const Structure& s, System system, Reusable& reusable)
      : s_(s), a_{std::move(system), {}, {}, {}, {}, {}, {}}, reusable_(reusable), equations_(s, a_.system, reusable) {}

  Expected<Analysis, Problems> operator()() {
    const std::size_t cases = s_.load_cases().size();
    for (const LoadCase& loads : s_.load_cases()) a_.acting.push_back(acting_in(s_, a_.system, loads));
    Problems problems = solve(0);
    if (!problems.empty()) return problems;
    for (const Combination& c : s_.combinations()) a_.combined.push_back(combined(s_, c));
    for (const LoadCase& loads : a_.combined) a_.acting.push_back(acting_in(s_, a_.system, loads));
    // Results that are not proportional to the loads are not superposed.
    if (some_act_one_way(s_) || s_.analysis().order != corvex::Order::first)
      problems = solve(cases);
    else
      for (const Combination& c : s_.combinations()) a_.states.push_back(superposed(s_, c, a_.states));
    if (problems.empty()) problems = spinning_loads();
    if (!problems.empty()) return problems;
    a_.direction.resize(a_.states.size());
    for (std::size_t i = 0; i < a_.states.size(); ++i) a_.base.push_back(i);
    for (const auto& [c, direction] : governing_) a_.direction[c] = direction;
    add_other_directions();
    problems = imbalances(s_, a_);
    if (has_errors(problems)) return problems;
    a_.notes = std::move(ambiguous_);
    a_.notes.insert(a_.notes.end(), problems.begin(), problems.end());
    return std::move(a_);
  }

 private:
  // Adds the states of all cases from `first` on. One-way members are taken out where their force would
  // have the other sign.
  Problems solve(std::size_t first) {
    std::vector<LoadedCase> cases;
    for (std::size_t c = first; c < a_.acting.size(); ++c) cases.push_back({&a_.load_case(s_, c), &a_.acting[c]});
    if (cases.empty()) return {};
    auto solved = equations_.solve(cases);
    if (!solved) return solved.error();
    Problems problems;
    for (std::size_t i = 0; i < cases.size(); ++i) {
      stop_point();
      const SolveWith at_first_order = [&](Elements elements) { return solve_one(cases[i], std::move(elements)); };
      auto found = find_slack(s_, a_.system, at_first_order, cases[i], std::move(solved.value()[i]));
      if (found) look_for_ambiguity(cases[i], *found);
      if (found && has_directions()) {
        for (const Problem& p : in_all_directions(cases[i], first + i, std::move(found.value()))) problems.push_back(p);
        continue;
      }
      if (found && s_.analysis().order == corvex::Order::second)
        found = at_second_order(s_, cases[i], std::move(found.value()));
      if (found && s_.analysis().order == corvex::Order::large) found = LargeOrder(s_, a_.system).solve(cases[i]);
      if (!found) {
        for (const Problem& p : found.error()) problems.push_back(p);
        continue;
      }
      const Acting& acting = *cases[i].acting;
      for (const std::size_t p : spun_points(a_.system, acting, found->need)) spun_.push_back({p, first + i});
      const bool is_combination = first >= s_.load_cases().size();
      a_.states.push_back(state_of(s_, a_.system, acting, std::move(found.value()), is_combination));
    }
    return problems;
  }

  Expected<Solved, Problems> solve_one(const LoadedCase& load_case, Elements elements) {
    auto solved = equations_.solve({load_case}, std::move(elements));
    if (!solved) return solved.error();
    return std::move(solved.value().front());
  }

  // On the displaced structure members that act one way only may change sides once more.
  Expected<Solved, Problems> at_second_order(const Structure& s, const LoadedCase& load_case, Solved first) {
    SecondOrder displaced(s, a_.system, reusable_);
    auto solved = displaced.solve(load_case, first);
    if (!solved) return solved;
    const SolveWith with = [&](Elements elements) -> Expected<Solved, Problems> {
      const auto start = solve_one(load_case, std::move(elements));
      if (!start) return start;
      return displaced.solve(load_case, start.value());
    };
    return find_slack(s_, a_.system, with, load_case, std::move(solved.value()));
  }

  // An imperfection without a direction goes both ways along each horizontal axis.
  bool has_directions() const {
    const auto& given = s_.analysis().imperfection;
    return s_.analysis().order == corvex::Order::second && given && !given->toward;
  }

  // The state of the case is that with the largest displacement; the others are kept separately.
  Problems in_all_directions(const LoadedCase& load_case, std::size_t c, Solved first) {
    const bool is_combination = c >= s_.load_cases().size();
    const char* what = s_.analysis().imperfection->sway > 0 ? "sway" : "bow";
    Problems problems;
    std::vector<std::pair<std::string, CaseState>> all;
    for (const char axis : {'x', 'y', 'z'})
      for (const double sign : {1.0, -1.0}) {
        const Vector toward{axis == 'x' ? sign : 0, axis == 'y' ? sign : 0, axis == 'z' ? sign : 0};
        if (dot(toward, s_.up_direction()) != 0 || (s_.is_plane() && axis != 'x')) continue;
        Structure directed = s_;
        directed.analysis().imperfection->toward = toward;
        auto found = at_second_order(directed, load_case, first);
        if (!found) return found.error();
        if (all.empty())
          for (const std::size_t p : spun_points(a_.system, *load_case.acting, found->need)) spun_.push_back({p, c});
        all.emplace_back(fmt::format("{} {}{}", what, sign < 0 ? "-" : "", axis),
                         state_of(s_, a_.system, *load_case.acting, std::move(found.value()), is_combination));
      }
    constexpr double alike = 1e-9;
    std::size_t governs = 0;
    for (std::size_t i = 1; i < all.size(); ++i)
      if (all[i].second.moved > all[governs].second.moved * (1 + alike)) governs = i;
    governing_.emplace_back(c, all[governs].first);
    a_.states.push_back(std::move(all[governs].second));
    for (std::size_t i = 0; i < all.size(); ++i)
      if (i != governs) others_.push_back({c, all[i].first, std::move(all[i].second)});
    return problems;
  }

  void add_other_directions() {
    for (OtherDirection& o : others_) {
      const LoadCase& given = a_.load_case(s_, o.load_case);
      LoadCase named(fmt::format("{} ({})", given.name(), o.direction), s_.up_direction());
      for (const Load& l : given.loads()) named.add(l);
      a_.combined.push_back(std::move(named));
      a_.acting.push_back(a_.acting[o.load_case]);
      a_.states.push_back(std::move(o.state));
      a_.direction.push_back(std::move(o.direction));
      a_.base.push_back(o.load_case);
    }
  }

  // One-way members, act, and have no force but rounding: without them the structure may be a mechanism.
  // Then which of them acts is an arbitrary choice.
  void look_for_ambiguity(const LoadedCase& load_case, const Solved& found) {
    constexpr double rounding = 1e-9;
    std::vector<std::string> names;
    auto all = std::make_shared<std::vector<Element>>(found.elements ? *found.elements : a_.system.elements);
    bool some = false;
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      const Acts acts = s_.members()[i].acts;
      if (acts == Acts::always) continue;
      const std::size_t k = a_.system.spans.first[i];
      const Span& span = a_.system.spans.all[k];
      Element& e = (*all)[k];
      if (e.is_slack()) {
        names.push_back(s_.members()[i].name);
        continue;
      }
      const auto loads = load_case.acting->loads.on(k);
      const Ends ends =
          solver::ends<long double>(a_.system.spans.axes[i], span, found.movement[span.a], found.movement[span.b]);
      const double pull = e.pull(ends, loads) - Element::resting_pull(acts, loads);
      if (std::abs(pull) > rounding * std::max(found.need.largest, load_case.acting->gross)) continue;
      e = e.slack(acts), some = true;
      names.push_back(s_.members()[i].name);
    }
    if (!some || names.size() < 2 || solve_one(load_case, std::move(all))) return;
    const std::string& name = load_case.loads->name();
    Problem p{fmt::format("in case '{}' {} have no force: which of them act, and the position of the structure "
                          "between them, is not determined by the loads",
                          name, list(names)),
              {Subject::Kind::load_case, name}};
    p.severity = Problem::Severity::warning;
    p.remedy = "pretension them (shorten), or add a load that determines the state";
    ambiguous_.push_back(as_finding("ambiguous-slack", std::move(p)));
  }

  Problems spinning_loads() const {
    Problems problems;
    for (std::size_t i = 0; i < spun_.size(); ++i)
      if (i == 0 || spun_[i].point != spun_[i - 1].point)
        problems.push_back(spinning_load(s_, spun_[i].point, a_.load_case(s_, spun_[i].load_case).name()));
    return problems;
  }

  struct Spun {
    std::size_t point, load_case;
  };
  struct OtherDirection {
    std::size_t load_case;
    std::string direction;
    CaseState state;
  };

  const Structure& s_;
  Analysis a_;
  Reusable& reusable_;
  Equations equations_;
  std::vector<Spun> spun_;
  std::vector<std::pair<std::size_t, std::string>> governing_;
  std::vector<OtherDirection> others_;
  Problems ambiguous_;
};

}  // namespace

Expected<Analysis, Problems> analyse(const Structure& structure, Reusable& reusable) {
  auto system = make_system(structure, reusable);
  if (!system) return system.error();
  return Run(structure, std::move(system.value()), reusable)();
}

}  // namespace corvex::solver
