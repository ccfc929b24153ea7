#include "analysis/large_order.hpp"

#include <fmt/format.h>

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"
#include "analysis/large_rod.hpp"
#include "beam/axes_matrix.hpp"
#include "beam/bent_state.hpp"
#include "beam/quintic.hpp"
#include "beam/rigid_arm.hpp"
#include "corvex/number.hpp"
#include "corvex/stop.hpp"
#include "linear_system/sparse.hpp"
#include "modes/span_pencil.hpp"
#include "structure/words.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

using Eigen::Index;
using Eigen::Matrix3d;
using Eigen::MatrixXd;
using Eigen::Vector3d;
using Eigen::VectorXd;
using Vector6 = Eigen::Matrix<double, 6, 1>;

Vector3d column(const Vector& v) {
  return {v.x, v.y, v.z};
}
Vector plain(const Vector3d& v) {
  return {v.x(), v.y(), v.z()};
}
// A point, or a cut within a span.
struct Node {
  Vector3d first;  // its place before any load
  RodPose pose;    // R is the turn from then
  Vector3d turn = Vector3d::Zero();
  std::array<int, 6> dof{-1, -1, -1, -1, -1, -1};
  const Axes* frame = nullptr;  // along which its movements are counted

  Matrix3d axes() const { return frame ? columns_of(*frame) : Matrix3d::Identity(); }
};

// How the end of a piece hangs on its node: by a rigid arm, and by hinges about axes of the section one after another.
struct Joint {
  std::size_t node = 0;
  Vector3d arm = Vector3d::Zero();
  Matrix3d section = Matrix3d::Identity();  // its axes before any load
  std::vector<Vector3d> hinge{};            // in these axes
  std::vector<double> angle{};
  std::vector<int> dof{};
};

struct Piece {
  std::size_t span = 0;
  Joint a, b;
  bool link = false;
  RodPiece rod;
  RodForce start;  // of a rod
  // Of a link.
  double EA = 0, free = 0, pull = 0;
  Vector3d share_a = Vector3d::Zero(), share_b = Vector3d::Zero();
  Acts acts = Acts::always;
  // The last step: how the forces at the start follow the ends.
  MatrixXd follow;
  VectorXd gap;
};

class Large {
 public:
  Large(const Structure& s, const System& system, const LoadedCase& load_case)
      : s_(s), system_(system), case_(load_case), size_(s.bounds().diagonal()) {
    if (s.is_plane())
      dims_ = {0, 1, 5};
    else
      dims_ = {0, 1, 2, 3, 4, 5};
  }

  Expected<Solved, Problems> operator()() {
    if (Problems problems = refused(); !problems.empty()) return problems;
    // Where a series does not reach its last digit the pieces are halved.
    constexpr int most_parts = 64;
    for (int parts = 2; parts <= most_parts;) {
      cut(parts);
      switch (follow_load()) {
        case Way::done: return finished();
        case Way::ends: return Problems{limit_point()};
        case Way::endless: return Problems{too_large()};
        case Way::coarse: break;
      }
      // A member bends over lengths of √(EI/P): the pieces that it needs grow with the root of the load. Where the
      // whole load would need far more than there may be, nothing is gained by more of them.
      constexpr double margin = 4;
      const double wanted = parts / std::sqrt(coarse_at_);
      if (wanted > margin * most_parts) return Problems{too_large()};
      for (parts *= 2; parts < std::min<double>(wanted / 2, most_parts);) parts *= 2;
    }
    return Problems{too_large()};
  }
  // The share of the load at which equilibrium ended.
  double reached() const { return steps_.empty() ? 0 : load_; }

 private:
  enum class Way { done, ends, coarse, endless };
  static constexpr double shortest = 1e-9;  // share of the load
  // Of pieces, for each span: rods that bend through several turns take up to 6,000.
  static constexpr std::size_t most_evaluations = 8'000;

  Problems refused() const {
    Problems problems;
    for (const Member& m : s_.members())
      for (const auto& freed : {m.freed_start, m.freed_end})
        if (freed[0] || freed[1] || freed[2]) {
          problems.push_back(
              {fmt::format("member '{}' slides at an end: that is not computed with large displacements", m.name),
               {Subject::Kind::member, m.name}});
          break;
        }
    return problems;
  }

  // What lies between two borders.
  void cut(int parts) {
    nodes_.clear(), pieces_.clear(), end_loads_.clear();
    const Freedoms& f = system_.freedoms;
    unknowns_ = f.equations;
    for (std::size_t p = 0; p < s_.points().size(); ++p) {
      Node n;
      n.first = n.pose.r = column(s_.points()[p].position);
      if (!f.equation.empty()) n.dof = f.equation[p];
      n.frame = f.frame(p);
      nodes_.push_back(n);
    }
    for (std::size_t i = 0; i < system_.spans.all.size(); ++i) add_span(i, parts);
  }

