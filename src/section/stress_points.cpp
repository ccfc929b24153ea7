#include "section/stress_points.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "section/series.hpp"

namespace corvex::section {

StressMap ring_map(double R, double r, const SectionProperties& p) {
  // V·S/(I·b) at the axis: S = 2/3 (R³ − r³), b = 2 (R − r).
  const double peak = (R * R + R * r + r * r) / (3 * p.Iz.si());
  return {.kind = StressMap::Kind::rim, .radius = R, .shear_peak = peak, .torsion_rim = R / p.J.si()};
}

// The corners, and where the axes of the centroid cross the outline: there V's shear stress is 3/2 of its mean, and the
// torsion's is largest on each side.
StressMap bar_map(double h, double w) {
  const RectangleTorsion torsion = rectangle_torsion(h, w);
  const bool upright = h >= w;  // then the long sides are z = ±w/2
  const double side = upright ? torsion.long_side : torsion.short_side;
  const double top = upright ? torsion.short_side : torsion.long_side;
  const double peak = 1.5 / (h * w);
  StressMap map{.kind = StressMap::Kind::points};
  for (const double s : {1.0, -1.0}) {
    for (const double sz : {1.0, -1.0}) map.points.push_back({.y = s * h / 2, .z = sz * w / 2, .direction_y = 1});
    // The shear force on the face along +x is −V; torsion runs from y towards z.
    map.points.push_back({.z = s * w / 2, .direction_y = 1, .vy = -peak, .t = -s * side, .held_vy = -peak});
    map.points.push_back({.y = s * h / 2, .direction_z = 1, .vz = -peak, .t = s * top, .held_vz = -peak});
  }
  return map;
}

namespace {

// A candidate: where on which panel.
struct Spot {
  std::size_t panel = 0;
  double t = 0;
  // In a convex corner both faces are free, so that no shear stress is left.
  bool corner = false;
};

// A turn below this one is a curve's that was drawn by short lines.
constexpr double hardly = 0.35;

class Chooser {
 public:
  Chooser(const Warping& w, const SectionProperties& p) : w_(w), p_(p) {
    double perimeter = 0;
    for (const Contour& c : w.region().contours)
      for (const Edge& e : c) perimeter += e.length(), ++edges_;
    wall_ = 2 * p.A.si() / perimeter;
    near_ = 1e-6 * std::sqrt(p.A.si());
  }

  StressMap run() {
    for (std::size_t i = 0; i < w_.panels().size(); ++i) {
      corners(i);
      crossings(i);
    }
    peaks();
    StressMap map{.kind = StressMap::Kind::points};
    for (const Spot& s : spots_) add(map, s);
    return map;
  }

 private:
  const Edge& edge(const Panel& p) const { return w_.region().contours[p.contour][p.of]; }
  const Edge& neighbour(const Panel& p, int by) const {
    const Contour& c = w_.region().contours[p.contour];
    return c[(p.of + c.size() + (by > 0 ? 1 : c.size() - 1)) % c.size()];
  }

  // How much of an edge lies in the notch at its start, or at its end: a wall from where the sides would meet.
  double notch(const Panel& p, bool at_end) const {
    const Edge &own = edge(p), &other = neighbour(p, at_end ? 1 : -1);
    if (own.is_arc() && own.sweep < 0) return 1e300;
    const double corner = at_end ? turn(own, other) : turn(other, own);
    if (corner < -hardly) return std::min(wall_, own.length() / 3);
    if (other.is_arc() && other.sweep < -hardly && !own.is_arc())
      return std::clamp(wall_ - other.radius() * std::tan(-other.sweep / 2), 0.0, own.length() / 3);
    return 0;
  }

  // The part of a panel that lies outside of notches, in its own parameter; none if it is all within.
  std::pair<double, double> sound(const Panel& p) const {
    const double length = edge(p).length();
    const double from = -1 + 2 * notch(p, false) / length, to = 1 - 2 * notch(p, true) / length;
    const auto own = [&](double t) { return (2 * t - p.from - p.to) / (p.to - p.from); };
    return {std::max(-1.0, own(from)), std::min(1.0, own(to))};
  }

  // Ends of edges, the feet of fillets, and along convex arcs what lies furthest out.
  void corners(std::size_t i) {
    const Panel& p = w_.panels()[i];
    const auto [from, to] = sound(p);
    if (!(from <= to)) return;
    const bool starts = from > -1 || p.from == -1, ends = to < 1 || p.to == 1;
    const bool sharp_start = turn(neighbour(p, -1), edge(p)) > hardly,
               sharp_end = turn(edge(p), neighbour(p, 1)) > hardly;
    if (starts) spots_.push_back({i, from, sharp_start});
    if (ends) spots_.push_back({i, to, sharp_end});
    if (!p.edge.is_arc()) return;
    constexpr double step = 0.25;  // radians
    const int pieces = static_cast<int>(std::ceil(std::abs(p.edge.sweep) / step));
    for (int k = 0; k <= pieces; ++k) spots_.push_back({i, -1 + 2.0 * k / pieces});
  }

