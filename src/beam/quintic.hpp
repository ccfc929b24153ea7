// The polynomial of the fifth degree through six values at the extremes of a Chebyshev polynomial, which keep the
// distance from a smooth course smallest and include both ends (Trefethen, Approximation Theory and Approximation
// Practice, ch. 2).
#pragma once

#include <Eigen/Core>
#include <array>
#include <cstddef>

#include "beam/course.hpp"

namespace corvex::solver {

class Quintic {
 public:
  Quintic();
  // Of the six places, as a share of the length.
  double place(std::size_t i) const { return static_cast<double>(place_(static_cast<Eigen::Index>(i))); }
  // Of the place from the first value, through `value` over `length`.
  Polynomial operator()(const std::array<double, 6>& value, double length) const;

 private:
  using Row = Eigen::Matrix<long double, 6, 1>;
  Row place_;
  Eigen::Matrix<long double, 6, 6> basis_;  // in columns: the powers' coefficients of Lagrange's polynomials
};

}  // namespace corvex::solver