  Joint joint(std::size_t i, bool at_start) {
    const Span& span = system_.spans.all[i];
    Joint j;
    j.node = at_start ? span.a : span.b;
    j.arm = column(at_start ? span.arm_a : span.arm_b);
    j.section = columns_of(system_.spans.axes[span.member]);
    if (!span.beam) return j;
    const double turn = principal_turn(s_, s_.members()[span.member]), c = std::cos(turn), sn = std::sin(turn);
    const Vector3d own[] = {{1, 0, 0}, {0, c, -sn}, {0, sn, c}};
    const std::array<bool, 6>& freed = at_start ? span.freed_a : span.freed_b;
    for (std::size_t k = 0; k < 3; ++k) {
      if (!freed[3 + k]) continue;
      // In the plane only what turns in it.
      if (s_.is_plane() && std::abs((j.section * own[k]).z()) < 0.5) continue;
      j.hinge.push_back(own[k]), j.angle.push_back(0), j.dof.push_back(unknowns_++);
    }
    return j;
  }

  void add_span(std::size_t i, int parts) {
    const Span& span = system_.spans.all[i];
    const Matrix3d axes = columns_of(system_.spans.axes[span.member]);
    Piece whole;
    whole.span = i, whole.a = joint(i, true), whole.b = joint(i, false);
    if (!span.beam) return add_link(i, whole);
    const std::vector<RodPiece> rods = rods_of(i, parts);
    const Vector3d start = nodes_[span.a].first + whole.a.arm;
    for (std::size_t k = 0; k < rods.size(); ++k) {
      Piece piece = whole;
      piece.rod = rods[k];
      if (k > 0) piece.a = pieces_.back().b;
      if (k + 1 < rods.size()) {
        Node n;
        n.first = n.pose.r = start + axes.col(0) * (rods[k].from + rods[k].length);
        for (const int d : dims_) n.dof[static_cast<std::size_t>(d)] = unknowns_++;
        piece.b = {};
        piece.b.node = nodes_.size(), piece.b.section = axes;
        nodes_.push_back(n);
      }
      pieces_.push_back(piece);
    }
  }

  void add_link(std::size_t i, Piece whole) {
    const Span& span = system_.spans.all[i];
    const Rigidity& r = system_.elements[i].rigidity();
    const Matrix3d axes = columns_of(system_.spans.axes[span.member]);
    const auto loads = case_.acting->loads.on(i);
    whole.link = true, whole.EA = r.EA, whole.acts = s_.members()[span.member].acts;
    whole.rod.length = span.length;
    // Loads across go to the ends as on a simple span; along them as well, while the mean stretches the link.
    const State p = particular(Flexibility(r), loads);
    const double at_b = -p.Mz / span.length, at_b_z = -p.My / span.length;
    double along = 0, along_b = 0;
    for (const LoadPiece& l : loads) {
      const double h = l.to - l.from;
      along += l.jump_force.x + h * (l.q0.x + h * l.slope.x / 2);
      along_b += (l.jump_force.x * l.from + h * l.q0.x * (l.from + h / 2) + h * h * l.slope.x * (l.from / 2 + h / 3)) /
                 span.length;
      whole.free += l.free.along * h / span.length;
    }
    // Forces on the points: those at b turn the link about a as the loads do.
    whole.share_b = axes * Vector3d(along_b, p.Vy + at_b, p.Vz + at_b_z);
    whole.share_a = axes * Vector3d(along - along_b, -at_b, -at_b_z);
    pieces_.push_back(whole);
  }

  // A beam cut where its loads change, and each of these pieces in so many parts.
  std::vector<RodPiece> rods_of(std::size_t i, int parts) {
    const Span& span = system_.spans.all[i];
    const Flexibility f(system_.elements[i].rigidity());
    const Matrix3d axes = columns_of(system_.spans.axes[span.member]);
    const auto loads = case_.acting->loads.on(i);
    RodPiece rod;
    rod.F = Vector3d(f.EA, f.GAy, f.GAz).asDiagonal();
    rod.F(1, 2) = rod.F(2, 1) = f.coupling;
    rod.C = Vector3d(f.GJ, f.EIy, f.EIz).asDiagonal();
    const LoadPiece nothing{.from = 0,
                            .to = span.length,
                            .jump_force = {},
                            .jump_moment = {},
                            .q0 = {},
                            .slope = {},
                            .m0 = {},
                            .m_slope = {}};
    std::vector<RodPiece> rods;
    for (const LoadPiece& l : loads.empty() ? std::span(&nothing, 1) : loads) {
      rod.jump_force = axes * column(l.jump_force), rod.jump_moment = axes * column(l.jump_moment);
      if (!(l.to > l.from)) {
        // At the very end: it goes to the point.
        end_loads_.push_back({pieces_.size() + rods.size() - 1, rod.jump_force, rod.jump_moment});
        break;
      }
      rod.strain = Vector3d(l.free.along, 0, 0), rod.curve = Vector3d(0, -l.free.curve_z, l.free.curve_y);
      for (int k = 0; k < parts; ++k) {
        rod.length = (l.to - l.from) / parts, rod.from = l.from + k * rod.length;
        const double along = rod.from - l.from;
        rod.q = axes * column(l.q0 + l.slope * along), rod.q_growth = axes * column(l.slope);
        rod.mu = axes * column(l.m0 + l.m_slope * along), rod.mu_growth = axes * column(l.m_slope);
        rods.push_back(rod);
        rod.jump_force = rod.jump_moment = Vector3d::Zero();
      }
    }
    return rods;
  }

