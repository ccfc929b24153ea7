#include "analysis/large_reading.hpp"

#include <Eigen/Geometry>
#include <algorithm>
#include <array>
#include <cmath>
#include <memory>
#include <span>

#include "algebra/dense.hpp"
#include "analysis/large_kinematics.hpp"
#include "analysis/large_tangent.hpp"
#include "beam/bent_state.hpp"
#include "beam/quintic.hpp"

namespace corvex::solver {

using namespace algebra;
using Eigen::Index;
using Eigen::Matrix3d;
using Eigen::Vector3d;

namespace {

std::vector<Movement> movements(const AnalysedCase& given, const LargeMesh& mesh) {
  std::vector<Movement> all;
  for (std::size_t p = 0; p < given.structure.points().size(); ++p) {
    const LargeNode& n = mesh.nodes[p];
    const Vector3d moved = n.pose.r - n.first;
    Movement m;
    m.value = {moved.x(), moved.y(), moved.z(), n.turn.x(), n.turn.y(), n.turn.z()};
    all.push_back(m);
  }
  return all;
}

// Reactions act where the supports have moved to.
void add_displaced_reactions(const AnalysedCase& given, const LargeMesh& mesh, const Solved& solved,
                             Vector3d& displaced) {
  for (const PointSupport& support : given.structure.supports()) {
    const std::size_t p = support.at.index;
    Six held = given.system.dofs.in_frame(p, solved.need.at[p]);
    for (std::size_t k = 0; k < 6; ++k)
      if (given.system.dofs.status[p][k] != Status::held) held[k] = 0;
    const Six global = given.system.dofs.in_global(p, held);
    displaced += (mesh.nodes[p].pose.r - mesh.nodes[p].first).cross(Vector3d(global[0], global[1], global[2]));
  }
  for (const PointSpring& spring : given.system.dofs.springs)
    displaced += (mesh.nodes[spring.point].pose.r - mesh.nodes[spring.point].first)
                     .cross(spring_force(given, mesh, spring, 1).head<3>());
}

// The moment of what acts along a piece, because it has moved.
Vector3d displaced_loads(const AnalysedCase& given, const LargeMesh& mesh, const LargePiece& p) {
  if (p.link) {
    const RodPose a = pose_of(mesh, p.a), b = pose_of(mesh, p.b);
    return (a.r - mesh.nodes[p.a.node].first - p.a.arm).cross(p.share_a) +
           (b.r - mesh.nodes[p.b.node].first - p.b.arm).cross(p.share_b);
  }
  const RodCourse c = course(p.rod, 1, pose_of(mesh, p.a), p.start);
  const double h = p.rod.length;
  const Vector3d start = reference(given, mesh, p, 0), way = reference(given, mesh, p, h) - start;
  Vector3d sum = (c.r[0] - start).cross(p.rod.jump_force);
  for (std::size_t k = 0; k < c.r.size(); ++k) {
    Vector3d moved = c.r[k];
    if (k == 0) moved -= start;
    if (k == 1) moved -= way;
    const auto n = static_cast<double>(k);
    sum += h * moved.cross(p.rod.q / (n + 1) + h * p.rod.q_growth / (n + 2));
  }
  return sum;
}

// How a piece is read: in so many equal stretches, each by quintics through six places.
struct Stretches {
  RodCourse course;
  int count;
};

Stretches stretches_of(const LargeMesh& mesh, const LargePiece& p, const Rigidity& r) {
  constexpr double turning_of_a_piece = 0.1, most_pieces = 1000;
  constexpr int least_pieces = 4;
  RodCourse c = course(p.rod, 1, pose_of(mesh, p.a), p.start);
  const double h = p.rod.length;
  const RodForce middle = c.force(0.5);
  const Matrix3d R = c.pose(0.5).R;
  const double bends = (p.rod.C * (R.transpose() * middle.m)).norm() * h,
               presses = h * std::sqrt(middle.n.norm() / std::min(r.EIy, r.EIz));
  const double wanted = std::ceil(std::max(bends, presses) / turning_of_a_piece);
  return {std::move(c), std::max(least_pieces, static_cast<int>(std::min(wanted, most_pieces)))};
}

// The stretch k; `turn` is that of the place before it.
CoursePiece course_piece(const AnalysedCase& given, const LargeMesh& mesh, const LargePiece& p, const Stretches& all,
                         int k, Vector3d& turn) {
  static const Quintic quintic;
  const Matrix3d axes = columns_of(given.system.spans.axes[given.system.spans.all[p.span].member]);
  const double h = p.rod.length;
  const int parts = all.count;
  std::array<std::array<double, 6>, 12> value{};
  for (std::size_t i = 0; i < 6; ++i) {
    const double t = (k + quintic.place(i)) / parts;
    const RodPose pose = all.course.pose(t);
    const RodForce force = all.course.force(t);
    turn = turn_near(pose.R * axes.transpose(), turn);
    const Vector3d N = pose.R.transpose() * force.n, M = pose.R.transpose() * force.m;
    const Vector3d u = axes.transpose() * (pose.r - reference(given, mesh, p, h * t)), a = axes.transpose() * turn;
    const double at[] = {N.x(), -N.y(), -N.z(), M.x(), -M.y(), M.z(), u.x(), u.y(), u.z(), a.x(), a.z(), -a.y()};
    for (std::size_t q = 0; q < 12; ++q) value[q][i] = at[q];
  }
  CoursePiece piece;
  piece.from = p.rod.from + h * k / parts, piece.to = p.rod.from + h * (k + 1) / parts;
  Polynomial* const parts_of[] = {&piece.N, &piece.Vy, &piece.Vz, &piece.T,     &piece.My,      &piece.Mz,
                                  &piece.u, &piece.v,  &piece.w,  &piece.twist, &piece.slope_y, &piece.slope_z};
  for (std::size_t q = 0; q < 12; ++q) *parts_of[q] = quintic(value[q], piece.to - piece.from);
  return piece;
}

void rod_course(const AnalysedCase& given, const LargeMesh& mesh, std::span<const LargePiece> pieces,
                BentForces& bent) {
  const Span& span = given.system.spans.all[pieces.front().span];
  const Matrix3d axes = columns_of(given.system.spans.axes[span.member]);
  const Rigidity& r = given.system.elements[pieces.front().span].rigidity();
  Vector3d turn(bent.own(3), bent.own(4), bent.own(5));
  turn = axes * turn;
  for (const LargePiece& p : pieces) {
    const Stretches all = stretches_of(mesh, p, r);
    for (int k = 0; k < all.count; ++k) bent.course.push_back(course_piece(given, mesh, p, all, k, turn));
  }
  bent.course.back().to = span.length;
}

// Straight, with the axial force that its mean and the loads along it leave.
std::vector<CoursePiece> link_course(const AnalysedCase& given, const LargeMesh& mesh, const LargePiece& p,
                                     const Vector6& at_start) {
  const Span& span = given.system.spans.all[p.span];
  const RodPose a = pose_of(mesh, p.a), b = pose_of(mesh, p.b);
  const Vector along = plain((b.r - a.r).normalized());
  const Axes& axes = given.system.spans.axes[span.member];
  std::vector<LoadPiece> turned;
  for (LoadPiece l : given.load_case.acting->loads.on(p.span)) {
    const auto turn = [&](Vector& v) { v = {dot(axes.global(v), along), 0, 0}; };
    turn(l.jump_force), turn(l.q0), turn(l.slope);
    l.m0 = l.m_slope = l.jump_moment = {};
    l.free = {};
    turned.push_back(l);
  }
  State start;
  // The force of the point on its start, along the link.
  start.N = -at_start.head<3>().dot(column(along));
  return integrate(given.system.elements[p.span].rigidity(), span.length, turned, start);
}

BentForces bent_forces(const AnalysedCase& given, const LargeMesh& mesh, std::span<const LargePiece> pieces,
                       const std::array<Vector6, 2>& ends) {
  const LargePiece& p = pieces.front();
  const Span& span = given.system.spans.all[p.span];
  const Matrix3d axes = columns_of(given.system.spans.axes[span.member]);
  const auto own_of = [&](const Vector6& global) {
    Vector6 own;
    own << axes.transpose() * global.head<3>(), axes.transpose() * global.tail<3>();
    return own;
  };
  BentForces bent;
  bent.forces << own_of(ends[0]), own_of(ends[1]);
  const auto moved = [&](const LargeJoint& j, double along, const Vector3d& near) {
    const RodPose pose = pose_of(mesh, j);
    Vector6 all;
    const Vector3d start = mesh.nodes[span.a].first + column(span.arm_a);
    all << pose.r - start - axes.col(0) * along, turn_near(pose.R * axes.transpose(), near);
    return own_of(all);
  };
  const LargePiece& end = pieces.back();
  bent.own << moved(p.a, 0, mesh.nodes[p.a.node].turn), moved(end.b, span.length, mesh.nodes[end.b.node].turn);
  if (p.link) {
    bent.course = link_course(given, mesh, p, ends[0]);
    const double slope = (bent.own(6) - bent.own(0)) / span.length;
    for (CoursePiece& piece : bent.course) piece.u.c = {bent.own(0) + slope * piece.from, slope};
  } else {
    rod_course(given, mesh, pieces, bent);
  }
  return bent;
}

class Reading {
 public:
  Reading(const AnalysedCase& given, LargeMesh& mesh) : given_(given), mesh_(mesh) {
    solved_.need.at.assign(given.structure.points().size(), Six{});
    state_->spans.resize(given.system.spans.all.size());
  }

