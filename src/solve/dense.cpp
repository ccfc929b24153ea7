#include "solve/dense.hpp"

#include <Eigen/Eigenvalues>
#include <Eigen/LU>
#include <Eigen/QR>

#include "solve/products.hpp"

namespace corvex::solver {

Eigensystem symmetric_eigensystem(const Eigen::MatrixXd& A) {
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solved(A);
  return {solved.eigenvalues(), solved.eigenvectors()};
}

Eigensystem generalized_eigensystem(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  const Eigen::GeneralizedSelfAdjointEigenSolver<Eigen::MatrixXd> solved(A, B);
  return {solved.eigenvalues(), solved.eigenvectors()};
}

// By the eigenvalues of Aᵀ A, the squares of the singular values.
Eigen::MatrixXd column_space(const Eigen::MatrixXd& A, double least) {
  const Eigensystem squares = symmetric_eigensystem(transposed_times(A, A));
  Eigen::Index none = 0;
  while (none < squares.values.size() && !(squares.values(none) > least * least)) ++none;
  const Eigen::Index n = squares.values.size() - none;
  return times(A, squares.vectors.rightCols(n)) * squares.values.tail(n).cwiseSqrt().cwiseInverse().asDiagonal();
}

Eigen::VectorXcd eigenvalues(const Eigen::MatrixXd& A) {
  return A.eigenvalues();
}

Eigen::VectorXd least_squares(const Eigen::MatrixXd& A, const Eigen::VectorXd& b) {
  return A.colPivHouseholderQr().solve(b);
}

Eigen::MatrixXd inverse(const Eigen::MatrixXd& A) {
  return A.inverse();
}

Eigen::Index rank(const Eigen::MatrixXd& A, double threshold) {
  Eigen::FullPivLU<Eigen::MatrixXd> lu(A);
  lu.setThreshold(threshold);
  return lu.rank();
}

}  // namespace corvex::solver