  static Matrix3d hinged(const Joint& j, std::size_t count) {
    Matrix3d q = Matrix3d::Identity();
    for (std::size_t k = 0; k < count; ++k) q = q * turned_by(j.hinge[k] * j.angle[k]);
    return q;
  }
  RodPose pose_of(const Joint& j) const {
    const RodPose& p = nodes_[j.node].pose;
    return {p.r + p.R * j.arm, p.R * j.section * hinged(j, j.hinge.size())};
  }
  Vector3d axis(const Joint& j, std::size_t k) const {
    return nodes_[j.node].pose.R * j.section * hinged(j, k) * j.hinge[k];
  }

  // Where the freedoms of a joint stand among the unknowns, −1 for none; and how its end moves with them.
  std::vector<int> places(const Joint& j) const {
    const Node& n = nodes_[j.node];
    std::vector<int> all(n.dof.begin(), n.dof.end());
    all.insert(all.end(), j.dof.begin(), j.dof.end());
    return all;
  }
  MatrixXd moves(const Joint& j) const {
    const Node& n = nodes_[j.node];
    MatrixXd T = MatrixXd::Zero(6, 6 + static_cast<Index>(j.dof.size()));
    T.block<3, 3>(0, 0) = n.axes();
    T.block<3, 3>(0, 3) = lever(plain(n.pose.R * j.arm));
    T.block<3, 3>(3, 3).setIdentity();
    for (std::size_t k = 0; k < j.dof.size(); ++k) T.block<3, 1>(3, 6 + static_cast<Index>(k)) = axis(j, k);
    return T;
  }
  // What a force on the end does because arm and hinges turn.
  MatrixXd turning(const Joint& j, const Vector6& force) const {
    const Index n = 6 + static_cast<Index>(j.dof.size());
    MatrixXd K = MatrixXd::Zero(n, n);
    const Vector3d arm = nodes_[j.node].pose.R * j.arm, f = force.head<3>(), m = force.tail<3>();
    K.block<3, 3>(3, 3) = arm * f.transpose() - arm.dot(f) * Matrix3d::Identity();
    for (std::size_t k = 0; k < j.dof.size(); ++k) {
      const Index at = 6 + static_cast<Index>(k);
      K.block<1, 3>(at, 3) = axis(j, k).cross(m).transpose();
      for (std::size_t i = 0; i < k; ++i) K(at, 6 + static_cast<Index>(i)) = axis(j, i).cross(axis(j, k)).dot(m);
    }
    return K;
  }

  struct Tangent {
    std::vector<Eigen::Triplet<double>> K;
    VectorXd lack;
    double forces = 0;
  };

  void add(Tangent& all, const std::vector<int>& rows, const std::vector<int>& columns, const MatrixXd& k) const {
    for (Index r = 0; r < k.rows(); ++r)
      for (Index c = 0; c < k.cols(); ++c)
        if (rows[static_cast<std::size_t>(r)] >= 0 && columns[static_cast<std::size_t>(c)] >= 0 && k(r, c) != 0)
          all.K.emplace_back(rows[static_cast<std::size_t>(r)], columns[static_cast<std::size_t>(c)], k(r, c));
  }
  void add(Tangent& all, const std::vector<int>& rows, const VectorXd& f) const {
    for (Index r = 0; r < f.size(); ++r)
      if (const int at = rows[static_cast<std::size_t>(r)]; at >= 0) all.lack(at) -= f(r);
  }

  // The forces of the points on both ends of a piece, foretold for ends that meet, with the stiffness.
  void forces_of(Piece& p, double load, Vector6& at_a, Vector6& at_b, MatrixXd& K) {
    const RodPose a = pose_of(p.a), b = pose_of(p.b);
    at_a.setZero(), at_b.setZero();
    K = MatrixXd::Zero(12, 12);
    if (p.link) {
      const Vector3d way = b.r - a.r, t = way.normalized();
      const double length = way.norm(), L = p.rod.length;
      double EA = p.EA;
      p.pull = EA * ((length - L) / L - load * p.free);
      if ((p.acts == Acts::tension && p.pull < 0) || (p.acts == Acts::compression && p.pull > 0)) p.pull = EA = 0;
      at_b.head<3>() = p.pull * t - load * p.share_b;
      at_a.head<3>() = -p.pull * t - load * p.share_a;
      const Matrix3d k = EA / L * t * t.transpose() + p.pull / length * (Matrix3d::Identity() - t * t.transpose());
      K.block<3, 3>(0, 0) = K.block<3, 3>(6, 6) = k;
      K.block<3, 3>(0, 6) = K.block<3, 3>(6, 0) = -k;
      return;
    }
    ++evaluations_;
    const RodEnds e = ends_of(p.rod, load, a, p.start, s_.is_plane());
    std::vector<int> pose, force;
    for (const int d : dims_) pose.push_back(d), force.push_back(6 + d);
    const auto part = [&](const std::vector<int>& rows, const std::vector<int>& columns) -> MatrixXd {
      return e.by(rows, columns);
    };
    Vector6 gap;
    gap << e.pose.r - b.r, turn_of(e.pose.R * b.R.transpose());
    p.gap = gap(pose);
    const MatrixXd A = part(pose, pose), B = inverse(part(pose, force)), C = part(force, pose), D = part(force, force);
    const auto n = static_cast<Index>(dims_.size());
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
    for (const int d : dims_) both.push_back(6 + d);
    for (Index i = 0; i < n; ++i) at_a(dims_[static_cast<std::size_t>(i)]) = -from(i);
    for (Index i = 0; i < n; ++i) at_b(dims_[static_cast<std::size_t>(i)]) = to(i);
    for (Index r = 0; r < 2 * n; ++r)
      for (Index c = 0; c < 2 * n; ++c)
        K(both[static_cast<std::size_t>(r)], both[static_cast<std::size_t>(c)]) = small(r, c);
  }

