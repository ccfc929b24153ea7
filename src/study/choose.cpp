#include "corvex/choose.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <mutex>
#include <optional>

#include "corvex/findings.hpp"
#include "corvex/formula.hpp"
#include "corvex/number.hpp"
#include "structure/checks.hpp"
#include "study/at_once.hpp"
#include "study/by_mass.hpp"

namespace corvex {
namespace {

using study::Pick;

Problem refusal(std::string text) {
  Problem p;
  p.text = std::move(text);
  p.key = "choose";
  return p;
}

class Search {
 public:
  Search(const Structure& s, const Choosing& wanted) : s_(s), wanted_(wanted) {}

  Expected<SectionChoice, Problems> run() {
    if (Problems problems = faults(); !problems.empty()) return problems;
    sort_by_mass();
    threads_ = study::threads_for(wanted_.threads);
    for (unsigned t = 0; t < threads_; ++t) workers_.push_back(std::make_unique<Worker>(s_));
    if (Problems problems = cannot_be_checked(); !problems.empty()) return problems;
    ByMass order(masses_);
    bool all_tried = false;
    while (choice_.found.size() < 1 + wanted_.runners_up && !stopped_) {
      const std::vector<Pick> batch = next_batch(order);
      if (batch.empty()) {
        all_tried = !stopped_;
        break;
      }
      try_batch(order, batch);
    }
    // In batches that were tried in full the first that holds is the lightest.
    choice_.proven = !choice_.found.empty() || all_tried;
    return std::move(choice_);
  }

 private:
  using ByMass = study::ByMass;
  // Data of a thread.
  struct Worker {
    explicit Worker(const Structure& s) : structure(s) {}
    Structure structure;
    Solver solver;
    // The limit that ruled out the previous choice, which is likely to rule out the next one too.
    Limits ruled_out{};
  };

  Problems faults() {
    constexpr double most_possible = 1e7;
    Problems problems;
    if (wanted_.limits.empty()) problems.push_back(refusal("the model has no limits to be met: add limits"));
    if (wanted_.groups.empty()) problems.push_back(refusal("no section is to be chosen"));
    if (!s_.mass()) problems.push_back(refusal("the mass is not known: a material has no density"));
    double possible = 1;
    std::vector<std::string> names;
    for (const NamedSection& n : s_.sections()) names.push_back(n.name);
    for (const ChoiceGroup& g : wanted_.groups) {
      possible *= static_cast<double>(g.from.size());
      if (!s_.find_section(g.section))
        problems.push_back(
            refusal(fmt::format("there is no section '{}'{}", g.section, did_you_mean(g.section, names))));
      else if (g.from.empty())
        problems.push_back(refusal(
            fmt::format("there is no profile to choose '{}' from: no listed one lies within its bounds", g.section)));
    }
    if (possible > most_possible)
      problems.push_back(
          refusal(fmt::format("{} choices are more than can be tried (10 million): narrow the lists by height "
                              "and width",
                              short_number(possible, 3))));
    else
      choice_.possible = static_cast<std::size_t>(possible);
    const Problems wrong = s_.validate();
    problems.insert(problems.end(), wrong.begin(), wrong.end());
    return problems;
  }

  // Of each group its profiles from light to heavy, with the mass that they give to the members of the section.
  void sort_by_mass() {
    for (const ChoiceGroup& g : wanted_.groups) {
      const std::size_t section = s_.find_section(g.section)->index;
      double volume_weight = 0;  // Σ ρ L
      for (const Member& m : s_.members())
        if (m.section.index == section) volume_weight += s_.material_of(m).density->si() * s_.length_of(m);
      std::vector<std::size_t> order(g.from.size());
      std::vector<double> mass(g.from.size());
      for (std::size_t i = 0; i < order.size(); ++i)
        order[i] = i, mass[i] = g.from[i].section.area().si() * volume_weight;
      std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return mass[a] < mass[b]; });
      std::vector<double> sorted;
      for (const std::size_t i : order) sorted.push_back(mass[i]);
      order_.push_back(std::move(order));
      masses_.push_back(std::move(sorted));
      replaced_ += volume_weight * s_.sections()[section].section.area().si();
    }
  }

  const Profile& profile(std::size_t group, std::size_t place) const {
    return wanted_.groups[group].from[order_[group][place]];
  }

  // Limits that are not checked at all would never be met; they are checked on the heaviest choice.
  Problems cannot_be_checked() {
    Pick heaviest;
    for (const auto& m : masses_) heaviest.push_back(m.size() - 1);
    const auto solution = solved(*workers_.front(), heaviest);
    if (!solution) return {};
    const auto check = check_limits(*solution, wanted_.limits);
    if (!check) return check.error();
    for (const Verdict& v : check->verdicts)
      if (v.state == Verdict::State::not_checked)
        return {refusal(fmt::format("a limit on {} cannot be checked: {}", v.on, v.note))};
    return {};
  }