  void crossings(std::size_t i) {
    const Panel& p = w_.panels()[i];
    const auto [from, to] = sound(p);
    if (!(from <= to)) return;
    for (const bool across : {false, true}) {
      const auto height = [&](double t) { return across ? p.edge.at(t).real() : p.edge.at(t).imag(); };
      double a = from, b = to;
      const double fa = height(a), fb = height(b);
      if (std::abs(fa) < near_) spots_.push_back({i, a});
      if (std::abs(fb) < near_) spots_.push_back({i, b});
      if (!(fa * fb < 0)) continue;
      for (int step = 0; step < 60; ++step) {
        const double middle = (a + b) / 2;
        ((height(middle) < 0) == (fa < 0) ? a : b) = middle;
      }
      spots_.push_back({i, (a + b) / 2});
    }
  }

  // The largest of each shear stress, on every edge, or on the whole of an outline of many edges.
  void peaks() {
    struct Peak {
      double size = -1;
      Spot at;
    };
    std::vector<std::array<Peak, 3>> best;
    const bool each = edges_ <= 40;
    std::size_t last_contour = 0, last_edge = 0;
    for (std::size_t i = 0; i < w_.panels().size(); ++i) {
      const Panel& p = w_.panels()[i];
      if (best.empty() || (each && (p.contour != last_contour || p.of != last_edge))) best.emplace_back();
      last_contour = p.contour, last_edge = p.of;
      const auto [from, to] = sound(p);
      if (!(from <= to)) continue;
      constexpr int samples = 8;
      for (int k = 0; k <= samples; ++k) {
        const Spot spot{i, from + (to - from) * k / samples};
        const EdgeShear s = w_.along(i, spot.t);
        const double sizes[] = {std::abs(s.torsion), std::abs(s.up), std::abs(s.right)};
        for (std::size_t q = 0; q < 3; ++q)
          if (sizes[q] > best.back()[q].size * (1 + 1e-9)) best.back()[q] = {sizes[q], spot};
      }
    }
    for (const auto& three : best)
      for (const Peak& peak : three)
        if (peak.size >= 0) spots_.push_back(peak.at);
  }

  // The point and its mirror images. A mirror turns the sense of going round; what the function does in it is told by
  // its parity (warping.cpp).
  void add(StressMap& map, const Spot& spot) const {
    const Edge& e = w_.panels()[spot.panel].edge;
    const Complex d = e.derivative(spot.t);
    const EdgeShear shear = spot.corner ? EdgeShear() : w_.along(spot.panel, spot.t);
    for (const bool mirror_z : {false, true})
      for (const bool mirror_y : {false, true}) {
        if ((mirror_z && !w_.region().left_right) || (mirror_y && !w_.region().up_down)) continue;
        Complex at = e.at(spot.t), along = d / std::abs(d);
        EdgeShear s = shear;
        if (mirror_z) at = -std::conj(at), along = std::conj(along), s.up = -s.up;
        if (mirror_y) at = std::conj(at), along = -std::conj(along), s.right = -s.right;
        push(map, at, along, s);
      }
  }

  void push(StressMap& map, Complex at, Complex along, const EdgeShear& s) const {
    const auto snapped = [&](double v) { return std::abs(v) < near_ ? 0 : v; };
    const double Iy = p_.Iy.si(), Iz = p_.Iz.si(), Iyz = p_.Iyz.si(), D = Iy * Iz - Iyz * Iyz;
    const StressPoint point{.y = snapped(at.imag()),
                            .z = snapped(at.real()),
                            .direction_y = along.imag(),
                            .direction_z = along.real(),
                            .vy = -(Iy * s.up - Iyz * s.right) / D,
                            .vz = -(Iz * s.right - Iyz * s.up) / D,
                            .t = s.torsion,
                            .held_vy = -s.up / Iz,
                            .held_vz = -s.right / Iy};
    for (const StressPoint& there : map.points)
      // Where two edges meet, or an edge was cut: the same stress but for rounding.
      if (std::hypot(there.y - point.y, there.z - point.z) < near_) return;
    map.points.push_back(point);
  }

  const Warping& w_;
  const SectionProperties& p_;
  std::size_t edges_ = 0;
  double wall_ = 0, near_ = 0;
  std::vector<Spot> spots_;
};

}  // namespace

StressMap outline_map(const Warping& warping, const SectionProperties& p) {
  return Chooser(warping, p).run();
}

SectionModulus torsion_modulus(const StressMap& map) {
  double most = 0;
  for (const StressPoint& p : map.points) most = std::max(most, std::abs(p.t));
  return SectionModulus::si(most > 0 ? 1 / most : 0);
}

}  // namespace corvex::section
