// The polynomial of the fifth degree through six values at the extremes of a Chebyshev polynomial, which keep the
// distance from a smooth course smallest and include both ends (Trefethen, Approximation Theory and Approximation
// Practice, ch. 2).
#pragma once

#include <Eigen/Core>
#include <Eigen/LU>
#include <array>
#include <cmath>
#include <numbers>

#include "solve/course.hpp"

namespace corvex::solver {

class Quintic {
 public:
  Quintic() {
    Matrix6 powers;
    for (int i = 0; i < 6; ++i) {
      place_(i) = (1 - std::cos(std::numbers::pi_v<long double> * i / 5)) / 2;
      for (int k = 0; k < 6; ++k) powers(i, k) = k == 0 ? 1 : powers(i, k - 1) * place_(i);
    }
    inverse_ = powers.inverse();
  }
  // Of the six places, as a share of the length.
  double place(std::size_t i) const { return static_cast<double>(place_(static_cast<Eigen::Index>(i))); }
  Polynomial operator()(const std::array<double, 6>& value, double length) const {
    Eigen::Matrix<long double, 6, 1> f;
    for (std::size_t i = 0; i < 6; ++i) f(static_cast<Eigen::Index>(i)) = value[i];
    const Eigen::Matrix<long double, 6, 1> powers = inverse_ * f;
    Polynomial p;
    long double power = 1;
    for (std::size_t k = 0; k < 6; ++k, power *= length)
      p.c[k] = static_cast<double>(powers(static_cast<Eigen::Index>(k)) / power);
    return p;
  }

 private:
  using Matrix6 = Eigen::Matrix<long double, 6, 6>;
  Eigen::Matrix<long double, 6, 1> place_;
  Matrix6 inverse_;
};

}  // namespace corvex::solver
