#include "oracle/section_elements.hpp"

#include <Eigen/Sparse>
#include <Eigen/SparseCholesky>
#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>

namespace corvex::test {
namespace {

using Point = std::complex<double>;
using std::numbers::pi;

double cross(Point a, Point b) {
  return a.real() * b.imag() - a.imag() * b.real();
}
double dot(Point a, Point b) {
  return a.real() * b.real() + a.imag() * b.imag();
}

// A straight line, or an arc about a centre from a start angle through a sweep.
struct Piece {
  Point a, b, centre;
  double radius = 0, start = 0, sweep = 0;

  Point nearest(Point p) const {
    if (radius == 0) {
      const double t = std::clamp(dot(p - a, b - a) / std::norm(b - a), 0.0, 1.0);
      return a + (b - a) * t;
    }
    double angle = (std::arg(p - centre) - start) * (sweep > 0 ? 1 : -1);
    while (angle < 0) angle += 2 * pi;
    if (angle <= std::abs(sweep)) return centre + (p - centre) * (radius / std::abs(p - centre));
    return std::abs(p - a) < std::abs(p - b) ? a : b;
  }
  double length() const { return radius == 0 ? std::abs(b - a) : radius * std::abs(sweep); }
};

// The outline: its pieces, its sharp corners, and which side of it a place is on.
class Outline {
 public:
  explicit Outline(const std::vector<RoundedPolygon>& contours) {
    for (const RoundedPolygon& c : contours) add(c);
  }
  const std::vector<Piece>& pieces() const { return pieces_; }
  const std::vector<Point>& corners() const { return corners_; }
  // Sharp re-entrant corners, and a third of the shorter side at each.
  const std::vector<std::pair<Point, double>>& notches() const { return notches_; }

  Point nearest(Point p) const {
    Point best = 1e300;
    for (const Piece& e : pieces_)
      if (const Point q = e.nearest(p); std::abs(q - p) < std::abs(best - p)) best = q;
    return best;
  }
  // The winding number, from the turn of each piece as seen from the place.
  bool inside(Point p) const {
    double turn = 0;
    for (const Piece& e : pieces_) {
      const int steps = e.radius == 0 ? 1 : 16;
      Point from = e.a;
      for (int i = 1; i <= steps; ++i) {
        const Point to = i == steps ? e.b : e.centre + std::polar(e.radius, e.start + e.sweep * i / steps);
        turn += std::arg((to - p) / (from - p));
        from = to;
      }
      // Between the chord and the arc the chords lie on the wrong side.
      if (e.radius > 0) turn += beside_chord(e, p, steps);
    }
    return turn > pi;
  }

 private:
  static double beside_chord(const Piece& e, Point p, int steps) {
    for (int i = 0; i < steps; ++i) {
      const Point a = e.centre + std::polar(e.radius, e.start + e.sweep * i / steps),
                  b = e.centre + std::polar(e.radius, e.start + e.sweep * (i + 1) / steps);
      const bool within_arc = std::abs(p - e.centre) < e.radius, beyond = cross(b - a, p - a) * e.sweep < 0;
      const double t = dot(p - a, b - a) / std::norm(b - a);
      if (within_arc && beyond && t > 0 && t < 1) return e.sweep > 0 ? 2 * pi : -2 * pi;
    }
    return 0;
  }

  void add(const RoundedPolygon& c) {
    const std::size_t n = c.size();
    std::vector<Point> begin(n), end(n);
    std::vector<Piece> arcs(n);
    for (std::size_t i = 0; i < n; ++i) {
      const Point in = c[i].at - c[(i + n - 1) % n].at, out = c[(i + 1) % n].at - c[i].at;
      const double turn = std::arg(out / in);
      begin[i] = end[i] = c[i].at;
      if (c[i].radius == 0) {
        if (std::abs(turn) > 0.3) corners_.push_back(c[i].at);
        if (turn < -0.3) notches_.push_back({c[i].at, std::min(std::abs(in), std::abs(out)) / 3});
        continue;
      }
      const double back = c[i].radius * std::tan(std::abs(turn) / 2);
      begin[i] -= in / std::abs(in) * back;
      end[i] += out / std::abs(out) * back;
      const Point centre = begin[i] + Point(0, turn > 0 ? 1 : -1) * in / std::abs(in) * c[i].radius;
      arcs[i] = {begin[i], end[i], centre, c[i].radius, std::arg(begin[i] - centre), turn};
    }
    for (std::size_t i = 0; i < n; ++i) {
      if (arcs[i].radius > 0) pieces_.push_back(arcs[i]);
      if (std::abs(begin[(i + 1) % n] - end[i]) > 1e-12) pieces_.push_back({end[i], begin[(i + 1) % n], {}, 0, 0, 0});
    }
  }

