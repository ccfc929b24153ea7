// The search for the largest eigenvalues, against a dense solution.
#include "modes/lanczos.hpp"

#include <Eigen/Cholesky>
#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

#include "algebra/dense.hpp"

namespace tests_of_lanczos {

using namespace corvex;
using Eigen::Index;
using Eigen::MatrixXd;

namespace {

struct Case {
  MatrixXd A, S;

  solver::EigenProblem problem(Index block) const {
    return {A.rows(), A.rows(), block, [this](const MatrixXd& F) -> MatrixXd { return A.llt().solve(F); },
            [this](const MatrixXd& X) -> MatrixXd { return S * X; }};
  }
};

// A positive definite, S with values of both signs.
Case random_case(Index n, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> value;
  MatrixXd R(n, n), Q(n, n);
  for (Index i = 0; i < n; ++i)
    for (Index k = 0; k < n; ++k) R(i, k) = value(random), Q(i, k) = value(random);
  return {R * R.transpose() + static_cast<double>(n) * MatrixXd::Identity(n, n), Q + Q.transpose()};
}

std::vector<double> largest_of(const Case& c, std::size_t count) {
  const Eigen::VectorXd values = algebra::generalized_eigensystem(c.S, c.A).values;
  std::vector<double> all(values.data(), values.data() + values.size());
  std::sort(all.rbegin(), all.rend());
  all.resize(count);
  return all;
}

}  // namespace

TEST_CASE("The largest eigenvalues are those of the dense solution, with vectors of energy 1") {
  for (const unsigned seed : {1u, 2u, 3u, 4u, 5u}) {
    const Case c = random_case(60, seed);
    solver::Lanczos search(c.problem(2), {});
    search.run({.count = 5, .least = 0});
    const auto pairs = search.pairs();
    const std::vector<double> expected = largest_of(c, 5);
    REQUIRE(pairs.size() >= 5);
    for (std::size_t i = 0; i < 5; ++i) {
      CHECK(pairs[i].value == Approx(expected[i]).epsilon(1e-8));
      const Eigen::VectorXd& v = pairs[i].vector;
      CHECK(v.dot(c.A * v) == Approx(1).epsilon(1e-9));
      CHECK((c.S * v - pairs[i].value * (c.A * v)).norm() < 1e-6 * (c.A * v).norm());
    }
  }
}

TEST_CASE("Known pairs are left out, and the search goes on where it stopped") {
  const Case c = random_case(50, 7);
  solver::Lanczos first(c.problem(1), {});
  first.run({.count = 2, .least = 0});
  auto known = first.pairs();
  known.resize(2);
  solver::Lanczos second(c.problem(1), known);
  second.run({.count = 2, .least = 0});
  const std::vector<double> expected = largest_of(c, 4);
  REQUIRE(second.pairs().size() >= 2);
  CHECK(second.pairs()[0].value == Approx(expected[2]).epsilon(1e-8));
  CHECK(second.pairs()[1].value == Approx(expected[3]).epsilon(1e-8));
  first.run({.count = 4, .least = 0});
  REQUIRE(first.pairs().size() >= 4);
  CHECK(first.pairs()[3].value == Approx(expected[3]).epsilon(1e-8));
}

TEST_CASE("A value that is there three times is found in one go by blocks of three") {
  constexpr Index n = 30;
  Case c{MatrixXd::Identity(n, n), MatrixXd::Zero(n, n)};
  for (Index i = 0; i < n; ++i) c.S(i, i) = i < 3 ? 5 : 4.0 / static_cast<double>(i);
  solver::Lanczos search(c.problem(3), {});
  search.run({.count = 3, .least = 1});
  REQUIRE(search.pairs().size() >= 3);
  for (std::size_t i = 0; i < 3; ++i) CHECK(search.pairs()[i].value == Approx(5));
}

}  // namespace tests_of_lanczos
