// What follows from an outline by integration, against closed forms.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <vector>

#include "outline/arcs.hpp"
#include "outline/area.hpp"
#include "outline/gauss.hpp"
#include "outline/panels.hpp"

namespace tests_of_moments {

namespace {

using namespace corvex::section;
constexpr double pi = std::numbers::pi;

Contour circle(Complex centre, double radius, double direction) {
  const Edge half = Edge::arc(centre, centre + Complex(radius, 0), direction * pi);
  return {half, Edge::arc(centre, half.to, direction * pi)};
}

Region annulus(Complex centre, double outer, double inner) {
  Region all;
  all.contours = {circle(centre, outer, 1), circle(centre, inner, -1)};
  return all;
}

Region polygon(const std::vector<Complex>& corners) {
  Region all;
  Contour contour;
  for (std::size_t i = 0; i < corners.size(); ++i)
    contour.push_back(Edge::line(corners[i], corners[(i + 1) % corners.size()]));
  all.contours = {contour};
  return all;
}

}  // namespace

TEST_CASE("Quadrature is exact for polynomials of degree 2n − 1 and not beyond") {
  for (const int points : {2, 5, 16}) {
    const Gauss rule(points);
    const auto integral = [&](int power) {
      double sum = 0;
      for (std::size_t i = 0; i < rule.node.size(); ++i) sum += rule.weight[i] * std::pow(rule.node[i], power);
      return sum;
    };
    for (int power = 0; power < 2 * points; ++power)
      CHECK(integral(power) == Approx(power % 2 ? 0 : 2.0 / (power + 1)).margin(1e-14).epsilon(1e-13));
    CHECK(std::abs(integral(2 * points) - 2.0 / (2 * points + 1)) > 1e-12);
  }
}

TEST_CASE("Moments of an annulus away from the origin follow its closed forms") {
  const double R = 0.03, r = 0.026, z = 0.11, y = -0.07;
  const Region ring = annulus({z, y}, R, r);
  const double A = pi * (R * R - r * r), I = pi / 4 * (std::pow(R, 4) - std::pow(r, 4));
  const AreaMoments m = area_moments(ring);
  CHECK(m.A == Approx(A).epsilon(1e-13));
  CHECK(m.centroid.real() == Approx(z).epsilon(1e-13));
  CHECK(m.centroid.imag() == Approx(y).epsilon(1e-13));
  CHECK(m.Iy == Approx(I).epsilon(1e-11));
  CHECK(m.Iz == Approx(I).epsilon(1e-11));
  CHECK(m.Iyz == Approx(0).margin(1e-11 * I));
  // About the origin, by the rule of parallel axes.
  const ThirdMoments third = third_moments(ring);
  CHECK(third.yyy == Approx(A * y * y * y + 3 * y * I).epsilon(1e-11));
  CHECK(third.yyz == Approx(A * y * y * z + z * I).epsilon(1e-11));
  CHECK(third.zzz == Approx(A * z * z * z + 3 * z * I).epsilon(1e-11));
  const double I4 = pi / 8 * (std::pow(R, 6) - std::pow(r, 6));  // ∫ y⁴ dA about the centre
  const FourthMoments fourth = fourth_moments(ring);
  CHECK(fourth.yyyy == Approx(A * std::pow(y, 4) + 6 * y * y * I + I4).epsilon(1e-11));
  CHECK(fourth.yyyz == Approx(A * std::pow(y, 3) * z + 3 * y * z * I).epsilon(1e-11));
  const Extent e = extent(ring);
  CHECK(e.left == Approx(z - R));
  CHECK(e.top == Approx(y + R));
}

TEST_CASE("Plastic moduli halve the area, and a rectangle has b h²/4") {
  const double b = 0.05, h = 0.12;
  const Plastic p = plastic(polygon({{0, 0}, {b, 0}, {b, h}, {0, h}}));
  CHECK(p.Wz == Approx(b * h * h / 4).epsilon(1e-12));
  CHECK(p.Wy == Approx(h * b * b / 4).epsilon(1e-12));
  CHECK(p.y0 == Approx(h / 2).epsilon(1e-12));
  // A triangle: y0 at h (1 − 1/√2) above its base.
  const Plastic t = plastic(polygon({{0, 0}, {b, 0}, {b / 2, h}}));
  CHECK(t.y0 == Approx(h * (1 - 1 / std::sqrt(2.0))).epsilon(1e-10));
}

TEST_CASE("Edges cut into parts bound the same area") {
  const Region ring = annulus({0.01, 0.02}, 0.03, 0.01);
  Region cut = ring;
  for (Contour& contour : cut.contours) {
    Contour parts;
    for (const Edge& e : contour)
      for (const double from : {-1.0, -0.4, 0.3})
        parts.push_back(e.part(from, from < -0.9 ? -0.4 : from < 0 ? 0.3 : 1));
    contour = parts;
  }
  CHECK(area_moments(cut).A == Approx(area_moments(ring).A).epsilon(1e-13));
  CHECK(area_moments(cut).Iy == Approx(area_moments(ring).Iy).epsilon(1e-12));
}

TEST_CASE("Panels cover every edge once, and are short near re-entrant corners") {
  const double b = 0.05, h = 0.12, wall = 0.006;
  const Region angle = polygon({{0, 0}, {b, 0}, {b, wall}, {wall, wall}, {wall, h}, {0, h}});
  const auto length_of = [](const std::vector<Panel>& all) {
    double length = 0;
    for (const Panel& p : all) length += p.edge.length();
    return length;
  };
  const auto all = panels(angle, 1);
  CHECK(length_of(all) == Approx(2 * (b + h)).epsilon(1e-12));
  double near = h, far = 0;
  for (const Panel& p : all) {
    const double away = std::abs(p.edge.at(0) - Complex(wall, wall));
    near = std::min(near, p.edge.length() + (away > wall ? h : 0));
    far = std::max(far, p.edge.length());
  }
  CHECK(near < far / 10);
  CHECK(panels(angle, 2).size() > all.size());
  // A quarter of it, where it is its own image.
  Region r = polygon({{-b / 2, -h / 2}, {b / 2, -h / 2}, {b / 2, h / 2}, {-b / 2, h / 2}});
  r.left_right = r.up_down = true;
  CHECK(length_of(panels(r, 1)) == Approx((b + h) / 2).epsilon(1e-12));
}

TEST_CASE("A circle drawn by short chords becomes arcs of the same area, a hexagon stays as it is") {
  const auto drawn = [](int n) {
    std::vector<Complex> corners;
    for (int k = 0; k < n; ++k) corners.push_back(std::polar(0.04, 2 * pi * k / n));
    Region r = polygon(corners);
    r.drawn = true;
    return r;
  };
  const Region smooth = with_arcs(drawn(360));
  CHECK(std::any_of(smooth.contours[0].begin(), smooth.contours[0].end(), [](const Edge& e) { return e.is_arc(); }));
  CHECK(smooth.contours[0].size() < 36);
  // The circle through the corners has 5e-5 more.
  CHECK(area_moments(smooth).A == Approx(area_moments(drawn(360)).A).epsilon(1e-6));
  const Region hexagon = with_arcs(drawn(6));
  CHECK(std::none_of(hexagon.contours[0].begin(), hexagon.contours[0].end(), [](const Edge& e) { return e.is_arc(); }));
}

}  // namespace tests_of_moments
