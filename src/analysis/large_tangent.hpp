// The forces on the nodes at a share of the load, and their derivatives: the tangent stiffness.
#pragma once

#include <Eigen/SparseCore>
#include <vector>

#include "analysis/large_mesh.hpp"

namespace corvex::solver {

// The forces of the nodes on both ends of a piece, foretold for ends that meet, with the stiffness (global axes).
struct PieceForces {
  Vector6 at_a = Vector6::Zero(), at_b = Vector6::Zero();
  Eigen::MatrixXd K = Eigen::MatrixXd::Zero(12, 12);
};
// It keeps in the piece how its forces follow its ends.
PieceForces piece_forces(const AnalysedCase& given, const LargeMesh& mesh, LargePiece& piece, double load);

// A force on a point, at the end of an arm that turns with it.
struct PointAction {
  std::size_t point;
  Vector arm, force, moment;
};
std::vector<PointAction> point_actions(const AnalysedCase& given, const LargeMesh& mesh, double load);
Vector6 spring_force(const AnalysedCase& given, const LargeMesh& mesh, const PointSpring& spring, double load);

struct Tangent {
  std::vector<Eigen::Triplet<double>> K;
  Eigen::VectorXd lack;  // residual forces
  double forces = 0;     // the largest force on a piece

  Eigen::SparseMatrix<double> matrix() const;
};
Tangent assembled(const AnalysedCase& given, LargeMesh& mesh, double load);

// The largest gap between a piece and its end, as a share of the size of the structure or as an angle.
double largest_gap(const AnalysedCase& given, const LargeMesh& mesh);

}  // namespace corvex::solver
