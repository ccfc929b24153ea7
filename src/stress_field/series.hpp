// Saint-Venant's torsion of a rectangle, by series (Timoshenko and Goodier, Theory of Elasticity, art. 109).
#pragma once

namespace corvex::section {

struct RectangleTorsion {
  double J;           // m⁴
  double long_side;   // shear stress in the middle of the long sides over T, 1/m³
  double short_side;  // the same in the middle of the short sides
};

// Sides in metres, in any order.
RectangleTorsion rectangle_torsion(double side, double other_side);

}  // namespace corvex::section