  Tangent assembled(double load) {
    Tangent all;
    all.lack = VectorXd::Zero(unknowns_);
    for (Piece& p : pieces_) {
      Vector6 at_a, at_b;
      MatrixXd K;
      forces_of(p, load, at_a, at_b, K);
      all.forces = std::max({all.forces, at_a.cwiseAbs().maxCoeff(), at_b.cwiseAbs().maxCoeff()});
      const MatrixXd Ta = moves(p.a), Tb = moves(p.b);
      const std::vector<int> a = places(p.a), b = places(p.b);
      add(all, a, transposed_times(Ta, at_a)), add(all, b, transposed_times(Tb, at_b));
      add(all, a, a, turned(K.topLeftCorner<6, 6>(), Ta) + turning(p.a, at_a));
      add(all, a, b, turned(Ta, K.topRightCorner<6, 6>(), Tb));
      add(all, b, a, turned(Tb, K.bottomLeftCorner<6, 6>(), Ta));
      add(all, b, b, turned(K.bottomRightCorner<6, 6>(), Tb) + turning(p.b, at_b));
    }
    for (const PointAction& l : point_loads(load)) {
      const Joint at{.node = l.point, .arm = column(l.arm)};
      const MatrixXd T = moves(at);
      Vector6 f;
      f << column(l.force), column(l.moment);
      add(all, places(at), -transposed_times(T, f));
      add(all, places(at), places(at), -turning(at, f));
    }
    for (const PointSpring& spring : system_.freedoms.springs) {
      const Joint at{.node = spring.point};
      const MatrixXd T = moves(at);
      const Vector6 force = spring_at(spring, load);
      Vector6 k;
      for (Index i = 0; i < 6; ++i) k(i) = spring.stiffness[static_cast<std::size_t>(i)];
      add(all, places(at), -transposed_times(T, force));
      add(all, places(at), places(at), weighted_products(T, k, T));
    }
    return all;
  }

  struct PointAction {
    std::size_t point;
    Vector arm, force, moment;
  };
  std::vector<PointAction> point_loads(double load) const {
    std::vector<PointAction> all;
    for (const ActingForce& f : case_.acting->on_points)
      all.push_back({f.point->index, {}, f.force * load, f.whole_moment() * load});
    for (const ActingMass& m : case_.acting->masses) all.push_back({m.at.index, m.arm, m.force * load, {}});
    for (const EndLoad& e : end_loads_) {
      const Joint& j = pieces_[e.piece].b;
      all.push_back({j.node, plain(j.arm), plain(e.force * load), plain(e.moment * load)});
    }
    return all;
  }

  Six ground_of(std::size_t support, double load) const {
    Six all{};
    if (case_.acting->ground.empty()) return all;
    for (std::size_t k = 0; k < 6; ++k) all[k] = load * case_.acting->ground[support][k];
    return all;
  }
  Vector6 spring_at(const PointSpring& s, double load) const {
    const Node& n = nodes_[s.point];
    const Six ground = ground_of(s.support, load);
    Vector6 moved;
    moved << n.pose.r - n.first, n.turn;
    Vector6 f;
    for (std::size_t k = 0; k < 6; ++k) {
      const auto i = static_cast<Index>(k);
      f(i) = s.stiffness[k] * (ground[k] - moved(i));
    }
    return f;
  }

  // Held supports go with the ground.
  void move_ground(double load) {
    if (case_.acting->ground.empty()) return;
    const Freedoms& f = system_.freedoms;
    for (std::size_t i = 0; i < s_.supports().size(); ++i) {
      const std::size_t p = s_.supports()[i].at.index;
      Node& n = nodes_[p];
      const Six ground = f.in_frame(p, ground_of(i, load));
      Vector3d moved = n.axes().transpose() * (n.pose.r - n.first), turn = n.turn;
      for (std::size_t k = 0; k < 3; ++k) {
        if (f.status[p][k] == Status::held) moved(static_cast<Index>(k)) = ground[k];
        if (f.status[p][3 + k] == Status::held) turn(static_cast<Index>(k)) = ground[3 + k];
      }
      n.pose.r = n.first + n.axes() * moved;
      if (turn != n.turn) n.turn = turn, n.pose.R = turned_by(turn);
    }
  }

  // How far a step goes, as a share of the structure's size and as an angle.
  struct Reach {
    double move = 0, turn = 0;

    double most() const { return std::max(move, turn); }
    // Whether it goes where a tangent leads that reaches so far: what turns moves by the square of it besides.
    bool is_foretold_by(const Reach& tangent) const {
      constexpr double foretold = 1.6, good = 1e-10;
      return move <= foretold * tangent.move + tangent.turn * tangent.turn + good &&
             turn <= foretold * tangent.turn + good;
    }
  };
  Reach reach(const VectorXd& step) const {
    Reach all;
    for (const Node& n : nodes_)
      for (std::size_t k = 0; k < 6; ++k)
        if (n.dof[k] >= 0) {
          double& most = k < 3 ? all.move : all.turn;
          most = std::max(most, std::abs(step(n.dof[k])) / (k < 3 ? size_ : 1));
        }
    return all;
  }

