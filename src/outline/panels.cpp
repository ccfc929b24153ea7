#include "outline/panels.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace corvex::section {

double distance(Complex p, const Edge& e) {
  if (!e.is_arc()) {
    const Complex along = e.to - e.from;
    const double t = std::clamp((std::conj(along) * (p - e.from)).real() / std::norm(along), 0.0, 1.0);
    return std::abs(p - e.from - along * t);
  }
  const Complex spoke = (p - e.centre) / (e.from - e.centre);
  const double angle = std::arg(spoke) * (e.sweep > 0 ? 1 : -1);
  const double around = angle < 0 ? angle + 2 * std::numbers::pi : angle;
  if (around <= std::abs(e.sweep)) return std::abs(std::abs(p - e.centre) - e.radius());
  return std::min(std::abs(p - e.from), std::abs(p - e.to));
}

namespace {

// A place of the outline where the solution is not smooth.
struct Feature {
  Complex at;
  // Length of the panel that touches it.
  double finest = 0;
};

// At a re-entrant corner the solution goes like r^(2/3) and worse, at a convex one like r² ln r; where an arc begins it
// only has a bend in its curvature, and where a drawn curve turns by a little there is next to nothing.
double closeness(double turn, double grading, const Region& region) {
  const bool tube = is_tube(region);
  if (turn < -least_corner) return (tube ? 5e-2 : region.contours.size() > 1 ? 3e-2 : 9e-3) / std::pow(grading, 3);
  if (turn > least_corner) return (tube ? 1 : 0.36) / grading;
  return tube ? 1.8 / grading : 0.6;
}

class Cutter {
 public:
  // In an open section torsion changes its sign across the wall, which takes a closer look.
  Cutter(const Region& region, double grading) : region_(region), reach_((is_tube(region) ? 3.6 : 1.5) / grading) {
    for (const Contour& c : region.contours)
      for (std::size_t i = 0; i < c.size(); ++i) {
        const Edge &before = c[(i + c.size() - 1) % c.size()], &after = c[i];
        const double bend = turn(before, after);
        // A curve that was drawn by short lines is a curve; where it meets a long side, panels of that side grow from
        // the length of the short ones.
        if (std::abs(bend) < least_corner && !before.is_arc() && !after.is_arc()) {
          const double shorter = std::min(before.length(), after.length());
          if (std::max(before.length(), after.length()) > 2.5 * shorter) features_.push_back({after.from, shorter});
          continue;
        }
        const double scale = std::min({before.length(), after.length(), clearance(c, i)});
        features_.push_back({after.from, scale * closeness(bend, grading, region)});
      }
  }

  std::vector<Panel> run() {
    for (std::size_t c = 0; c < region_.contours.size(); ++c)
      for (std::size_t i = 0; i < region_.contours[c].size(); ++i) {
        const Edge& e = region_.contours[c][i];
        double from = -1, to = 1;
        if (!keep(e, from, to)) continue;
        of_ = {{}, c, i};
        cut(e, from, to, from == -1 ? finest(e.from) : 0, to == 1 ? finest(e.to) : 0);
      }
    return std::move(all_);
  }

 private:
  // How far the outline's other edges are from a corner.
  double clearance(const Contour& own, std::size_t corner) const {
    const Complex at = own[corner].from;
    const std::size_t before = (corner + own.size() - 1) % own.size();
    double least = 1e300;
    for (const Contour& c : region_.contours)
      for (std::size_t i = 0; i < c.size(); ++i)
        if (&c != &own || (i != corner && i != before)) least = std::min(least, distance(at, c[i]));
    return least;
  }

  double finest(Complex at) const {
    for (const Feature& f : features_)
      if (f.at == at) return f.finest;
    return 0;
  }

  // The part of an edge that lies on the positive side of the lines of symmetry.
  bool keep(const Edge& e, double& from, double& to) const {
    const auto clip = [&](double a, double b) {
      const double tiny = 1e-9 * std::max(std::abs(a), std::abs(b));
      if (a <= tiny && b <= tiny) return false;
      const double crossing = (a + b) / (a - b);
      if (a < -tiny) from = std::max(from, crossing);
      if (b < -tiny) to = std::min(to, crossing);
      return true;
    };
    if (region_.left_right && !clip(e.from.real(), e.to.real())) return false;
    if (region_.up_down && !clip(e.from.imag(), e.to.imag())) return false;
    return from < to;
  }

  // Halves, or closes in on a corner by steps, until every panel is short compared with its distance from the corners
  // of the outline that it does not touch.
  void cut(const Edge& e, double from, double to, double finest_from, double finest_to) {
    constexpr double step = 0.3, most_sweep = 0.8;
    const Edge piece = e.part(from, to);
    const double length = piece.length();
    const bool long_from = finest_from > 0 && length > 1.2 * finest_from;
    const bool long_to = finest_to > 0 && length > 1.2 * finest_to;
    double at = 0;
    if (long_from && (!long_to || finest_from <= finest_to))
      at = from + (to - from) * (long_to ? 0.5 : std::max(step, std::min(0.5, finest_from / length)));
    else if (long_to)
      at = to - (to - from) * (long_from ? 0.5 : std::max(step, std::min(0.5, finest_to / length)));
    else if (length > reach_ * nearest(piece) || (e.is_arc() && std::abs(piece.sweep) > most_sweep))
      at = (from + to) / 2;
    else {
      all_.push_back({piece, of_.contour, of_.of, from, to});
      return;
    }
    cut(e, from, at, finest_from, 0);
    cut(e, at, to, 0, finest_to);
  }

  double nearest(const Edge& piece) const {
    double least = 1e300;
    for (const Feature& f : features_) {
      const double d = distance(f.at, piece);
      if (d > 1e-9 * piece.length()) least = std::min(least, d);
    }
    return least;
  }

  const Region& region_;
  // Largest ratio of the length of a panel to its distance from the next corner.
  double reach_;
  std::vector<Feature> features_;
  Panel of_;
  std::vector<Panel> all_;
};

}  // namespace

std::vector<Panel> panels(const Region& region, double grading) {
  return Cutter(region, grading).run();
}

}  // namespace corvex::section
