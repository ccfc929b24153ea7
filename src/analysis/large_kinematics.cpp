#include "analysis/large_kinematics.hpp"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>

#include "algebra/dense.hpp"
#include "beam/rigid_arm.hpp"

namespace corvex::solver {

using namespace algebra;
using Eigen::Index;
using Eigen::Matrix3d;
using Eigen::MatrixXd;
using Eigen::Vector3d;
using Eigen::VectorXd;

namespace {

// The turn of the first hinges of a joint.
Matrix3d hinged(const LargeJoint& j, std::size_t count) {
  Matrix3d q = Matrix3d::Identity();
  for (std::size_t k = 0; k < count; ++k) q = q * turned_by(j.hinge[k] * j.angle[k]);
  return q;
}

Vector3d axis(const LargeMesh& mesh, const LargeJoint& j, std::size_t k) {
  return mesh.nodes[j.node].pose.R * j.section * hinged(j, k) * j.hinge[k];
}

// The forces at the starts of the rods follow the step of their ends and close the gaps.
void follow_ends(const AnalysedCase& given, LargeMesh& mesh, const VectorXd& step, double share) {
  for (LargePiece& p : mesh.pieces) {
    if (p.link) continue;
    const auto end_step = [&](const LargeJoint& j) -> Vector6 {
      const std::vector<int> at = unknowns_of(mesh, j);
      VectorXd own(static_cast<Index>(at.size()));
      for (std::size_t k = 0; k < at.size(); ++k) own(static_cast<Index>(k)) = at[k] < 0 ? 0 : step(at[k]);
      return movement_matrix(mesh, j) * own;
    };
    const Vector6 a = end_step(p.a), b = end_step(p.b);
    const auto n = static_cast<Index>(given.directions.size());
    VectorXd ends(2 * n);
    for (Index i = 0; i < n; ++i) {
      ends(i) = a(given.directions[static_cast<std::size_t>(i)]);
      ends(n + i) = b(given.directions[static_cast<std::size_t>(i)]) - p.gap(i);
    }
    const VectorXd by = share * (p.follow * ends);
    for (Index i = 0; i < n; ++i) {
      const int d = given.directions[static_cast<std::size_t>(i)];
      (d < 3 ? p.start.n(d) : p.start.m(d - 3)) += by(i);
    }
  }
}

}  // namespace

RodPose pose_of(const LargeMesh& mesh, const LargeJoint& j) {
  const RodPose& p = mesh.nodes[j.node].pose;
  return {p.r + p.R * j.arm, p.R * j.section * hinged(j, j.hinge.size())};
}

std::vector<int> unknowns_of(const LargeMesh& mesh, const LargeJoint& j) {
  const LargeNode& n = mesh.nodes[j.node];
  std::vector<int> all(n.dof.begin(), n.dof.end());
  all.insert(all.end(), j.dof.begin(), j.dof.end());
  return all;
}

MatrixXd movement_matrix(const LargeMesh& mesh, const LargeJoint& j) {
  const LargeNode& n = mesh.nodes[j.node];
  MatrixXd T = MatrixXd::Zero(6, 6 + static_cast<Index>(j.dof.size()));
  T.block<3, 3>(0, 0) = n.axes();
  T.block<3, 3>(0, 3) = lever(plain(n.pose.R * j.arm));
  T.block<3, 3>(3, 3).setIdentity();
  for (std::size_t k = 0; k < j.dof.size(); ++k) T.block<3, 1>(3, 6 + static_cast<Index>(k)) = axis(mesh, j, k);
  return T;
}

MatrixXd turning_stiffness(const LargeMesh& mesh, const LargeJoint& j, const Vector6& force) {
  const Index n = 6 + static_cast<Index>(j.dof.size());
  MatrixXd K = MatrixXd::Zero(n, n);
  const Vector3d arm = mesh.nodes[j.node].pose.R * j.arm, f = force.head<3>(), m = force.tail<3>();
  K.block<3, 3>(3, 3) = arm * f.transpose() - arm.dot(f) * Matrix3d::Identity();
  for (std::size_t k = 0; k < j.dof.size(); ++k) {
    const Index at = 6 + static_cast<Index>(k);
    K.block<1, 3>(at, 3) = axis(mesh, j, k).cross(m).transpose();
    for (std::size_t i = 0; i < k; ++i)
      K(at, 6 + static_cast<Index>(i)) = axis(mesh, j, i).cross(axis(mesh, j, k)).dot(m);
  }
  return K;
}

Vector3d reference(const AnalysedCase& given, const LargeMesh& mesh, const LargePiece& p, double along) {
  const Span& span = given.system.spans.all[p.span];
  return mesh.nodes[span.a].first + column(span.arm_a) +
         columns_of(given.system.spans.axes[span.member]).col(0) * (p.rod.from + along);
}

Six ground_movement(const AnalysedCase& given, std::size_t support, double load) {
  Six all{};
  if (given.load_case.acting->ground.empty()) return all;
  for (std::size_t k = 0; k < 6; ++k) all[k] = load * given.load_case.acting->ground[support][k];
  return all;
}

void move_ground(const AnalysedCase& given, LargeMesh& mesh, double load) {
  if (given.load_case.acting->ground.empty()) return;
  const Dofs& f = given.system.dofs;
  for (std::size_t i = 0; i < given.structure.supports().size(); ++i) {
    const std::size_t p = given.structure.supports()[i].at.index;
    LargeNode& n = mesh.nodes[p];
    const Six ground = f.in_frame(p, ground_movement(given, i, load));
    Vector3d moved = n.axes().transpose() * (n.pose.r - n.first), turn = n.turn;
    for (std::size_t k = 0; k < 3; ++k) {
      if (f.status[p][k] == Status::held) moved(static_cast<Index>(k)) = ground[k];
      if (f.status[p][3 + k] == Status::held) turn(static_cast<Index>(k)) = ground[3 + k];
    }
    n.pose.r = n.first + n.axes() * moved;
    if (turn != n.turn) n.turn = turn, n.pose.R = turned_by(turn);
  }
}

double Reach::most() const {
  return std::max(move, turn);
}

bool Reach::is_foretold_by(const Reach& tangent) const {
  constexpr double foretold = 1.6, good = 1e-10;
  return move <= foretold * tangent.move + tangent.turn * tangent.turn + good && turn <= foretold * tangent.turn + good;
}

Reach reach(const AnalysedCase& given, const LargeMesh& mesh, const VectorXd& step) {
  Reach all;
  for (const LargeNode& n : mesh.nodes)
    for (std::size_t k = 0; k < 6; ++k)
      if (n.dof[k] >= 0) {
        double& most = k < 3 ? all.move : all.turn;
        most = std::max(most, std::abs(step(n.dof[k])) / (k < 3 ? given.size : 1));
      }
  return all;
}

void take_step(const AnalysedCase& given, LargeMesh& mesh, const VectorXd& step, double share) {
  follow_ends(given, mesh, step, share);
  for (LargeNode& n : mesh.nodes) {
    Vector3d move = Vector3d::Zero(), turn = Vector3d::Zero();
    for (std::size_t k = 0; k < 6; ++k)
      if (n.dof[k] >= 0) (k < 3 ? move : turn)(static_cast<Index>(k % 3)) = share * step(n.dof[k]);
    n.pose.r += n.axes() * move;
    if (turn.isZero(0)) continue;
    n.pose.R = turned_by(turn) * n.pose.R;
    n.turn = given.structure.is_plane() ? Vector3d(n.turn + turn) : turn_near(n.pose.R, n.turn);
  }
  for (LargePiece& p : mesh.pieces)
    for (LargeJoint* j : {&p.a, &p.b})
      for (std::size_t k = 0; k < j->dof.size(); ++k) j->angle[k] += share * step(j->dof[k]);
}

}  // namespace corvex::solver
