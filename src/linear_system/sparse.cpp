#include "linear_system/sparse.hpp"

#include <Eigen/SparseCholesky>
#include <Eigen/SparseLU>

namespace corvex::solver {

using Sparse = Eigen::SparseMatrix<double>;

std::optional<Eigen::VectorXd> sparse_solution(const Sparse& K, const Eigen::VectorXd& f) {
  Eigen::SparseLU<Sparse> factor(K);
  if (factor.info() != Eigen::Success) return std::nullopt;
  return factor.solve(f);
}

bool is_positive_definite(const Sparse& K) {
  Sparse both = Sparse(K.transpose()) + K;
  Eigen::VectorXd scale = both.diagonal();
  if ((scale.array() <= 0).any()) return false;
  scale = scale.cwiseSqrt().cwiseInverse();
  both = (scale.asDiagonal() * both * scale.asDiagonal()).eval();
  const Eigen::SimplicialLDLT<Sparse> factor(both);
  return factor.info() == Eigen::Success && (factor.vectorD().array() > 0).all();
}

}  // namespace corvex::solver
