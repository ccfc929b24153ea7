#include "solve/analysis.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "solve/accuracy.hpp"
#include "solve/balance.hpp"
#include "solve/load_checks.hpp"
#include "solve/mechanism.hpp"
#include "solve/one_way.hpp"
#include "solve/spin.hpp"
#include "structure/acting_load.hpp"
#include "structure/combined.hpp"

namespace corvex::solver {
namespace {

bool refused(const Problems& problems) {
  return std::any_of(problems.begin(), problems.end(),
                     [](const Problem& p) { return p.severity == Problem::Severity::error; });
}

// How each support moves by itself; empty where none does. Settlements that take each other back are none.
std::vector<Six> ground(const Structure& s, const LoadCase& loads) {
  std::vector<Six> all, gross;
  for (const Load& load : loads.loads()) {
    const auto* l = std::get_if<SettleLoad>(&load);
    if (!l) continue;
    all.resize(s.supports().size(), Six{});
    gross.resize(s.supports().size(), Six{});
    const double six[] = {l->move.x, l->move.y, l->move.z, l->turn.x, l->turn.y, l->turn.z};
    for (std::size_t i = 0; i < all.size(); ++i)
      for (std::size_t k = 0; k < 6; ++k)
        if (s.supports()[i].at == l->at) all[i][k] += six[k], gross[i][k] += std::abs(six[k]);
  }
  constexpr double rounding = 1e-14;
  bool moves = false;
  for (std::size_t i = 0; i < all.size(); ++i)
    for (std::size_t k = 0; k < 6; ++k) {
      if (std::abs(all[i][k]) <= rounding * gross[i][k]) all[i][k] = 0;
      moves = moves || all[i][k] != 0;
    }
  if (!moves) all.clear();
  return all;
}

class Run {
 public:
  Run(const Structure& s, Reusable& kept) : s_(s), kept_(kept) {}

  Expected<Analysis, Problems> operator()() {
    Problems problems = s_.validate();
    if (refused(problems)) return problems;
    a_.spans = cut(s_);
    a_.freedoms = freedoms(s_, a_.spans);
    for (Problem& p : loads_without_hold(s_, a_.freedoms)) problems.push_back(std::move(p));
    for (Problem& p : rigid_motions(s_, a_.spans, a_.freedoms)) problems.push_back(std::move(p));
    if (refused(problems)) return problems;
    a_.elements = elements(s_, a_.spans);
    stiffest_ = stiffest();
    mark_idle_spins(s_, a_.spans, a_.elements, a_.freedoms);
    for (const LoadCase& loads : s_.load_cases()) add_case(loads);
    Equations equations(s_, a_, kept_);
    problems = solve(equations, 0);
    if (refused(problems)) return problems;
    for (const Combination& c : s_.combinations()) a_.combined.push_back(combined(s_, c));
    for (const LoadCase& loads : a_.combined) add_case(loads);
    if (!some_act_one_way(s_))
      for (std::size_t i = 0; i < s_.combinations().size(); ++i)
        add_up(s_.combinations()[i], s_.load_cases().size() + i);
    else if (!a_.combined.empty())
      problems = solve(equations, s_.load_cases().size());
    if (refused(problems)) return problems;
    problems = spinning_loads();
    if (refused(problems)) return problems;
    problems = imbalances(s_, a_);
    if (refused(problems)) return problems;
    a_.notes = notes(s_, a_);
    a_.notes.insert(a_.notes.end(), problems.begin(), problems.end());
    return std::move(a_);
  }

 private:
  void add_case(const LoadCase& loads) {
    a_.cases.push_back({.loads = SpanLoads(s_, a_.spans, loads),
                        .movement = {},
                        .ground = ground(s_, loads),
                        .reaction = {},
                        .applied = resultant(s_, loads),
                        .elements = nullptr});
    a_.cases.back().gross = gross_force(a_.cases.size() - 1);
  }

  // Solves all cases from `first` on. Members that act one way only are taken out where their force would have the
  // other sign.
  Problems solve(Equations& equations, std::size_t first) {
    std::vector<std::size_t> cases(a_.cases.size() - first);
    std::iota(cases.begin(), cases.end(), first);
    std::vector<JointForces> need;
    Problems problems = equations.solve(cases, need);
    if (!refused(problems)) problems = find_slack(s_, a_, equations, cases, need);
    for (std::size_t i = 0; i < cases.size() && !refused(problems); ++i) finish(cases[i], need[i]);
    return problems;
  }

