#include "outline/area.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <tuple>

#include "outline/gauss.hpp"

namespace corvex::section {
namespace {

// ∮ F · n_y ds and ∮ F · n_z ds over an edge: the outward normal lies right of the way, n_y ds = −dz and n_z ds = dy.
// Four points are exact for the polynomials of the seventh degree that a straight side brings at most.
template <class F>
void along(const Edge& e, const F& f) {
  static const Gauss few(4);
  const Gauss& g = e.is_arc() ? gauss16() : few;
  for (std::size_t i = 0; i < g.node.size(); ++i) {
    const Complex at = e.at(g.node[i]);
    const Complex d = e.is_arc() ? Complex(0, e.sweep / 2) * (at - e.centre) : (e.to - e.from) / 2.0;
    f(at.imag(), at.real(), -g.weight[i] * d.real(), g.weight[i] * d.imag());
  }
}

template <class F>
double over_height(const Edge& e, const F& f) {
  double sum = 0;
  along(e, [&](double y, double z, double n_y, double) { sum += f(Complex(z, y)) * n_y; });
  return sum;
}

template <class F>
double over_width(const Edge& e, const F& f) {
  double sum = 0;
  along(e, [&](double y, double z, double, double n_z) { sum += f(Complex(z, y)) * n_z; });
  return sum;
}

// f(y, z, n_y ds, n_z ds) at the places of all edges.
template <class F>
void over_outline(const Region& region, const F& f) {
  for (const Contour& c : region.contours)
    for (const Edge& e : c) along(e, f);
}

}  // namespace

AreaMoments area_moments(const Region& region) {
  AreaMoments m;
  // About a place on the outline first, so that a section far from the origin keeps its digits.
  Region here = region;
  const Complex origin = region.contours.front().front().from;
  here.move(-origin);
  double Sz = 0, Sy = 0;
  over_outline(here, [&](double y, double z, double n_y, double n_z) {
    m.A += y * n_y;
    Sz += y * y / 2 * n_y;
    Sy += z * z / 2 * n_z;
  });
  const Complex centre(Sy / m.A, Sz / m.A);
  m.centroid = origin + centre;
  here.move(-centre);
  over_outline(here, [&](double y, double z, double n_y, double n_z) {
    m.Iz += y * y * y / 3 * n_y;
    m.Iy += z * z * z / 3 * n_z;
    m.Iyz += y * y * z / 2 * n_y;
  });
  return m;
}

ThirdMoments third_moments(const Region& region) {
  ThirdMoments m;
  over_outline(region, [&](double y, double z, double n_y, double n_z) {
    m.yyy += y * y * y * y / 4 * n_y;
    m.yyz += y * y * y / 3 * z * n_y;
    m.yzz += z * z * z / 3 * y * n_z;
    m.zzz += z * z * z * z / 4 * n_z;
  });
  return m;
}

FourthMoments fourth_moments(const Region& region) {
  FourthMoments m;
  over_outline(region, [&](double y, double z, double n_y, double n_z) {
    const double y4 = y * y * y * y, z4 = z * z * z * z;
    m.yyyy += y4 * y / 5 * n_y;
    m.yyyz += y4 / 4 * z * n_y;
    m.zzzy += z4 / 4 * y * n_z;
    m.zzzz += z4 * z / 5 * n_z;
  });
  return m;
}

Extent extent(const Region& region) {
  const Complex first = region.contours.front().front().from;
  Extent x{first.imag(), first.imag(), first.real(), first.real()};
  const auto meet = [&](Complex p) {
    x = {std::min(x.bottom, p.imag()), std::max(x.top, p.imag()), std::min(x.left, p.real()),
         std::max(x.right, p.real())};
  };
  for (const Contour& c : region.contours)
    for (const Edge& e : c) {
      meet(e.from);
      if (!e.is_arc()) continue;
      // An arc reaches furthest where it passes straight above, below, left or right of its centre.
      const double start = std::arg(e.from - e.centre);
      for (int quarter = -8; quarter <= 8; ++quarter) {
        const double along = (quarter * std::numbers::pi / 2 - start) / e.sweep;
        if (along > 0 && along < 1) meet(e.centre + e.radius() * std::polar(1.0, quarter * std::numbers::pi / 2));
      }
    }
  return x;
}

namespace {

// The edge cut where its height, or its width, is `level`.
std::vector<Edge> cut(const Edge& e, double level, bool across) {
  const auto height = [&](Complex p) { return across ? p.real() : p.imag(); };
  std::vector<double> cuts;
  if (!e.is_arc()) {
    const double a = height(e.from) - level, b = height(e.to) - level;
    if (a * b < 0) cuts.push_back((a + b) / (a - b));
  } else {
    const double reach = (level - height(e.centre)) / e.radius();
    if (std::abs(reach) < 1) {
      const double start = std::arg(e.from - e.centre), open = std::acos(reach);
      const double upright = across ? 0 : std::numbers::pi / 2;
      for (int round = -2; round <= 2; ++round)
        for (const double side : {-open, open}) {
          const double along = (upright + side + 2 * std::numbers::pi * round - start) / e.sweep;
          if (along > 1e-12 && along < 1 - 1e-12) cuts.push_back(2 * along - 1);
        }
    }
  }
  std::sort(cuts.begin(), cuts.end());
  std::vector<Edge> parts;
  double from = -1;
  for (const double t : cuts) parts.push_back(e.part(from, t)), from = t;
  parts.push_back(e.part(from, 1));
  return parts;
}

// The area beyond a level, and its first moment about it: of what lies above, or to the right.
std::pair<double, double> beyond(const Region& region, double level, bool across) {
  double area = 0, moment = 0;
  const auto above = [&](Complex p) { return std::max((across ? p.real() : p.imag()) - level, 0.0); };
  const auto half_square = [&](Complex p) { return above(p) * above(p) / 2; };
  for (const Contour& c : region.contours)
    for (const Edge& whole : c)
      for (const Edge& e : cut(whole, level, across)) {
        area += across ? over_width(e, above) : over_height(e, above);
        moment += across ? over_width(e, half_square) : over_height(e, half_square);
      }
  return {area, moment};
}

// Where the area is halved, and the plastic modulus about that line.
std::pair<double, double> halved(const Region& region, double low, double high, bool across) {
  const auto [whole, first] = beyond(region, low, across);
  double a = low, b = high;
  for (int i = 0; i < 60 && b - a > 1e-14 * (high - low); ++i) {
    const double middle = (a + b) / 2;
    (beyond(region, middle, across).first > whole / 2 ? a : b) = middle;
  }
  const double level = (a + b) / 2;
  // ∫|y − y0| = 2 ∫ (y − y0)⁺ − ∫ (y − y0)
  return {level, 2 * beyond(region, level, across).second - (first - whole * (level - low))};
}

}  // namespace

Plastic plastic(const Region& region) {
  const Extent x = extent(region);
  Plastic p;
  std::tie(p.y0, p.Wz) = halved(region, x.bottom, x.top, false);
  std::tie(p.z0, p.Wy) = halved(region, x.left, x.right, true);
  return p;
}

}  // namespace corvex::section
