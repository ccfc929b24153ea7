#include "outline/gauss.hpp"

#include <cmath>
#include <numbers>

namespace corvex::section {

// The nodes are the roots of Legendre's polynomial, by Newton's steps from their asymptotic places.
Gauss::Gauss(int points) : node(points), weight(points) {
  for (int i = 0; i < points; ++i) {
    double x = -std::cos(std::numbers::pi * (i + 0.75) / (points + 0.5)), slope = 1;
    for (int step = 0; step < 100; ++step) {
      double p = x, before = 1;
      for (int n = 1; n < points; ++n) {
        const double next = ((2 * n + 1) * x * p - n * before) / (n + 1);
        before = p;
        p = next;
      }
      slope = points * (x * p - before) / (x * x - 1);
      const double change = p / slope;
      x -= change;
      if (std::abs(change) < 1e-15) break;
    }
    node[i] = points == 1 ? 0 : x;
    weight[i] = points == 1 ? 2 : 2 / ((1 - x * x) * slope * slope);
  }
}

const Gauss& gauss16() {
  static const Gauss rule(16);
  return rule;
}

}  // namespace corvex::section
