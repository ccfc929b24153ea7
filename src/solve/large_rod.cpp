#include "solve/large_rod.hpp"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace corvex::solver {
namespace {

using Eigen::Matrix3d;
using Eigen::Vector3d;
// Changes with the start: its turn, its force, its moment. (A movement only moves all of it.)
using Columns = Eigen::Matrix<double, 3, 9>;

Matrix3d cross_matrix(const Vector3d& v) {
  Matrix3d m;
  m << 0, -v.z(), v.y(), v.z(), 0, -v.x(), -v.y(), v.x(), 0;
  return m;
}

// [columns]× v for each column: −[v]× columns.
Columns across(const Columns& columns, const Vector3d& v) {
  return -cross_matrix(v) * columns;
}

// Everything of one power of t.
struct Term {
  Vector3d strain, curve;  // Γ and K
  Vector3d way;            // r'
};

struct RodSeries {
  RodCourse c;
  std::vector<Term> term;
};

RodSeries series(const RodPiece& p, double load, const RodPose& start, const RodForce& force) {
  constexpr int terms = RodCourse::terms;
  const double h = p.length;
  RodSeries s;
  RodCourse& c = s.c;
  c.r.push_back(start.r), c.R.push_back(start.R);
  c.n.push_back(force.n - load * p.jump_force), c.m.push_back(force.m - load * p.jump_moment);
  for (int k = 0; k < terms; ++k) {
    const auto n = static_cast<std::size_t>(k);
    Term t{Vector3d::Zero(), Vector3d::Zero(), Vector3d::Zero()};
    for (std::size_t j = 0; j <= n; ++j) {
      t.strain += c.R[j].transpose() * c.n[n - j];
      t.curve += c.R[j].transpose() * c.m[n - j];
    }
    t.strain = p.F * t.strain, t.curve = p.C * t.curve;
    if (k == 0) t.strain += load * p.strain, t.curve += load * p.curve;
    s.term.push_back(t);
    Vector3d way = c.R[n].col(0);
    Matrix3d turning = Matrix3d::Zero();
    for (std::size_t j = 0; j <= n; ++j) {
      way += c.R[j] * s.term[n - j].strain;
      turning += c.R[j] * cross_matrix(s.term[n - j].curve);
    }
    s.term[n].way = way;
    Vector3d moment = Vector3d::Zero();
    for (std::size_t j = 0; j <= n; ++j) moment -= s.term[j].way.cross(c.n[n - j]);
    Vector3d q = Vector3d::Zero();
    if (k == 0) q = load * p.q, moment -= load * p.mu;
    if (k == 1) q = load * h * p.q_growth, moment -= load * h * p.mu_growth;
    const double by = h / (k + 1);
    c.r.push_back(by * way), c.R.push_back(by * turning);
    c.n.push_back(-by * q), c.m.push_back(by * moment);
  }
  return s;
}

template <class T>
T summed(const std::vector<T>& all, double t) {
  T sum = all.back();
  for (std::size_t k = all.size() - 1; k-- > 0;) sum = sum * t + all[k];
  return sum;
}

}  // namespace

RodPose RodCourse::pose(double t) const {
  // Rounding must not stretch the axes.
  const Eigen::Quaterniond q(summed(R, t));
  return {summed(r, t), q.normalized().toRotationMatrix()};
}
RodForce RodCourse::force(double t) const {
  return {summed(n, t), summed(m, t)};
}
double RodCourse::tail() const {
  double worst = 0;
  for (std::size_t k = R.size() - 3; k < R.size(); ++k) worst = std::max(worst, R[k].cwiseAbs().maxCoeff());
  return worst;
}

RodCourse course(const RodPiece& piece, double load, const RodPose& start, const RodForce& force) {
  return series(piece, load, start, force).c;
}

