#include "section/stress_map.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace corvex::section {

bool Fibres::Arc::covers(Complex direction) const {
  if (half >= std::numbers::pi) return true;
  return std::abs(std::arg(direction / middle)) <= half * (1 + 1e-12);
}

namespace {

// The convex hull, counter-clockwise (Andrew's monotone chain).
std::vector<Complex> hull(std::vector<Complex> points) {
  const auto before = [](Complex a, Complex b) {
    return a.real() < b.real() || (a.real() == b.real() && a.imag() < b.imag());
  };
  std::sort(points.begin(), points.end(), before);
  points.erase(std::unique(points.begin(), points.end()), points.end());
  if (points.size() < 3) return points;
  std::vector<Complex> chain;
  const auto run = [&](auto first, auto last) {
    const std::size_t start = chain.size();
    for (auto p = first; p != last; ++p) {
      while (chain.size() >= start + 2 && cross(chain.back() - chain[chain.size() - 2], *p - chain.back()) <= 0)
        chain.pop_back();
      chain.push_back(*p);
    }
    chain.pop_back();
  };
  run(points.begin(), points.end());
  run(points.rbegin(), points.rend());
  return chain;
}

}  // namespace

Fibres fibres(const Region& region) {
  Fibres f;
  std::vector<Complex> corners;
  double size = 0;
  for (const Edge& e : region.contours.front()) size = std::max(size, std::abs(e.from));
  const auto snapped = [&](double v) { return std::abs(v) < 1e-9 * size ? 0 : v; };
  bool round = true;
  for (const Edge& e : region.contours.front()) {
    round = round && e.is_arc() && std::abs(e.centre - region.contours.front().front().centre) < 1e-9 * size;
    corners.emplace_back(snapped(e.from.real()), snapped(e.from.imag()));
    if (e.sweep > 0) f.arcs.push_back({e.centre, e.radius(), (e.at(0) - e.centre) / e.radius(), e.sweep / 2});
  }
  if (round) {
    f.arcs = {{region.contours.front().front().centre, f.arcs.front().radius, {1, 0}, 4}};
    return f;
  }
  f.corners = hull(std::move(corners));
  return f;
}

StressMap stress_map(const StressField& field, const SectionProperties& p, bool leaves_out_notches) {
  StressMap map{.kind = StressMap::Kind::field, .points = {}, .leaves_out_notches = leaves_out_notches};
  const double Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = p.Iyz.si(), D = Iy * Iz - Iyz * Iyz;
  map.points.reserve(field.edge().size());
  for (const EdgeSample& s : field.edge())
    map.points.push_back({.y = s.at.imag(),
                          .z = s.at.real(),
                          .direction_y = s.tangent.imag(),
                          .direction_z = s.tangent.real(),
                          .vy = -(Iy * s.up - Iyz * s.right) / D,
                          .vz = -(Iz * s.right - Iyz * s.up) / D,
                          .t = s.twist,
                          .held_vy = -s.up / Iz,
                          .held_vz = -s.right / Iy});
  return map;
}

SectionModulus torsion_modulus(const StressField& field) {
  const double most = field.worst({.t = 1}).von_mises / std::sqrt(3.0);
  return SectionModulus::si(most > 0 ? 1 / most : 0);
}

}  // namespace corvex::section
