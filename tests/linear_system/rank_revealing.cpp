// The factorisation that finds degrees of freedom without stiffness, on chains and on random sparse matrices.
#include "linear_system/rank_revealing.hpp"

#include <Eigen/Eigenvalues>
#include <catch2/catch.hpp>
#include <random>

namespace tests_of_rank_revealing {

using namespace corvex::solver;

namespace {

LowerMatrix lower(const Eigen::MatrixXd& dense) {
  LowerMatrix m;
  m.n = static_cast<int>(dense.rows());
  m.first.push_back(0);
  for (int k = 0; k < m.n; ++k) {
    for (int i = k; i < m.n; ++i)
      if (i == k || dense(i, k) != 0) m.row.push_back(i), m.value.push_back(dense(i, k));
    m.first.push_back(static_cast<int>(m.row.size()));
  }
  m.reference.assign(static_cast<std::size_t>(m.n), 1);
  return m;
}

// Springs between random pairs of n points, each also to the ground where `held`.
Eigen::MatrixXd springs(int n, bool held, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> stiffness(0.5, 2);
  std::uniform_int_distribution<int> point(0, n - 1);
  Eigen::MatrixXd K = Eigen::MatrixXd::Zero(n, n);
  const auto join = [&](int a, int b) {
    const double k = stiffness(random);
    K(a, a) += k, K(b, b) += k, K(a, b) -= k, K(b, a) -= k;
  };
  for (int i = 0; i + 1 < n; ++i) join(i, i + 1);
  for (int i = 0; i < n; ++i)
    if (const int other = point(random); other != i) join(i, other);
  for (int i = 0; held && i < n; ++i) K(i, i) += 0.1 * stiffness(random);
  // Scaled to a diagonal of one, as every method expects.
  const Eigen::VectorXd scale = K.diagonal().cwiseSqrt().cwiseInverse();
  return scale.asDiagonal() * K * scale.asDiagonal();
}

}  // namespace

TEST_CASE("Sparse systems are solved to rounding") {
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const Eigen::MatrixXd K = springs(40, true, seed);
    RankRevealing f(Pivots::detected);
    const LowerMatrix m = lower(K);
    f.analyse(m);
    REQUIRE(f.factorise(m));
    CHECK(f.weak().empty());
    CHECK(f.negative() == 0);
    Eigen::MatrixXd x = Eigen::MatrixXd::Random(40, 3);
    const Eigen::MatrixXd b = x;
    f.solve(x);
    CHECK((K * x - b).norm() < 1e-10 * b.norm());
  }
}

TEST_CASE("One freedom is weak where the whole can move, and two where two parts can") {
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const Eigen::MatrixXd one = springs(25, false, seed);
    Eigen::MatrixXd two = Eigen::MatrixXd::Zero(50, 50);
    two.topLeftCorner(25, 25) = one;
    two.bottomRightCorner(25, 25) = springs(25, false, seed + 100);
    for (const auto& [K, count] : {std::pair(one, std::size_t{1}), {two, std::size_t{2}}}) {
      RankRevealing f(Pivots::detected);
      const LowerMatrix m = lower(K);
      f.analyse(m);
      REQUIRE(f.factorise(m));
      CHECK(f.weak().size() == count);
    }
  }
}

TEST_CASE("Negative pivots are counted: as many as eigenvalues below zero") {
  Eigen::MatrixXd K = springs(12, true, 3);
  K -= 0.9 * Eigen::MatrixXd::Identity(12, 12);
  RankRevealing f(Pivots::tolerant);
  const LowerMatrix m = lower(K);
  f.analyse(m);
  REQUIRE(f.factorise(m));
  const Eigen::VectorXd values = Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd>(K).eigenvalues();
  CHECK(f.negative() == (values.array() < 0).count());
  CHECK(f.negative() > 0);
}

}  // namespace tests_of_rank_revealing
