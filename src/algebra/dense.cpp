#include "algebra/dense.hpp"

#include <Eigen/Eigenvalues>
#include <Eigen/LU>
#include <Eigen/QR>
#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

#include "algebra/products.hpp"

namespace corvex::algebra {

Eigensystem symmetric_eigensystem(const Eigen::MatrixXd& A) {
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solved(A);
  return {solved.eigenvalues(), solved.eigenvectors()};
}

// In coordinates y in which B is the identity: x = W y. Before, B is scaled to a diagonal of one, so that its own
// eigenvalues do not differ by what is only the size of its rows.
Eigensystem generalized_eigensystem(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  const Eigen::VectorXd scale = B.diagonal().cwiseSqrt().cwiseInverse();
  const Eigensystem b = symmetric_eigensystem(scale.asDiagonal() * B * scale.asDiagonal());
  const Eigen::MatrixXd W = scale.asDiagonal() * b.vectors * b.values.cwiseSqrt().cwiseInverse().asDiagonal();
  Eigensystem solved = symmetric_eigensystem(turned(A, W));
  solved.vectors = times(W, solved.vectors);
  return solved;
}

// By the eigenvalues of Aᵀ A, the squares of the singular values.
Eigen::MatrixXd column_space(const Eigen::MatrixXd& A, double least) {
  const Eigensystem squares = symmetric_eigensystem(transposed_times(A, A));
  Eigen::Index none = 0;
  while (none < squares.values.size() && !(squares.values(none) > least * least)) ++none;
  const Eigen::Index n = squares.values.size() - none;
  return times(A, squares.vectors.rightCols(n)) * squares.values.tail(n).cwiseSqrt().cwiseInverse().asDiagonal();
}

std::vector<double> real_eigenvalues_of_hessenberg(const Eigen::MatrixXd& H) {
  const Eigen::Index n = H.rows();
  Eigen::RealSchur<Eigen::MatrixXd> schur(n);
  schur.computeFromHessenberg(H, Eigen::MatrixXd(), false);
  const Eigen::MatrixXd& T = schur.matrixT();
  std::vector<double> found;
  for (Eigen::Index i = 0; i < n; ++i) {
    // A block of two rows represents a pair of complex ones.
    if (i + 1 < n && T(i + 1, i) != 0)
      ++i;
    else
      found.push_back(T(i, i));
  }
  return found;
}

Eigen::MatrixXd inverse(const Eigen::MatrixXd& A) {
  return A.inverse();
}

Eigen::Index rank(const Eigen::MatrixXd& A, double threshold) {
  Eigen::FullPivLU<Eigen::MatrixXd> lu(A);
  lu.setThreshold(threshold);
  return lu.rank();
}

struct PivotedQr::Factors : Eigen::ColPivHouseholderQR<Eigen::MatrixXd> {
  using ColPivHouseholderQR::ColPivHouseholderQR;

  // x reflected by the i-th vector of Householder.
  void reflect(Eigen::VectorXd& x, Eigen::Index i) const {
    const Eigen::Index n = rows() - i - 1;
    const auto v = matrixQR().col(i).tail(n);
    const double by = hCoeffs()(i) * (x(i) + v.dot(x.tail(n)));
    x(i) -= by;
    x.tail(n) -= by * v;
  }
};

PivotedQr::PivotedQr(const Eigen::MatrixXd& A) : factors_(std::make_shared<const Factors>(A)) {}

double PivotedQr::pivot(Eigen::Index i) const {
  return std::abs(factors_->matrixQR()(i, i));
}

Eigen::Index PivotedQr::column(Eigen::Index i) const {
  return factors_->colsPermutation().indices()(i);
}

Eigen::Index PivotedQr::rank(double threshold) const {
  Eigen::Index n = 0;
  while (n < factors_->nonzeroPivots() && pivot(n) > threshold * factors_->maxPivot()) ++n;
  return n;
}

Eigen::MatrixXd PivotedQr::across(Eigen::Index rank) const {
  const Eigen::Index n = factors_->rows();
  Eigen::MatrixXd basis(n, n - rank);
  for (Eigen::Index c = 0; c < basis.cols(); ++c) {
    Eigen::VectorXd x = Eigen::VectorXd::Unit(n, rank + c);
    for (Eigen::Index i = factors_->hCoeffs().size() - 1; i >= 0; --i) factors_->reflect(x, i);
    basis.col(c) = x;
  }
  return basis;
}

Eigen::VectorXd PivotedQr::nearest(const Eigen::VectorXd& b) const {
  const Eigen::MatrixXd& R = factors_->matrixQR();
  const Eigen::Index rank = factors_->nonzeroPivots();
  Eigen::VectorXd y = b, x = Eigen::VectorXd::Zero(R.cols());
  for (Eigen::Index i = 0; i < rank; ++i) factors_->reflect(y, i);
  for (Eigen::Index i = rank - 1; i >= 0; --i) {
    const double value = y(i) / R(i, i);
    y.head(i) -= value * R.col(i).head(i);
    x(column(i)) = value;
  }
  return x;
}

std::vector<long double> semidefinite_solution(std::vector<long double> A, std::vector<long double> b) {
  const std::size_t n = b.size();
  const auto a = [&](std::size_t i, std::size_t k) -> long double& { return A[i * n + k]; };
  std::vector<std::size_t> order, left(n);
  std::iota(left.begin(), left.end(), std::size_t{0});
  long double largest = 0;
  while (!left.empty()) {
    const auto next =
        std::max_element(left.begin(), left.end(), [&](std::size_t i, std::size_t k) { return a(i, i) < a(k, k); });
    const std::size_t p = *next;
    largest = std::max(largest, a(p, p));
    if (!(a(p, p) > static_cast<long double>(n) * std::numeric_limits<long double>::epsilon() * largest)) break;
    left.erase(next);
    order.push_back(p);
    for (const std::size_t i : left) {
      const long double factor = a(i, p) / a(p, p);
      for (const std::size_t k : left) a(i, k) -= factor * a(p, k);
      b[i] -= factor * b[p];
    }
  }
  std::vector<long double> x(n, 0);
  for (auto p = order.rbegin(); p != order.rend(); ++p) {
    long double rest = b[*p];
    for (auto k = order.rbegin(); k != p; ++k) rest -= a(*p, *k) * x[*k];
    x[*p] = rest / a(*p, *p);
  }
  return x;
}

}  // namespace corvex::algebra
