#include "solve/equations.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "solve/accuracy.hpp"
#include "solve/kinematics.hpp"
#include "solve/mechanism.hpp"
#include "solve/memory.hpp"

namespace corvex::solver {
namespace {

std::vector<std::pair<std::size_t, std::size_t>> ends_of(const Spans& spans) {
  std::vector<std::pair<std::size_t, std::size_t>> ends;
  ends.reserve(spans.all.size());
  for (const Span& s : spans.all) ends.emplace_back(s.a, s.b);
  return ends;
}

// The largest remainder of a case against its largest force; the worst of all cases.
double remainder(const std::vector<JointForces>& need, const Eigen::MatrixXd& lack) {
  double worst = 0;
  for (std::size_t c = 0; c < need.size() && lack.rows() > 0; ++c)
    if (need[c].largest > 0)
      worst = std::max(worst, lack.col(static_cast<Eigen::Index>(c)).cwiseAbs().maxCoeff() / need[c].largest);
  return worst;
}

}  // namespace

bool Reusable::fits(const Spans& spans, const Freedoms& f) const {
  return pattern && f.status == freedoms.status && ends_of(spans) == ends;
}

Problems Equations::solve(const std::vector<std::size_t>& cases, std::vector<JointForces>& need) {
  cases_ = cases;
  start();
  assemble();
  need = moving_ground() ? joint_forces(s_, a_, cases_) : joint_forces_at_rest(s_, a_, cases_);
  return factorise_and_solve(need);
}

const std::vector<Element>& Equations::elements() const {
  const CaseAnalysis& first = a_.cases[cases_.front()];
  return first.elements ? *first.elements : a_.elements;
}

bool Equations::moving_ground() const {
  return std::any_of(cases_.begin(), cases_.end(), [this](std::size_t c) { return !a_.cases[c].ground.empty(); });
}

// Nothing has moved but the ground under supports that hold.
void Equations::start() {
  const Freedoms& f = a_.freedoms;
  for (const std::size_t c : cases_) {
    CaseAnalysis& result = a_.cases[c];
    result.movement.assign(s_.points().size(), {});
    if (result.ground.empty()) continue;
    for (std::size_t i = 0; i < s_.supports().size(); ++i) {
      const std::size_t p = s_.supports()[i].at.index;
      Six own = f.in_frame(p, result.ground[i]);
      for (std::size_t k = 0; k < 6; ++k)
        if (f.status[p][k] != Status::held) own[k] = 0;
      result.movement[p].value = f.in_global(p, own);
    }
  }
}

void Equations::assemble() {
  Freedoms& f = a_.freedoms;
  if (kept_.fits(a_.spans, f)) {
    f.equation = kept_.freedoms.equation;
    f.equations = kept_.freedoms.equations;
    f.first_equation = kept_.freedoms.first_equation;
  } else {
    kept_.pattern.emplace(a_.spans, f);
    kept_.freedoms = f;
    kept_.ends = ends_of(a_.spans);
    K_ = {};
    factor_.reset();
  }
  kept_.pattern->assemble(a_.spans, elements(), f, K_);
}

// Solves for what the points lack. Where rounding may have left more of it than a well-shaped structure would, what
// still lacks is solved for again: each step gains as many digits as the first one had.
Problems Equations::factorise_and_solve(std::vector<JointForces>& need) {
  if (K_.n == 0) return {};
  Eigen::MatrixXd block = residual(need);
  if (!factor_) factor_.emplace(K_);
  if (factor_->bytes_needed() > memory_limit())
    return {{fmt::format("solving {} freedoms takes about {:.1f} GB of memory, and there are {:.1f} GB", K_.n,
                         factor_->bytes_needed() / 1e9, memory_limit() / 1e9),
             {},
             "members"}};
  factor_->factorise(K_, block);
  if (!factor_->sound()) {
    if (Problems problems = explain_singular(); !problems.empty()) return problems;
    block = factor_->solve(residual(need));
  }
  move(block);
  if (moving_ground())
    need = joint_forces(s_, a_, cases_);
  else
    add_elastic(a_, cases_, need);
  contraction_ = stalled_contraction_ = left_ = 0;
  Eigen::MatrixXd lack = residual(need);
  if (!digits_stand(need, lack)) need = refine(lack);
  const std::vector<double> errors = movement_errors(s_, a_, cases_, lack, *factor_);
  // The factor's softest direction may be stiffer than the true one by 1/(1 − contraction). Steps of the size of the
  // rounding that hides in what the points lack tell nothing of it.
  constexpr double above_rounding = 3, least = 1e-16;
  const bool stalled = left_ > above_rounding * *std::max_element(errors.begin(), errors.end());
  for (std::size_t c = 0; c < cases_.size(); ++c) {
    // Beyond this the rounding of the matrix itself may hide as much again.
    constexpr double rounds_away = 1e13;
    double error = errors[c] / (1 - contraction_) * (factor_->amplification() > rounds_away ? 2 : 1);
    if (stalled) error = std::max(error, left_ / std::max(1 - stalled_contraction_, least));
    a_.cases[cases_[c]].error = errors[c] == 0 ? 0 : std::min(1.0, error);
  }
  return {};
}

// What moves where the pivots vanish; or, if nothing does, a factor that lives with them.
Problems Equations::explain_singular() {
  // What follows is of this matrix alone, as it was before it was scaled.
  kept_.pattern->assemble(a_.spans, elements(), a_.freedoms, K_);
  kept_.pattern.reset();
  const std::vector<int> weak = factor_->weak().empty() ? null_pivots(K_) : factor_->weak();
  if (!weak.empty() && every_motion_strains(a_.spans, elements(), a_.freedoms) != true)
    if (Problems problems = inner_motions(s_, a_.spans, elements(), a_.freedoms, K_, weak); !problems.empty())
      return problems;
  // Soft, but nothing moves.
  factor_ = Factor::tolerant(K_);
  if (factor_->sound()) return {};
  return {
      {"the stiffness matrix is singular to working precision, though nothing moves freely: some members are "
       "stiffer than others by more than the digits can hold",
       {},
       "members"}};
}

// Whether the first solution is as good as further ones would make it.
bool Equations::digits_stand(const std::vector<JointForces>& need, const Eigen::MatrixXd& lack) const {
  constexpr double well_shaped = 1e6, expected = 5e-12, rounds_away = 1e13;
  if (!(remainder(need, lack) < expected)) return false;
  // The matrix itself holds its entries to a rounding only: whether its softest direction is right, refinement shows.
  if (!(factor_->amplification() < rounds_away)) return false;
  return factor_->amplification() < well_shaped || errors_are_rounding(lack);
}

// What is lacking in the end stands in `lack`. Each step is the error of the movements as the factor sees it. A factor
// whose softest direction is wrong by a share θ leaves θ of the error from step to step; where steps hardly shrink, the
// error that is left is the sum of all that would follow.
std::vector<JointForces> Equations::refine(Eigen::MatrixXd& lack) {
  constexpr int most_steps = 20;
  constexpr double good_enough = 1e-15, hardly_less = 0.7, noise = 1e-13;
  std::vector<JointForces> need = joint_forces(s_, a_, cases_);
  lack = residual(need);
  double before = 0;
  for (int i = 0; i < most_steps; ++i) {
    const Eigen::MatrixXd step = factor_->solve(lack);
    const double share = largest_share(step);
    if (!std::isfinite(share)) {
      stalled_contraction_ = left_ = 1;
      return need;
    }
    if (share < good_enough) break;
    if (i > 0 && share > hardly_less * before) {
      // Steps that are rounding need not shrink.
      if (share > noise) stalled_contraction_ = std::min(share / before, 1.0), left_ = share;
      break;
    }
    move(step);
    need = joint_forces(s_, a_, cases_);
    lack = residual(need);
    if (i > 0 && share > noise) contraction_ = std::max(contraction_, share / before);
    before = share;
  }
  return need;
}

// The largest entry of a step against the largest movement of its case; the worst of all cases.
double Equations::largest_share(const Eigen::MatrixXd& step) const {
  double worst = 0;
  for (std::size_t c = 0; c < cases_.size(); ++c) {
    double moved = 0;
    for (const Movement& m : a_.cases[cases_[c]].movement)
      for (const double v : m.value) moved = std::max(moved, std::abs(v));
    if (moved > 0) worst = std::max(worst, step.col(static_cast<Eigen::Index>(c)).cwiseAbs().maxCoeff() / moved);
  }
  return worst;
}

// The step that the cases still ask for, tried on a mixture of them all: where it is nothing beside the movements it
// need not be made for each.
bool Equations::errors_are_rounding(const Eigen::MatrixXd& lack) const {
  constexpr double nothing = 1e-11;
  Eigen::VectorXd mixture = Eigen::VectorXd::Zero(lack.rows());
  for (Eigen::Index c = 0; c < lack.cols(); ++c) {
    double largest = 0;
    for (const Movement& m : a_.cases[cases_[static_cast<std::size_t>(c)]].movement)
      for (const double v : m.value) largest = std::max(largest, std::abs(v));
    if (largest > 0) mixture += lack.col(c) * ((c % 2 ? -1 : 1) / largest);
  }
  return factor_->solve(mixture).cwiseAbs().maxCoeff() < nothing;
}

// Minus the need of each free freedom; one column a case.
Eigen::MatrixXd Equations::residual(const std::vector<JointForces>& need) const {
  const Freedoms& f = a_.freedoms;
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

void Equations::move(const Eigen::MatrixXd& step) {
  const Freedoms& f = a_.freedoms;
  for (std::size_t c = 0; c < cases_.size(); ++c) {
    const double* column = step.col(static_cast<Eigen::Index>(c)).data();
    for (std::size_t p = 0; p < f.equation.size(); ++p) {
      if (f.frame(p)) {
        const Six by = f.of_point(p, column);
        for (std::size_t k = 0; k < 6; ++k) a_.cases[cases_[c]].movement[p].add(k, by[k]);
        continue;
      }
      for (std::size_t k = 0; k < 6; ++k)
        if (const int e = f.equation[p][k]; e >= 0) a_.cases[cases_[c]].movement[p].add(k, column[e]);
    }
  }
}

}  // namespace corvex::solver
