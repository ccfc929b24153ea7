// One span in equilibrium on its bent axis: bending in both planes under a given axial force (second order).
//
// With d = (v, w), s = (slope_y, slope_z), M = (Mz, My), T the transverse force along the undeformed axes and the signs
// of course.hpp:
//   T' = q      V = T + N (d' + d0')      M' = V − m      s' = C M + κ      d' = s − F V
// where V is the shear force perpendicular to the bent axis, C and F the flexibilities of bending and shear and d0' the
// slope that the span has before it is loaded (Timoshenko and Gere, Theory of Elastic Stability, ch. 1; shear after
// Engesser, ch. 2.17). N is a polynomial of the place, so that the solution is a power series, summed to the last digit
// over intervals on which √(|N|/EI) turns by one radian at most. The intervals are then joined and what lies inside the
// span is eliminated. No element size is involved: nothing is approximated.
#pragma once

#include <Eigen/Core>
#include <span>
#include <vector>

#include "beam/axial_course.hpp"
#include "beam/course.hpp"
#include "beam/released.hpp"

namespace corvex::solver {

// Slopes against the straight line before any load, at + growth · x.
struct InitialSlope {
  double y_at = 0, y_growth = 0, z_at = 0, z_growth = 0;
};

class BentSpan {
 public:
  // `turn`: of the axes in which the span bends from the member's own, about x.
  BentSpan(const Rigidity& r, const Span& span, double turn, const AxialCourse& axial, std::span<const LoadPiece> loads,
           const InitialSlope& initial);

  // Bending and the effect of the axial force, in the span's local axes and the order of element.hpp; nothing axial, no
  // torsion. What its ends free is eliminated.
  const Matrix12& stiffness() const { return stiffness_; }
  // Forces of the points on the span. `ends`: of its points, as `ends` of element.hpp gives them.
  Vector12 forces(const Vector12& movement, const Vector12& bent) const;
  // How often the span buckles by itself under this axial force while its points are held (negative pivots).
  int negative() const { return negative_; }

  // False if tension is so large compared with the stiffness of bending that only a rope would follow.
  bool follows() const { return follows_; }

  // The movements of the span's own ends: those of its points and the jumps of what is freed.
  Vector12 own_movement(const Vector12& movement, const Vector12& bent) const;
  // Bending along the span: Vy, Vz, My, Mz, v, w and the slopes, as polynomials that meet the exact course to about
  // eleven digits. Everything else is zero.
  std::vector<CoursePiece> course(const Vector12& movement, const Vector12& bent) const;

 private:
  using Vector8 = Eigen::Matrix<double, 8, 1>;
  using Matrix8 = Eigen::Matrix<double, 8, 8>;
  using Matrix4 = Eigen::Matrix4d;
  using Matrix43 = Eigen::Matrix<double, 4, 3>;
  // Loads, and a turn of the chord in each plane.
  using Given = Eigen::Vector3d;
  // d and s at one place, of both planes.
  using Vector4 = Eigen::Vector4d;
  using Columns = Eigen::Matrix<double, 2, 11>;

  // Power series in t from 0 to 1 over an interval: a column for each of d, s, T, M at its start, then those of
  // `Given`.
  struct Interval {
    double from = 0, length = 0;
    bool straight_forward = false;  // no axial force: the series ends by itself
    double turning = 0;             // √(|N|/EI) times the length
    std::vector<Columns> d, s, T, M, V;
    // The forces at its start, in their units, for the places of both ends and what is given.
    Eigen::Matrix<double, 4, 11> start;
  };
  // How an inner place follows from the start of the span and the place after it.
  struct Between {
    Matrix4 by_start, by_next;
    Eigen::Matrix<double, 4, 3> by_given;
  };
  // Forces at both ends for their movements.
  struct Chain {
    Matrix8 stiffness;
    Eigen::Matrix<double, 8, 3> given;
  };

  void cut_into_intervals(const AxialCourse& axial, std::span<const LoadPiece> loads, const InitialSlope& initial);
  Interval series(const AxialCourse::Piece& axial, const LoadPiece& load, double from, double to, bool jumps,
                  const InitialSlope& initial) const;
  Chain ends_of(Interval& interval) const;
  void join();
  void release(const Span& span, double turn);
  Vector8 chord_free(const Vector12& bent) const;
  Given given(const Vector12& movement) const;
  Vector8 jumps(const Vector8& ends, const Given& g) const;
  std::vector<Vector4> places(const Vector8& ends, const Given& g) const;

  Rigidity r_;
  double length_;
  std::vector<Interval> intervals_;
  std::vector<Between> between_;
  Chain whole_, released_;
  Eigen::Matrix<double, 8, Eigen::Dynamic, 0, 8, 8> directions_;  // of jumps
  Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, 0, 8, 8> jump_flexibility_;
  Vector4 end_jump_ = Vector4::Zero();  // of the forces at the very end, by loads there
  Matrix12 stiffness_;
  int negative_ = 0;
  bool follows_ = true;
};

}  // namespace corvex::solver
