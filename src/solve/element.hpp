// The stiffness of one span and the forces that its loads put on its ends, exact for straight prismatic beams
// with shear deformation (Przemieniecki, Theory of Matrix Structural Analysis, ch. 5.6) and for links.
//
// Local order: u v w θx θy θz at end a, then at end b; forces are those of the point on the span.
#pragma once

#include <Eigen/Core>
#include <utility>

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
// `Digits` is double, for movements without a rest, or long double where movements all but cancel.
template <class Digits>
Ends ends(const Axes& axes, double length, const Movement& a, const Movement& b);

// Bending in one plane, as the moments at the ends for their rotations against the chord:
// Ma = near·α + far·β, Mb = far·α + near·β, and the shear force (Ma + Mb)/L; with a hinge at an end its moment is
// zero and its rotation follows.
struct BendingEnds {
  double near = 0, far = 0;
  bool hinge_a = false, hinge_b = false;

  BendingEnds() = default;
  BendingEnds(double EI, double GA, const Span& span);
  // The moments that are left of these when the hinges are freed.
  std::pair<double, double> released(double Ma, double Mb) const;
  // The rotations that the hinges take beside the given ones, under these moments of the loads.
  std::pair<double, double> turned(double a, double b, double Ma, double Mb) const;
  // What a rotation of one at either end brings to both, the hinges freed.
  struct Condensed {
    double aa, ab, bb;
  };
  Condensed condensed() const;
};

class Element {
 public:
  Element(const Rigidity& r, const Span& span);

  // With what the hinges free already eliminated; rows and columns of freed rotations are zero.
  Matrix12 stiffness() const { return stiffness(Axes{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}); }
  // The same in global axes.
  Matrix12 stiffness(const Axes& axes) const;
  // The ends with freed rotations replaced by those that the span's own ends take.
  Ends own_ends(Ends ends, std::span<const LoadPiece> loads) const;
  // Forces of the points on the span for what deforms it, without loads; the hinges freed.
  Vector12 elastic_forces(const Vector12& bent) const;
  // Forces of the points on the span for its own ends.
  Vector12 end_forces(const Ends& own_ends, std::span<const LoadPiece> loads) const;

  const Rigidity& rigidity() const { return r_; }

 private:
  Vector12 fixed_end_whole(std::span<const LoadPiece> loads) const;
  Vector12 whole_times(const Vector12& bent) const;

  Rigidity r_;
  Flexibility f_;
  double length_;
  bool beam_, hinged_;
  double axial_ = 0, torsion_ = 0;
  BendingEnds y_, z_;  // in the x–y plane, in the x–z plane
};

// Of each span.
std::vector<Element> elements(const Structure& structure, const Spans& spans);

}  // namespace corvex::solver
