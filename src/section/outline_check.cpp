#include "section/outline_check.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <complex>

#include "corvex/number.hpp"
#include "outline/panels.hpp"
#include "section/region.hpp"

namespace corvex::section {
namespace {

using Polygon = std::vector<Complex>;

constexpr std::size_t most_points = 1000;

std::string told(Complex p) {
  return fmt::format("({}, {}) mm", short_number(p.real() * 1e3, 6), short_number(p.imag() * 1e3, 6));
}

double distance(Complex p, Complex a, Complex b) {
  const double t = std::clamp((std::conj(b - a) * (p - a)).real() / std::norm(b - a), 0.0, 1.0);
  return std::abs(p - a - (b - a) * t);
}

// Whether two sides cross, or come closer than `tiny`.
bool meet(Complex a, Complex b, Complex c, Complex d, double tiny) {
  if (std::min({distance(a, c, d), distance(b, c, d), distance(c, a, b), distance(d, a, b)}) < tiny) return true;
  return (cross(b - a, c - a) > 0) != (cross(b - a, d - a) > 0) &&
         (cross(d - c, a - c) > 0) != (cross(d - c, b - c) > 0);
}

bool inside(Complex p, const Polygon& polygon) {
  bool in = false;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Complex a = polygon[i], b = polygon[(i + 1) % polygon.size()];
    if ((a.imag() > p.imag()) == (b.imag() > p.imag())) continue;
    in ^= p.real() < a.real() + (b.real() - a.real()) * (p.imag() - a.imag()) / (b.imag() - a.imag());
  }
  return in;
}

class Check {
 public:
  explicit Check(const Outline& outline) {
    add(outline.points);
    for (const auto& hole : outline.holes) add(hole);
  }

  std::vector<ShapeFault> run(const Outline& outline) {
    std::size_t points = 0;
    for (std::size_t i = 0; i < all_.size() && faults_.empty(); ++i) points += all_[i].size(), alone(i);
    if (faults_.empty() && points > most_points)
      fault(0, fmt::format("{} points are too many; at most {} are possible", points, most_points));
    for (std::size_t i = 0; i < all_.size() && faults_.empty(); ++i)
      for (std::size_t k = i; k < all_.size() && faults_.empty(); ++k) crossing(i, k);
    for (std::size_t i = 1; i < all_.size() && faults_.empty(); ++i) holes(i);
    if (faults_.empty()) work(outline);
    return faults_;
  }

 private:
  void add(const std::vector<Outline::Point>& points) {
    Polygon p;
    for (const Outline::Point& q : points) p.emplace_back(q.z.si(), q.y.si());
    all_.push_back(std::move(p));
  }

  static std::string label(std::size_t polygon) {
    return polygon == 0 ? "the outline" : fmt::format("hole {}", polygon);
  }
  void fault(std::size_t polygon, std::string text) {
    faults_.push_back({polygon == 0 ? "points" : "holes", std::move(text)});
  }

  void alone(std::size_t i) {
    const Polygon& p = all_[i];
    if (p.size() < 3) return fault(i, fmt::format("{} needs at least three points", label(i)));
    double size = 0;
    for (const Complex q : p) {
      if (!std::isfinite(q.real()) || !std::isfinite(q.imag()) || std::abs(q) > 1e6)
        return fault(i, fmt::format("{} is out of range", label(i)));
      size = std::max(size, std::abs(q - p[0]));
    }
    if (size < 1e-9) return fault(i, fmt::format("{} has no size", label(i)));
    tiny_ = std::max(tiny_, 1e-7 * size);
    for (std::size_t k = 0; k < p.size(); ++k)
      if (k + 1 == p.size() && std::abs(p[0] - p[k]) < tiny_)
        return fault(i,
                     fmt::format("the last point of {} is its first one again; the ring closes by itself", label(i)));
      else if (std::abs(p[(k + 1) % p.size()] - p[k]) < tiny_)
        return fault(i, fmt::format("point {} of {} coincides with the next one, at {}", k + 1, label(i), told(p[k])));
  }

  void crossing(std::size_t i, std::size_t k) {
    const Polygon &p = all_[i], &q = all_[k];
    for (std::size_t a = 0; a < p.size(); ++a)
      for (std::size_t b = i == k ? a + 1 : 0; b < q.size(); ++b) {
        const std::size_t a2 = (a + 1) % p.size(), b2 = (b + 1) % q.size();
        if (i == k && (a2 == b || b2 == a)) {
          // Neighbours share a point; they must not turn back on themselves.
          const Complex shared = a2 == b ? p[b] : p[a], one = a2 == b ? p[a] : p[a2], other = a2 == b ? q[b2] : q[b];
          if (distance(one, shared, other) < tiny_ || distance(other, shared, one) < tiny_)
            return fault(i, fmt::format("{} turns back on itself at {}", label(i), told(shared)));
          continue;
        }
        if (!meet(p[a], p[a2], q[b], q[b2], tiny_)) continue;
        if (i == k)
          return fault(i, fmt::format("sides {} and {} of {} meet near {}", a + 1, b + 1, label(i), told(p[a])));
        return fault(k, fmt::format("{} meets {} near {}", label(k), label(i), told(q[b])));
      }
  }

  void holes(std::size_t i) {
    if (!inside(all_[i][0], all_[0])) return fault(i, fmt::format("hole {} does not lie within the outline", i));
    for (std::size_t k = 1; k < all_.size(); ++k)
      if (k != i && inside(all_[i][0], all_[k])) return fault(i, fmt::format("hole {} lies within hole {}", i, k));
  }

  // Torsion and shear are solved on pieces of the sides, short near corners and where sides are near each other. Time
  // grows with the third power of their number, memory with the second: 1,000 take about 8 s and 500 MB.
  void work(const Outline& outline) {
    constexpr std::size_t most = 1000;
    const auto region = section::region(outline);
    const std::size_t pieces = region ? panels(*region, 1).size() : 0;
    if (pieces > most)
      fault(0,
            fmt::format("the sides of this outline would have to be cut into {} pieces, and up to {} are worked with; "
                        "corners that matter little are left out, and thin walls drawn shorter",
                        pieces, most));
  }

  std::vector<Polygon> all_;
  double tiny_ = 0;
  std::vector<ShapeFault> faults_;
};

}  // namespace

std::vector<ShapeFault> outline_faults(const Outline& outline) {
  return Check(outline).run(outline);
}

}  // namespace corvex::section