  void take(const VectorXd& step, double share) {
    for (Piece& p : pieces_) {
      if (!p.link) {
        const auto end_step = [&](const Joint& j) -> Vector6 {
          const std::vector<int> at = places(j);
          VectorXd own(static_cast<Index>(at.size()));
          for (std::size_t k = 0; k < at.size(); ++k) own(static_cast<Index>(k)) = at[k] < 0 ? 0 : step(at[k]);
          return moves(j) * own;
        };
        const Vector6 a = end_step(p.a), b = end_step(p.b);
        const auto n = static_cast<Index>(dims_.size());
        VectorXd ends(2 * n);
        for (Index i = 0; i < n; ++i) {
          ends(i) = a(dims_[static_cast<std::size_t>(i)]);
          ends(n + i) = b(dims_[static_cast<std::size_t>(i)]) - p.gap(i);
        }
        const VectorXd by = share * (p.follow * ends);
        for (Index i = 0; i < n; ++i) {
          const int d = dims_[static_cast<std::size_t>(i)];
          (d < 3 ? p.start.n(d) : p.start.m(d - 3)) += by(i);
        }
      }
    }
    for (Node& n : nodes_) {
      Vector3d move = Vector3d::Zero(), turn = Vector3d::Zero();
      for (std::size_t k = 0; k < 6; ++k)
        if (n.dof[k] >= 0) (k < 3 ? move : turn)(static_cast<Index>(k % 3)) = share * step(n.dof[k]);
      n.pose.r += n.axes() * move;
      if (turn.isZero(0)) continue;
      n.pose.R = turned_by(turn) * n.pose.R;
      n.turn = s_.is_plane() ? Vector3d(n.turn + turn) : turn_near(n.pose.R, n.turn);
    }
    for (Piece& p : pieces_)
      for (Joint* j : {&p.a, &p.b})
        for (std::size_t k = 0; k < j->dof.size(); ++k) j->angle[k] += share * step(j->dof[k]);
  }

  std::vector<bool> slack_links() const {
    std::vector<bool> all;
    for (const Piece& p : pieces_) all.push_back(p.link && p.acts != Acts::always && p.pull == 0);
    return all;
  }

  double gaps() const {
    double most = 0;
    for (const Piece& p : pieces_)
      for (Index i = 0; i < p.gap.size(); ++i)
        most = std::max(most, std::abs(p.gap(i)) / (dims_[static_cast<std::size_t>(i)] < 3 ? size_ : 1));
    return most;
  }

  // Newton's method at one share of the load. False where it does not end, or ends where the tangent does not lead.
  bool balanced(double load) {
    constexpr int most_rounds = 25;
    constexpr double exact = 1e-14, good = 1e-10, most_turn = 0.5;
    move_ground(load);
    double before = 0;
    Reach first;
    VectorXd whole;
    std::vector<bool> were_slack;
    for (int round = 0; round < most_rounds; ++round) {
      stop_point();
      Tangent all = assembled(load);
      if (unknowns_ == 0) return true;
      Eigen::SparseMatrix<double> K(unknowns_, unknowns_);
      K.setFromTriplets(all.K.begin(), all.K.end());
      const std::optional<VectorXd> solved = sparse_solution(K, all.lack);
      if (!solved) return false;
      const VectorXd& step = *solved;
      const Reach next = reach(step);
      const double by = next.most();
      if (!std::isfinite(by)) return false;
      if (round == 0) first = next, whole = VectorXd::Zero(unknowns_);
      // A member that goes slack or taut on the way makes the tangent of the start worth nothing.
      std::vector<bool> slack = slack_links();
      if (round > 0 && slack != were_slack) {
        const Reach so_far = reach(whole);
        first.move = std::max(first.move, so_far.move + next.move);
        first.turn = std::max(first.turn, so_far.turn + next.turn);
      }
      were_slack = std::move(slack);
      // Where a correction is far larger than what the tangent foretold the method has lost its way: it may end at an
      // equilibrium that has nothing to do with the last one.
      constexpr double lost = 2;
      if (by > lost * first.most() + good) return false;
      const double open = gaps();
      constexpr double closed = 1e-13;
      // Where nothing moves the forces still have to close the gaps.
      if ((by <= exact && open <= closed) || (round > 1 && std::max(by, open) <= good && by >= before / 2)) {
        off_ = by;
        return is_positive_definite(K) && reach(whole).is_foretold_by(first);
      }
      const double share = std::min(1.0, most_turn / by);
      take(step, share);
      whole += share * step;
      before = by;
    }
    return false;
  }

  bool reaches_last_digit(double load) const {
    constexpr double left_out = 1e-13;
    return std::all_of(pieces_.begin(), pieces_.end(), [&](const Piece& p) {
      return p.link || course(p.rod, load, pose_of(p.a), p.start).tail() <= left_out;
    });
  }

