#include "algebra/products.hpp"

namespace corvex::algebra {

using Eigen::MatrixXd;

MatrixXd times(const MatrixView& A, const MatrixView& B) {
  return A * B;
}

MatrixXd transposed_times(const MatrixView& A, const MatrixView& B) {
  return A.transpose() * B;
}

MatrixXd times_transposed(const MatrixView& A, const MatrixView& B) {
  return A * B.transpose();
}

void add_times(Eigen::Ref<MatrixXd> to, const MatrixView& A, const MatrixView& B, double factor) {
  to.noalias() += factor * (A * B);
}

MatrixXd turned(const MatrixView& K, const MatrixView& T) {
  return turned(T, K, T);
}

MatrixXd turned(const MatrixView& left, const MatrixView& K, const MatrixView& right) {
  return times(transposed_times(left, K), right);
}

MatrixXd weighted_products(const MatrixView& A, const Eigen::VectorXd& weight, const MatrixView& B) {
  return transposed_times(A, weight.asDiagonal() * B);
}

}  // namespace corvex::algebra
