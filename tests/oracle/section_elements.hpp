// An independent solution of a cross-section's shear stress: quadratic finite elements on triangles, cut from a grid.
// It shares nothing with the library, neither geometry nor formulas of boundary integrals.
#pragma once

#include <complex>
#include <vector>

namespace corvex::test {

// A polygon with rounded corners; points are z + i·y. The outer one counter-clockwise, holes clockwise.
struct RoundedCorner {
  std::complex<double> at;
  double radius = 0;
};
using RoundedPolygon = std::vector<RoundedCorner>;

// Internal forces with the signs of docs/theory.md.
struct SixForces {
  double N = 0, Vy = 0, Vz = 0, T = 0, My = 0, Mz = 0;
};

class SectionElements {
 public:
  // `spacing`: of the grid.
  SectionElements(const std::vector<RoundedPolygon>& contours, double spacing);

  double area() const { return A_; }
  double Iy() const { return Iy_; }
  double Iz() const { return Iz_; }
  double J() const { return J_; }
  std::size_t nodes() const { return at_.size(); }
  // The largest von Mises stress at the nodes; those within a wall's thickness (2A over the length of the outline, but
  // no more than a third of the sides that meet there) of a sharp re-entrant corner are left out.
  double worst(const SixForces& f) const { return worst_place(f).value; }
  struct Worst {
    double value, y, z;
  };
  Worst worst_place(const SixForces& f) const;

 private:
  std::vector<std::complex<double>> at_, up_, right_, twist_;  // from the centroid; shear stresses z + i·y of the units
  std::vector<bool> counts_;
  double A_ = 0, Iy_ = 0, Iz_ = 0, Iyz_ = 0, J_ = 0;
};

}  // namespace corvex::test