  // The first step stays where the structure is nearly linear, so that it does not leap over a limit point to another
  // branch: the force EA ψ²/2 that the turn ψ of a piece in compression would bring, if it were held at its length,
  // stays below a twentieth of its axial force. Both are found under a very small load.
  //
  // 0 where nothing is found under a billionth of the load either: going through all steps between would find nothing.
  double first_step() {
    constexpr double usual = 0.1, small = 1e-6, least = 1e-6, little = 0.05, along = 0.05;
    const auto nodes = nodes_;
    const auto pieces = pieces_;
    double step = usual;
    const bool found = balanced(small);
    if (!found) {
      nodes_ = nodes, pieces_ = pieces;
      step = balanced(shortest) ? shortest : 0;
      nodes_ = nodes, pieces_ = pieces;
      return step;
    }
    {
      double largest = 0;
      const auto force = [&](const Piece& p) { return p.link ? std::abs(p.pull) : p.start.n.norm(); };
      for (const Piece& p : pieces_) largest = std::max(largest, force(p));
      for (std::size_t i = 0; i < pieces_.size(); ++i) {
        const Piece& p = pieces_[i];
        const Vector3d before = (reference(p, p.rod.length) - reference(p, 0)).normalized(),
                       after = (pose_of(p.b).r - pose_of(p.a).r).normalized();
        const double N = (p.link ? p.pull : after.dot(p.start.n)) / small, turn = (after - before).norm() / small;
        if (!(-N * small > along * largest) || !(turn > 0)) continue;
        const double EA = system_.elements[p.span].rigidity().EA;
        step = std::min(step, 2 * little * -N / (EA * turn * turn));
      }
    }
    nodes_ = nodes, pieces_ = pieces;
    return std::max(step, least);
  }

  Way follow_load() {
    constexpr double longest = 0.1;
    steps_.clear();
    load_ = 0;
    double step = first_step();
    if (step == 0) return Way::ends;
    while (load_ < 1) {
      if (evaluations_ > most_evaluations * system_.spans.all.size()) return Way::endless;
      const auto nodes = nodes_;
      const auto pieces = pieces_;
      const double next = load_ + step > 1 - 1e-12 ? 1 : load_ + step;
      const bool found = balanced(next);
      overloaded_ = found ? overloaded_link() : "";
      if (!found || !overloaded_.empty()) {
        nodes_ = nodes, pieces_ = pieces;
        step /= 2;
        if (step < shortest) return Way::ends;
        continue;
      }
      if (!reaches_last_digit(next)) {
        coarse_at_ = next;
        return Way::coarse;
      }
      load_ = next;
      double moved = 0;
      for (std::size_t p = 0; p < s_.points().size(); ++p)
        moved = std::max(moved, (nodes_[p].pose.r - nodes_[p].first).norm());
      steps_.emplace_back(load_, moved);
      step = std::min(step * 1.5, longest);
    }
    polish();
    return Way::done;
  }

  // A few rounds more at the whole load, of which the one with the least forces left at the nodes is kept: movements
  // stop changing before these do, where members are far stiffer along their axis than across it.
  void polish() {
    constexpr int rounds = 4;
    if (unknowns_ == 0) return;
    auto nodes = nodes_;
    auto pieces = pieces_;
    double least = std::numeric_limits<double>::infinity();
    for (int round = 0; round < rounds; ++round) {
      const Tangent all = assembled(1);
      const double left = all.lack.cwiseAbs().maxCoeff() + gaps() * all.forces;
      if (left < least) least = left, nodes = nodes_, pieces = pieces_;
      Eigen::SparseMatrix<double> K(unknowns_, unknowns_);
      K.setFromTriplets(all.K.begin(), all.K.end());
      const std::optional<VectorXd> step = sparse_solution(K, all.lack);
      constexpr double small = 1e-6;
      if (!step || !(reach(*step).most() < small)) break;
      take(*step, 1);
    }
    nodes_ = nodes, pieces_ = pieces;
  }

  // A link that is in compression beyond the force at which it buckles between its ends; empty where there is none.
  std::string overloaded_link() const {
    for (const Piece& p : pieces_) {
      if (!p.link) continue;
      const Span& span = system_.spans.all[p.span];
      const Member& m = s_.members()[span.member];
      const Rigidity r = span_body(s_, m).rigidity;
      const double EI = s_.is_plane() ? r.EIz : std::min(r.EIy, r.EIz);
      if (EI > 0 && -p.pull > std::numbers::pi * std::numbers::pi * EI / (span.length * span.length)) return m.name;
    }
    return {};
  }

  Problem too_large() const {
    const std::string& name = case_.loads->name();
    Problem p{
        fmt::format("in case '{}' large displacements cannot be followed beyond {} of the load: it is far too large "
                    "for the structure",
                    name, short_number(load_, 3)),
        {Subject::Kind::load_case, name}};
    p.remedy = "check the sizes and units of the loads";
    return as_finding("buckles", std::move(p));
  }

  Problem limit_point() const {
    const std::string& name = case_.loads->name();
    std::string text =
        steps_.empty()
            ? fmt::format("in case '{}' no equilibrium is found under a billionth of the load", name)
            : fmt::format("in case '{}' equilibrium ends at {} of the load: there {}", name, short_number(load_, 6),
                          overloaded_.empty() ? "the structure buckles or snaps through"
                                              : fmt::format("link '{}' buckles between its ends", overloaded_));
    return as_finding("buckles", {std::move(text), {Subject::Kind::load_case, name}});
  }

