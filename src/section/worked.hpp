// Computed properties stored by a section. Each part is computed when first requested.
#pragma once

#include <atomic>
#include <memory>
#include <mutex>

#include "corvex/section.hpp"
#include "section/stress_map.hpp"

namespace corvex::section {

struct Solved {
  SectionProperties properties;
  StressMap stress_map;
  StressField field;  // empty where the stress map is of another kind
  Fibres fibres;
};

class Warping;

struct Worked {
  [[gnu::visibility("hidden")]] Worked(const Shape& shape, double fineness,
                                       std::optional<SecondMoment> given_J = std::nullopt);
  [[gnu::visibility("hidden")]] ~Worked();

  const Shape shape;
  const double fineness;
  const std::optional<SecondMoment> given_J;
  // The length of the outline of an open section; 0 of a closed one, and where only figures are given. Found with the
  // area.
  double open_perimeter = 0;
  AreaProperties area;

  // Everything that deforms a member; without the torsion modulus Wt, which takes the stresses.
  [[gnu::visibility("hidden")]] const SectionProperties& stiffness() const;
  // The shear area of a plane structure, the same figure as stiffness().Ay in less time.
  [[gnu::visibility("hidden")]] Area plane_shear_area() const;
  [[gnu::visibility("hidden")]] const Solved& solved() const;
  [[gnu::visibility("hidden")]] const SectionDetails& details() const;

 private:
  // Of an outline that has no closed form.
  [[gnu::visibility("hidden")]] const Warping& warping() const;

  mutable std::once_flag once_plane_, once_warping_, once_stiffness_, once_solved_, once_details_;
  mutable std::atomic<bool> stiffness_known_ = false;
  mutable std::unique_ptr<const Warping> warping_;
  mutable Area plane_shear_;
  mutable SectionProperties stiffness_;
  mutable Solved solved_;
  mutable SectionDetails details_;
};

// Stored properties of a section.
inline const Solved& solved(const Section& section) {
  return worked(section).solved();
}
inline const SectionProperties& stiffness(const Section& section) {
  return worked(section).stiffness();
}
inline Area plane_shear_area(const Section& section) {
  return worked(section).plane_shear_area();
}
// Formulas give what deforms a member of this shape.
bool has_closed_form(const Shape& shape);
inline double open_perimeter(const Section& section) {
  return worked(section).open_perimeter;
}
// The shear centre is the centroid then.
bool doubly_symmetric(const Section& section);

}  // namespace corvex::section
