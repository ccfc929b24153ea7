#include "solve/quintic.hpp"

#include <Eigen/LU>
#include <cmath>
#include <numbers>

namespace corvex::solver {

Quintic::Quintic() {
  Eigen::Matrix<long double, 6, 6> powers;
  for (int i = 0; i < 6; ++i) {
    place_(i) = (1 - std::cos(std::numbers::pi_v<long double> * i / 5)) / 2;
    for (int k = 0; k < 6; ++k) powers(i, k) = k == 0 ? 1 : powers(i, k - 1) * place_(i);
  }
  inverse_ = powers.inverse();
}

Polynomial Quintic::operator()(const std::array<double, 6>& value, double length) const {
  Row f;
  for (std::size_t i = 0; i < 6; ++i) f(static_cast<Eigen::Index>(i)) = value[i];
  const Row powers = inverse_ * f;
  Polynomial p;
  long double power = 1;
  for (std::size_t k = 0; k < 6; ++k, power *= length)
    p.c[k] = static_cast<double>(powers(static_cast<Eigen::Index>(k)) / power);
  return p;
}

}  // namespace corvex::solver
