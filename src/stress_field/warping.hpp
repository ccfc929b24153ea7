// Torsion and shear of a cross-section, from the harmonic functions of its outline. See docs/theory.md, "Torsion and
// shear of any outline".
#pragma once

#include "outline/area.hpp"
#include "stress_field/potential.hpp"
#include "stress_field/stress_field.hpp"

namespace corvex::section {

// Shear stress along the outline, counter-clockwise of the material's left, over what brings it about.
struct EdgeShear {
  Edge::Point there;
  double torsion = 0;        // over T
  double up = 0, right = 0;  // of the unit functions: −(a·up + b·right), docs/theory.md
};

// The functions themselves there: ω of the twist, φy and φz.
struct EdgePotentials {
  double twist = 0, up = 0, right = 0;
};

// The energy of the unit shear function upwards alone, ∫|∇φy|²: all that a plane structure asks for. The same to the
// last digit as Warping::energy_yy().
double shear_energy_up(const Region& region, double fineness);

class Warping {
 public:
  // The centroid of the region is the origin. A finer one takes shorter steps along the outline.
  Warping(const Region& region, double fineness);

  double J() const { return J_; }
  // Energy of the unit shear functions: ∫|∇φy|², ∫∇φy·∇φz, ∫|∇φz|².
  double energy_yy() const { return e_yy_; }
  double energy_yz() const { return e_yz_; }
  double energy_zz() const { return e_zz_; }
  // z + i·y
  Complex shear_centre() const { return shear_centre_; }
  // Of the warping function about the shear centre, its mean made zero: ∫ω² dA, and the largest |ω| on the outline.
  // Takes a few milliseconds.
  struct Sectorial {
    double constant = 0, largest = 0;
  };
  Sectorial sectorial() const;

  const Region& region() const { return region_; }
  const std::vector<Panel>& panels() const { return potential_.panels(); }
  // Nodes a panel.
  int order() const { return potential_.order(); }
  // At a place of a panel; t in [−1, 1].
  EdgeShear along(std::size_t panel, double t) const;
  EdgePotentials potentials(std::size_t panel, double t) const;
  // The fields about an inner place, which must be valid as far as `reach`.
  InnerSample inside(Complex at, double reach) const;
  // The diameter of the largest circle inside that touches the outline at a node; the largest of all is the section's
  // thickness.
  double thickness() const;

 private:
  class Inner;

  Region region_;
  AreaMoments moments_;
  Potential potential_;
  Values q_twist_;
  Values twist_, up_, right_;
  // Their divided differences on each panel.
  std::vector<double> on_twist_, on_up_, on_right_;
  double J_ = 0, e_yy_ = 0, e_yz_ = 0, e_zz_ = 0;
  Complex shear_centre_{};
};

}  // namespace corvex::section