// The equations above, varied: with the turn δθ of the section, R Γ changes by δθ × R Γ + R δΓ, and
//   δr' = δθ × r' + R F Rᵀ (δn − δθ × n)   δθ' = R C Rᵀ (δm − δθ × m)   δn' = 0   δm' = −δr' × n − r' × δn
RodEnds ends_of(const RodPiece& p, double load, const RodPose& start, const RodForce& force) {
  constexpr int terms = RodCourse::terms;
  const RodSeries s = series(p, load, start, force);
  const RodCourse& c = s.c;
  const double h = p.length;
  const Columns none = Columns::Zero();
  std::vector<Columns> r{none}, turn{none}, m{none};
  turn[0].leftCols<3>().setIdentity();
  Columns n = none;
  n.middleCols<3>(3).setIdentity();
  m[0].rightCols<3>().setIdentity();
  // δn − δθ × n and δm − δθ × m; δΓ and δK; δr'.
  std::vector<Columns> of_n, of_m, strain, curve, way;
  for (std::size_t k = 0; k < static_cast<std::size_t>(terms); ++k) {
    of_n.push_back(k == 0 ? n : none), of_m.push_back(m[k]);
    for (std::size_t j = 0; j <= k; ++j) {
      of_n[k] -= across(turn[j], c.n[k - j]);
      of_m[k] -= across(turn[j], c.m[k - j]);
    }
    strain.push_back(none), curve.push_back(none);
    for (std::size_t j = 0; j <= k; ++j) {
      strain[k] += c.R[j].transpose() * of_n[k - j];
      curve[k] += c.R[j].transpose() * of_m[k - j];
    }
    strain[k] = p.F * strain[k], curve[k] = p.C * curve[k];
    way.push_back(none);
    Columns turning = none;
    for (std::size_t j = 0; j <= k; ++j) {
      way[k] += across(turn[j], s.term[k - j].way) + c.R[j] * strain[k - j];
      turning += c.R[j] * curve[k - j];
    }
    Columns moment = -cross_matrix(s.term[k].way) * n;
    for (std::size_t j = 0; j <= k; ++j) moment -= across(way[j], c.n[k - j]);
    const double by = h / static_cast<double>(k + 1);
    r.push_back(by * way[k]), turn.push_back(by * turning), m.push_back(by * moment);
  }
  const auto sum = [&](const std::vector<Columns>& all) {
    Columns v = none;
    for (std::size_t k = all.size(); k-- > 0;) v += all[k];
    return v;
  };
  RodEnds e{c.pose(1), c.force(1), Eigen::Matrix<double, 12, 12>::Zero()};
  e.by.topLeftCorner<3, 3>().setIdentity();
  e.by.block<3, 9>(0, 3) = sum(r);
  e.by.block<3, 9>(3, 3) = sum(turn);
  e.by.block<3, 9>(6, 3) = n;
  e.by.block<3, 9>(9, 3) = sum(m);
  return e;
}

Matrix3d turned_by(const Vector3d& turn) {
  const double angle = turn.norm();
  return angle > 0 ? Eigen::AngleAxisd(angle, turn / angle).toRotationMatrix() : Matrix3d(Matrix3d::Identity());
}

Vector3d turn_of(const Matrix3d& R) {
  // By the quaternion, which keeps the digits of small turns.
  Eigen::Quaterniond q(R);
  if (q.w() < 0) q.coeffs() = -q.coeffs();
  const double half = q.vec().norm();
  if (half == 0) return Vector3d::Zero();
  return q.vec() * (2 * std::atan2(half, q.w()) / half);
}

Vector3d turn_near(const Matrix3d& R, const Vector3d& before) {
  const Vector3d turn = turn_of(R);
  const double angle = turn.norm();
  if (angle == 0) {
    // Whole turns about the axis of before.
    const double was = before.norm(), whole = std::round(was / (2 * std::numbers::pi));
    return whole > 0 ? Vector3d(before / was * (whole * 2 * std::numbers::pi)) : turn;
  }
  const Vector3d axis = turn / angle;
  const double whole = std::round((axis.dot(before) - angle) / (2 * std::numbers::pi));
  return axis * (angle + whole * 2 * std::numbers::pi);
}

}  // namespace corvex::solver
