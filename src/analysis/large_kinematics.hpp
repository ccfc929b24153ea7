// How the ends of the pieces move with their nodes, arms and hinges, when turns may be of any size.
#pragma once

#include <Eigen/Core>
#include <vector>

#include "analysis/large_mesh.hpp"

namespace corvex::solver {

// The end of a piece that is joined so: its place, and the axes of its section.
RodPose pose_of(const LargeMesh& mesh, const LargeJoint& joint);

// The unknowns that move the joint, −1 for none: six of its node, then the angles of its hinges.
std::vector<int> unknowns_of(const LargeMesh& mesh, const LargeJoint& joint);
// Movement and turn of the end (6 rows) by these unknowns (columns).
Eigen::MatrixXd movement_matrix(const LargeMesh& mesh, const LargeJoint& joint);
// The stiffness that a force on the end causes, because it turns arm and hinges.
Eigen::MatrixXd turning_stiffness(const LargeMesh& mesh, const LargeJoint& joint, const Vector6& force);

// Where a place of a piece was before any load.
Eigen::Vector3d reference(const AnalysedCase& given, const LargeMesh& mesh, const LargePiece& piece, double along);

// Movement of the ground at a support under this share of the load.
Six ground_movement(const AnalysedCase& given, std::size_t support, double load);
// Moves the held supports with the ground.
void move_ground(const AnalysedCase& given, LargeMesh& mesh, double load);

// How far a step goes, as a share of the size of the structure and as an angle.
struct Reach {
  double move = 0, turn = 0;

  double most() const;
  // Whether it goes where a tangent leads that reaches so far: a rotation adds a displacement of second order.
  bool is_foretold_by(const Reach& tangent) const;
};
Reach reach(const AnalysedCase& given, const LargeMesh& mesh, const Eigen::VectorXd& step);
// Moves nodes and hinges by a share of a step; the forces at the starts of the pieces follow.
void take_step(const AnalysedCase& given, LargeMesh& mesh, const Eigen::VectorXd& step, double share);

}  // namespace corvex::solver
