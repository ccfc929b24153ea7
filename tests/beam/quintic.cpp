// The polynomial of the fifth degree through six places.
#include "beam/quintic.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace tests_of_quintic {

using corvex::solver::Polynomial;
using corvex::solver::Quintic;

namespace {

double value(const Polynomial& p, double x) {
  double sum = 0;
  for (std::size_t k = p.c.size(); k-- > 0;) sum = sum * x + p.c[k];
  return sum;
}

}  // namespace

TEST_CASE("Polynomials up to the fifth degree come back as they are") {
  const Quintic quintic;
  constexpr double L = 2.5;
  for (int degree = 0; degree <= 5; ++degree) {
    std::array<double, 6> values{};
    for (std::size_t i = 0; i < 6; ++i) values[i] = std::pow(quintic.place(i) * L, degree);
    const Polynomial p = quintic(values, L);
    for (std::size_t k = 0; k < 6; ++k) CHECK(p.c[k] == Approx(static_cast<int>(k) == degree ? 1 : 0).margin(1e-12));
  }
}

TEST_CASE("It goes through its values, and stays near a smooth course between them") {
  const Quintic quintic;
  constexpr double L = 1.2;
  std::array<double, 6> values{};
  for (std::size_t i = 0; i < 6; ++i) values[i] = std::sin(quintic.place(i) * L);
  const Polynomial p = quintic(values, L);
  for (std::size_t i = 0; i < 6; ++i) CHECK(value(p, quintic.place(i) * L) == Approx(values[i]).margin(1e-15));
  for (double x = 0; x <= L; x += 0.01) CHECK(std::abs(value(p, x) - std::sin(x)) < 1e-5);
}

}  // namespace tests_of_quintic
