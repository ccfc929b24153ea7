// A piece of a member whose turns may be of any size: straight before any load, elastic, with shear and extension
// (Reissner 1972 in the plane, Simo 1985 in space; Antman, Nonlinear Problems of Elasticity, ch. 8).
//
// With the place r of the axis, the axes R of the section (columns), the force n and the moment m of its face along +x,
// all along the global axes:
//   r' = R (e1 + Γ)   R' = R [K]×   n' = −q   m' = −r' × n − μ     Γ = F Rᵀ n + Γ0   K = C Rᵀ m + K0
// All products are of polynomials: the solution is a power series, and so are its derivatives with respect to where and
// with what forces the piece begins.
#pragma once

#include <Eigen/Core>
#include <vector>

namespace corvex::solver {

struct RodPose {
  Eigen::Vector3d r = Eigen::Vector3d::Zero();
  Eigen::Matrix3d R = Eigen::Matrix3d::Identity();
};
struct RodForce {
  Eigen::Vector3d n = Eigen::Vector3d::Zero(), m = Eigen::Vector3d::Zero();
};

struct RodPiece {
  double from = 0, length = 0;  // along the span
  Eigen::Matrix3d F, C;         // flexibilities of extension and shear, of torsion and bending
  Eigen::Vector3d strain = Eigen::Vector3d::Zero(), curve = Eigen::Vector3d::Zero();  // Γ0, K0
  // Global axes: force and moment per length at the start and their growth; jumps at the start.
  Eigen::Vector3d q = Eigen::Vector3d::Zero(), q_growth = Eigen::Vector3d::Zero();
  Eigen::Vector3d mu = Eigen::Vector3d::Zero(), mu_growth = Eigen::Vector3d::Zero();
  Eigen::Vector3d jump_force = Eigen::Vector3d::Zero(), jump_moment = Eigen::Vector3d::Zero();
};

// By powers of t, from 0 to 1 along the piece.
struct RodCourse {
  static constexpr int terms = 24;
  std::vector<Eigen::Vector3d> r, n, m;
  std::vector<Eigen::Matrix3d> R;

  RodPose pose(double t) const;
  RodForce force(double t) const;
  // The size of the last terms relative to the total: the truncation error.
  double tail() const;
};
// The course under `load` times the loads and free strains.
RodCourse course(const RodPiece& piece, double load, const RodPose& start, const RodForce& force);

// How the end changes with the start: movements and turns (along and about the global axes), then forces and moments.
struct RodEnds {
  RodPose pose;
  RodForce force;
  Eigen::Matrix<double, 12, 12> by;
};
// In the plane z = 0 only what stays in it is filled in.
RodEnds ends_of(const RodPiece& piece, double load, const RodPose& start, const RodForce& force, bool plane);

// The turn about an axis by its length, and back (from −π to π).
Eigen::Matrix3d turned_by(const Eigen::Vector3d& turn);
Eigen::Vector3d turn_of(const Eigen::Matrix3d& R);
// Of all turns that lead to R the one nearest to `before`.
Eigen::Vector3d turn_near(const Eigen::Matrix3d& R, const Eigen::Vector3d& before);

}  // namespace corvex::solver
