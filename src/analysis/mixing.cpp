#include "analysis/mixing.hpp"

#include "algebra/dense.hpp"

namespace corvex::solver {

using namespace algebra;

Eigen::VectorXd Mixing::next(const Eigen::VectorXd& x, const Eigen::VectorXd& step) {
  constexpr std::size_t most = 6;
  x_.push_back(x), step_.push_back(step);
  if (x_.size() > most) x_.pop_front(), step_.pop_front();
  const auto n = static_cast<Eigen::Index>(x_.size()) - 1;
  if (n == 0) return x + step;
  Eigen::MatrixXd steps(x.size(), n), moves(x.size(), n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const auto k = static_cast<std::size_t>(i);
    steps.col(i) = step_[k + 1] - step_[k];
    moves.col(i) = x_[k + 1] - x_[k];
  }
  const Eigen::VectorXd share = PivotedQr(steps).nearest(step);
  return x + step - (moves + steps) * share;
}

}  // namespace corvex::solver
