#include "analysis/large_tangent.hpp"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"
#include "analysis/large_kinematics.hpp"

namespace corvex::solver {

using namespace algebra;
using Eigen::Index;
using Eigen::Matrix3d;
using Eigen::MatrixXd;
using Eigen::Vector3d;
using Eigen::VectorXd;

namespace {

void add(Tangent& all, const std::vector<int>& rows, const std::vector<int>& columns, const MatrixXd& k) {
  for (Index r = 0; r < k.rows(); ++r)
    for (Index c = 0; c < k.cols(); ++c)
      if (rows[static_cast<std::size_t>(r)] >= 0 && columns[static_cast<std::size_t>(c)] >= 0 && k(r, c) != 0)
        all.K.emplace_back(rows[static_cast<std::size_t>(r)], columns[static_cast<std::size_t>(c)], k(r, c));
}

void add(Tangent& all, const std::vector<int>& rows, const VectorXd& f) {
  for (Index r = 0; r < f.size(); ++r)
    if (const int at = rows[static_cast<std::size_t>(r)]; at >= 0) all.lack(at) -= f(r);
}

PieceForces link_forces(LargePiece& p, double load, const RodPose& a, const RodPose& b) {
  PieceForces all;
  const Vector3d way = b.r - a.r, t = way.normalized();
  const double length = way.norm(), L = p.rod.length;
  double EA = p.EA;
  p.pull = EA * ((length - L) / L - load * p.free);
  if ((p.acts == Acts::tension && p.pull < 0) || (p.acts == Acts::compression && p.pull > 0)) p.pull = EA = 0;
  all.at_b.head<3>() = p.pull * t - load * p.share_b;
  all.at_a.head<3>() = -p.pull * t - load * p.share_a;
  const Matrix3d k = EA / L * t * t.transpose() + p.pull / length * (Matrix3d::Identity() - t * t.transpose());
  all.K.block<3, 3>(0, 0) = all.K.block<3, 3>(6, 6) = k;
  all.K.block<3, 3>(0, 6) = all.K.block<3, 3>(6, 0) = -k;
  return all;
}

PieceForces rod_forces(const AnalysedCase& given, LargePiece& p, double load, const RodPose& a, const RodPose& b) {
  PieceForces all;
  const RodEnds e = ends_of(p.rod, load, a, p.start, given.structure.is_plane());
  std::vector<int> pose, force;
  for (const int d : given.directions) pose.push_back(d), force.push_back(6 + d);
  const auto part = [&](const std::vector<int>& rows, const std::vector<int>& columns) -> MatrixXd {
    return e.by(rows, columns);
  };
  Vector6 gap;
  gap << e.pose.r - b.r, turn_of(e.pose.R * b.R.transpose());
  p.gap = gap(pose);
  const MatrixXd A = part(pose, pose), B = inverse(part(pose, force)), C = part(force, pose), D = part(force, force);
  const auto n = static_cast<Index>(given.directions.size());
  p.follow.resize(n, 2 * n);
  p.follow << -times(B, A), B;
  const VectorXd closing = -times(B, p.gap);
  MatrixXd small(2 * n, 2 * n);
  small.topRows(n) = -p.follow;
  small.bottomRows(n) = times(D, p.follow);
  small.bottomLeftCorner(n, n) += C;
  Vector6 start, end;
  start << p.start.n, p.start.m;
  end << e.force.n, e.force.m;
  VectorXd from = start(pose), to = end(pose);
  from += closing, to += times(D, closing);
  std::vector<int> both = pose;
  for (const int d : given.directions) both.push_back(6 + d);
  for (Index i = 0; i < n; ++i) all.at_a(given.directions[static_cast<std::size_t>(i)]) = -from(i);
  for (Index i = 0; i < n; ++i) all.at_b(given.directions[static_cast<std::size_t>(i)]) = to(i);
  for (Index r = 0; r < 2 * n; ++r)
    for (Index c = 0; c < 2 * n; ++c)
      all.K(both[static_cast<std::size_t>(r)], both[static_cast<std::size_t>(c)]) = small(r, c);
  return all;
}

}  // namespace

PieceForces piece_forces(const AnalysedCase& given, const LargeMesh& mesh, LargePiece& p, double load) {
  const RodPose a = pose_of(mesh, p.a), b = pose_of(mesh, p.b);
  return p.link ? link_forces(p, load, a, b) : rod_forces(given, p, load, a, b);
}

std::vector<PointAction> point_actions(const AnalysedCase& given, const LargeMesh& mesh, double load) {
  std::vector<PointAction> all;
  for (const ActingForce& f : given.load_case.acting->on_points)
    all.push_back({f.point->index, {}, f.force * load, f.whole_moment() * load});
  for (const ActingMass& m : given.load_case.acting->masses) all.push_back({m.at.index, m.arm, m.force * load, {}});
  for (const EndLoad& e : mesh.end_loads) {
    const LargeJoint& j = mesh.pieces[e.piece].b;
    all.push_back({j.node, plain(j.arm), plain(e.force * load), plain(e.moment * load)});
  }
  return all;
}

Vector6 spring_force(const AnalysedCase& given, const LargeMesh& mesh, const PointSpring& s, double load) {
  const LargeNode& n = mesh.nodes[s.point];
  const Six ground = ground_movement(given, s.support, load);
  Vector6 moved;
  moved << n.pose.r - n.first, n.turn;
  Vector6 f;
  for (std::size_t k = 0; k < 6; ++k) {
    const auto i = static_cast<Index>(k);
    f(i) = s.stiffness[k] * (ground[k] - moved(i));
  }
  return f;
}

Eigen::SparseMatrix<double> Tangent::matrix() const {
  Eigen::SparseMatrix<double> all(lack.size(), lack.size());
  all.setFromTriplets(K.begin(), K.end());
  return all;
}

Tangent assembled(const AnalysedCase& given, LargeMesh& mesh, double load) {
  Tangent all;
  all.lack = VectorXd::Zero(mesh.unknowns);
  for (LargePiece& p : mesh.pieces) {
    const auto [at_a, at_b, K] = piece_forces(given, mesh, p, load);
    all.forces = std::max({all.forces, at_a.cwiseAbs().maxCoeff(), at_b.cwiseAbs().maxCoeff()});
    const MatrixXd Ta = movement_matrix(mesh, p.a), Tb = movement_matrix(mesh, p.b);
    const std::vector<int> a = unknowns_of(mesh, p.a), b = unknowns_of(mesh, p.b);
    add(all, a, transposed_times(Ta, at_a)), add(all, b, transposed_times(Tb, at_b));
    add(all, a, a, turned(K.topLeftCorner<6, 6>(), Ta) + turning_stiffness(mesh, p.a, at_a));
    add(all, a, b, turned(Ta, K.topRightCorner<6, 6>(), Tb));
    add(all, b, a, turned(Tb, K.bottomLeftCorner<6, 6>(), Ta));
    add(all, b, b, turned(K.bottomRightCorner<6, 6>(), Tb) + turning_stiffness(mesh, p.b, at_b));
  }
  for (const PointAction& l : point_actions(given, mesh, load)) {
    const LargeJoint at{.node = l.point, .arm = column(l.arm)};
    const MatrixXd T = movement_matrix(mesh, at);
    Vector6 f;
    f << column(l.force), column(l.moment);
    add(all, unknowns_of(mesh, at), -transposed_times(T, f));
    add(all, unknowns_of(mesh, at), unknowns_of(mesh, at), -turning_stiffness(mesh, at, f));
  }
  for (const PointSpring& spring : given.system.dofs.springs) {
    const LargeJoint at{.node = spring.point};
    const MatrixXd T = movement_matrix(mesh, at);
    const Vector6 force = spring_force(given, mesh, spring, load);
    Vector6 k;
    for (Index i = 0; i < 6; ++i) k(i) = spring.stiffness[static_cast<std::size_t>(i)];
    add(all, unknowns_of(mesh, at), -transposed_times(T, force));
    add(all, unknowns_of(mesh, at), unknowns_of(mesh, at), weighted_products(T, k, T));
  }
  return all;
}

double largest_gap(const AnalysedCase& given, const LargeMesh& mesh) {
  double most = 0;
  for (const LargePiece& p : mesh.pieces)
    for (Index i = 0; i < p.gap.size(); ++i)
      most = std::max(most, std::abs(p.gap(i)) / (given.directions[static_cast<std::size_t>(i)] < 3 ? given.size : 1));
  return most;
}

}  // namespace corvex::solver
