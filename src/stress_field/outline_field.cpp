#include "stress_field/outline_field.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <tuple>

#include "outline/panels.hpp"
#include "stress_field/thinned.hpp"

namespace corvex::section {
namespace {

// A chain of samples on one side, arc or drawn curve.
struct Course {
  std::vector<EdgeSample> samples;
  bool arc = false;
  Complex centre{};
};

// A side of a curve that was drawn by straight lines, with the functions in its middle.
struct Chord {
  Complex from, to;
  EdgePotentials middle;
};

class Sampler {
 public:
  explicit Sampler(const Warping& w) : w_(w), region_(w.region()) {
    double perimeter = 0;
    for (const Contour& c : region_.contours)
      for (const Edge& e : c) perimeter += e.length();
    const double area = area_moments(region_).A;
    wall_ = 2 * area / perimeter;
    near_ = 1e-7 * std::sqrt(area);
    for (const Contour& c : region_.contours)
      for (std::size_t i = 0; i < c.size(); ++i)
        if (turn(before(c, i), c[i]) < -least_corner) notches_.push_back({c[i].from, notch(before(c, i), c[i])});
  }

  OutlineField operator()() {
    for (std::size_t i = 0; i < w_.panels().size();) i = edge(i);
    for (const std::vector<Chord>& c : curves_)
      if (c.size() > 1) draw_curve(c);
    FieldScale scale;
    for (const Course& c : courses_)
      for (const EdgeSample& s : c.samples) scale.include(s);
    OutlineField result;
    for (Course& c : courses_) {
      c.samples = thinned(c.samples, scale);
      for (EdgeSample& s : c.samples) s.at = {snapped(s.at.real()), snapped(s.at.imag())};
      spread(c, result.field);
    }
    result.field.inside_by([&w = w_] { return Sampler(w).inside(); });
    result.field.finish(w_.J());
    result.notched = !notches_.empty();
    return result;
  }

 private:
  static const Edge& before(const Contour& c, std::size_t i) { return c[(i + c.size() - 1) % c.size()]; }
  static const Edge& after(const Contour& c, std::size_t i) { return c[(i + 1) % c.size()]; }
  double snapped(double v) const { return std::abs(v) < near_ ? 0 : v; }

  static bool weak(const Edge& a, const Edge& b) {
    return !a.is_arc() && !b.is_arc() && std::abs(turn(a, b)) < least_corner && turn(a, b) != 0;
  }

  // How far the notch reaches where two edges meet; zero where they make none.
  double notch(const Edge& a, const Edge& b) const {
    return turn(a, b) < -least_corner ? std::min({wall_, a.length() / 3, b.length() / 3}) : 0;
  }

  EdgeSample sample(std::size_t panel, double t) const {
    const EdgeShear s = w_.along(panel, t);
    return {s.there.at, s.there.tangent, s.up, s.right, s.torsion};
  }

  // All panels of one edge; returns the first panel of the next.
  std::size_t edge(std::size_t first) {
    const Panel& p = w_.panels()[first];
    std::size_t end = first;
    while (end < w_.panels().size() && w_.panels()[end].contour == p.contour && w_.panels()[end].of == p.of) ++end;
    const Contour& c = region_.contours[p.contour];
    const Edge& e = c[p.of];
    // A side that is much longer than its neighbours is none of a curve's.
    const auto is_chord = [&](std::size_t k) {
      return weak(before(c, k), c[k]) && weak(c[k], after(c, k)) &&
             c[k].length() < 2.5 * std::max(before(c, k).length(), after(c, k).length());
    };
    const bool alone = !is_chord((p.of + 1) % c.size()) && !is_chord((p.of + c.size() - 1) % c.size());
    if (is_chord(p.of) && !alone) {
      chord(first, end);
      return end;
    }
    const double from = -1 + 2 * notch(before(c, p.of), e) / e.length(),
                 to = 1 - 2 * notch(e, after(c, p.of)) / e.length();
    Course course{.samples = {}, .arc = e.is_arc(), .centre = e.centre};
    for (std::size_t i = first; i < end; ++i) add(i, from, to, i + 1 == end, course);
    // Both faces of a convex corner are free, so that no shear stress is left.
    const bool sharp_start = turn(before(c, p.of), e) > least_corner,
               sharp_end = turn(e, after(c, p.of)) > least_corner;
    if (course.samples.empty()) return end;
    const auto clear = [](EdgeSample& s) { s.up = s.right = s.twist = 0; };
    std::vector<EdgeSample>& all = course.samples;
    if (all.size() > 3 && p.from != -1) settle_on_axis(all[0], all[1], all[2]);
    if (const std::size_t n = all.size(); n > 3 && w_.panels()[end - 1].to != 1)
      settle_on_axis(all[n - 1], all[n - 2], all[n - 3]);
    if (sharp_start && p.from == -1) clear(course.samples.front());
    if (sharp_end && w_.panels()[end - 1].to == 1) clear(course.samples.back());
    courses_.push_back(std::move(course));
    return end;
  }

