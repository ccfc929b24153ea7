#include "section/stress_points.hpp"

#include <cmath>
#include <numbers>

#include "section/series.hpp"

namespace corvex::section {
namespace {

// The points of an upright rectangle's outline that can govern: the corners, and where the outline crosses
// the axes of the centroid, with the shear stress of V there and the torsion's on each side.
struct Outline {
  double h, w;
  double peak_y, peak_z;  // shear stress at the axis over Vy, Vz
  double side, top,
      corner;  // torsion's shear stress on the sides (z = ±w/2), top and bottom, corners, over T

  std::vector<StressPoint> points() const {
    std::vector<StressPoint> all;
    for (const double sy : {1.0, -1.0})
      for (const double sz : {1.0, -1.0}) all.push_back({.y = sy * h / 2, .z = sz * w / 2, .ty = sz * corner});
    // Right-handed torsion about +x runs along −y on the +z side and along +z on the top.
    for (const double s : {1.0, -1.0}) {
      all.push_back({.z = s * w / 2, .vy = peak_y, .ty = s * side});
      all.push_back({.y = s * h / 2, .vz = peak_z, .tz = -s * top});
    }
    return all;
  }
};

StressMap box_map(double h, double w, double t, const SectionProperties& p) {
  // Along the closed wall the torsion's flow is constant: T (t + 2 Am/u)/J (EN 10219-2, annex B).
  const double Am = (h - t) * (w - t), u = 2 * (h + w - 2 * t);
  const double torsion = (t + 2 * Am / u) / p.J.si();
  const double Iy = p.Iy.si(), Iz = p.Iz.si();
  const double hi = h - 2 * t, wi = w - 2 * t;
  // First moments of the flange alone, and of all above the axis.
  const double flange_y = w * (h * h - hi * hi) / 8, half_y = flange_y + t * hi * hi / 4;
  const double flange_z = h * (w * w - wi * wi) / 8, half_z = flange_z + t * wi * wi / 4;
  const Outline outline{h, w, half_y / (Iz * 2 * t), half_z / (Iy * 2 * t), torsion, torsion, torsion};
  StressMap map{.kind = StressMap::Kind::points, .points = outline.points()};
  // Where a wall meets the flange its shear is already high while bending stress is near its peak.
  const double join_y = flange_y / (Iz * 2 * t), join_z = flange_z / (Iy * 2 * t);
  for (const double sy : {1.0, -1.0})
    for (const double sz : {1.0, -1.0}) {
      map.points.push_back({.y = sy * hi / 2, .z = sz * w / 2, .vy = join_y, .ty = sz * torsion});
      map.points.push_back({.y = sy * h / 2, .z = sz * wi / 2, .vz = join_z, .tz = -sy * torsion});
    }
  return map;
}

StressMap ring_map(double R, double r, const SectionProperties& p) {
  // V·S/(I·b) at the axis: S = 2/3 (R³ − r³), b = 2 (R − r).
  const double peak = (R * R + R * r + r * r) / (3 * p.Iz.si());
  return {.kind = StressMap::Kind::rim, .points = {}, .radius = R, .shear_peak = peak, .torsion_rim = R / p.J.si()};
}

struct Map {
  const SectionProperties& p;

  StressMap operator()(const SquareTube& s) const { return box_map(s.width.si(), s.width.si(), s.wall.si(), p); }
  StressMap operator()(const RectangularTube& s) const { return box_map(s.height.si(), s.width.si(), s.wall.si(), p); }
  StressMap operator()(const RoundTube& s) const {
    return ring_map(s.diameter.si() / 2, s.diameter.si() / 2 - s.wall.si(), p);
  }
  StressMap operator()(const RoundBar& s) const { return ring_map(s.diameter.si() / 2, 0, p); }
  StressMap operator()(const RectangularBar& s) const {
    const double h = s.height.si(), w = s.width.si(), A = h * w;
    const RectangleTorsion t = rectangle_torsion(h, w);
    const bool upright = h >= w;  // then the long sides are z = ±w/2
    const Outline outline{
        h, w, 1.5 / A, 1.5 / A, upright ? t.long_side : t.short_side, upright ? t.short_side : t.long_side, 0};
    return {.kind = StressMap::Kind::points, .points = outline.points()};
  }
  StressMap operator()(const GivenProperties& s) const {
    return {.kind = s.Wz || s.Wy ? StressMap::Kind::moduli : StressMap::Kind::unknown, .points = {}};
  }
};

}  // namespace

StressMap stress_map(const Shape& shape, const SectionProperties& p) {
  return std::visit(Map{p}, shape);
}

}  // namespace corvex::section
