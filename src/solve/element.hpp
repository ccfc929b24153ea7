// The stiffness of one span and the forces that its loads put on its ends, exact for straight prismatic beams
// with shear deformation (Przemieniecki, Theory of Matrix Structural Analysis, ch. 5.6) and for links.
//
// Local order: u v w θx θy θz at end a, then at end b; forces are those of the point on the span.
#pragma once

#include <Eigen/Core>

#include "solve/course.hpp"

namespace corvex::solver {

using Matrix12 = Eigen::Matrix<double, 12, 12>;
using Vector12 = Eigen::Matrix<double, 12, 1>;

// How the ends of a span move, in its own axes.
struct Ends {
  Vector12 movement;
  // What deforms the span: its motion as a rigid body is taken out before anything is turned or multiplied,
  // so that forces and energies far below those of a stiff span that moves are seen.
  Vector12 bent;
};
Ends ends(const Axes& axes, double length, const Movement& a, const Movement& b);

class Element {
 public:
  Element(const Rigidity& r, const Span& span);

  // With what the hinges free already eliminated; rows and columns of freed rotations are zero.
  const Matrix12& stiffness() const { return condensed_; }
  // Forces that hold the ends at rest under the loads, hinges freed.
  Vector12 fixed_end(std::span<const LoadPiece> loads) const;
  // The ends with freed rotations replaced by those that the span's own ends take.
  Ends own_ends(Ends ends, std::span<const LoadPiece> loads) const;
  // Forces of the points on the span for its own ends.
  Vector12 end_forces(const Ends& own_ends, std::span<const LoadPiece> loads) const;

 private:
  Vector12 fixed_end_whole(std::span<const LoadPiece> loads) const;

  Rigidity r_;
  double length_;
  bool beam_;
  Matrix12 whole_, condensed_;
  std::vector<int> freed_;
  Eigen::MatrixXd spread_;  // K_rr⁻¹ of the freed rotations
};

// Turned into global axes.
Vector12 to_global(const Axes& axes, const Vector12& local);
Matrix12 to_global(const Axes& axes, const Matrix12& local);

}  // namespace corvex::solver