  // The places of a panel that lie between two parameters of its edge. The slope of the polynomial through Gauss points
  // is best where the slope of Legendre's polynomial vanishes; at the ends of the edge it is taken as it is.
  void add(std::size_t i, double from, double to, bool last, Course& course) const {
    const Panel& p = w_.panels()[i];
    const auto own = [&](double t) { return (2 * t - p.from - p.to) / (p.to - p.from); };
    const double begin = std::max(-1.0, own(from)), end = std::min(1.0, own(to));
    if (!(begin < end)) return;
    if (course.samples.empty()) course.samples.push_back(sample(i, begin));
    for (const EdgeSample& s : best_samples(i, begin, end)) course.samples.push_back(s);
    if (last || end < 1) course.samples.push_back(sample(i, end));
  }
  // Where an edge was cut on a line of symmetry, each function is even or odd along it: the value there follows from
  // the two neighbouring samples and their mirror images.
  void settle_on_axis(EdgeSample& s, const EdgeSample& near, const EdgeSample& far) const {
    const double a = std::norm(near.at - s.at), b = std::norm(far.at - s.at);
    const auto even = [&](double at_near, double at_far) { return (b * at_near - a * at_far) / (b - a); };
    const bool upright = region_.left_right && std::abs(s.at.real()) < near_;
    if (!upright && !(region_.up_down && std::abs(s.at.imag()) < near_)) return;
    s.twist = even(near.twist, far.twist);
    s.up = upright ? 0 : even(near.up, far.up);
    s.right = upright ? even(near.right, far.right) : 0;
  }

  // At the best places, and between them on the polynomial through them.
  std::vector<EdgeSample> best_samples(std::size_t panel, double begin, double end) const {
    const std::vector<double> best = best_places(w_.order());
    std::vector<EdgeSample> at, all;
    for (const double t : best) at.push_back(sample(panel, t));
    const Edge& e = w_.panels()[panel].edge;
    const auto between = [&](double t) {
      const Edge::Point there = e.point(t);
      EdgeSample s{there.at, there.tangent};
      for (std::size_t k = 0; k < best.size(); ++k) {
        double share = 1;
        for (std::size_t n = 0; n < best.size(); ++n)
          if (n != k) share *= (t - best[n]) / (best[k] - best[n]);
        s.up += share * at[k].up, s.right += share * at[k].right, s.twist += share * at[k].twist;
      }
      return s;
    };
    for (std::size_t k = 0; k < best.size(); ++k) {
      if (best[k] > begin && best[k] < end) all.push_back(at[k]);
      if (k + 1 == best.size()) break;
      const double middle = (best[k] + best[k + 1]) / 2;
      if (middle > begin && middle < end) all.push_back(between(middle));
    }
    return all;
  }
  static std::vector<double> best_places(int order) {
    if (order <= 2) return {0};
    if (order == 3) return {-1 / std::sqrt(5.0), 1 / std::sqrt(5.0)};
    if (order == 4) return {-std::sqrt(3.0 / 7), 0, std::sqrt(3.0 / 7)};
    const double a = std::sqrt((7 - 2 * std::sqrt(7.0)) / 21), b = std::sqrt((7 + 2 * std::sqrt(7.0)) / 21);
    if (order == 5) return {-b, -a, a, b};
    const double c = std::sqrt(5.0 / 11 - 2.0 / 11 * std::sqrt(5.0 / 3)),
                 d = std::sqrt(5.0 / 11 + 2.0 / 11 * std::sqrt(5.0 / 3));
    return {-d, -c, 0, c, d};
  }

