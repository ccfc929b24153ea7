#include "analysis/large_newton.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>
#include <utility>

#include "analysis/large_kinematics.hpp"
#include "corvex/stop.hpp"
#include "linear_system/sparse.hpp"

namespace corvex::solver {

using Eigen::VectorXd;

namespace {

std::vector<bool> slack_links(const LargeMesh& mesh) {
  std::vector<bool> all;
  for (const LargePiece& p : mesh.pieces) all.push_back(p.link && p.acts != Acts::always && p.pull == 0);
  return all;
}

}  // namespace

Tangent LargeNewton::tangent(LargeMesh& mesh, double load) {
  for (const LargePiece& p : mesh.pieces) evaluations_ += p.link ? 0 : 1;
  return assembled(given_, mesh, load);
}

bool LargeNewton::balance(LargeMesh& mesh, double load) {
  constexpr int most_rounds = 25;
  constexpr double exact = 1e-14, good = 1e-10, most_turn = 0.5;
  move_ground(given_, mesh, load);
  double before = 0;
  Reach first;
  VectorXd whole;
  std::vector<bool> were_slack;
  for (int round = 0; round < most_rounds; ++round) {
    stop_point();
    const Tangent all = tangent(mesh, load);
    if (mesh.unknowns == 0) return true;
    const Eigen::SparseMatrix<double> K = all.matrix();
    const std::optional<VectorXd> solved = sparse_solution(K, all.lack);
    if (!solved) return false;
    const VectorXd& step = *solved;
    const Reach next = reach(given_, mesh, step);
    const double by = next.most();
    if (!std::isfinite(by)) return false;
    if (round == 0) first = next, whole = VectorXd::Zero(mesh.unknowns);
    // A member that goes slack or taut on the way makes the initial tangent useless.
    std::vector<bool> slack = slack_links(mesh);
    if (round > 0 && slack != were_slack) {
      const Reach so_far = reach(given_, mesh, whole);
      first.move = std::max(first.move, so_far.move + next.move);
      first.turn = std::max(first.turn, so_far.turn + next.turn);
    }
    were_slack = std::move(slack);
    // Where a correction is far larger than what the tangent foretold the method has lost its way: it may end at an
    // equilibrium that has nothing to do with the last one.
    constexpr double lost = 2;
    if (by > lost * first.most() + good) return false;
    const double open = largest_gap(given_, mesh);
    constexpr double closed = 1e-13;
    // Where nothing moves the forces still have to close the gaps.
    if ((by <= exact && open <= closed) || (round > 1 && std::max(by, open) <= good && by >= before / 2)) {
      last_correction_ = by;
      return is_positive_definite(K) && reach(given_, mesh, whole).is_foretold_by(first);
    }
    const double share = std::min(1.0, most_turn / by);
    take_step(given_, mesh, step, share);
    whole += share * step;
    before = by;
  }
  return false;
}

void LargeNewton::polish(LargeMesh& mesh) {
  constexpr int rounds = 4;
  if (mesh.unknowns == 0) return;
  LargeMesh best = mesh;
  double least = std::numeric_limits<double>::infinity();
  for (int round = 0; round < rounds; ++round) {
    const Tangent all = tangent(mesh, 1);
    const double left = all.lack.cwiseAbs().maxCoeff() + largest_gap(given_, mesh) * all.forces;
    if (left < least) least = left, best = mesh;
    const std::optional<VectorXd> step = sparse_solution(all.matrix(), all.lack);
    constexpr double small = 1e-6;
    if (!step || !(reach(given_, mesh, *step).most() < small)) break;
    take_step(given_, mesh, *step, 1);
  }
  mesh = std::move(best);
}

}  // namespace corvex::solver
