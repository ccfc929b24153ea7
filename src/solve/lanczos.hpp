// The largest eigenvalues of A⁻¹ S in the energy of A, by Lanczos's method with full orthogonalisation (Parlett, The
// Symmetric Eigenvalue Problem, ch. 13, 15). A is positive definite; of S nothing is asked but symmetry.
#pragma once

#include <Eigen/Core>
#include <functional>
#include <vector>

namespace corvex::solver {

struct EigenProblem {
  Eigen::Index size = 0;
  std::function<Eigen::VectorXd(const Eigen::VectorXd&)> energy;  // A x
  std::function<Eigen::VectorXd(const Eigen::VectorXd&)> solve;   // A⁻¹ f
  std::function<Eigen::VectorXd(const Eigen::VectorXd&)> other;   // S x
};

struct EigenPair {
  double value = 0;
  Eigen::VectorXd vector;  // of energy 1
};

// The `count` largest that are above `least`, the largest first; those in `known` are left out. May find fewer; several
// of the same value are found one at a time, which is for the caller to count.
std::vector<EigenPair> largest_pairs(const EigenProblem& problem, std::size_t count, double least,
                                     const std::vector<EigenPair>& known);

}  // namespace corvex::solver
