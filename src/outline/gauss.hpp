// Gauss and Legendre's quadrature on [−1, 1].
#pragma once

#include <vector>

namespace corvex::section {

struct Gauss {
  std::vector<double> node, weight;
  // Exact for polynomials of degree 2·points − 1.
  explicit Gauss(int points);
};

// The 16 points of everything that is smooth: exact to rounding on arcs of up to a half circle.
const Gauss& gauss16();

}  // namespace corvex::section