  void chord(std::size_t first, std::size_t end) {
    std::size_t i = first;
    while (i + 1 < end && w_.panels()[i].to < 0) ++i;
    const Panel& p = w_.panels()[i];
    const Chord c{w_.panels()[first].edge.from, w_.panels()[end - 1].edge.to,
                  w_.potentials(i, -(p.from + p.to) / (p.to - p.from))};
    if (curves_.empty() || std::abs(curves_.back().back().to - c.from) > near_) curves_.emplace_back();
    curves_.back().push_back(c);
  }

  // From the middle of one side to that of the next the functions change as they do along the curve itself, to the
  // square of the turn. A side lies between two such corners.
  void draw_curve(const std::vector<Chord>& chords) {
    const std::size_t n = chords.size();
    const bool closed = n > 2 && std::abs(chords.back().to - chords.front().from) <= near_;
    const auto corner = [&](const Chord& a, const Chord& b) {
      const double length = (std::abs(a.to - a.from) + std::abs(b.to - b.from)) / 2;
      const Complex from = (a.from + a.to) / 2.0, to = (b.from + b.to) / 2.0, way = to - from;
      const auto swept = [](Complex p, Complex q) { return p.real() * q.imag() - p.imag() * q.real(); };
      EdgeSample s{a.to, way / std::abs(way)};
      s.up = (b.middle.up - a.middle.up) / length;
      s.right = (b.middle.right - a.middle.right) / length;
      s.twist = -(b.middle.twist - a.middle.twist + swept(from, a.to) + swept(b.from, to)) / (w_.J() * length);
      return s;
    };
    std::vector<EdgeSample> corners;  // the start of each chord, and the end of the last
    corners.push_back(closed ? corner(chords.back(), chords.front()) : corner(chords[0], chords[1]));
    for (std::size_t k = 0; k + 1 < n; ++k) corners.push_back(corner(chords[k], chords[k + 1]));
    corners.push_back(closed ? corners.front() : corners.back());
    corners.front().at = chords.front().from, corners.back().at = chords.back().to;
    Course course;
    for (std::size_t k = 0; k < n; ++k) {
      const EdgeSample &a = corners[k], &b = corners[k + 1];
      const Complex way = chords[k].to - chords[k].from;
      course.samples.push_back(a);
      course.samples.push_back({(a.at + b.at) / 2.0, way / std::abs(way), (a.up + b.up) / 2, (a.right + b.right) / 2,
                                (a.twist + b.twist) / 2});
    }
    course.samples.push_back(corners.back());
    courses_.push_back(std::move(course));
  }

  // A mirror turns the sense of going round; the functions transform by their parity (warping.cpp).
  static EdgeSample mirrored_z(EdgeSample s) {
    s.at = -std::conj(s.at), s.tangent = std::conj(s.tangent), s.up = -s.up;
    return s;
  }
  static EdgeSample mirrored_y(EdgeSample s) {
    s.at = std::conj(s.at), s.tangent = -std::conj(s.tangent), s.right = -s.right;
    return s;
  }
  template <class Mirror>
  static Course image(const Course& c, const Mirror& mirror, bool across) {
    Course m{.samples = {}, .arc = c.arc, .centre = across ? -std::conj(c.centre) : std::conj(c.centre)};
    for (auto s = c.samples.rbegin(); s != c.samples.rend(); ++s) m.samples.push_back(mirror(*s));
    return m;
  }
  // The course with its mirror image, as one where they meet on the line of symmetry, else as two.
  template <class Mirror>
  static std::vector<Course> doubled(const Course& c, const Mirror& mirror, bool across) {
    const Course other = image(c, mirror, across);
    const auto on_axis = [&](const EdgeSample& s) { return (across ? s.at.real() : s.at.imag()) == 0; };
    Course one = c;
    if (on_axis(c.samples.back())) {
      one.samples.insert(one.samples.end(), other.samples.begin() + 1, other.samples.end());
      return {one};
    }
    if (on_axis(c.samples.front())) {
      one = other;
      one.samples.insert(one.samples.end(), c.samples.begin() + 1, c.samples.end());
      return {one};
    }
    return {c, other};
  }
  void spread(const Course& c, StressField& field) const {
    std::vector<Course> all{c}, more;
    if (region_.left_right) all = doubled(c, mirrored_z, true);
    for (const Course& one : all) {
      if (!region_.up_down) {
        more.push_back(one);
        continue;
      }
      for (Course& image : doubled(one, mirrored_y, false)) more.push_back(std::move(image));
    }
    for (const Course& one : more) field.add(one.samples, one.arc, one.centre);
  }

