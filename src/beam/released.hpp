// Components that the ends of a span do not pass on to their points, eliminated from the span's stiffness.
//
// The deformation of a span has six components: its elongation, its twist, and the rotations of its two ends against
// the chord in both bending planes. A released component lets the span's own end run away from its point by a jump δ
// along r; the condition that no force arises there gives δ (static condensation, Przemieniecki ch. 6.6). Worked in the
// six figures, nothing that all twelve movements have in common has to cancel.
#pragma once

#include <Eigen/Core>

#include "beam/span.hpp"

namespace corvex::solver {

using Matrix12 = Eigen::Matrix<double, 12, 12>;
using Vector12 = Eigen::Matrix<double, 12, 1>;
// Elongation; twist; rotations at a and b in the x–y plane (about z), at a and b in the x–z plane (about y).
using Deformation = Eigen::Matrix<double, 6, 1>;
using DeformationStiffness = Eigen::Matrix<double, 6, 6>;

// The entries of a span's twelve movements, its rigid motion taken out, that are the six figures.
inline constexpr int deformation_entry[] = {6, 9, 5, 11, 4, 10};

// The six figures that the twelve movements of the ends bring, in the axes e: identity for the span's own.
Eigen::Matrix<double, 6, 12> deformation_of(const Axes& e, double length);

class Released {
 public:
  // `turn`: of the axes in which the span bends from the member's own, about x.
  Released(const Span& span, double turn, const DeformationStiffness& whole);

  // Stiffness with the jumps eliminated.
  const DeformationStiffness& stiffness() const { return condensed_; }
  // The jumps of the ends, as displacements of the span's ends relative to those of the points, under these forces of
  // the points on the span while nothing jumps.
  Vector12 jumps(const Vector12& forces) const;
  // The deformation by the jumps, as the twelve entries of a span without its rigid motion.
  Vector12 deformed(const Vector12& jumps) const;
  // These forces without the components that are not passed on.
  Vector12 passed_on(const Vector12& forces) const;

 private:
  using Directions = Eigen::Matrix<double, 12, Eigen::Dynamic, 0, 12, 12>;
  Directions r_;
  Eigen::MatrixXd flexibility_;  // of the jumps
  Eigen::Matrix<double, 6, 12> deformation_;
  DeformationStiffness condensed_;
};

}  // namespace corvex::solver