  Solved operator()(const std::vector<std::pair<double, double>>& steps, double correction) {
    read_spans();
    read_points();
    solved_.movement = movements(given_, mesh_);
    add_displaced_reactions(given_, mesh_, solved_, displaced_);
    state_->steps = steps;
    state_->displaced = plain(displaced_);
    constexpr double least = 1e-12, margin = 3;
    solved_.error = std::max(least, margin * correction);
    solved_.bent = std::move(state_);
    return std::move(solved_);
  }

 private:
  void need(std::size_t point, const Vector6& f) {
    for (std::size_t k = 0; k < 6; ++k) solved_.need.at[point][k] += f(static_cast<Index>(k));
    solved_.need.largest = std::max(solved_.need.largest, f.cwiseAbs().maxCoeff());
  }

  void read_spans() {
    auto elements = std::make_shared<std::vector<Element>>(given_.system.elements);
    bool some_slack = false;
    for (std::size_t i = 0, k = 0; i < state_->spans.size(); ++i) {
      const std::size_t first = k;
      while (k < mesh_.pieces.size() && mesh_.pieces[k].span == i) ++k;
      const std::array<Vector6, 2> ends{end_force(mesh_.pieces[first], true), end_force(mesh_.pieces[k - 1], false)};
      state_->spans[i] = bent_forces(given_, mesh_, std::span(mesh_.pieces).subspan(first, k - first), ends);
      const LargePiece& p = mesh_.pieces[first];
      if (p.link && p.acts != Acts::always && p.pull == 0) {
        (*elements)[i] = given_.system.elements[i].slack(p.acts);
        some_slack = true;
      }
      for (std::size_t n = first; n < k; ++n) displaced_ += displaced_loads(given_, mesh_, mesh_.pieces[n]);
    }
    if (some_slack) solved_.elements = std::move(elements);
  }