  Solved finished() {
    auto state = std::make_shared<BentState>();
    state->steps = steps_;
    state->spans.resize(system_.spans.all.size());
    Solved solved;
    solved.need.at.assign(s_.points().size(), Six{});
    auto elements = std::make_shared<std::vector<Element>>(system_.elements);
    bool some_slack = false;
    const auto need = [&](std::size_t point, const Vector6& f) {
      for (std::size_t k = 0; k < 6; ++k) solved.need.at[point][k] += f(static_cast<Index>(k));
      solved.need.largest = std::max(solved.need.largest, f.cwiseAbs().maxCoeff());
    };
    Vector3d displaced = Vector3d::Zero();
    for (std::size_t i = 0, k = 0; i < state->spans.size(); ++i) {
      const std::size_t first = k;
      while (k < pieces_.size() && pieces_[k].span == i) ++k;
      for (const bool start : {true, false}) {
        Piece& p = start ? pieces_[first] : pieces_[k - 1];
        Vector6 at_a, at_b;
        MatrixXd K;
        forces_of(p, 1, at_a, at_b, K);
        const Joint& j = start ? p.a : p.b;
        Vector6 f = start ? at_a : at_b;
        ends_[start ? 0 : 1] = f;
        f.tail<3>() += (nodes_[j.node].pose.R * j.arm).cross(f.head<3>());
        need(j.node, f);
      }
      BentForces& bent = state->spans[i];
      bent = bent_forces(first, k);
      if (pieces_[first].link && pieces_[first].acts != Acts::always && pieces_[first].pull == 0) {
        (*elements)[i] = system_.elements[i].slack(pieces_[first].acts);
        some_slack = true;
      }
      for (std::size_t n = first; n < k; ++n) displaced += displaced_loads(pieces_[n]);
    }
    for (const PointAction& l : point_loads(1)) {
      const Node& n = nodes_[l.point];
      const Vector3d arm = n.pose.R * column(l.arm);
      Vector6 f;
      f << column(l.force), column(l.moment);
      f.tail<3>() += arm.cross(f.head<3>());
      need(l.point, -f);
      displaced += (n.pose.r - n.first + arm - column(l.arm)).cross(f.head<3>());
    }
    for (const PointSpring& spring : system_.freedoms.springs) need(spring.point, -spring_at(spring, 1));
    solved.movement = movements();
    add_displaced_reactions(solved, displaced);
    state->displaced = plain(displaced);
    constexpr double least = 1e-12, margin = 3;
    solved.error = std::max(least, margin * off_);
    if (some_slack) solved.elements = std::move(elements);
    solved.bent = std::move(state);
    return solved;
  }

  std::vector<Movement> movements() const {
    std::vector<Movement> all;
    for (std::size_t p = 0; p < s_.points().size(); ++p) {
      const Node& n = nodes_[p];
      const Vector3d moved = n.pose.r - n.first;
      Movement m;
      m.value = {moved.x(), moved.y(), moved.z(), n.turn.x(), n.turn.y(), n.turn.z()};
      all.push_back(m);
    }
    return all;
  }

  // Reactions act where the supports have moved to.
  void add_displaced_reactions(const Solved& solved, Vector3d& displaced) const {
    for (const PointSupport& support : s_.supports()) {
      const std::size_t p = support.at.index;
      Six held = system_.freedoms.in_frame(p, solved.need.at[p]);
      for (std::size_t k = 0; k < 6; ++k)
        if (system_.freedoms.status[p][k] != Status::held) held[k] = 0;
      const Six global = system_.freedoms.in_global(p, held);
      displaced += (nodes_[p].pose.r - nodes_[p].first).cross(Vector3d(global[0], global[1], global[2]));
    }
    for (const PointSpring& spring : system_.freedoms.springs)
      displaced += (nodes_[spring.point].pose.r - nodes_[spring.point].first).cross(spring_at(spring, 1).head<3>());
  }

