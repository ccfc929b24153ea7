// Properties obtained from the outline by integration, without a differential equation.
//
// By the divergence theorem ∫ f(y) dA = ∮ F(y) n_y ds with F' = f, so that each figure is a sum over the edges: exact
// for lines, to rounding for arcs.
#pragma once

#include "outline/outline.hpp"

namespace corvex::section {

struct AreaMoments {
  double A = 0;
  Complex centroid{};
  double Iy = 0, Iz = 0, Iyz = 0;  // about the centroid
};
AreaMoments area_moments(const Region& region);

// ∫ y⁴ dA, ∫ y³z dA, ∫ z³y dA, ∫ z⁴ dA about the origin.
struct FourthMoments {
  double yyyy = 0, yyyz = 0, zzzy = 0, zzzz = 0;
};
FourthMoments fourth_moments(const Region& region);

// ∫ y³ dA, ∫ y²z dA, ∫ yz² dA, ∫ z³ dA about the origin.
struct ThirdMoments {
  double yyy = 0, yyz = 0, yzz = 0, zzz = 0;
};
ThirdMoments third_moments(const Region& region);

// The lowest and highest values of y and z.
struct Extent {
  double bottom = 0, top = 0, left = 0, right = 0;
};
Extent extent(const Region& region);

// Plastic section moduli ∫|y − y0| dA and ∫|z − z0| dA, where y0 and z0 halve the area.
struct Plastic {
  double Wz = 0, Wy = 0;
  double y0 = 0, z0 = 0;
};
Plastic plastic(const Region& region);

}  // namespace corvex::section
