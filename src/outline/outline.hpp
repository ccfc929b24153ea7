// The outline of a cross-section as lines and circular arcs.
//
// Points are complex numbers z + i·y: seen along +x the width z runs to the right and y is up. Contours run so that the
// material lies on their left: the outer one counter-clockwise, holes clockwise.
#pragma once

#include <complex>
#include <vector>

namespace corvex::section {

using Complex = std::complex<double>;

// The vector product of a and b: positive where b points to the left of a.
inline double cross(Complex a, Complex b) {
  return a.real() * b.imag() - a.imag() * b.real();
}

// A line, or an arc of a circle, as a map of the parameter t in [−1, 1].
struct Edge {
  Complex from, to;
  Complex centre{};
  double sweep = 0;  // of an arc, counter-clockwise positive; a line has none

  static Edge line(Complex from, Complex to) { return {from, to}; }
  static Edge arc(Complex centre, Complex from, double sweep) {
    return {from, centre + (from - centre) * std::polar(1.0, sweep), centre, sweep};
  }

  bool is_arc() const { return sweep != 0; }
  double radius() const { return std::abs(from - centre); }
  double length() const { return is_arc() ? radius() * std::abs(sweep) : std::abs(to - from); }
  Complex at(double t) const;
  // dz/dt
  Complex derivative(double t) const;
  // A place with the unit tangent there and ds/dt, for less than each by itself.
  struct Point {
    Complex at, tangent;
    double speed;
  };
  Point point(double t) const;
  // The piece between two parameters.
  Edge part(double ta, double tb) const;
};

using Contour = std::vector<Edge>;

// The area to the left of all its contours.
struct Region {
  std::vector<Contour> contours;
  // Mirror images of itself in the lines z = 0 and y = 0, with the centroid at the origin.
  bool left_right = false, up_down = false;
  // By its user, and not one of the library's shapes.
  bool drawn = false;

  void move(Complex by);
};

// A polygon whose corners are rounded: the arc of a corner touches both of its sides.
struct Corner {
  Complex at;
  double radius = 0;
};
Contour rounded(const std::vector<Corner>& corners);

// The angle by which the outline turns from one edge to the next: positive where the corner is convex.
double turn(const Edge& before, const Edge& after);

}  // namespace corvex::section
