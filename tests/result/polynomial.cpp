// Real polynomials: products, derivatives and their changes of sign.
#include "result/polynomial.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace tests_of_polynomial {

using namespace corvex::result;

namespace {

Coefficients with_roots(const std::vector<double>& roots) {
  Coefficients p(1);
  p[0] = 1;
  for (const double r : roots) {
    const double linear[] = {-r, 1};
    p = product(p, linear);
  }
  return p;
}

}  // namespace

TEST_CASE("Products, sums and derivatives have the values of their factors") {
  const double a[] = {1, -2, 3}, b[] = {4, 0, -1, 2};
  for (const double x : {-1.5, 0.0, 0.3, 2.0}) {
    CHECK(value(product(a, b), x) == Approx(value(a, x) * value(b, x)).margin(1e-14));
    CHECK(value(sum(a, b, -3), x) == Approx(value(a, x) - 3 * value(b, x)).margin(1e-14));
    CHECK(value(derivative(b), x) == Approx(-2 * x + 6 * x * x).margin(1e-14));
  }
}

TEST_CASE("All changes of sign inside the interval are found, ascending, and nothing else") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> place(-1, 2);
  for (int k = 0; k < 300; ++k) {
    std::vector<double> roots(1 + static_cast<std::size_t>(k) % 7);
    for (double& r : roots) r = place(random);
    std::sort(roots.begin(), roots.end());
    bool apart = true;
    for (std::size_t i = 0; i + 1 < roots.size(); ++i) apart &= roots[i + 1] - roots[i] > 0.02;
    if (!apart) continue;
    std::vector<double> inside;
    std::copy_if(roots.begin(), roots.end(), std::back_inserter(inside), [](double r) { return r > 0 && r < 1; });
    const std::vector<double> found = sign_changes(with_roots(roots), 1);
    REQUIRE(found.size() == inside.size());
    for (std::size_t i = 0; i < found.size(); ++i) CHECK(found[i] == Approx(inside[i]).margin(1e-7));
  }
}

TEST_CASE("A double root is found at most once, a triple one once, and nothing where all is zero") {
  CHECK(sign_changes(with_roots({0.5, 0.5}), 1).size() <= 1);
  const auto triple = sign_changes(with_roots({0.5, 0.5, 0.5}), 1);
  REQUIRE(triple.size() == 1);
  CHECK(triple[0] == Approx(0.5).margin(1e-4));
  const double zero[] = {0, 0, 0};
  CHECK(sign_changes(zero, 1).empty());
}

}  // namespace tests_of_polynomial
