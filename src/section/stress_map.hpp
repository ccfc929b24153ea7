// How far the stress of a section is known, and the places where normal stress can be largest.
#pragma once

#include "corvex/section.hpp"
#include "stress_field/stress_field.hpp"

namespace corvex::section {

// Normal stress is linear in y and z and therefore largest on the convex hull of the outline: at a corner, or on an arc
// where its gradient is perpendicular to the arc.
struct Fibres {
  std::vector<Complex> corners;
  struct Arc {
    Complex centre;
    double radius = 0;
    // The directions from the centre that the arc covers: within `half` of `middle` (a unit vector).
    Complex middle{1, 0};
    double half = 0;
    bool covers(Complex direction) const;
  };
  std::vector<Arc> arcs;
};
Fibres fibres(const Region& region);

StressMap stress_map(const StressField& field, const SectionProperties& p, bool leaves_out_notches);

// T over the largest shear stress of torsion; zero where it brings about none.
SectionModulus torsion_modulus(const StressField& field);

}  // namespace corvex::section
