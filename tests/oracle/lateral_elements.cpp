#include "oracle/lateral_elements.hpp"

#include <Eigen/Cholesky>
#include <Eigen/Eigenvalues>
#include <cmath>
#include <limits>

namespace corvex::test {
namespace {

using Matrix = Eigen::MatrixXd;
using Matrix8 = Eigen::Matrix<double, 8, 8>;
using Vector8 = Eigen::Matrix<double, 8, 1>;

// Cubic functions of w and w′, or φ and φ′, at both ends, and their derivatives.
struct Cubic {
  double f[4], d[4], dd[4];
  Cubic(double x, double L) {
    const double f_[] = {1 - 3 * x * x + 2 * x * x * x, L * (x - 2 * x * x + x * x * x), 3 * x * x - 2 * x * x * x,
                         L * (x * x * x - x * x)};
    const double d_[] = {(-6 * x + 6 * x * x) / L, 1 - 4 * x + 3 * x * x, (6 * x - 6 * x * x) / L, 3 * x * x - 2 * x};
    const double dd_[] = {(-6 + 12 * x) / (L * L), (-4 + 6 * x) / L, (6 - 12 * x) / (L * L), (6 * x - 2) / L};
    for (int i = 0; i < 4; ++i) f[i] = f_[i], d[i] = d_[i], dd[i] = dd_[i];
  }
};

// In the order w, w′ at the start, w, w′ at the end, then φ, φ′ likewise.
struct Piece {
  Matrix8 K = Matrix8::Zero(), G = Matrix8::Zero();
};

Piece piece_of(double EI, double GJ, double ECw, double polar, double L, double N0, double N1, double M0, double M1) {
  Piece p;
  constexpr double node[] = {0.04691007703066800, 0.23076534494715845, 0.5, 0.76923465505284155, 0.95308992296933200};
  constexpr double weight[] = {0.11846344252809454, 0.23931433524968324, 0.28444444444444444, 0.23931433524968324,
                               0.11846344252809454};
  for (int g = 0; g < 5; ++g) {
    const double x = node[g], h = weight[g] * L, N = N0 + (N1 - N0) * x, M = M0 + (M1 - M0) * x;
    const Cubic c(x, L);
    Vector8 w1 = Vector8::Zero(), w2 = Vector8::Zero(), t0 = Vector8::Zero(), t1 = Vector8::Zero(),
            t2 = Vector8::Zero();
    for (int i = 0; i < 4; ++i)
      w1(i) = c.d[i], w2(i) = c.dd[i], t0(4 + i) = c.f[i], t1(4 + i) = c.d[i], t2(4 + i) = c.dd[i];
    p.K += h * (EI * w2 * w2.transpose() + GJ * t1 * t1.transpose() + ECw * t2 * t2.transpose());
    p.G +=
        h * (N * (w1 * w1.transpose() + polar * t1 * t1.transpose()) + M * (t0 * w2.transpose() + w2 * t0.transpose()));
  }
  return p;
}

}  // namespace

double lateral_factor(const Solution& plane, std::size_t load_case, int pieces) {
  const Structure& s = plane.structure();
  // Of each point the displacement out of the plane and the rotations about x and y; of each member the places between
  // its points and the rates of twist.
  const std::size_t points = s.points().size();
  std::size_t count = 3 * points;
  std::vector<bool> held;
  struct Chain {
    std::size_t member;
    std::vector<std::array<long, 4>> node;  // w, w′, φ, φ′; −1 − point: of a point
    std::vector<double> at;
  };
  std::vector<Chain> chains;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    Chain c{i, {}, {}};
    for (std::size_t k = 0; k + 1 < m.through.size(); ++k) {
      const double from = s.place_of(m, k), to = k + 2 == m.through.size() ? s.length_of(m) : s.place_of(m, k + 1);
      for (int j = 0; j < pieces; ++j) {
        c.at.push_back(from + (to - from) * j / pieces);
        if (j == 0)
          c.node.push_back({-1 - static_cast<long>(m.through[k].index), 0, 0, static_cast<long>(count++)});
        else
          c.node.push_back({static_cast<long>(count), static_cast<long>(count + 1), static_cast<long>(count + 2),
                            static_cast<long>(count + 3)}),
              count += 4;
      }
    }
    c.at.push_back(s.length_of(m));
    c.node.push_back({-1 - static_cast<long>(m.through.back().index), 0, 0, static_cast<long>(count++)});
    chains.push_back(std::move(c));
  }
  held.assign(count, false);
  for (const PointSupport& p : s.supports())
    if (p.held[0] || p.held[1]) held[3 * p.at.index] = true;
  const auto n = static_cast<Eigen::Index>(count);
  Matrix K = Matrix::Zero(n, n), G = Matrix::Zero(n, n);
  // Twist that is held: a very stiff restraint.
  constexpr double rigid = 1e12;
  for (const Chain& c : chains) {
    const Member& m = s.members()[c.member];
    const Axes axes = local_axes(s, m);
    const SectionProperties& p = s.section_of(m).properties();
    const Material& material = s.material_of(m);
    const double E = material.E.si(), EI = E * p.Iy.si(), GJ = material.shear_modulus().si() * p.J.si(),
                 ECw = E * s.section_of(m).details().Cw.si(), polar = (p.Iy.si() + p.Iz.si()) / p.A.si();
    const MemberResult r = plane[load_case][MemberId(c.member)];
    // From the degrees of freedom to w, w′, φ, φ′ of a node: w′ = −θ·y, φ = θ·x of the member's axes.
    const auto column = [&](std::size_t k) {
      Matrix t = Matrix::Zero(4, n);
      const auto& node = c.node[k];
      if (node[0] >= 0) {
        for (int q = 0; q < 4; ++q) t(q, node[static_cast<std::size_t>(q)]) = 1;
        return t;
      }
      const Eigen::Index point = -1 - node[0];
      t(0, 3 * point) = 1;
      t(1, 3 * point + 1) = -axes.y.x, t(1, 3 * point + 2) = -axes.y.y;
      t(2, 3 * point + 1) = axes.x.x, t(2, 3 * point + 2) = axes.x.y;
      t(3, node[3]) = 1;
      return t;
    };
    for (std::size_t k = 0; k + 1 < c.at.size(); ++k) {
      const double a = c.at[k], b = c.at[k + 1];
      const Length at = Length::si(a), to = Length::si(b);
      const Piece piece =
          piece_of(EI, GJ, ECw, polar, b - a, r.axial().at(at).si(), r.axial().at(to, Side::before).si(),
                   r.moment_z().at(at).si(), r.moment_z().at(to, Side::before).si());
      Matrix T = Matrix::Zero(8, n);
      const Matrix first = column(k), last = column(k + 1);
      T.row(0) = first.row(0), T.row(1) = first.row(1), T.row(2) = last.row(0), T.row(3) = last.row(1);
      T.row(4) = first.row(2), T.row(5) = first.row(3), T.row(6) = last.row(2), T.row(7) = last.row(3);
      K += T.transpose() * piece.K * T;
      G += T.transpose() * piece.G * T;
    }
    const auto hold_twist = [&](PointId p_) {
      for (std::size_t k = 0; k < c.node.size(); ++k)
        if (c.node[k][0] == -1 - static_cast<long>(p_.index)) {
          const Matrix t = column(k).row(2);
          K += rigid * t.transpose() * t;
          return;
        }
    };
    for (const PointSupport& p_ : s.supports())
      if (p_.held[0] || p_.held[1]) hold_twist(p_.at);
    for (const Bracing& b : s.bracing())
      if (b.member.index == c.member)
        for (const PointId p_ : b.at) held[3 * p_.index] = true, hold_twist(p_);
  }
  std::vector<Eigen::Index> free;
  for (Eigen::Index i = 0; i < n; ++i)
    if (!held[static_cast<std::size_t>(i)] && K(i, i) > 0) free.push_back(i);
  const Matrix k = K(free, free), g = G(free, free);
  const Eigen::LLT<Matrix> llt(k);
  if (llt.info() != Eigen::Success) return 0;
  Matrix m = llt.matrixL().solve(-g);
  m = llt.matrixL().solve(m.transpose().eval());
  const double most =
      Eigen::SelfAdjointEigenSolver<Matrix>((m + m.transpose()) / 2, Eigen::EigenvaluesOnly).eigenvalues().maxCoeff();
  return most > 0 ? 1 / most : std::numeric_limits<double>::infinity();
}

}  // namespace corvex::test