  // Sums of what is known of the terms.
  void add_up(const Combination& combination, std::size_t index) {
    CaseAnalysis& sum = a_.cases[index];
    sum.movement.assign(s_.points().size(), {});
    sum.reaction.assign(s_.supports().size(), Six{});
    sum.forceless = true;
    sum.gross = 0;
    double off = 0, gross_movement = 0;
    for (const auto& [load_case, factor] : combination.terms) {
      const CaseAnalysis& part = a_.cases[load_case];
      for (std::size_t p = 0; p < sum.movement.size(); ++p)
        for (std::size_t k = 0; k < 6; ++k) {
          sum.movement[p].add(k, factor * part.movement[p].value[k]);
          // What rounding the product leaves out.
          sum.movement[p].rest[k] += std::fma(factor, part.movement[p].value[k], -factor * part.movement[p].value[k]) +
                                     factor * part.movement[p].rest[k];
        }
      for (std::size_t i = 0; i < sum.reaction.size(); ++i)
        for (std::size_t k = 0; k < 6; ++k) sum.reaction[i][k] += factor * part.reaction[i][k];
      sum.largest += std::abs(factor) * part.largest;
      sum.gross += std::abs(factor) * part.gross;
      sum.still += std::abs(factor) * part.still;
      const double moves = std::abs(factor) * largest_movement(s_, part);
      off += part.error * moves;
      gross_movement += moves;
      sum.forceless = sum.forceless && part.forceless;
    }
    // A sum that is nothing beside its terms is nothing.
    constexpr double rounding = 1e-14;
    const double moved = largest_movement(s_, sum);
    if (moved <= std::max(off, rounding * gross_movement))
      come_to_rest(sum);
    else
      sum.error = off / moved;
    sum.moved = largest_translation(sum);
    tidy(sum);
  }

  static void come_to_rest(CaseAnalysis& c) {
    std::fill(c.movement.begin(), c.movement.end(), Movement{});
    c.error = 0;
  }
  static double largest_translation(const CaseAnalysis& c) {
    double most = 0;
    for (const Movement& m : c.movement)
      for (std::size_t k = 0; k < 3; ++k) most = std::max(most, std::abs(m.value[k]));
    return most;
  }

  // Forces that the loads of a case would bring, each by itself, if nothing gave way.
  double gross_force(std::size_t index) const {
    const CaseAnalysis& c = a_.cases[index];
    double most = std::max(c.applied.largest_force, c.applied.largest_moment);
    const auto strained = [&](MemberId on, const FreeStrain& free) {
      const Rigidity& r = a_.elements[a_.spans.first[on.index]].rigidity();
      most =
          std::max({most, r.EA * std::abs(free.along), r.EIz * std::abs(free.curve_y), r.EIy * std::abs(free.curve_z)});
    };
    for (const Load& load : a_.loads(s_, index).loads()) {
      if (const auto* l = std::get_if<HeatLoad>(&load)) strained(l->on, free_strain(s_, *l));
      if (const auto* l = std::get_if<ShortenLoad>(&load)) strained(l->on, free_strain(s_, *l));
      if (const auto* l = std::get_if<SettleLoad>(&load)) most = std::max(most, stiffest_ * length(l->move));
    }
    return most;
  }
  // In a case that adds up others, members that act one way only among them: its loads take each other back where no
  // member feels more than their rounding. What members would do by themselves moves points without a force.
  bool nothing_is_felt(std::size_t index) const {
    if (index < s_.load_cases().size()) return false;
    constexpr double rounding = 1e-12;
    const CaseAnalysis& c = a_.cases[index];
    double free = 0, felt = 0;
    for (std::size_t i = 0; i < a_.spans.all.size(); ++i) {
      const Span& s = a_.spans.all[i];
      const auto loads = c.loads.on(i);
      for (const LoadPiece& l : loads)
        free = std::max(
            {free, std::abs(l.free.along), std::abs(l.free.curve_y) * s.length, std::abs(l.free.curve_z) * s.length});
      const Element& e = a_.element(index, i);
      const Ends ends =
          e.own_ends(solver::ends<long double>(a_.spans.axes[s.member], s, c.movement[s.a], c.movement[s.b]), loads);
      felt = std::max(felt, e.tidy_end_forces(ends, loads).cwiseAbs().maxCoeff());
    }
    constexpr double no_strain = 1e-15;
    return felt <= rounding * c.gross && free <= no_strain;
  }
  double stiffest() const {
    double most = 0;
    for (std::size_t i = 0; i < a_.spans.all.size(); ++i)
      most = std::max(most, a_.elements[i].rigidity().EA / a_.spans.all[i].length);
    return most;
  }

