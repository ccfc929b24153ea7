#include "analysis/large_rod.hpp"

#include <Eigen/Geometry>
#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace corvex::solver {
namespace {

using Eigen::Matrix3d;
using Eigen::Vector3d;

Matrix3d cross_matrix(const Vector3d& v) {
  Matrix3d m;
  m << 0, -v.z(), v.y(), v.z(), 0, -v.x(), -v.y(), v.x(), 0;
  return m;
}

// columns × v for each column.
template <int N>
Eigen::Matrix<double, 3, N> across(const Eigen::Matrix<double, 3, N>& columns, const Vector3d& v) {
  Eigen::Matrix<double, 3, N> all;
  for (Eigen::Index i = 0; i < N; ++i) all.col(i) = columns.col(i).cross(v);
  return all;
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

namespace {

// Changes with the start, of which there are nine: its turn, its force, its moment. (A movement only moves all of it.)
// These are wanted:
template <int N>
using Wanted = std::array<int, N>;

// The equations above, varied: with the turn δθ of the section, R Γ changes by δθ × R Γ + R δΓ, and
//   δr' = δθ × r' + R F Rᵀ (δn − δθ × n)   δθ' = R C Rᵀ (δm − δθ × m)   δn' = 0   δm' = −δr' × n − r' × δn
template <int N>
void vary(const RodPiece& p, const RodSeries& s, const Wanted<N>& wanted, RodEnds& e) {
  using Columns = Eigen::Matrix<double, 3, N>;
  constexpr std::size_t terms = RodCourse::terms;
  const RodCourse& c = s.c;
  const Columns none = Columns::Zero();
  std::array<Columns, terms + 1> r, turn, m;
  // δn − δθ × n and δm − δθ × m; δΓ and δK; δr'.
  std::array<Columns, terms> of_n, of_m, strain, curve, way;
  r[0] = turn[0] = m[0] = none;
  Columns n = none;
  for (int i = 0; i < N; ++i) {
    const int what = wanted[static_cast<std::size_t>(i)];
    (what < 3 ? turn[0] : what < 6 ? n : m[0])(what % 3, i) = 1;
  }
  for (std::size_t k = 0; k < terms; ++k) {
    of_n[k] = k == 0 ? n : none, of_m[k] = m[k];
    for (std::size_t j = 0; j <= k; ++j) {
      of_n[k] -= across<N>(turn[j], c.n[k - j]);
      of_m[k] -= across<N>(turn[j], c.m[k - j]);
    }
    strain[k] = curve[k] = none;
    for (std::size_t j = 0; j <= k; ++j) {
      strain[k] += c.R[j].transpose() * of_n[k - j];
      curve[k] += c.R[j].transpose() * of_m[k - j];
    }
    strain[k] = (p.F * strain[k]).eval(), curve[k] = (p.C * curve[k]).eval();
    way[k] = none;
    Columns turning = none;
    for (std::size_t j = 0; j <= k; ++j) {
      way[k] += across<N>(turn[j], s.term[k - j].way) + c.R[j] * strain[k - j];
      turning += c.R[j] * curve[k - j];
    }
    Columns moment = across<N>(n, s.term[k].way);
    for (std::size_t j = 0; j <= k; ++j) moment -= across<N>(way[j], c.n[k - j]);
    const double by = p.length / static_cast<double>(k + 1);
    r[k + 1] = by * way[k], turn[k + 1] = by * turning, m[k + 1] = by * moment;
  }
  const auto put = [&](int row, const Columns& v) {
    for (int i = 0; i < N; ++i) e.by.block<3, 1>(row, 3 + wanted[static_cast<std::size_t>(i)]) = v.col(i);
  };
  const auto sum = [&](const std::array<Columns, terms + 1>& all) {
    Columns v = none;
    for (std::size_t k = all.size(); k-- > 0;) v += all[k];
    return v;
  };
  put(0, sum(r)), put(3, sum(turn)), put(6, n), put(9, sum(m));
}

}  // namespace

RodEnds ends_of(const RodPiece& p, double load, const RodPose& start, const RodForce& force, bool plane) {
  const RodSeries s = series(p, load, start, force);
  RodEnds e{s.c.pose(1), s.c.force(1), Eigen::Matrix<double, 12, 12>::Zero()};
  e.by.topLeftCorner<3, 3>().setIdentity();
  if (plane)
    vary<4>(p, s, {2, 3, 4, 8}, e);
  else
    vary<9>(p, s, {0, 1, 2, 3, 4, 5, 6, 7, 8}, e);
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
