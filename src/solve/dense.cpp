#include "solve/dense.hpp"

#include <Eigen/Eigenvalues>
#include <Eigen/LU>
#include <Eigen/QR>
#include <Eigen/SVD>

namespace corvex::solver {

Eigensystem symmetric_eigensystem(const Eigen::MatrixXd& A) {
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solved(A);
  return {solved.eigenvalues(), solved.eigenvectors()};
}

Eigensystem generalized_eigensystem(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  const Eigen::GeneralizedSelfAdjointEigenSolver<Eigen::MatrixXd> solved(A, B);
  return {solved.eigenvalues(), solved.eigenvectors()};
}

Eigen::MatrixXd column_space(const Eigen::MatrixXd& A, double least) {
  const Eigen::JacobiSVD<Eigen::MatrixXd> svd(A, Eigen::ComputeThinU);
  Eigen::Index n = 0;
  while (n < svd.singularValues().size() && svd.singularValues()(n) > least) ++n;
  return svd.matrixU().leftCols(n);
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
