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

class Element {
 public:
  Element(const Rigidity& r, const Span& span);

  // With what the hinges free already eliminated; rows and columns of freed rotations are zero.
  const Matrix12& stiffness() const { return condensed_; }
  // Forces that hold the ends at rest under the loads, hinges freed.
  Vector12 fixed_end(std::span<const LoadPiece> loads) const;
  // The end movements with freed rotations replaced by those that the span's own end takes.
  Vector12 own_ends(const Vector12& ends, std::span<const LoadPiece> loads) const;
  // Forces of the points on the span for given end movements (freed rotations as the span's own).
  Vector12 end_forces(const Vector12& own_ends, std::span<const LoadPiece> loads) const;

 private:
  Vector12 fixed_end_whole(std::span<const LoadPiece> loads) const;

  Rigidity r_;
  double length_;
  bool beam_;
  Matrix12 whole_, condensed_;
  std::vector<int> freed_;
  Eigen::MatrixXd spread_;  // K_rr⁻¹ of the freed rotations
};

// The 12 × 12 turn from global to local components, applied three by three.
Vector12 to_local(const Axes& axes, const Vector12& global);
Vector12 to_global(const Axes& axes, const Vector12& local);
Matrix12 to_global(const Axes& axes, const Matrix12& local);

// The end movements without the motion of the span as a rigid body: what deforms it. Exact to the rounding of
// the movements themselves, so that energies far below that of a stiff span are seen.
Vector12 deforming_part(const Vector12& local_ends, double length);

}  // namespace corvex::solver