  std::vector<Piece> pieces_;
  std::vector<Point> corners_;
  std::vector<std::pair<Point, double>> notches_;
};

using Triangle = std::array<int, 3>;

// A grid of triangles, its places near the outline moved onto it, the rest cut along it.
class Mesh {
 public:
  Mesh(const Outline& outline, double h) : outline_(outline) {
    double left = 1e300, right = -1e300, low = 1e300, high = -1e300;
    for (const Piece& e : outline.pieces())
      for (const Point p : {e.a, e.b, e.radius > 0 ? e.centre + std::polar(e.radius, e.start + e.sweep / 2) : e.a}) {
        left = std::min(left, p.real()), right = std::max(right, p.real());
        low = std::min(low, p.imag()), high = std::max(high, p.imag());
      }
    const int columns = static_cast<int>(std::ceil((right - left) / h)) + 4,
              rows = static_cast<int>(std::ceil((high - low) / h)) + 4;
    const Point origin(left - 1.63 * h, low - 1.57 * h);
    const auto id = [&](int i, int j) { return i * (rows + 1) + j; };
    for (int i = 0; i <= columns; ++i)
      for (int j = 0; j <= rows; ++j) places.push_back(origin + Point(h * i, h * j));
    side_.assign(places.size(), 2);
    for (const Point c : outline.corners()) {
      const int i = static_cast<int>(std::lround((c - origin).real() / h)),
                j = static_cast<int>(std::lround((c - origin).imag() / h));
      places[static_cast<std::size_t>(id(i, j))] = c;
      side_[static_cast<std::size_t>(id(i, j))] = 0;
    }
    for (std::size_t p = 0; p < places.size(); ++p) {
      if (side_[p] == 0) continue;
      const Point q = outline.nearest(places[p]);
      const bool near_corner = std::any_of(outline.corners().begin(), outline.corners().end(),
                                           [&](Point c) { return std::abs(q - c) < 1e-9 * h; });
      if (std::abs(q - places[p]) < 0.34 * h && !near_corner)
        places[p] = q, side_[p] = 0;
      else
        side_[p] = outline.inside(places[p]) ? 1 : -1;
    }
    for (int i = 0; i < columns; ++i)
      for (int j = 0; j < rows; ++j) {
        const int a = id(i, j), b = id(i + 1, j), c = id(i + 1, j + 1), d = id(i, j + 1);
        if ((i + j) % 2)
          take({a, b, c}), take({a, c, d});
        else
          take({a, b, d}), take({b, c, d});
      }
  }

  std::vector<Point> places;
  std::vector<Triangle> triangles;

 private:
  int side(int p) const { return side_[static_cast<std::size_t>(p)]; }
  Point at(int p) const { return places[static_cast<std::size_t>(p)]; }

  void take(const Triangle& t) {
    const int in = static_cast<int>(std::count_if(t.begin(), t.end(), [&](int p) { return side(p) > 0; }));
    const int out = static_cast<int>(std::count_if(t.begin(), t.end(), [&](int p) { return side(p) < 0; }));
    if (in == 0 && out > 0) return;
    if (in == 0) {
      if (outline_.inside((at(t[0]) + at(t[1]) + at(t[2])) / 3.0)) keep(t);
      return;
    }
    if (out == 0) return keep(t);
    std::vector<int> polygon;
    for (std::size_t k = 0; k < 3; ++k) {
      const int p = t[k], q = t[(k + 1) % 3];
      if (side(p) >= 0) polygon.push_back(p);
      if (side(p) * side(q) < 0) polygon.push_back(crossing(p, q));
    }
    for (std::size_t k = 1; k + 1 < polygon.size(); ++k) keep({polygon[0], polygon[k], polygon[k + 1]});
  }
  void keep(const Triangle& t) {
    if (cross(at(t[1]) - at(t[0]), at(t[2]) - at(t[0])) > 1e-16) triangles.push_back(t);
  }
  int crossing(int p, int q) {
    const auto [it, fresh] = crossings_.try_emplace(std::minmax(p, q), static_cast<int>(places.size()));
    if (!fresh) return it->second;
    Point in = side(p) > 0 ? at(p) : at(q), out = side(p) > 0 ? at(q) : at(p);
    for (int i = 0; i < 60; ++i) {
      const Point middle = (in + out) / 2.0;
      (outline_.inside(middle) ? in : out) = middle;
    }
    places.push_back(outline_.nearest(in));
    side_.push_back(0);
    return it->second;
  }

