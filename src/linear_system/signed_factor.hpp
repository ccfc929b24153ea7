// A factorisation of a symmetric matrix that need not be positive: it counts the eigenvalues below zero (Sylvester's
// law of inertia), as pivots with that sign.
#pragma once

#include <memory>

#include "linear_system/factor.hpp"

namespace corvex::solver {

class SignedFactor {
 public:
  SignedFactor() = default;
  // The matrix is scaled in place.
  explicit SignedFactor(LowerMatrix& matrix);

  bool ok() const { return ok_; }
  int negative() const { return negative_; }
  Eigen::MatrixXd solve(const Eigen::MatrixXd& block) const;

 private:
  std::shared_ptr<Backend> backend_;
  Eigen::VectorXd scale_;
  int negative_ = 0;
  bool ok_ = true;
};

}  // namespace corvex::solver
