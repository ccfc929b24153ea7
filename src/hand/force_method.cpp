#include "hand/force_method.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "algebra/dense.hpp"

namespace corvex::hand {
namespace {

Problem free_to_turn(const LoadCase& loads) {
  return {fmt::format("in case '{}' a moment acts on a point at which nothing resists turning", loads.name()),
          {Subject::Kind::load_case, loads.name()}};
}

std::vector<double> unit_vector(std::size_t n, std::size_t i) {
  std::vector<double> v(n, 0);
  v[i] = 1;
  return v;
}

// The redundants X of Σ_k δ_ik X_k + δ_i0 = 0, with equations scaled to a unit diagonal.
std::vector<double> solved(const std::vector<std::vector<double>>& flexibility, const std::vector<double>& by_loads) {
  const std::size_t n = by_loads.size();
  std::vector<long double> scale, matrix, right;
  for (std::size_t i = 0; i < n; ++i)
    scale.push_back(flexibility[i][i] > 0 ? 1 / std::sqrt(static_cast<long double>(flexibility[i][i])) : 1);
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t k = 0; k < n; ++k) matrix.push_back(scale[i] * flexibility[i][k] * scale[k]);
    right.push_back(-scale[i] * by_loads[i]);
  }
  const std::vector<long double> x = algebra::semidefinite_solution(std::move(matrix), std::move(right));
  std::vector<double> all;
  for (std::size_t i = 0; i < n; ++i) all.push_back(static_cast<double>(scale[i] * x[i]));
  return all;
}

// With these pieces slack.
Expected<ForceMethod, Problem> with_slack(const ForceMethod& start, const LoadCase& loads,
                                          const std::vector<bool>& slack, std::size_t most_redundants) {
  ForceMethod m;
  m.shape = start.shape, m.acting = start.acting;
  auto statics = Statics::of(m.shape, slack);
  if (!statics) return statics.error();
  m.statics = std::move(*statics);
  const std::size_t n = m.statics->redundants().size();
  if (n > most_redundants)
    return Problem{
        fmt::format("the structure is statically indeterminate to degree {}; the force method is written for "
                    "{} redundants at most",
                    n, most_redundants),
        {},
        too_long};
  auto primary = m.statics->state(m.acting, {});
  if (!primary) return free_to_turn(loads);
  m.primary = std::move(*primary);
  for (std::size_t i = 0; i < n; ++i) m.unit.push_back(*m.statics->state(m.nothing, unit_vector(n, i)));
  std::vector<std::vector<double>> flexibility(n, std::vector<double>(n));
  std::vector<double> by_loads;
  m.terms.resize(n);
  for (std::size_t i = 0; i < n; ++i) {
    m.load_terms.push_back(virtual_work(m.skeleton(), m.primary, m.acting, m.unit[i]));
    by_loads.push_back(sum(m.load_terms.back()));
    for (std::size_t k = 0; k < n; ++k) {
      m.terms[i].push_back(k < i ? std::vector<WorkTerm>{}
                                 : virtual_work(m.skeleton(), m.unit[i], m.nothing, m.unit[k]));
      if (k >= i) flexibility[i][k] = flexibility[k][i] = sum(m.terms[i].back());
    }
  }
  m.redundants = solved(flexibility, by_loads);
  // Rounding error where the terms of δ_i0 cancel.
  constexpr double rounding = 1e-12;
  for (std::size_t i = 0; i < n; ++i) {
    double gross = 0;
    for (const WorkTerm& t : m.load_terms[i]) gross += std::abs(t.value);
    if (std::abs(m.redundants[i]) * flexibility[i][i] <= rounding * gross) m.redundants[i] = 0;
  }
  if (n == 0) {
    m.final = m.primary;
    return m;
  }
  auto final = m.statics->state(m.acting, m.redundants);
  if (!final) return free_to_turn(loads);
  m.final = std::move(*final);
  return m;
}

double sign_of(const Skeleton& k, const Piece& p) {
  return k.structure->members()[p.member].acts == Acts::compression ? -1 : 1;
}

// The course of a bar's loads with no force at its start.
PieceCourse hanging(const ForceMethod& m, std::size_t piece) {
  return course_of(m.skeleton(), m.acting, piece, Forces{});
}

// By how much its own loads and strains make a free piece longer when no force is at its start.
double own_elongation(const ForceMethod& m, std::size_t piece) {
  const Piece& p = m.skeleton().pieces[piece];
  double u = m.acting.strains.empty() ? 0 : m.acting.strains[p.member].along * p.length;
  for (const Stretch& s : hanging(m, piece).stretches) {
    const Course& n = s.forces[N];
    const double h = s.to - s.from;
    u += h * (n[0] + h * (n[1] / 2 + h * n[2] / 3)) * p.flexible.EA;
  }
  return u;
}

