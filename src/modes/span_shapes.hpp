// Shapes that a span can take between its ends, with their stiffness, mass and geometric stiffness.
//
// Bending in one plane: the four static shapes of unit movements of the ends, and in addition the shapes that the span
// takes with both ends clamped under loads whose course along it are Legendre polynomials. The latter are orthogonal to
// the former in energy, and together they span all polynomials up to a degree: what is found with them converges faster
// than any power of their number (Szabó and Babuška, Finite Element Analysis, ch. 3). Shear deformation is in every
// one of them, so that nothing locks.
//
// Everything is for a span of length 1 and bending stiffness 1; w is the movement across, s the rotation of the
// section.
#pragma once

#include <Eigen/Core>
#include <memory>

namespace corvex::solver {

// In the order w, s at the start, w, s at the end, then the inner shapes.
struct BendingShapes {
  // Energy of bending and shear; inner shapes are orthogonal to each other and of energy 1.
  Eigen::MatrixXd stiffness;
  // ∫ w w and ∫ s s; ∫ w′ w′, ∫ ξ w′ w′ and ∫ ξ² w′ w′ over the length.
  Eigen::MatrixXd mass, rotary, slope[3];
  // Coefficients of Legendre polynomials of w′ and of s − w′, one column a shape.
  Eigen::MatrixXd slope_series, slide_series;
  // ∫ (s − w′) (s − w′) of these shapes (rows) with those of another direction of the same span (columns).
  Eigen::MatrixXd slide_with(const BendingShapes& other) const;
  // ∫ (n0 + n1 ξ + n2 ξ²) w′ w′ from one place to another.
  Eigen::MatrixXd slope_between(double from, double to, const double (&n)[3]) const;
  // Values of w, and of s, for the shapes (columns) at places from 0 to 1 (rows).
  Eigen::MatrixXd movement_at(const Eigen::VectorXd& places) const;
  Eigen::MatrixXd rotation_at(const Eigen::VectorXd& places) const;
  Eigen::MatrixXd movement_series;
};
// `shear`: EI/(GA L²), 0 without deformation by shear. `inner`: the number of Legendre polynomials as loads.
// Remembered; may be called from several threads.
std::shared_ptr<const BendingShapes> bending_shapes(double shear, int inner);

// Elongation, or twist: u at the start, u at the end, then inner shapes that vanish there. Stiffness 1.
struct AxialShapes {
  Eigen::MatrixXd stiffness, mass;
  Eigen::MatrixXd movement_at(const Eigen::VectorXd& places) const;
  Eigen::MatrixXd movement_series;
};
std::shared_ptr<const AxialShapes> axial_shapes(int inner);

}  // namespace corvex::solver
