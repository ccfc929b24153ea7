#include "stress_field/series.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace corvex::section {

RectangleTorsion rectangle_torsion(double side, double other_side) {
  using std::numbers::pi;
  const double a = std::max(side, other_side), b = std::min(side, other_side);
  const double catalan = 0.915965594177219015;  // Σ (−1)^k/(2k+1)²
  double sum_j = 0, sum_long = 0, sum_short = catalan;
  double sign = 1;
  // tanh reaches 1 quickly; summing 1 − tanh leaves the closed part Σ 1/n⁵ = 31/32 ζ(5).
  const double zeta5 = 1.0369277551433699263;
  for (int n = 1; n < 400; n += 2, sign = -sign) {
    const double u = n * pi * a / (2 * b);
    const double short_of_one = 2 / (std::exp(2 * u) + 1);  // 1 − tanh u
    if (short_of_one < 1e-18) break;
    sum_j += short_of_one / std::pow(n, 5);
    sum_long += 1 / (n * n * std::cosh(u));
    sum_short -= sign * short_of_one / (n * n);
  }
  const double J = a * b * b * b / 3 * (1 - 192 / std::pow(pi, 5) * (b / a) * (31.0 / 32 * zeta5 - sum_j));
  const double twist = b / J;  // G·(twist per length)·b for T = 1
  return {J, twist * (1 - 8 / (pi * pi) * sum_long), twist * 8 / (pi * pi) * sum_short};
}

}  // namespace corvex::section