  std::vector<Pick> next_batch(ByMass& order) {
    const std::size_t size = 16 * threads_;
    std::vector<Pick> batch;
    while (batch.size() < size && choice_.tried + batch.size() < wanted_.most_tried) {
      Pick pick = order.next();
      if (pick.empty()) break;
      batch.push_back(std::move(pick));
    }
    if (batch.empty() && choice_.tried >= wanted_.most_tried) stopped_ = true;
    return stopped_ ? std::vector<Pick>() : batch;
  }

  void try_batch(const ByMass& order, const std::vector<Pick>& batch) {
    std::vector<char> holds(batch.size());
    std::vector<Problems> warnings(batch.size());
    std::atomic<bool> stop{false};
    study::at_once(batch.size(), threads_, [&](std::size_t i, unsigned thread) {
      if (stop || (wanted_.stop && wanted_.stop()))
        stop = true;
      else
        holds[i] = meets(*workers_[thread], batch[i], warnings[i]);
    });
    // An unfinished search proves nothing.
    if (stop) {
      stopped_ = true;
      return;
    }
    choice_.tried += batch.size();
    if (wanted_.progress) wanted_.progress(choice_.tried);
    for (std::size_t i = 0; i < batch.size() && choice_.found.size() < 1 + wanted_.runners_up; ++i) {
      if (!holds[i]) continue;
      FoundChoice found;
      for (std::size_t g = 0; g < batch[i].size(); ++g)
        found.designations.push_back(profile(g, batch[i][g]).designation);
      found.mass = Mass::si(s_.mass()->si() - replaced_ + order.mass(batch[i]));
      found.warnings = std::move(warnings[i]);
      choice_.found.push_back(std::move(found));
    }
  }

  std::optional<Solution> solved(Worker& w, const Pick& pick) const {
    for (std::size_t g = 0; g < pick.size(); ++g)
      w.structure.replace_section(wanted_.groups[g].section, profile(g, pick[g]));
    Solution solution = w.solver.solve(w.structure);
    return solution.ok() ? std::optional(std::move(solution)) : std::nullopt;
  }

  // The same limit for the one thing that did not meet it.
  Limits alone(const Verdict& v, const Limit& of, const Structure& s) const {
    Limit l = of;
    const auto member = s.find_member(v.on);
    if (l.kind == Limit::Kind::figure || l.kind == Limit::Kind::range) return {l};
    if (l.kind == Limit::Kind::movement)
      l.at = {*s.find_point(v.on)};
    else if (member)
      l.on = {*member};
    return {l};
  }

  // First what ruled out the choice before. Then movements, which cost less than stresses: what they rule out need not
  // be looked at further.
  bool meets(Worker& w, const Pick& pick, Problems& warnings) const {
    const auto solution = solved(w, pick);
    if (!solution) return false;
    if (!w.ruled_out.empty())
      if (const auto check = check_limits(*solution, w.ruled_out); check && !check->all_met()) return false;
    for (const bool stresses : {false, true}) {
      Limits some;
      for (const Limit& l : wanted_.limits)
        if ((l.kind == Limit::Kind::safety) == stresses) some.push_back(l);
      if (some.empty()) continue;
      const auto check = check_limits(*solution, some);
      if (!check) return false;
      for (const Verdict& v : check->verdicts)
        if (v.state != Verdict::State::met) {
          w.ruled_out = alone(v, some[v.limit], w.structure);
          return false;
        }
    }
    // Last, since it costs most.
    warnings = solution->notes();
    const Problems of_results = assess(*solution);
    warnings.insert(warnings.end(), of_results.begin(), of_results.end());
    warnings = warnings_of(warnings);
    return std::none_of(warnings.begin(), warnings.end(), [&](const Problem& p) { return rules_out(*solution, p); });
  }

  static bool rules_out(const Solution& solution, const Problem& p) {
    if (p.finding == "over-strength" || p.finding == "over-buckling") return true;
    if (p.finding != "low-critical-load") return false;
    const auto critical = solution[p.subject.name].critical_load();
    return critical && critical->factor && *critical->factor < 1;
  }

  const Structure& s_;
  const Choosing& wanted_;
  SectionChoice choice_;
  unsigned threads_ = 1;
  std::vector<std::vector<std::size_t>> order_;  // of each group: its profiles from light to heavy
  std::vector<std::vector<double>> masses_;      // and their masses
  double replaced_ = 0;                          // mass of the groups as the structure has them
  std::vector<std::unique_ptr<Worker>> workers_;
  bool stopped_ = false;
};

}  // namespace

Expected<SectionChoice, Problems> choose(const Structure& structure, const Choosing& wanted) {
  if (Problems problems = errors_of(structure); !problems.empty()) return problems;
  return Search(structure, wanted).run();
}

}  // namespace corvex
