#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <numbers>

#include "corvex/section.hpp"
#include "section/series.hpp"
#include "section/stress_points.hpp"

namespace corvex {
namespace section {

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

namespace {

// ∫ f over [a, b] by Gauss and Legendre, 8 points on each of 32 panels: exact for polynomials up to degree
// 15, to machine precision for the smooth integrands below.
double integral(const std::function<double(double)>& f, double a, double b) {
  static constexpr std::array<double, 4> node = {0.1834346424956498, 0.5255324099163290, 0.7966664774136267,
                                                 0.9602898564975363};
  static constexpr std::array<double, 4> weight = {0.3626837833783620, 0.3137066458778873, 0.2223810344533745,
                                                   0.1012285362903763};
  constexpr int panels = 32;
  double sum = 0;
  const double half = (b - a) / (2 * panels);
  for (int i = 0; i < panels; ++i) {
    const double middle = a + (2 * i + 1) * half;
    for (std::size_t k = 0; k < node.size(); ++k)
      sum += weight[k] * (f(middle - half * node[k]) + f(middle + half * node[k]));
  }
  return sum * half;
}

// Shear area of a rectangular tube for a shear force along its height.
double box_shear_area(double height, double width, double wall, double I) {
  const double inner = height - 2 * wall;
  const auto flange = [&](double y) {
    const double S = width / 2 * (height * height / 4 - y * y);
    return S * S / width;
  };
  const double flange_moment = width / 2 * (height * height - inner * inner) / 4;
  const auto webs = [&](double y) {
    const double S = flange_moment + wall * (inner * inner / 4 - y * y);
    return S * S / (2 * wall);
  };
  return I * I / (2 * (integral(flange, inner / 2, height / 2) + integral(webs, 0, inner / 2)));
}

// The same of a round tube. Outside of the hole S²/b = 2/9 (R²−y²)^(5/2); across it 2/9 (a−c)(a²+ac+c²)² with
// a² = R²−y², c² = r²−y². The angles take the roots out of the ends.
double ring_shear_area(double R, double r, double I) {
  const double hole_angle = std::asin(r / R);
  const double above = integral([&](double t) { return std::pow(R * std::cos(t), 5) * R * std::cos(t); }, hole_angle,
                                std::numbers::pi / 2);
  const double across = integral(
      [&](double t) {
        const double c = r * std::cos(t), y = r * std::sin(t);
        const double a = std::sqrt((R - y) * (R + y));
        const double q = a * a + a * c + c * c;
        const double gap = (R - r) * (R + r) / (a + c);  // a − c without cancellation
        return gap * q * q * c;
      },
      0, std::numbers::pi / 2);
  return I * I / (2 * 2.0 / 9 * (above + across));
}

SectionProperties box(double h, double w, double t) {
  const double hi = h - 2 * t, wi = w - 2 * t;
  const double A = 2 * t * (h + w - 2 * t);
  const double Iz = (w * h * h * h - wi * hi * hi * hi) / 12;
  const double Iy = (h * w * w * w - hi * wi * wi * wi) / 12;
  const double Am = (h - t) * (w - t), u = 2 * (h + w - 2 * t);
  const double J = 4 * Am * Am * t / u + u * t * t * t / 3;
  return {Area::si(A),
          SecondMoment::si(Iy),
          SecondMoment::si(Iz),
          SecondMoment::si(J),
          Area::si(box_shear_area(h, w, t, Iz)),
          Area::si(box_shear_area(w, h, t, Iy)),
          SectionModulus::si(Iy / (w / 2)),
          SectionModulus::si(Iz / (h / 2))};
}

SectionProperties ring(double R, double r) {
  using std::numbers::pi;
  const double A = pi * (R - r) * (R + r);
  const double I = pi / 4 * (R - r) * (R + r) * (R * R + r * r);
  const double shear = r > 0 ? ring_shear_area(R, r, I) : 0.9 * A;
  return {Area::si(A),     SecondMoment::si(I), SecondMoment::si(I),       SecondMoment::si(2 * I),
          Area::si(shear), Area::si(shear),     SectionModulus::si(I / R), SectionModulus::si(I / R)};
}

struct Compute {
  SectionProperties operator()(const SquareTube& s) const { return box(s.width.si(), s.width.si(), s.wall.si()); }
  SectionProperties operator()(const RectangularTube& s) const { return box(s.height.si(), s.width.si(), s.wall.si()); }
  SectionProperties operator()(const RoundTube& s) const {
    return ring(s.diameter.si() / 2, s.diameter.si() / 2 - s.wall.si());
  }
  SectionProperties operator()(const RoundBar& s) const { return ring(s.diameter.si() / 2, 0); }
  SectionProperties operator()(const RectangularBar& s) const {
    const double h = s.height.si(), w = s.width.si();
    return {Area::si(h * w),
            SecondMoment::si(h * w * w * w / 12),
            SecondMoment::si(w * h * h * h / 12),
            SecondMoment::si(rectangle_torsion(h, w).J),
            Area::si(h * w * 5 / 6),
            Area::si(h * w * 5 / 6),
            SectionModulus::si(h * w * w / 6),
            SectionModulus::si(w * h * h / 6)};
  }
  SectionProperties operator()(const GivenProperties& s) const {
    return {s.A,
            s.Iy.value_or(SecondMoment()),
            s.Iz.value_or(SecondMoment()),
            s.J.value_or(SecondMoment()),
            s.Ay.value_or(Area()),
            s.Az.value_or(Area()),
            s.Wy.value_or(SectionModulus()),
            s.Wz.value_or(SectionModulus())};
  }
};

}  // namespace
}  // namespace section

Section::Section(const Shape& shape) : shape_(shape) {
  if (!check(shape).empty()) return;
  properties_ = std::visit(section::Compute(), shape);
  stress_map_ = section::stress_map(shape, properties_);
}

}  // namespace corvex
