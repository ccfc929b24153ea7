// Harmonic functions by the boundary integral equation, against functions that are known.
#include "stress_field/potential.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <vector>

#include "outline/area.hpp"

namespace tests_of_potential {

namespace {

using namespace corvex::section;

// A corner of every kind: sharp and re-entrant, and a rounded one.
Region angle_section() {
  Region r;
  r.contours = {rounded({{{-0.02, -0.03}, 0},
                         {{0.04, -0.03}, 0},
                         {{0.04, -0.02}, 0},
                         {{-0.01, -0.02}, 0.004},
                         {{-0.01, 0.05}, 0},
                         {{-0.02, 0.05}, 0}})};
  return r;
}

// The outward normal of a contour with the material on its left is −i times the tangent: du/dn of u = z² − y².
double slope_of_saddle(Complex at, Complex tangent) {
  const Complex normal = Complex(0, -1) * tangent;
  return 2 * at.real() * normal.real() - 2 * at.imag() * normal.imag();
}
double slope_of_product(Complex at, Complex tangent) {
  const Complex normal = Complex(0, -1) * tangent;
  return at.imag() * normal.real() + at.real() * normal.imag();
}

}  // namespace

TEST_CASE("Harmonic polynomials are found from their normal derivative, on the outline and inside") {
  Potential potential(angle_section(), 1, 6);
  const std::vector<Potential::Wanted> wanted = {{slope_of_saddle, {}}, {slope_of_product, {}}};
  std::vector<Values> slopes;
  for (const auto& w : wanted) slopes.push_back(potential.at_nodes(w));
  const std::vector<Values> found = potential.solve(wanted);
  const auto saddle = [](Complex p) { return p.real() * p.real() - p.imag() * p.imag(); };
  const auto product = [](Complex p) { return p.real() * p.imag(); };
  const auto check = [&](const Values& u, const auto& exact, const Values& q) {
    // A constant is open: differences from the first node are compared.
    const auto& nodes = potential.nodes();
    double worst = 0, size = 0;
    for (std::size_t i = 0; i < nodes.size(); ++i) {
      const auto k = static_cast<Eigen::Index>(i);
      worst = std::max(worst, std::abs(u(k) - u(0) - exact(nodes[i].at) + exact(nodes[0].at)));
      size = std::max(size, std::abs(exact(nodes[i].at)));
    }
    CHECK(worst < 1e-7 * size);
    for (const Complex inside : {Complex(0.02, -0.025), Complex(-0.015, 0.03), Complex(-0.016, -0.026)})
      CHECK(potential.inside(inside, u, q, {}) - u(0) ==
            Approx(exact(inside) - exact(nodes[0].at)).margin(1e-7 * size));
  };
  check(found[0], saddle, slopes[0]);
  check(found[1], product, slopes[1]);
}

TEST_CASE("An integral over the outline of one is its length") {
  const Region r = angle_section();
  double length = 0;
  for (const Edge& e : r.contours[0]) length += e.length();
  const Potential potential(r, 1, 6);
  CHECK(potential.integral(Values::Ones(static_cast<Eigen::Index>(potential.nodes().size()))) ==
        Approx(length).epsilon(1e-12));
}

}  // namespace tests_of_potential
