#include "analysis/case_states.hpp"

#include <algorithm>
#include <cmath>

#include "analysis/accuracy.hpp"

namespace corvex::solver {
namespace {

const Element& element(const System& system, const CaseState& state, std::size_t span) {
  return state.elements ? (*state.elements)[span] : system.elements[span];
}

void come_to_rest(CaseState& s) {
  std::fill(s.movement.begin(), s.movement.end(), Movement{});
  s.error = 0;
}

double largest_translation(const CaseState& s) {
  double most = 0;
  for (const Movement& m : s.movement)
    for (std::size_t k = 0; k < 3; ++k) most = std::max(most, std::abs(m.value[k]));
  return most;
}

// Forces from within, or from several cases, that cancel leave rounding error, which is not a reaction.
void tidy(CaseState& s) {
  constexpr double rounding = 1e-13;
  for (Six& reaction : s.reaction)
    for (double& r : reaction)
      if (s.forceless || std::abs(r) <= rounding * s.largest) r = 0;
}

// The loads of a combination cancel if no member has more than their rounding error. Free deformation of members
// by themselves moves points without a force.
bool nothing_is_felt(const System& system, const Acting& acting, const CaseState& state) {
  constexpr double rounding = 1e-12;
  double free = 0, felt = 0;
  for (std::size_t i = 0; i < system.spans.all.size(); ++i) {
    const Span& s = system.spans.all[i];
    const auto loads = acting.loads.on(i);
    for (const LoadPiece& l : loads)
      free = std::max(
          {free, std::abs(l.free.along), std::abs(l.free.curve_y) * s.length, std::abs(l.free.curve_z) * s.length});
    const Element& e = element(system, state, i);
    const Ends ends = e.own_ends(
        solver::ends<long double>(system.spans.axes[s.member], s, state.movement[s.a], state.movement[s.b]), loads);
    felt = std::max(felt, e.tidy_end_forces(ends, loads).cwiseAbs().maxCoeff());
  }
  constexpr double no_strain = 1e-15;
  return felt <= rounding * state.gross && free <= no_strain;
}

// No load from outside, and forces that are negligible compared with those of the fully restrained displacements.
bool is_forceless(const System& system, const Acting& acting, const CaseState& state) {
  constexpr double rounding = 1e-12;
  if (acting.applied.largest_force > 0 || acting.applied.largest_moment > 0) return false;
  double resisted = 0;
  for (std::size_t i = 0; i < system.spans.all.size(); ++i) {
    const Span& s = system.spans.all[i];
    double move = 0;
    for (std::size_t k = 0; k < 3; ++k)
      move = std::max({move, std::abs(state.movement[s.a].value[k]), std::abs(state.movement[s.b].value[k])});
    resisted = std::max(resisted, system.elements[i].rigidity().EA / s.length * move);
  }
  return state.largest <= rounding * resisted;
}

}  // namespace

CaseState state_of(const Structure& s, const System& system, const Acting& acting, Solved solved, bool is_combination) {
  const Dofs& f = system.dofs;
  const JointForces& need = solved.need;
  CaseState state{.movement = std::move(solved.movement),
                  .reaction = {},
                  .error = solved.error,
                  .largest = need.largest,
                  .elements = std::move(solved.elements),
                  .bent = std::move(solved.bent)};
  for (const PointSupport& support : s.supports()) {
    const std::size_t p = support.at.index;
    Six own = f.in_frame(p, need.at[p]);
    for (std::size_t k = 0; k < 6; ++k)
      if (f.status[p][k] != Status::held) own[k] = 0;
    state.reaction.push_back(f.in_global(p, own));
  }
  for (const PointSpring& spring : f.springs) {
    const Six force = spring_force(acting, state.movement, spring);
    for (std::size_t k = 0; k < 6; ++k) state.reaction[spring.support][k] += force[k];
  }
  state.gross = std::max(acting.gross, state.largest);
  constexpr double rounding = 1e-13, nothing = 1e-10;
  const double reach = state.gross / system.stiffest;
  state.still = rounding * reach;
  if (acting.ground.empty() && (largest_movement(s, state.movement) <= nothing * reach ||
                                (is_combination && nothing_is_felt(system, acting, state))))
    come_to_rest(state);
  state.moved = largest_translation(state);
  state.forceless = is_forceless(system, acting, state);
  state.largest = state.gross;
  tidy(state);
  return state;
}

CaseState superposed(const Structure& s, const Combination& combination, const std::vector<CaseState>& states) {
  CaseState sum;
  sum.movement.assign(s.points().size(), {});
  sum.reaction.assign(s.supports().size(), Six{});
  sum.forceless = true;
  double off = 0, gross_movement = 0;
  for (const auto& [load_case, factor] : combination.terms) {
    const CaseState& part = states[load_case];
    for (std::size_t p = 0; p < sum.movement.size(); ++p)
      for (std::size_t k = 0; k < 6; ++k) {
        sum.movement[p].add(k, factor * part.movement[p].value[k]);
        // Rounding error of the product.
        sum.movement[p].rest[k] += std::fma(factor, part.movement[p].value[k], -factor * part.movement[p].value[k]) +
                                   factor * part.movement[p].rest[k];
      }
    for (std::size_t i = 0; i < sum.reaction.size(); ++i)
      for (std::size_t k = 0; k < 6; ++k) sum.reaction[i][k] += factor * part.reaction[i][k];
    sum.largest += std::abs(factor) * part.largest;
    sum.gross += std::abs(factor) * part.gross;
    sum.still += std::abs(factor) * part.still;
    const double moves = std::abs(factor) * largest_movement(s, part.movement);
    off += part.error * moves;
    gross_movement += moves;
    sum.forceless = sum.forceless && part.forceless;
  }
  // A sum that is negligible compared with its terms is zero.
  constexpr double rounding = 1e-14;
  const double moved = largest_movement(s, sum.movement);
  if (moved <= std::max(off, rounding * gross_movement))
    come_to_rest(sum);
  else
    sum.error = off / moved;
  sum.moved = largest_translation(sum);
  tidy(sum);
  return sum;
}

std::vector<std::size_t> spun_points(const System& system, const Acting& acting, const JointForces& need) {
  const double largest = std::max(acting.gross, need.largest);
  const Dofs& f = system.dofs;
  std::vector<std::size_t> points;
  for (std::size_t p = 0; p < f.status.size(); ++p)
    for (std::size_t k = 3; k < 6; ++k)
      if (f.status[p][k] == Status::idle && std::abs(need.at[p][k]) > 1e-9 * largest) points.push_back(p);
  return points;
}

}  // namespace corvex::solver