  const Outline& outline_;
  std::vector<int> side_;
  std::map<std::pair<int, int>, int> crossings_;
};

// Quadratic triangle: corners, then the middles of the sides opposite … 0–1, 1–2, 2–0.
struct Shape {
  std::array<double, 6> n;
  std::array<Point, 6> slope;  // by the two area coordinates r, s

  Shape(double r, double s) {
    const double t = 1 - r - s;
    n = {t * (2 * t - 1), r * (2 * r - 1), s * (2 * s - 1), 4 * t * r, 4 * r * s, 4 * s * t};
    slope = {Point(1 - 4 * t, 1 - 4 * t), Point(4 * r - 1, 0), Point(0, 4 * s - 1),
             Point(4 * (t - r), -4 * r),  Point(4 * s, 4 * r), Point(-4 * s, 4 * (t - s))};
  }
};

}  // namespace

SectionElements::SectionElements(const std::vector<RoundedPolygon>& contours, double spacing) {
  const Outline outline(contours);
  const Mesh mesh(outline, spacing);
  // Nodes: the corners that are used, and the middle of each side, on the outline where a side lies on it.
  std::map<std::pair<int, int>, int> uses;
  for (const Triangle& t : mesh.triangles)
    for (std::size_t k = 0; k < 3; ++k) ++uses[std::minmax(t[k], t[(k + 1) % 3])];
  std::map<int, int> corner;
  std::map<std::pair<int, int>, int> middle;
  std::vector<std::array<int, 6>> elements;
  for (const Triangle& t : mesh.triangles) {
    std::array<int, 6> e{};
    for (std::size_t k = 0; k < 3; ++k) {
      const auto [it, fresh] = corner.try_emplace(t[k], static_cast<int>(at_.size()));
      if (fresh) at_.push_back(mesh.places[static_cast<std::size_t>(t[k])]);
      e[k] = it->second;
    }
    for (std::size_t k = 0; k < 3; ++k) {
      const auto side = std::minmax(t[k], t[(k + 1) % 3]);
      const auto [it, fresh] = middle.try_emplace(side, static_cast<int>(at_.size()));
      if (fresh) {
        const Point p =
            (mesh.places[static_cast<std::size_t>(side.first)] + mesh.places[static_cast<std::size_t>(side.second)]) /
            2.0;
        at_.push_back(uses[side] == 1 ? outline.nearest(p) : p);
      }
      e[3 + k] = it->second;
    }
    elements.push_back(e);
  }
  // Seven points, exact to degree five.
  const double a1 = 0.470142064105115, a2 = 0.101286507323456;
  const std::array<std::array<double, 3>, 7> rule{{{1.0 / 3, 1.0 / 3, 0.1125},
                                                   {a1, a1, 0.066197076394253},
                                                   {1 - 2 * a1, a1, 0.066197076394253},
                                                   {a1, 1 - 2 * a1, 0.066197076394253},
                                                   {a2, a2, 0.0629695902724136},
                                                   {1 - 2 * a2, a2, 0.0629695902724136},
                                                   {a2, 1 - 2 * a2, 0.0629695902724136}}};
  // dz, dy by the coordinates, and the gradients of the six functions as z + i·y.
  const auto map = [&](const std::array<int, 6>& e, const Shape& shape, std::array<Point, 6>& gradient) {
    Point along_r = 0, along_s = 0;
    for (std::size_t k = 0; k < 6; ++k) {
      along_r += at_[static_cast<std::size_t>(e[k])] * shape.slope[k].real();
      along_s += at_[static_cast<std::size_t>(e[k])] * shape.slope[k].imag();
    }
    const double det = cross(along_r, along_s);
    for (std::size_t k = 0; k < 6; ++k) {
      const double r = shape.slope[k].real(), s = shape.slope[k].imag();
      gradient[k] = Point(r * along_s.imag() - s * along_r.imag(), s * along_r.real() - r * along_s.real()) / det;
    }
    return det;
  };
  std::array<Point, 6> gradient;
  Point first = 0;
  for (const auto& e : elements)
    for (const auto& [r, s, weight] : rule) {
      const Shape shape(r, s);
      const double det = map(e, shape, gradient);
      Point p = 0;
      for (std::size_t k = 0; k < 6; ++k) p += shape.n[k] * at_[static_cast<std::size_t>(e[k])];
      A_ += det * weight;
      first += det * weight * p;
    }
  for (Point& p : at_) p -= first / A_;
  const auto n = static_cast<Eigen::Index>(at_.size());
  std::vector<Eigen::Triplet<double>> entries;
  Eigen::MatrixXd right = Eigen::MatrixXd::Zero(n, 3);
  for (const auto& e : elements)
    for (const auto& [r, s, weight] : rule) {
      const Shape shape(r, s);
      const double w = map(e, shape, gradient) * weight;
      Point p = 0;
      for (std::size_t k = 0; k < 6; ++k) p += shape.n[k] * at_[static_cast<std::size_t>(e[k])];
      const double y = p.imag(), z = p.real();
      Iz_ += w * y * y, Iy_ += w * z * z, Iyz_ += w * y * z;
      for (std::size_t i = 0; i < 6; ++i) {
        right(e[i], 0) += w * shape.n[i] * y;
        right(e[i], 1) += w * shape.n[i] * z;
        right(e[i], 2) -= w * dot(gradient[i], Point(-y, z));
        for (std::size_t k = 0; k < 6; ++k) entries.emplace_back(e[i], e[k], w * dot(gradient[i], gradient[k]));
      }
    }
  // One value is free.
  entries.emplace_back(0, 0, 1e3);
  Eigen::SparseMatrix<double> K(n, n);
  K.setFromTriplets(entries.begin(), entries.end());
  const Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solver(K);
  const Eigen::MatrixXd u = solver.solve(right);
  // Gradients at the nodes, the mean of the elements that meet there by the angle that each of them fills.
  up_.assign(at_.size(), 0), right_ = twist_ = up_;
  std::vector<double> weights(at_.size(), 0);
  constexpr std::array<std::array<double, 2>, 6> node{{{0, 0}, {1, 0}, {0, 1}, {0.5, 0}, {0.5, 0.5}, {0, 0.5}}};
  for (const auto& e : elements)
    for (std::size_t k = 0; k < 6; ++k) {
      map(e, Shape(node[k][0], node[k][1]), gradient);
      const auto here = static_cast<std::size_t>(e[k]);
      const Point p = at_[here];
      double angle = pi;
      if (k < 3)
        angle = std::abs(std::arg((at_[static_cast<std::size_t>(e[(k + 1) % 3])] - p) /
                                  (at_[static_cast<std::size_t>(e[(k + 2) % 3])] - p)));
      Point up = 0, right_way = 0, twist = Point(-p.imag(), p.real());
      for (std::size_t i = 0; i < 6; ++i)
        up += gradient[i] * u(e[i], 0), right_way += gradient[i] * u(e[i], 1), twist += gradient[i] * u(e[i], 2);
      up_[here] += angle * up, right_[here] += angle * right_way, twist_[here] += angle * twist;
      weights[here] += angle;
    }
  for (std::size_t i = 0; i < at_.size(); ++i) up_[i] /= weights[i], right_[i] /= weights[i], twist_[i] /= weights[i];
  for (const auto& e : elements)
    for (const auto& [r, s, weight] : rule) {
      const Shape shape(r, s);
      const double w = map(e, shape, gradient) * weight;
      Point p = 0, twist = 0;
      for (std::size_t k = 0; k < 6; ++k) {
        p += shape.n[k] * at_[static_cast<std::size_t>(e[k])];
        twist += gradient[k] * u(e[k], 2);
      }
      const Point turning(-p.imag(), p.real());
      J_ += w * std::norm(twist + turning);
    }
  double length = 0;
  for (const Piece& e : outline.pieces()) length += e.length();
  const double wall = 2 * A_ / length;
  counts_.assign(at_.size(), true);
  for (std::size_t i = 0; i < at_.size(); ++i)
    for (const auto& [c, third] : outline.notches())
      if (std::abs(at_[i] + first / A_ - c) < std::min(wall, third)) counts_[i] = false;
}

// σ and τ by the formulas of docs/theory.md; T counts from y towards z.
SectionElements::Worst SectionElements::worst_place(const SixForces& f) const {
  const double D = Iy_ * Iz_ - Iyz_ * Iyz_;
  const double gy = -(f.Mz * Iy_ - f.My * Iyz_) / D, gz = -(f.My * Iz_ - f.Mz * Iyz_) / D;
  const double a = (f.Vy * Iy_ - f.Vz * Iyz_) / D, b = (f.Vz * Iz_ - f.Vy * Iyz_) / D;
  double most = 0;
  Point where = 0;
  for (std::size_t i = 0; i < at_.size(); ++i) {
    if (!counts_[i]) continue;
    const double sigma = f.N / A_ + gy * at_[i].imag() + gz * at_[i].real();
    const Point tau = -a * up_[i] - b * right_[i] - f.T / J_ * twist_[i];
    if (const double square = sigma * sigma + 3 * std::norm(tau); square > most) most = square, where = at_[i];
  }
  return {std::sqrt(most), where.imag(), where.real()};
}

}  // namespace corvex::test
