#include "modes/reduced_pencil.hpp"

#include <Eigen/Cholesky>
#include <algorithm>
#include <map>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"

namespace corvex::solver {

using namespace algebra;

using Eigen::Index;
using Eigen::Map;
using Eigen::MatrixXd;
using Eigen::VectorXd;

ReducedPencil::ReducedPencil(const Pencil& pencil, const Shares& a, const Shares& s)
    : pencil_(pencil), factor_(pencil, a) {
  if (!factor_.ok() || factor_.negative() > 0) return;
  std::map<const SpanPencil*, std::size_t> known;
  for (std::size_t i = 0; i < pencil.blocks_.size(); ++i) {
    const auto [it, is_new] = known.try_emplace(pencil.blocks_[i].of.get(), groups_.size());
    if (is_new) groups_.emplace_back();
    groups_[it->second].blocks.push_back(i);
  }
  Index next = pencil.points_;
  for (Group& g : groups_) {
    if (!reduce(g, a, s)) return;
    g.first = next, next += g.modes.size() * static_cast<Index>(g.blocks.size());
  }
  ok_ = true;
}

bool ReducedPencil::reduce(Group& g, const Shares& a, const Shares& s) const {
  const Pencil::Block& one = pencil_.blocks_[g.blocks.front()];
  g.outer = one.outer;
  for (Index k = 0; k < g.outer; ++k)
    if (std::any_of(g.blocks.begin(), g.blocks.end(),
                    [&](std::size_t b) { return pencil_.blocks_[b].row[static_cast<std::size_t>(k)] >= 0; }))
      g.live.push_back(k);
  const MatrixXd A = Pencil::added(*one.of, a), S = Pencil::added(*one.of, s);
  const Index n = A.rows() - g.outer;
  g.points = S(g.live, g.live);
  if (n == 0) return true;
  const Eigen::LLT<MatrixXd> factor(A.bottomRightCorner(n, n));
  if (factor.info() != Eigen::Success) return false;
  const MatrixXd inner = S.bottomRightCorner(n, n), beside = S.bottomRows(n)(Eigen::all, g.live);
  // Between points at rest nothing follows; Eigen does not solve for no columns.
  g.follows.resize(n, static_cast<Index>(g.live.size()));
  if (!g.live.empty()) g.follows = -factor.solve(A.bottomRows(n)(Eigen::all, g.live));
  const MatrixXd with_follows = beside + times(inner, g.follows);
  g.points += transposed_times(g.follows, with_follows) + transposed_times(beside, g.follows);
  MatrixXd between = factor.matrixL().solve(inner);
  between = factor.matrixL().solve(between.transpose().eval());
  const Eigensystem solved = symmetric_eigensystem((between + between.transpose()) / 2);
  g.modes = solved.values;
  g.shapes = factor.matrixU().solve(solved.vectors);
  g.beside = transposed_times(g.shapes, with_follows);
  return true;
}

// The movements of the points of each span, in columns.
MatrixXd ReducedPencil::gathered(const Group& g, const double* points) const {
  MatrixXd ends = MatrixXd::Zero(g.points.rows(), static_cast<Index>(g.blocks.size()));
  for (Index k = 0; k < ends.cols(); ++k) {
    const std::vector<Index>& row = pencil_.blocks_[g.blocks[static_cast<std::size_t>(k)]].row;
    for (Index i = 0; i < ends.rows(); ++i)
      if (const Index at = row[static_cast<std::size_t>(g.live[static_cast<std::size_t>(i)])]; at >= 0)
        ends(i, k) = points[at];
  }
  return ends;
}

MatrixXd ReducedPencil::other(const MatrixXd& x) const {
  MatrixXd f = MatrixXd::Zero(x.rows(), x.cols());
  for (const Group& g : groups_) {
    const Index n = g.modes.size(), spans = static_cast<Index>(g.blocks.size());
    for (Index j = 0; j < x.cols(); ++j) {
      const MatrixXd ends = gathered(g, x.col(j).data());
      MatrixXd at_ends = times(g.points, ends);
      if (n > 0) {
        const Map<const MatrixXd> modes(x.col(j).data() + g.first, n, spans);
        at_ends += transposed_times(g.beside, modes);
        Map<MatrixXd> of_modes(f.col(j).data() + g.first, n, spans);
        of_modes = g.modes.asDiagonal() * modes;
        add_times(of_modes, g.beside, ends);
      }
      for (Index k = 0; k < spans; ++k) {
        const std::vector<Index>& row = pencil_.blocks_[g.blocks[static_cast<std::size_t>(k)]].row;
        for (Index i = 0; i < at_ends.rows(); ++i)
          if (const Index at = row[static_cast<std::size_t>(g.live[static_cast<std::size_t>(i)])]; at >= 0)
            f(at, j) += at_ends(i, k);
      }
    }
  }
  return f;
}

EigenProblem ReducedPencil::problem(Index block) const {
  return {pencil_.size(), pencil_.points(), block, [this](const MatrixXd& f) { return factor_.solve_points(f); },
          [this](const MatrixXd& x) { return other(x); }};
}

MatrixXd ReducedPencil::whole(const MatrixXd& reduced) const {
  MatrixXd z = reduced;
  for (const Group& g : groups_) {
    const Index n = g.modes.size(), spans = static_cast<Index>(g.blocks.size());
    if (n == 0) continue;
    for (Index j = 0; j < z.cols(); ++j) {
      const double* from = reduced.col(j).data();
      const MatrixXd inner =
          times(g.shapes, Map<const MatrixXd>(from + g.first, n, spans)) + times(g.follows, gathered(g, from));
      for (Index k = 0; k < spans; ++k) {
        const std::vector<Index>& row = pencil_.blocks_[g.blocks[static_cast<std::size_t>(k)]].row;
        z.col(j).segment(row[static_cast<std::size_t>(g.outer)], n) = inner.col(k);
      }
    }
  }
  return z;
}

}  // namespace corvex::solver
