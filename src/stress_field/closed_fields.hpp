// Stress fields of round sections and rectangles in closed form, without Poisson's ratio.
//
// Round: φy = cos θ·g(ρ), g = 3 (R² + r²) ρ/8 + 3 R² r²/(8 ρ) − ρ³/8 (docs/theory.md). Rectangle: φy = −y³/6 + h² y/8;
// torsion by Saint-Venant's series (Timoshenko and Goodier, Theory of Elasticity, art. 109).
#pragma once

#include "stress_field/stress_field.hpp"

namespace corvex::section {

StressField round_field(double outside_radius, double inside_radius, double J);
StressField rectangle_field(double height, double width, double J);

}  // namespace corvex::section
