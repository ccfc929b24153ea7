#include "outline/arcs.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

namespace corvex::section {
namespace {

constexpr double most_turn = 0.06, most_sweep = 1.7, least_sweep = 0.5;
constexpr std::size_t least_chords = 4;

std::optional<Complex> centre_of(Complex a, Complex b, Complex c) {
  // The circle through three points, b at the origin.
  const Complex u = a - b, v = c - b;
  const double cross = u.real() * v.imag() - u.imag() * v.real();
  if (std::abs(cross) <= 1e-12 * std::abs(u) * std::abs(v)) return {};
  const double u2 = std::norm(u), v2 = std::norm(v);
  return b + Complex(v.imag() * u2 - u.imag() * v2, u.real() * v2 - v.real() * u2) / (2 * cross);
}

// Chords from corner `first`, so many.
struct Run {
  std::size_t first = 0, count = 0;
};

class Curves {
 public:
  Curves(const Contour& contour, const Region& region) : edges_(contour), region_(region), n_(contour.size()) {
    for (std::size_t i = 0; i < n_; ++i) turns_.push_back(section::turn(edges_[(i + n_ - 1) % n_], edges_[i]));
  }

  Contour operator()() {
    find_runs();
    if (runs_.empty()) return edges_;
    Contour contour;
    std::size_t next = runs_.front().first;
    for (const Run& r : runs_) {
      for (; at(next) != at(r.first); ++next) contour.push_back(edges_[at(next)]);
      contour.push_back(arc(r));
      next = r.first + r.count;
    }
    for (; at(next) != at(runs_.front().first); ++next) contour.push_back(edges_[at(next)]);
    return contour;
  }

 private:
  std::size_t at(std::size_t i) const { return i % n_; }
  Complex corner(std::size_t i) const { return edges_[at(i)].from; }

  // Where it is cut on a line of symmetry a curve ends, at a corner there or at the chord that crosses the line.
  bool crosses(std::size_t i) const {
    const Complex a = corner(i), b = corner(i + 1);
    return (region_.left_right && a.real() * b.real() < 0) || (region_.up_down && a.imag() * b.imag() < 0);
  }
  bool on_axis(std::size_t i) const {
    const double tiny = 1e-6 * edges_[at(i)].length();
    return (region_.left_right && std::abs(corner(i).real()) < tiny) ||
           (region_.up_down && std::abs(corner(i).imag()) < tiny);
  }

  // The curve goes on through this corner.
  bool bends(std::size_t i) const {
    if (on_axis(i) || crosses(i) || crosses(i + n_ - 1)) return false;
    const double t = std::abs(turns_[at(i)]), a = edges_[at(i + n_ - 1)].length(), b = edges_[at(i)].length();
    return t > 1e-4 && t < most_turn && std::max(a, b) < 2 * std::min(a, b);
  }

  void find_runs() {
    // Beginning where no curve goes on.
    std::size_t start = 0;
    while (start < n_ && bends(start)) ++start;
    if (start == n_) start = 0;
    for (std::size_t first = start; first < start + n_;) {
      const std::size_t count = longest_run(first, start + n_);
      if (count >= least_chords) runs_.push_back({at(first), count});
      first += std::max<std::size_t>(count, 1);
    }
  }

  // How many chords from this corner lie on one circle.
  std::size_t longest_run(std::size_t first, std::size_t end) const {
    std::size_t count = 1;
    double sweep = 0;
    while (first + count < end && bends(first + count) && turns_[at(first + count)] * turns_[at(first + 1)] > 0 &&
           sweep + std::abs(turns_[at(first + count)]) < most_sweep && fits({first, count + 1})) {
      sweep += std::abs(turns_[at(first + count)]);
      ++count;
    }
    return sweep >= least_sweep ? count : 1;
  }

  bool fits(const Run& r) const {
    const auto centre = centre_of(corner(r.first), corner(r.first + r.count / 2), corner(r.first + r.count));
    if (!centre) return false;
    const double radius = std::abs(corner(r.first) - *centre);
    for (std::size_t k = 0; k < r.count; ++k) {
      const double chord = edges_[at(r.first + k)].length(), height = chord * chord / (8 * radius);
      if (std::abs(std::abs(corner(r.first + k) - *centre) - radius) > 0.5 * height) return false;
    }
    return true;
  }

  // From the first corner of the run to its last. In its middle it lies below the circle of the corners by the mean
  // height of that circle over the chords, so that it encloses the same area as they do.
  Edge arc(const Run& r) const {
    const Complex from = corner(r.first), to = corner(r.first + r.count);
    const Complex centre = *centre_of(from, corner(r.first + r.count / 2), to);
    const double turn = turns_[at(r.first + 1)], radius = std::abs(from - centre);
    double cubes = 0, sum = 0;
    for (std::size_t k = 0; k < r.count; ++k) {
      const double chord = edges_[at(r.first + k)].length();
      cubes += chord * chord * chord, sum += chord;
    }
    const double height = cubes / (8 * radius * sum);
    const Complex middle =
        centre + (from - centre) * std::polar(1 - height / radius, swept(centre, from, to, turn) / 2);
    const auto lower = centre_of(from, middle, to);
    if (!lower) return Edge::line(from, to);
    return {from, to, *lower, swept(*lower, from, to, turn)};
  }
  static double swept(Complex centre, Complex from, Complex to, double sense) {
    const double sweep = std::arg((to - centre) / (from - centre));
    if (sweep * sense >= 0) return sweep;
    return sweep + (sense > 0 ? 2 : -2) * std::numbers::pi;
  }

  const Contour& edges_;
  const Region& region_;
  std::size_t n_;
  std::vector<double> turns_;  // at the start of each edge
  std::vector<Run> runs_;
};

}  // namespace

Region with_arcs(const Region& region) {
  Region r = region;
  for (Contour& c : r.contours)
    if (c.size() > least_chords && std::none_of(c.begin(), c.end(), [](const Edge& e) { return e.is_arc(); }))
      c = Curves(Contour(c), region)();
  return r;
}

}  // namespace corvex::section