  // The force of the node on one end of a piece.
  Vector6 end_force(LargePiece& p, bool start) {
    const PieceForces all = piece_forces(given_, mesh_, p, 1);
    const LargeJoint& j = start ? p.a : p.b;
    const Vector6 force = start ? all.at_a : all.at_b;
    Vector6 f = force;
    f.tail<3>() += (mesh_.nodes[j.node].pose.R * j.arm).cross(f.head<3>());
    need(j.node, f);
    return force;
  }

  // Loads on the points themselves.
  void read_points() {
    for (const PointAction& l : point_actions(given_, mesh_, 1)) {
      const LargeNode& n = mesh_.nodes[l.point];
      const Vector3d arm = n.pose.R * column(l.arm);
      Vector6 f;
      f << column(l.force), column(l.moment);
      f.tail<3>() += arm.cross(f.head<3>());
      need(l.point, -f);
      displaced_ += (n.pose.r - n.first + arm - column(l.arm)).cross(f.head<3>());
    }
    for (const PointSpring& spring : given_.system.dofs.springs)
      need(spring.point, -spring_force(given_, mesh_, spring, 1));
  }

  const AnalysedCase& given_;
  LargeMesh& mesh_;
  Solved solved_;
  std::shared_ptr<BentState> state_ = std::make_shared<BentState>();
  Vector3d displaced_ = Vector3d::Zero();  // moment of the loads and reactions because they have moved
};

}  // namespace

Solved read_results(const AnalysedCase& given, LargeMesh& mesh, const std::vector<std::pair<double, double>>& steps,
                    double correction) {
  return Reading(given, mesh)(steps, correction);
}

}  // namespace corvex::solver
