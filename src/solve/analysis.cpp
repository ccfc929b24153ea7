#include "solve/analysis.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "solve/balance.hpp"
#include "solve/case_states.hpp"
#include "solve/large_order.hpp"
#include "solve/load_checks.hpp"
#include "solve/one_way.hpp"
#include "solve/second_order.hpp"
#include "structure/combined.hpp"

namespace corvex::solver {
namespace {

// A spin that nothing resists is harmless until a load works on it.
Problem spinning_load(const Structure& s, std::size_t point, const std::string& load_case) {
  Problem p{fmt::format("in case '{}' a load turns point {}, where only hinged ends and links meet: nothing holds it",
                        load_case, s.points()[point].name),
            {Subject::Kind::load_case, load_case}};
  p.others = {{Subject::Kind::point, s.points()[point].name}};
  return as_finding("free-to-move", std::move(p));
}

class Run {
 public:
  Run(const Structure& s, System system, Reusable& reusable)
      : s_(s), a_{std::move(system), {}, {}, {}, {}}, reusable_(reusable), equations_(s, a_.system, reusable) {}

  Expected<Analysis, Problems> operator()() {
    const std::size_t cases = s_.load_cases().size();
    for (const LoadCase& loads : s_.load_cases()) a_.acting.push_back(acting_in(s_, a_.system, loads));
    Problems problems = solve(0);
    if (!problems.empty()) return problems;
    for (const Combination& c : s_.combinations()) a_.combined.push_back(combined(s_, c));
    for (const LoadCase& loads : a_.combined) a_.acting.push_back(acting_in(s_, a_.system, loads));
    // What is not in proportion to the loads is not added up.
    if (some_act_one_way(s_) || s_.analysis().order != corvex::Order::first)
      problems = solve(cases);
    else
      for (const Combination& c : s_.combinations()) a_.states.push_back(superposed(s_, c, a_.states));
    if (problems.empty()) problems = spinning_loads();
    if (!problems.empty()) return problems;
    problems = imbalances(s_, a_);
    if (are_refusals(problems)) return problems;
    a_.notes = notes(s_, a_);
    a_.notes.insert(a_.notes.end(), problems.begin(), problems.end());
    return std::move(a_);
  }

 private:
  // Adds the states of all cases from `first` on. Members that act one way only are taken out where their force would
  // have the other sign.
  Problems solve(std::size_t first) {
    std::vector<LoadedCase> cases;
    for (std::size_t c = first; c < a_.acting.size(); ++c) cases.push_back({&a_.load_case(s_, c), &a_.acting[c]});
    if (cases.empty()) return {};
    auto solved = equations_.solve(cases);
    if (!solved) return solved.error();
    Problems problems;
    for (std::size_t i = 0; i < cases.size(); ++i) {
      const SolveWith at_first_order = [&](Elements elements) { return solve_one(cases[i], std::move(elements)); };
      auto found = find_slack(s_, a_.system, at_first_order, cases[i], std::move(solved.value()[i]));
      if (found && s_.analysis().order == corvex::Order::second)
        found = at_second_order(cases[i], std::move(found.value()));
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
  Expected<Solved, Problems> at_second_order(const LoadedCase& load_case, Solved first) {
    SecondOrder displaced(s_, a_.system, reusable_);
    auto solved = displaced.solve(load_case, first);
    if (!solved) return solved;
    const SolveWith with = [&](Elements elements) -> Expected<Solved, Problems> {
      const auto start = solve_one(load_case, std::move(elements));
      if (!start) return start;
      return displaced.solve(load_case, start.value());
    };
    return find_slack(s_, a_.system, with, load_case, std::move(solved.value()));
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

  const Structure& s_;
  Analysis a_;
  Reusable& reusable_;
  Equations equations_;
  std::vector<Spun> spun_;
};

}  // namespace

Expected<Analysis, Problems> analyse(const Structure& structure, Reusable& reusable) {
  auto system = make_system(structure, reusable);
  if (!system) return system.error();
  return Run(structure, std::move(system.value()), reusable)();
}

}  // namespace corvex::solver
