#include "analysis/equations.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "analysis/accuracy.hpp"
#include "linear_system/memory.hpp"
#include "mechanism/kinematics.hpp"
#include "mechanism/mechanism.hpp"

namespace corvex::solver {
namespace {

// The largest remainder of a case against its largest force; the worst of all cases.
double remainder(const std::vector<JointForces>& need, const Eigen::MatrixXd& lack) {
  double worst = 0;
  for (std::size_t c = 0; c < need.size() && lack.rows() > 0; ++c)
    if (need[c].largest > 0)
      worst = std::max(worst, lack.col(static_cast<Eigen::Index>(c)).cwiseAbs().maxCoeff() / need[c].largest);
  return worst;
}

}  // namespace

Expected<std::vector<Solved>, Problems> Equations::solve(std::vector<LoadedCase> cases, Elements own) {
  Block block{structure_, system_, own ? *own : system_.elements, std::move(cases), {}};
  start(block);
  reusable_.assemble(system_, block.elements);
  const bool moving_ground = std::any_of(block.cases.begin(), block.cases.end(),
                                         [](const LoadedCase& c) { return !c.acting->ground.empty(); });
  std::vector<JointForces> need = moving_ground ? joint_forces(block) : joint_forces_at_rest(block);
  std::vector<double> error(block.size(), 0);
  if (Problems problems = factorise_and_solve(block, moving_ground, need, error); !problems.empty()) return problems;
  std::vector<Solved> all;
  for (std::size_t c = 0; c < block.size(); ++c)
    all.push_back({std::move(block.movement[c]), error[c], std::move(need[c]), own});
  return all;
}

// Nothing has moved but the ground under supports that hold.
void Equations::start(Block& block) const {
  const Dofs& f = system_.dofs;
  block.movement.assign(block.size(), std::vector<Movement>(structure_.points().size()));
  for (std::size_t c = 0; c < block.size(); ++c) {
    const std::vector<Six>& ground = block.cases[c].acting->ground;
    if (ground.empty()) continue;
    for (std::size_t i = 0; i < structure_.supports().size(); ++i) {
      const std::size_t p = structure_.supports()[i].at.index;
      Six own = f.in_frame(p, ground[i]);
      for (std::size_t k = 0; k < 6; ++k)
        if (f.status[p][k] != Status::held) own[k] = 0;
      block.movement[c][p].value = f.in_global(p, own);
    }
  }
}

// Solves for the residual forces of the points. Where rounding may have left more of them than in a well-conditioned
// structure, what still lacks is solved for again: each step gains as many digits as the first one had.
Problems Equations::factorise_and_solve(Block& block, bool moving_ground, std::vector<JointForces>& need,
                                        std::vector<double>& error) {
  if (K_.n == 0) return {};
  Eigen::MatrixXd step = residual(need);
  if (!factor_) factor_.emplace(K_);
  if (factor_->bytes_needed() > memory_limit())
    return {{fmt::format("solving {} degrees of freedom takes about {:.1f} GB of memory, of which {:.1f} GB are free",
                         K_.n, factor_->bytes_needed() / 1e9, memory_limit() / 1e9),
             {},
             "members"}};
  factor_->factorise(K_, step);
  if (!factor_->sound()) {
    if (Problems problems = explain_singular(block.elements); !problems.empty()) return problems;
    step = factor_->solve(residual(need));
  }
  move(block, step);
  if (moving_ground)
    need = joint_forces(block);
  else
    add_elastic(block, need);
  Eigen::MatrixXd lack = residual(need);
  Refinement refined;
  if (!digits_stand(block, need, lack)) refined = refine(block, need, lack);
  const std::vector<double> errors = movement_errors(block, lack, *factor_);
  // The factor's softest direction may be stiffer than the true one by 1/(1 − contraction). Steps of the size of the
  // rounding error in the residual do not show it.
  constexpr double above_rounding = 3, least = 1e-16;
  const bool stalled = refined.left > above_rounding * *std::max_element(errors.begin(), errors.end());
  // A factor that enlarges rounding to the movements themselves does not know its softest direction. Where steps stop
  // shrinking before they vanish, its own estimate is then off by up to a digit (tests/linear_system/digits.cpp).
  constexpr double unit_rounding = std::numeric_limits<double>::epsilon() / 2, a_digit = 10;
  const bool uncertain = refined.left > 0 && factor_->amplification() * unit_rounding > 1;
  for (std::size_t c = 0; c < block.size(); ++c) {
    // Beyond this the rounding of the matrix itself may hide as much again.
    constexpr double rounds_away = 1e13;
    double share = errors[c] / (1 - refined.contraction) * (factor_->amplification() > rounds_away ? 2 : 1);
    if (stalled) share = std::max(share, refined.left / std::max(1 - refined.stalled_contraction, least));
    if (uncertain) share *= a_digit;
    error[c] = errors[c] == 0 ? 0 : std::min(1.0, share);
  }
  return {};
}

// The mechanism where pivots vanish; if there is none, a factor that tolerates them.
Problems Equations::explain_singular(const std::vector<Element>& elements) {
  // K as it was before it was scaled. What follows is of this matrix alone.
  reusable_.pattern->assemble(system_.spans, elements, system_.dofs, K_);
  reusable_.single_use = true;
  const std::vector<int> weak = factor_->weak().empty() ? null_pivots(K_) : factor_->weak();
  if (!weak.empty() && every_motion_strains(system_.spans, elements, system_.dofs) != true)
    if (Problems problems = inner_motions(structure_, system_.spans, elements, system_.dofs, K_, weak);
        !problems.empty())
      return problems;
  // Soft, but nothing moves.
  factor_ = Factor::tolerant(K_);
  if (factor_->sound()) return {};
  return {
      as_finding("ill-conditioned",
                 {"the stiffness matrix is singular to working precision, although the structure is no mechanism: some "
                  "members are too stiff compared with others",
                  {},
                  "members"})};
}

// Whether the first solution is as good as further ones would make it.
bool Equations::digits_stand(const Block& block, const std::vector<JointForces>& need,
                             const Eigen::MatrixXd& lack) const {
  constexpr double well_shaped = 1e6, expected = 5e-12, rounds_away = 1e13;
  if (!(remainder(need, lack) < expected)) return false;
  // The matrix itself holds its entries to a rounding only: whether its softest direction is right, refinement shows.
  if (!(factor_->amplification() < rounds_away)) return false;
  return factor_->amplification() < well_shaped || errors_are_rounding(block, lack);
}

// The final residual is in `lack`. Each step is the error of the movements as the factor sees it. A factor
// whose softest direction is wrong by a share θ leaves θ of the error from step to step; where steps hardly shrink, the
// error that is left is the sum of all that would follow.
Equations::Refinement Equations::refine(Block& block, std::vector<JointForces>& need, Eigen::MatrixXd& lack) const {
  constexpr int most_steps = 20;
  constexpr double good_enough = 1e-15, hardly_less = 0.7, noise = 1e-13;
  Refinement done;
  need = joint_forces(block);
  lack = residual(need);
  double before = 0;
  for (int i = 0; i < most_steps; ++i) {
    const Eigen::MatrixXd step = factor_->solve(lack);
    const double share = largest_share(block, step);
    if (!std::isfinite(share)) {
      done.stalled_contraction = done.left = 1;
      return done;
    }
    if (share < good_enough) break;
    if (i > 0 && share > hardly_less * before) {
      // Steps that are rounding need not shrink.
      if (share > noise) done.stalled_contraction = std::min(share / before, 1.0), done.left = share;
      break;
    }
    move(block, step);
    need = joint_forces(block);
    lack = residual(need);
    if (i > 0 && share > noise) done.contraction = std::max(done.contraction, share / before);
    before = share;
  }
  return done;
}

// The largest entry of a step against the largest movement of its case; the worst of all cases.
double Equations::largest_share(const Block& block, const Eigen::MatrixXd& step) const {
  double worst = 0;
  for (std::size_t c = 0; c < block.size(); ++c) {
    double moved = 0;
    for (const Movement& m : block.movement[c])
      for (const double v : m.value) moved = std::max(moved, std::abs(v));
    if (moved > 0) worst = std::max(worst, step.col(static_cast<Eigen::Index>(c)).cwiseAbs().maxCoeff() / moved);
  }
  return worst;
}

// The step that the cases still ask for, tried on a mixture of them all: where it is negligible compared with the
// displacements it need not be made for each.
bool Equations::errors_are_rounding(const Block& block, const Eigen::MatrixXd& lack) const {
  constexpr double nothing = 1e-11;
  Eigen::VectorXd mixture = Eigen::VectorXd::Zero(lack.rows());
  for (Eigen::Index c = 0; c < lack.cols(); ++c) {
    double largest = 0;
    for (const Movement& m : block.movement[static_cast<std::size_t>(c)])
      for (const double v : m.value) largest = std::max(largest, std::abs(v));
    if (largest > 0) mixture += lack.col(c) * ((c % 2 ? -1 : 1) / largest);
  }
  return factor_->solve(mixture).cwiseAbs().maxCoeff() < nothing;
}

// Minus the residual of each free degree of freedom; one column for each case.
Eigen::MatrixXd Equations::residual(const std::vector<JointForces>& need) const {
  const Dofs& f = system_.dofs;
  Eigen::MatrixXd lack(K_.n, static_cast<Eigen::Index>(need.size()));
  for (std::size_t c = 0; c < need.size(); ++c) {
    double* column = lack.col(static_cast<Eigen::Index>(c)).data();
    for (std::size_t p = 0; p < f.equation.size(); ++p) {
      const Six own = f.in_frame(p, need[c].at[p]);
      for (std::size_t k = 0; k < 6; ++k)
        if (const int e = f.equation[p][k]; e >= 0) column[e] = -own[k];
    }
  }
  return lack;
}

void Equations::move(Block& block, const Eigen::MatrixXd& step) const {
  const Dofs& f = system_.dofs;
  for (std::size_t c = 0; c < block.size(); ++c) {
    const double* column = step.col(static_cast<Eigen::Index>(c)).data();
    for (std::size_t p = 0; p < f.equation.size(); ++p) {
      if (f.frame(p)) {
        const Six by = f.of_point(p, column);
        for (std::size_t k = 0; k < 6; ++k) block.movement[c][p].add(k, by[k]);
        continue;
      }
      for (std::size_t k = 0; k < 6; ++k)
        if (const int e = f.equation[p][k]; e >= 0) block.movement[c][p].add(k, column[e]);
    }
  }
}

}  // namespace corvex::solver
