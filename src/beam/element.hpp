// The stiffness of one span and the forces that its loads put on its ends, exact for straight prismatic beams
// with shear deformation (Przemieniecki, Theory of Matrix Structural Analysis, ch. 5.6) and for links.
//
// Local order: u v w θx θy θz at end a, then at end b; forces are those of the point on the span.
#pragma once

#include <Eigen/Core>
#include <memory>

#include "beam/course.hpp"
#include "beam/released.hpp"

namespace corvex::solver {

// Displacements of the ends of a span, in its local axes.
struct Ends {
  Vector12 movement;
  // The deformation of the span: its motion as a rigid body is taken out before anything is turned or multiplied,
  // so that forces and energies far below those of a stiff span that moves are seen.
  Vector12 bent;
};
// `Digits` is double, for movements without a rest, or long double where movements all but cancel.
// `a` and `b` are movements of its points, from which rigid arms may lead to its ends.
template <class Digits>
Ends ends(const Axes& axes, const Span& span, const Movement& a, const Movement& b);

// Bending in one plane, as the moments at the ends for their rotations against the chord:
// Ma = near·α + far·β, Mb = far·α + near·β, and the shear force (Ma + Mb)/L.
struct BendingEnds {
  double near = 0, far = 0;

  BendingEnds() = default;
  BendingEnds(double near_end, double far_end) : near(near_end), far(far_end) {}
  BendingEnds(double EI, double GA, double length);
};

class Element {
 public:
  // `turn`: of the axes in which the member bends from its own, about x.
  Element(const Rigidity& r, const Span& span, double turn = 0);

  // The same where the member acts one way only and is slack: no axial stiffness; loads along it hang on the end that
  // may hold them.
  Element slack(Acts acts) const;
  bool is_slack() const { return slack_ != Acts::always; }

  // In global axes, with what the ends free already eliminated.
  Matrix12 stiffness(const Axes& axes) const;
  // In the six figures that deform the span.
  DeformationStiffness deformation_stiffness() const { return released_ ? released_->stiffness() : whole(); }
  // The same of the span with nothing freed.
  DeformationStiffness unreleased_stiffness() const { return whole(); }
  // The ends with the jumps of freed components added: those of the span itself.
  Ends own_ends(Ends ends, std::span<const LoadPiece> loads) const;
  // Forces of the points on the span for what deforms it, without loads.
  Vector12 elastic_forces(const Vector12& bent) const;
  // Forces of the points on the span for its own ends. (Where something is freed, tidy: the other end of a freed axial
  // force must not keep its rounding.)
  Vector12 end_forces(const Ends& own_ends, std::span<const LoadPiece> loads) const;
  // The same for print: rounding error of parts that cancel is zero.
  Vector12 tidy_end_forces(const Ends& own_ends, std::span<const LoadPiece> loads) const;
  // The axial force at the start for these ends, were the member to act both ways.
  double pull(const Ends& ends, std::span<const LoadPiece> loads) const;
  // The axial force at the start of a member that is slack under these loads: just enough that none of it acts the
  // wrong way.
  static double resting_pull(Acts acts, std::span<const LoadPiece> loads);

  const Rigidity& rigidity() const { return r_; }

 private:
  void couple(const Rigidity& r);
  DeformationStiffness whole() const;
  Vector12 fixed_end_whole(std::span<const LoadPiece> loads) const;
  Vector12 whole_times(const Vector12& bent) const;

  Rigidity r_;
  Flexibility f_;
  double length_;
  bool beam_;
  Acts slack_ = Acts::always;
  double axial_ = 0, torsion_ = 0;
  BendingEnds y_, z_;  // in the x–y plane, in the x–z plane
  // Where both planes are coupled by shear: each end moment of one plane for each end rotation of the other.
  double cross_ = 0;
  std::shared_ptr<const Released> released_;
};

// Of each span.
std::vector<Element> elements(const Structure& structure, const Spans& spans);

}  // namespace corvex::solver