// How much longer the distance between the ends of a piece becomes.
double elongation(const ForceMethod& m, std::size_t piece) {
  return sum(m.displacement(pushed_apart(m.skeleton(), piece)).second);
}

// By how much the force of each such piece, or the one it would have, is wrong in N; 0 where its sign is right.
double wrong_by(const ForceMethod& m, std::size_t piece, bool slack, double largest) {
  const Piece& p = m.skeleton().pieces[piece];
  const double sign = sign_of(m.skeleton(), p);
  const double force =
      slack ? (elongation(m, piece) - own_elongation(m, piece)) / (p.flexible.EA * p.length) : m.final.start[piece][N];
  const double taut = sign * (force - resting_force(m.skeleton(), p, hanging(m, piece).stretches)),
               beyond = slack ? taut : -taut;
  return beyond > 1e-10 * largest ? beyond : 0;
}

double largest_force(const ForceMethod& m) {
  double most = 0;
  for (const auto* state : {&m.primary, &m.final}) {
    for (const Forces& f : state->start) most = std::max({most, std::abs(f[N]), std::abs(f[Vy]), std::abs(f[Vz])});
    for (const double r : state->reaction) most = std::max(most, std::abs(r));
  }
  return most;
}

}  // namespace

std::pair<State, std::vector<WorkTerm>> ForceMethod::displacement(const Acting& virtual_load) const {
  auto state = statics->state(virtual_load, {});
  if (!state) return {};
  // Ends of bars carry the loads of a virtual force inside them as well.
  auto work = virtual_work(skeleton(), final, acting, *state);
  return {std::move(*state), std::move(work)};
}

Expected<ForceMethod, Problem> force_method(const Structure& structure, const LoadCase& loads, std::size_t most) {
  ForceMethod start;
  start.shape = std::make_shared<const Skeleton>(skeleton(structure));
  const Skeleton& k = start.skeleton();
  std::size_t unknowns = k.holds.size();
  for (const Piece& p : k.pieces) unknowns += k.components(p).size();
  if (unknowns > most_unknowns)
    return Problem{fmt::format("{} unknown forces are too many for a derivation ({} at most)", unknowns, most_unknowns),
                   {},
                   too_long};
  start.acting = acting_on(k, loads);
  std::vector<bool> slack(k.pieces.size(), false);
  std::vector<std::size_t> one_way;
  for (std::size_t i = 0; i < k.pieces.size(); ++i)
    if (structure.members()[k.pieces[i].member].acts != Acts::always) one_way.push_back(i);
  auto found = with_slack(start, loads, slack, most + one_way.size());
  std::vector<std::vector<bool>> seen{slack};
  bool one_at_a_time = false;
  for (;;) {
    if (!found) return found.error();
    const double largest = largest_force(*found);
    std::vector<double> wrong;
    for (const std::size_t i : one_way) wrong.push_back(wrong_by(*found, i, slack[i], largest));
    if (std::all_of(wrong.begin(), wrong.end(), [](double w) { return w == 0; })) break;
    const auto changed = [&](bool all) {
      std::vector<bool> next = slack;
      const std::size_t worst = static_cast<std::size_t>(std::max_element(wrong.begin(), wrong.end()) - wrong.begin());
      for (std::size_t i = 0; i < one_way.size(); ++i)
        if (all ? wrong[i] > 0 : i == worst) next[one_way[i]] = !next[one_way[i]];
      return next;
    };
    std::vector<bool> next = changed(!one_at_a_time);
    auto tried = with_slack(start, loads, next, most + one_way.size());
    const bool repeats = std::find(seen.begin(), seen.end(), next) != seen.end();
    if ((repeats || !tried) && !one_at_a_time) {
      one_at_a_time = true;
      seen = {slack};
      next = changed(false);
      tried = with_slack(start, loads, next, most + one_way.size());
    } else if (repeats) {
      return Problem{fmt::format("in case '{}' there is no state in which all members that act one way only keep their "
                                 "sign",
                                 loads.name()),
                     {Subject::Kind::load_case, loads.name()}};
    }
    seen.push_back(next);
    slack = next;
    found = std::move(tried);
  }
  if (found->statics->redundants().size() > most) return with_slack(start, loads, slack, most).error();
  for (const std::size_t i : one_way)
    if (slack[i]) found->slack.push_back({i, elongation(*found, i) - own_elongation(*found, i)});
  return found;
}

}  // namespace corvex::hand