  // Forces from within, or from several cases, that take each other back leave rounding, which is no reaction.
  static void tidy(CaseAnalysis& c) {
    constexpr double rounding = 1e-13;
    for (Six& reaction : c.reaction)
      for (double& r : reaction)
        if (c.forceless || std::abs(r) <= rounding * c.largest) r = 0;
  }

  void finish(std::size_t index, const JointForces& need) {
    const Freedoms& f = a_.freedoms;
    CaseAnalysis& c = a_.cases[index];
    c.largest = need.largest;
    for (const PointSupport& s : s_.supports()) {
      const std::size_t p = s.at.index;
      Six own = f.in_frame(p, need.at[p]);
      for (std::size_t k = 0; k < 6; ++k)
        if (f.status[p][k] != Status::held) own[k] = 0;
      c.reaction.push_back(f.in_global(p, own));
    }
    for (const PointSpring& s : f.springs) {
      const Six force = spring_force(a_, index, s);
      for (std::size_t k = 0; k < 6; ++k) c.reaction[s.support][k] += force[k];
    }
    c.gross = std::max(c.gross, c.largest);
    constexpr double rounding = 1e-13, nothing = 1e-10;
    const double reach = c.gross / stiffest_;
    c.still = rounding * reach;
    if (c.ground.empty() && (largest_movement(s_, c) <= nothing * reach || nothing_is_felt(index))) come_to_rest(c);
    c.moved = largest_translation(c);
    c.forceless = is_forceless(c);
    c.largest = c.gross;
    tidy(c);
    for (std::size_t p = 0; p < f.status.size(); ++p)
      for (std::size_t k = 3; k < 6; ++k)
        if (f.status[p][k] == Status::idle && std::abs(need.at[p][k]) > 1e-9 * c.largest) spun_.push_back({p, index});
  }

  // No load from outside, and forces that are nothing beside what such movements would bring if anything resisted them.
  bool is_forceless(const CaseAnalysis& c) const {
    constexpr double rounding = 1e-12;
    if (c.applied.largest_force > 0 || c.applied.largest_moment > 0) return false;
    double resisted = 0;
    for (std::size_t i = 0; i < a_.spans.all.size(); ++i) {
      const Span& s = a_.spans.all[i];
      double move = 0;
      for (std::size_t k = 0; k < 3; ++k)
        move = std::max({move, std::abs(c.movement[s.a].value[k]), std::abs(c.movement[s.b].value[k])});
      resisted = std::max(resisted, a_.elements[i].rigidity().EA / s.length * move);
    }
    return c.largest <= rounding * resisted;
  }

  // A spin that nothing resists is harmless until a load works on it.
  Problems spinning_loads() const {
    Problems problems;
    for (std::size_t i = 0; i < spun_.size(); ++i) {
      const auto [point, load_case] = spun_[i];
      if (i > 0 && point == spun_[i - 1].first) continue;
      const std::string& name = a_.loads(s_, load_case).name();
      problems.push_back(
          {fmt::format("in case '{}' a load turns point {}, where only hinged ends and links meet: nothing holds it",
                       name, s_.points()[point].name),
           {Subject::Kind::load_case, name}});
    }
    return problems;
  }

  const Structure& s_;
  Reusable& kept_;
  double stiffest_ = 0;  // EA/L
  Analysis a_;
  std::vector<std::pair<std::size_t, std::size_t>> spun_;  // point, case
};

}  // namespace

Expected<Analysis, Problems> analyse(const Structure& structure, Reusable& kept) {
  return Run(structure, kept)();
}

}  // namespace corvex::solver