  // The moment of what acts along a piece, because it has moved.
  Vector3d displaced_loads(const Piece& p) const {
    if (p.link) {
      const RodPose a = pose_of(p.a), b = pose_of(p.b);
      return (a.r - nodes_[p.a.node].first - p.a.arm).cross(p.share_a) +
             (b.r - nodes_[p.b.node].first - p.b.arm).cross(p.share_b);
    }
    const RodCourse c = course(p.rod, 1, pose_of(p.a), p.start);
    const double h = p.rod.length;
    const Vector3d start = reference(p, 0), way = reference(p, h) - start;
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

  // Where a place of a piece was before any load.
  Vector3d reference(const Piece& p, double along) const {
    const Span& span = system_.spans.all[p.span];
    return nodes_[span.a].first + column(span.arm_a) +
           columns_of(system_.spans.axes[span.member]).col(0) * (p.rod.from + along);
  }

  BentForces bent_forces(std::size_t first, std::size_t last) const {
    const Piece& p = pieces_[first];
    const Span& span = system_.spans.all[p.span];
    const Matrix3d axes = columns_of(system_.spans.axes[span.member]);
    const auto own_of = [&](const Vector6& global) {
      Vector6 own;
      own << axes.transpose() * global.head<3>(), axes.transpose() * global.tail<3>();
      return own;
    };
    BentForces bent;
    bent.forces << own_of(ends_[0]), own_of(ends_[1]);
    const auto moved = [&](const Joint& j, double along, const Vector3d& near) {
      const RodPose pose = pose_of(j);
      Vector6 all;
      const Vector3d start = nodes_[span.a].first + column(span.arm_a);
      all << pose.r - start - axes.col(0) * along, turn_near(pose.R * axes.transpose(), near);
      return own_of(all);
    };
    const Piece& end = pieces_[last - 1];
    bent.own << moved(p.a, 0, nodes_[p.a.node].turn), moved(end.b, span.length, nodes_[end.b.node].turn);
    if (p.link) {
      bent.course = link_course(p);
      const double slope = (bent.own(6) - bent.own(0)) / span.length;
      for (CoursePiece& piece : bent.course) piece.u.c = {bent.own(0) + slope * piece.from, slope};
    } else {
      rod_course(first, last, bent);
    }
    return bent;
  }

  // Straight, with the axial force that its mean and the loads along it leave.
  std::vector<CoursePiece> link_course(const Piece& p) const {
    const Span& span = system_.spans.all[p.span];
    const RodPose a = pose_of(p.a), b = pose_of(p.b);
    const Vector along = plain((b.r - a.r).normalized());
    const Axes& axes = system_.spans.axes[span.member];
    std::vector<LoadPiece> turned;
    for (LoadPiece l : case_.acting->loads.on(p.span)) {
      const auto turn = [&](Vector& v) { v = {dot(axes.global(v), along), 0, 0}; };
      turn(l.jump_force), turn(l.q0), turn(l.slope);
      l.m0 = l.m_slope = l.jump_moment = {};
      l.free = {};
      turned.push_back(l);
    }
    State start;
    // The force of the point on its start, along the link.
    start.N = -ends_[0].head<3>().dot(column(along));
    std::vector<CoursePiece> all = integrate(system_.elements[p.span].rigidity(), span.length, turned, start);
    return all;
  }

  void rod_course(std::size_t first, std::size_t last, BentForces& bent) const {
    static const Quintic quintic;
    constexpr double turning_of_a_piece = 0.1;
    constexpr int least_pieces = 4;
    const Span& span = system_.spans.all[pieces_[first].span];
    const Matrix3d axes = columns_of(system_.spans.axes[span.member]);
    const Rigidity& r = system_.elements[pieces_[first].span].rigidity();
    Vector3d turn(bent.own(3), bent.own(4), bent.own(5));
    turn = axes * turn;
    for (std::size_t n = first; n < last; ++n) {
      const Piece& p = pieces_[n];
      const RodCourse c = course(p.rod, 1, pose_of(p.a), p.start);
      const double h = p.rod.length;
      const RodForce middle = c.force(0.5);
      const Matrix3d R = c.pose(0.5).R;
      const double bends = (p.rod.C * (R.transpose() * middle.m)).norm() * h,
                   presses = h * std::sqrt(middle.n.norm() / std::min(r.EIy, r.EIz));
      constexpr double most_pieces = 1000;
      const double wanted = std::ceil(std::max(bends, presses) / turning_of_a_piece);
      const int parts = std::max(least_pieces, static_cast<int>(std::min(wanted, most_pieces)));
      for (int k = 0; k < parts; ++k) {
        std::array<std::array<double, 6>, 12> value{};
        for (std::size_t i = 0; i < 6; ++i) {
          const double t = (k + quintic.place(i)) / parts;
          const RodPose pose = c.pose(t);
          const RodForce force = c.force(t);
          turn = turn_near(pose.R * axes.transpose(), turn);
          const Vector3d N = pose.R.transpose() * force.n, M = pose.R.transpose() * force.m;
          const Vector3d u = axes.transpose() * (pose.r - reference(p, h * t)), a = axes.transpose() * turn;
          const double at[] = {N.x(), -N.y(), -N.z(), M.x(), -M.y(), M.z(), u.x(), u.y(), u.z(), a.x(), a.z(), -a.y()};
          for (std::size_t q = 0; q < 12; ++q) value[q][i] = at[q];
        }
        CoursePiece piece;
        piece.from = p.rod.from + h * k / parts, piece.to = p.rod.from + h * (k + 1) / parts;
        Polynomial* const parts_of[] = {&piece.N, &piece.Vy, &piece.Vz, &piece.T,     &piece.My,      &piece.Mz,
                                        &piece.u, &piece.v,  &piece.w,  &piece.twist, &piece.slope_y, &piece.slope_z};
        for (std::size_t q = 0; q < 12; ++q) *parts_of[q] = quintic(value[q], piece.to - piece.from);
        bent.course.push_back(piece);
      }
    }
    bent.course.back().to = span.length;
  }

  struct EndLoad {
    std::size_t piece;
    Vector3d force, moment;
  };

  const Structure& s_;
  const System& system_;
  const LoadedCase& case_;
  double size_;
  std::vector<int> dims_;
  std::vector<Node> nodes_;
  std::vector<Piece> pieces_;
  std::vector<EndLoad> end_loads_;
  int unknowns_ = 0;
  std::size_t evaluations_ = 0;
  double load_ = 0, off_ = 0;
  double coarse_at_ = 1;  // the share of the load for which the pieces were too long
  std::vector<std::pair<double, double>> steps_;
  std::string overloaded_;  // the link that buckled in the last step that was tried
  Vector6 ends_[2];
};

}  // namespace

Expected<Solved, Problems> LargeOrder::solve(const LoadedCase& load_case, double* reached) const {
  Large large(structure_, system_, load_case);
  auto solved = large();
  if (reached) *reached = solved ? 1 : large.reached();
  return solved;
}

}  // namespace corvex::solver
