// Small dense matrices, against closed forms and against sums written out.
#include "algebra/dense.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "algebra/products.hpp"

namespace tests_of_dense {

using namespace corvex::algebra;
using Eigen::Index;
using Eigen::MatrixXd;

namespace {

MatrixXd random_matrix(Index rows, Index columns, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> value(-1, 1);
  MatrixXd m(rows, columns);
  for (Index i = 0; i < rows; ++i)
    for (Index k = 0; k < columns; ++k) m(i, k) = value(random);
  return m;
}

}  // namespace

TEST_CASE("Eigenvalues of a chain of springs are those of the closed form") {
  constexpr Index n = 12;
  MatrixXd A = MatrixXd::Zero(n, n);
  for (Index i = 0; i < n; ++i) A(i, i) = 2;
  for (Index i = 0; i + 1 < n; ++i) A(i, i + 1) = A(i + 1, i) = -1;
  const Eigensystem e = symmetric_eigensystem(A);
  for (Index k = 0; k < n; ++k)
    CHECK(e.values(k) == Approx(2 - 2 * std::cos((static_cast<double>(k) + 1) * std::numbers::pi / (n + 1))));
  CHECK((e.vectors.transpose() * e.vectors - MatrixXd::Identity(n, n)).norm() < 1e-12);
  // With B the unit matrix times 4 all values are a quarter, and the vectors are half as long.
  const Eigensystem g = generalized_eigensystem(A, 4 * MatrixXd::Identity(n, n));
  for (Index k = 0; k < n; ++k) CHECK(4 * g.values(k) == Approx(e.values(k)));
  CHECK(g.vectors.col(0).norm() == Approx(0.5));
}

TEST_CASE("Products are sums of products") {
  const MatrixXd A = random_matrix(7, 5, 1), B = random_matrix(5, 6, 2), C = random_matrix(7, 6, 3);
  const MatrixXd AB = times(A, B), AtC = transposed_times(A, C), CBt = times_transposed(C, B);
  for (Index i = 0; i < 7; ++i)
    for (Index k = 0; k < 6; ++k) {
      double sum = 0;
      for (Index j = 0; j < 5; ++j) sum += A(i, j) * B(j, k);
      CHECK(AB(i, k) == Approx(sum).margin(1e-14));
    }
  CHECK((AtC - A.transpose() * C).norm() < 1e-13);
  CHECK((CBt - C * B.transpose()).norm() < 1e-13);
  MatrixXd to = C;
  add_times(to, A, B, -2);
  CHECK((to - (C - 2 * AB)).norm() < 1e-13);
}

TEST_CASE("The rank of a product is that of its narrow factor, and its columns have a basis of as many") {
  const MatrixXd narrow = random_matrix(9, 3, 4), A = narrow * random_matrix(3, 8, 5);
  CHECK(rank(A, 1e-10) == 3);
  const MatrixXd basis = column_space(A, 1e-5);
  REQUIRE(basis.cols() == 3);
  CHECK((basis * (basis.transpose() * A) - A).norm() < 1e-12);
  const PivotedQr qr(A);
  CHECK(qr.rank(1e-10) == 3);
  const MatrixXd across = qr.across(3);
  CHECK(across.cols() == 6);
  CHECK((across.transpose() * A).norm() < 1e-12);
  const Eigen::VectorXd b = A * random_matrix(8, 1, 6);
  CHECK((A * qr.nearest(b) - b).norm() < 1e-12);
}

TEST_CASE("A semidefinite system is solved where it has pivots") {
  // The third row is the sum of the first two.
  const std::vector<long double> A{2, 1, 3, 1, 3, 4, 3, 4, 7};
  const std::vector<long double> x = semidefinite_solution(A, {5, 10, 15});
  for (std::size_t i = 0; i < 3; ++i) {
    long double sum = 0;
    for (std::size_t k = 0; k < 3; ++k) sum += A[3 * i + k] * x[k];
    CHECK(static_cast<double>(sum) == Approx(5.0 * static_cast<double>(i + 1)));
  }
}

}  // namespace tests_of_dense
