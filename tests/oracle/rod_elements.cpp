#include "oracle/rod_elements.hpp"

#include <Eigen/Geometry>
#include <Eigen/LU>
#include <cmath>
#include <unsupported/Eigen/AutoDiff>

namespace corvex::test {
namespace {

using Gradient = Eigen::Matrix<double, 12, 1>;
using Matrix12 = Eigen::Matrix<double, 12, 12>;
using Scalar = Eigen::AutoDiffScalar<Gradient>;
using Second = Eigen::AutoDiffScalar<Eigen::Matrix<Scalar, 12, 1>>;
template <class T>
using Vector3 = Eigen::Matrix<T, 3, 1>;
template <class T>
using Matrix3 = Eigen::Matrix<T, 3, 3>;

template <class T>
Matrix3<T> cross(const Vector3<T>& a) {
  Matrix3<T> m;
  m << T(0), -a(2), a(1), a(2), T(0), -a(0), -a(1), a(0), T(0);
  return m;
}

// Cayley's rotation with the vector 2 tan(angle/2) along its axis, to which it is a turn by the angle for small ones.
template <class T>
Matrix3<T> rotation(const Vector3<T>& a) {
  const Matrix3<T> s = cross(a);
  const T by = T(1) / (T(1) + a.dot(a) / T(4));
  return Matrix3<T>::Identity() + (s + s * s / T(2)) * by;
}

struct Node {
  Eigen::Vector3d at = Eigen::Vector3d::Zero();
  Eigen::Matrix3d turn = Eigen::Matrix3d::Identity();
};

struct Piece {
  int a = 0, b = 0;
  double length = 0;
  Eigen::Matrix3d axes;                  // in columns, before the load
  Eigen::Matrix<double, 6, 1> rigidity;  // EA, GAy, GAz, GJ, EIy, EIz
};

// The energy of a piece when its ends move on by x: three movements and the vector of a rotation, of each end.
template <class T>
T energy(const Piece& p, const Node& a, const Node& b, const Eigen::Matrix<T, 12, 1>& x) {
  const Vector3<T> at_a = a.at.cast<T>() + x.template segment<3>(0), at_b = b.at.cast<T>() + x.template segment<3>(6);
  const Matrix3<T> first = rotation<T>(x.template segment<3>(3)) * (a.turn * p.axes).cast<T>(),
                   last = rotation<T>(x.template segment<3>(9)) * (b.turn * p.axes).cast<T>();
  const Matrix3<T> between = first.transpose() * last;
  // Of a rotation by the vector c of Cayley: between − betweenᵀ is 2 sin times the cross matrix of its axis.
  const T by = T(4) / (T(1) + between.trace());
  Vector3<T> bend;
  bend << between(2, 1) - between(1, 2), between(0, 2) - between(2, 0), between(1, 0) - between(0, 1);
  bend = bend * (by / T(2));
  // Half of it leads to the middle: tan(angle/4) from tan(angle/2).
  const T root = sqrt(T(1) + bend.dot(bend) / T(4));
  const Vector3<T> half = bend / (T(1) + root);
  const Matrix3<T> middle = first * rotation<T>(half);
  Vector3<T> stretch = middle.transpose() * (at_b - at_a) / T(p.length);
  stretch(0) -= T(1);
  bend = bend / T(p.length);
  T sum(0);
  for (int i = 0; i < 3; ++i) {
    sum += T(p.rigidity(i)) * stretch(i) * stretch(i);
    sum += T(p.rigidity(3 + i)) * bend(i) * bend(i);
  }
  return sum * T(p.length / 2);
}

struct Model {
  std::vector<Node> nodes;
  std::vector<Piece> pieces;
  std::vector<int> row;   // of each degree of freedom, −1 where it is held
  Eigen::VectorXd force;  // at full load
  int size = 0;
};

Model model_of(const Structure& s, int count) {
  Model m;
  for (const Point& p : s.points()) {
    const Vector v = p.position;
    m.nodes.push_back({.at = {v.x, v.y, v.z}});
  }
  for (const Member& member : s.members()) {
    const Axes a = local_axes(s, member);
    const SectionProperties& p = s.section_of(member).properties();
    const double E = s.material_of(member).E.si(), G = s.material_of(member).shear_modulus().si();
    Piece piece;
    piece.axes.col(0) << a.x.x, a.x.y, a.x.z;
    piece.axes.col(1) << a.y.x, a.y.y, a.y.z;
    piece.axes.col(2) << a.z.x, a.z.y, a.z.z;
    piece.rigidity << E * p.A.si(), G * p.Ay.si(), G * p.Az.si(), G * p.J.si(), E * p.Iy.si(), E * p.Iz.si();
    const int first = static_cast<int>(member.through.front().index),
              last = static_cast<int>(member.through.back().index);
    const Eigen::Vector3d from = m.nodes[static_cast<std::size_t>(first)].at,
                          to = m.nodes[static_cast<std::size_t>(last)].at;
    piece.length = (to - from).norm() / count;
    piece.a = first;
    for (int k = 1; k <= count; ++k) {
      piece.b = k == count ? last : static_cast<int>(m.nodes.size());
      if (k < count) m.nodes.push_back({.at = from + (to - from) * k / count});
      m.pieces.push_back(piece);
      piece.a = piece.b;
    }
  }
  m.row.assign(6 * m.nodes.size(), 0);
  for (const PointSupport& held : s.supports())
    for (std::size_t k = 0; k < 6; ++k) m.row[6 * held.at.index + k] = -1;
  for (std::size_t k = 0; k < m.row.size(); ++k) {
    const bool off_plane = s.is_plane() && (k % 6 == 2 || k % 6 == 3 || k % 6 == 4);
    m.row[k] = m.row[k] < 0 || off_plane ? -1 : m.size++;
  }
  m.force = Eigen::VectorXd::Zero(m.size);
  for (const Load& l : s.load_cases().front().loads())
    if (const auto* p = std::get_if<PointLoad>(&l)) {
      const double along[] = {p->force.x, p->force.y, p->force.z};
      for (std::size_t k = 0; k < 3; ++k)
        if (const int row = m.row[6 * p->at.index + k]; row >= 0) m.force(row) += along[k];
    }
  return m;
}

// Forces of the pieces and how they change with the movements of the ends.
void assemble(const Model& m, Eigen::VectorXd& inner, Eigen::MatrixXd& tangent) {
  inner = Eigen::VectorXd::Zero(m.size);
  tangent = Eigen::MatrixXd::Zero(m.size, m.size);
  for (const Piece& p : m.pieces) {
    Eigen::Matrix<Second, 12, 1> x;
    for (int i = 0; i < 12; ++i) {
      x(i).value() = Scalar(0, 12, i);
      for (int j = 0; j < 12; ++j) x(i).derivatives()(j) = Scalar(i == j ? 1 : 0);
    }
    const Second W =
        energy<Second>(p, m.nodes[static_cast<std::size_t>(p.a)], m.nodes[static_cast<std::size_t>(p.b)], x);
    for (int i = 0; i < 12; ++i) {
      const int row = m.row[static_cast<std::size_t>(6 * (i < 6 ? p.a : p.b) + i % 6)];
      if (row < 0) continue;
      inner(row) += W.derivatives()(i).value();
      for (int j = 0; j < 12; ++j)
        if (const int column = m.row[static_cast<std::size_t>(6 * (j < 6 ? p.a : p.b) + j % 6)]; column >= 0)
          tangent(row, column) += W.derivatives()(i).derivatives()(j);
    }
  }
}

// Newton's method, the load in even steps.
bool settle(Model& m) {
  constexpr int steps = 4, iterations = 40;
  for (int step = 1; step <= steps; ++step) {
    const Eigen::VectorXd load = m.force * step / steps;
    bool settled = false;
    for (int i = 0; i < iterations && !settled; ++i) {
      Eigen::VectorXd inner;
      Eigen::MatrixXd tangent;
      assemble(m, inner, tangent);
      const Eigen::VectorXd by = tangent.partialPivLu().solve(load - inner);
      if (!by.allFinite() || by.cwiseAbs().maxCoeff() > 10) return false;
      for (std::size_t n = 0; n < m.nodes.size(); ++n) {
        Eigen::Matrix<double, 6, 1> own = Eigen::Matrix<double, 6, 1>::Zero();
        for (std::size_t k = 0; k < 6; ++k)
          if (const int row = m.row[6 * n + k]; row >= 0) own(static_cast<Eigen::Index>(k)) = by(row);
        m.nodes[n].at += own.head<3>();
        m.nodes[n].turn = rotation<double>(own.tail<3>()) * m.nodes[n].turn;
      }
      settled = by.cwiseAbs().maxCoeff() < 1e-10;
    }
    if (!settled) return false;
  }
  return true;
}

}  // namespace

std::vector<Vector> rod_displacements(const Structure& s, int pieces) {
  Model coarse = model_of(s, pieces), fine = model_of(s, 2 * pieces);
  const Model before = coarse;
  if (!settle(coarse) || !settle(fine)) return {};
  std::vector<Vector> all;
  for (std::size_t i = 0; i < s.points().size(); ++i) {
    const Eigen::Vector3d at = (4 * fine.nodes[i].at - coarse.nodes[i].at) / 3 - before.nodes[i].at;
    all.push_back({at(0), at(1), at(2)});
  }
  return all;
}

}  // namespace corvex::test