  // Distance from a place to the outline.
  double clearance(Complex p) const {
    double least = 1e300;
    for (const Contour& c : region_.contours)
      for (const Edge& e : c) least = std::min(least, distance(p, e));
    return least;
  }

  // Where the inward normal of the outline meets it again.
  double depth(Complex at, Complex inward) const {
    double least = 1e300;
    for (const Contour& c : region_.contours)
      for (const Edge& e : c)
        for (const double d : crossings(e, at, inward))
          if (d > 1e-3 * wall_) least = std::min(least, d);
    return least;
  }
  static std::vector<double> crossings(const Edge& e, Complex at, Complex way) {
    std::vector<double> found;
    if (!e.is_arc()) {
      const Complex along = e.to - e.from;
      const double across = cross(way, along);
      if (across == 0) return found;
      const double share = cross(e.from - at, way) / across;
      if (share >= 0 && share <= 1) found.push_back(cross(e.from - at, along) / across);
      return found;
    }
    const Complex from = at - e.centre;
    const double half = (std::conj(way) * from).real(), rest = half * half - std::norm(from) + e.radius() * e.radius();
    if (rest < 0) return found;
    for (const double d : {-half - std::sqrt(rest), -half + std::sqrt(rest)}) {
      const double angle = std::arg((from + d * way) / (e.from - e.centre)) / e.sweep;
      const double round = 2 * std::numbers::pi / std::abs(e.sweep);
      if ((angle >= 0 && angle <= 1) || (angle + round >= 0 && angle + round <= 1)) found.push_back(d);
    }
    return found;
  }

  bool within(Complex p) const {
    const Complex way = std::polar(1.0, 0.7391);  // past the corners
    std::size_t count = 0;
    for (const Contour& c : region_.contours)
      for (const Edge& e : c)
        for (const double d : crossings(e, p, way)) count += d > 0;
    return count % 2 == 1;
  }

  // Places inside the section that are kept apart from each other, each with the size of the square about it in which
  // its sample holds.
  struct Places {
    std::vector<Complex> at;
    std::vector<double> clear, square;
  };

  // Offers a place; it is left out where it is near the outline, a notch or another place (`near`: of the smaller of
  // their distances from the outline).
  void offer(Places& places, Complex p, double near) const {
    if (region_.left_right && p.real() < -near_) p = -std::conj(p);
    if (region_.up_down && p.imag() < -near_) p = std::conj(p);
    p = {snapped(p.real()), snapped(p.imag())};
    const double clear = clearance(p);
    if (clear < 0.1 * wall_) return;
    double reach = 0.6 * clear;
    for (const Notch& n : notches_)
      for (const auto& [at, z, y] : {std::tuple(n.at, false, false),
                                     {-std::conj(n.at), true, false},
                                     {std::conj(n.at), false, true},
                                     {-n.at, true, true}}) {
        if ((z && !region_.left_right) || (y && !region_.up_down)) continue;
        if (std::abs(p - at) < n.reach) return;
        reach = std::min(reach, std::abs(p - at) - n.reach);
      }
    for (std::size_t i = 0; i < places.at.size(); ++i)
      if (std::abs(p - places.at[i]) < near * std::min(clear, places.clear[i])) return;
    places.at.push_back(p);
    places.clear.push_back(clear);
    places.square.push_back(0.7 * reach);
  }

