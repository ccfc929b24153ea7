// Torsion and shear of a cross-section, from the harmonic functions of its outline. See docs/theory.md, "Torsion and
// shear of any outline".
#pragma once

#include "section/area.hpp"
#include "section/potential.hpp"

namespace corvex::section {

// Shear stress along the outline, counter-clockwise of the material's left, over what brings it about.
struct EdgeShear {
  double torsion = 0;        // over T
  double up = 0, right = 0;  // of the unit functions: −(a·up + b·right), docs/theory.md
};

class Warping {
 public:
  // The region stands on its centroid. A finer one takes shorter steps along the outline.
  Warping(Region region, double fineness);

  double J() const { return J_; }
  // Energy of the unit shear functions: ∫|∇φy|², ∫∇φy·∇φz, ∫|∇φz|².
  double energy_yy() const { return e_yy_; }
  double energy_yz() const { return e_yz_; }
  double energy_zz() const { return e_zz_; }
  // z + i·y
  Complex shear_centre() const { return shear_centre_; }
  // ∫ω² dA about the shear centre. Takes a few milliseconds.
  double constant() const;

  const Region& region() const { return region_; }
  const std::vector<Panel>& panels() const { return potential_.panels(); }
  // At a place of a panel; t in [−1, 1].
  EdgeShear along(std::size_t panel, double t) const;
  // The diameter of the largest circle inside that touches the outline at a node; the largest of all is the section's
  // thickness.
  double thickness() const;

 private:
  Region region_;
  AreaMoments moments_;
  Potential potential_;
  Potential::Wanted of_twist_;
  Values twist_, up_, right_;
  double J_ = 0, e_yy_ = 0, e_yz_ = 0, e_zz_ = 0;
  Complex shear_centre_{};
};

}  // namespace corvex::section
