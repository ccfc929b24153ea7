// Anderson's mixing for fixed points x = g(x): the next x is the combination of the last ones whose steps g(x) − x
// cancel best (Walker and Ni, Anderson Acceleration for Fixed-Point Iterations, 2011).
#pragma once

#include <Eigen/Core>
#include <deque>

namespace corvex::solver {

class Mixing {
 public:
  // The next x after `x`, whose step was `step`.
  Eigen::VectorXd next(const Eigen::VectorXd& x, const Eigen::VectorXd& step);

 private:
  std::deque<Eigen::VectorXd> x_, step_;
};

}  // namespace corvex::solver