  // In the middle of the wall, on the normals of the outline.
  void add_middles_of_walls(Places& places) const {
    constexpr std::size_t most = 60;
    double walked = 0;
    for (const Panel& p : w_.panels()) {
      if (places.at.size() >= most) break;
      walked += p.edge.length();
      if (walked < 0.2 * wall_) continue;
      walked = 0;
      const Complex d = p.edge.derivative(0), inward = Complex(0, 1) * d / std::abs(d), at = p.edge.at(0);
      if (const double deep = depth(at, inward); deep < 1e299) offer(places, at + inward * (deep / 2), 0.6);
    }
  }

  // About a sharp re-entrant corner stress grows towards what is left out: on its rim.
  void add_rims_of_notches(Places& places) const {
    for (const Notch& n : notches_) {
      if (region_.left_right && n.at.real() < 0) continue;
      if (region_.up_down && n.at.imag() < 0) continue;
      constexpr int directions = 24;
      for (int k = 0; k < directions; ++k) {
        const Complex p = n.at + std::polar(n.reach * (1 + 1e-9), 2 * std::numbers::pi * (k + 0.5) / directions);
        if (within(p)) offer(places, p, 0.05);
      }
    }
  }

  // In a section that is thick compared with its size, in squares that are cut in four where they come near the
  // outline.
  void add_squares(Places& places) const {
    const Extent x = extent(region_);
    const double area = area_moments(region_).A, thick = 30;
    if (is_tube(region_) || area >= thick * wall_ * wall_) return;
    const double least = std::max(0.1 * wall_, std::sqrt(area / 400));
    const auto squared = [&](const auto& self, Complex middle, double half) -> void {
      const bool in = within(middle);
      const double clear = clearance(middle);
      if (in && half < 0.42 * clear) return offer(places, middle, 0.2);
      if (!in && clear > 1.5 * half) return;
      if (half < 2 * least) {
        if (in) offer(places, middle, 0.2);
        return;
      }
      for (const double z : {-0.5, 0.5})
        for (const double y : {-0.5, 0.5}) self(self, middle + half * Complex(z, y), half / 2);
    };
    const Complex middle((x.left + x.right) / 2, (x.bottom + x.top) / 2);
    squared(squared, middle, std::max(x.right - x.left, x.top - x.bottom) / 2);
  }

  std::vector<InnerSample> inside() const {
    Places places;
    add_middles_of_walls(places);
    add_rims_of_notches(places);
    add_squares(places);
    std::vector<InnerSample> samples;
    for (std::size_t i = 0; i < places.at.size(); ++i) {
      const InnerSample s = w_.inside(places.at[i], places.square[i]);
      for (const bool z : {false, true})
        for (const bool y : {false, true}) {
          if ((z && (!region_.left_right || s.at.real() == 0)) || (y && (!region_.up_down || s.at.imag() == 0)))
            continue;
          samples.push_back(image(s, {z, y}));
        }
    }
    return samples;
  }
  // In which axes a place is mirrored.
  struct Mirrored {
    bool z, y;
  };
  // W(p) of the mirrored place: an even function's is conj W(−conj p), an odd one's minus that; each derivative
  // brings the factor of the inner mirror.
  static InnerSample image(InnerSample s, const Mirrored& in) {
    const auto reflect = [&](double even_up, double even_right, double even_twist, double inner) {
      double factor = inner;
      for (int k = 0; k < 3; ++k, factor *= inner) {
        s.up[k] = even_up * factor * std::conj(s.up[k]);
        s.right[k] = even_right * factor * std::conj(s.right[k]);
        s.twist[k] = even_twist * factor * std::conj(s.twist[k]);
      }
    };
    if (in.z) s.at = -std::conj(s.at), reflect(1, -1, -1, -1);
    if (in.y) s.at = std::conj(s.at), reflect(-1, 1, -1, 1);
    return s;
  }

  const Warping& w_;
  const Region& region_;
  double wall_ = 0, near_ = 0;
  struct Notch {
    Complex at;
    double reach;
  };
  std::vector<Notch> notches_;
  std::vector<Course> courses_;
  std::vector<std::vector<Chord>> curves_;
};

}  // namespace

OutlineField outline_field(const Warping& warping) {
  return Sampler(warping)();
}

}  // namespace corvex::section
