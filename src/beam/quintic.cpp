#include "beam/quintic.hpp"

#include <cmath>
#include <numbers>

namespace corvex::solver {

Quintic::Quintic() {
  for (int i = 0; i < 6; ++i) place_(i) = (1 - std::cos(std::numbers::pi_v<long double> * i / 5)) / 2;
  // Lagrange's polynomials: the i-th is 1 at place i and 0 at the other five.
  basis_.setZero();
  for (int i = 0; i < 6; ++i) {
    auto p = basis_.col(i);
    p(0) = 1;
    for (int j = 0; j < 6; ++j) {
      if (j == i) continue;
      // Times (x - place j) / (place i - place j).
      const long double between = place_(i) - place_(j);
      for (int k = 5; k > 0; --k) p(k) = (p(k - 1) - place_(j) * p(k)) / between;
      p(0) *= -place_(j) / between;
    }
  }
}

Polynomial Quintic::operator()(const std::array<double, 6>& value, double length) const {
  Row f;
  for (std::size_t i = 0; i < 6; ++i) f(static_cast<Eigen::Index>(i)) = value[i];
  const Row powers = basis_ * f;
  Polynomial p;
  long double power = 1;
  for (std::size_t k = 0; k < 6; ++k, power *= length)
    p.c[k] = static_cast<double>(powers(static_cast<Eigen::Index>(k)) / power);
  return p;
}

}  // namespace corvex::solver
