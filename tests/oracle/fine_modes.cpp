#include "oracle/fine_modes.hpp"

#include <Eigen/Cholesky>
#include <Eigen/Eigenvalues>
#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <numbers>

namespace corvex::test {
namespace {

using Matrix = Eigen::MatrixXd;
using Matrix12 = Eigen::Matrix<double, 12, 12>;

struct Figures {
  double EA, EIy, EIz, GJ, GAy, GAz, m, rotary_y, rotary_z, polar;
};

Figures figures(const Structure& s, const Member& m) {
  const SectionProperties& p = s.section_of(m).properties();
  const Material& material = s.material_of(m);
  const double E = material.E.si(), G = material.shear_modulus().si(), density = material.density->si();
  const bool link = m.kind == MemberKind::link, shear = s.analysis().shear && !link;
  Figures f{E * p.A.si(),
            E * p.Iy.si(),
            E * p.Iz.si(),
            link ? 0 : G * p.J.si(),
            shear ? G * p.Ay.si() : 0,
            shear ? G * p.Az.si() : 0,
            density * p.A.si(),
            shear ? density * p.Iy.si() : 0,
            shear ? density * p.Iz.si() : 0,
            link ? 0 : density * (p.Iy.si() + p.Iz.si())};
  // In the plane the member bends about the axis that is square to it.
  if (s.is_plane() && bending_axes(s, m).y)
    std::swap(f.EIy, f.EIz), std::swap(f.GAy, f.GAz), std::swap(f.rotary_y, f.rotary_z);
  return f;
}

// Stiffness, mass and geometric stiffness of one piece, in its own axes.
struct Piece {
  Matrix12 K = Matrix12::Zero(), M = Matrix12::Zero(), G = Matrix12::Zero();
};

// One bending plane: the four degrees of freedom with their signs.
void add_plane(Piece& piece, double EI, double GA, double m, double rotary, double L,
               const std::function<double(double)>& axial, int v, int turn, double sense) {
  const double phi = GA > 0 ? 12 * EI / (GA * L * L) : 0, d = 1 + phi;
  const int at[] = {v, turn, 6 + v, 6 + turn};
  const double sign[] = {1, sense, 1, sense};
  constexpr double node[] = {0.04691007703066800, 0.23076534494715845, 0.5, 0.76923465505284155, 0.95308992296933200};
  constexpr double weight[] = {0.11846344252809454, 0.23931433524968324, 0.28444444444444444, 0.23931433524968324,
                               0.11846344252809454};
  for (int g = 0; g < 5; ++g) {
    const double x = node[g], h = weight[g] * L;
    const double w[] = {(1 - 3 * x * x + 2 * x * x * x + phi * (1 - x)) / d,
                        L * (x - 2 * x * x + x * x * x + phi / 2 * (x - x * x)) / d,
                        (3 * x * x - 2 * x * x * x + phi * x) / d,
                        L * (-x * x + x * x * x - phi / 2 * (x - x * x)) / d};
    const double t[] = {6 * (x * x - x) / (L * d), (1 - 4 * x + 3 * x * x + phi * (1 - x)) / d,
                        6 * (x - x * x) / (L * d), (-2 * x + 3 * x * x + phi * x) / d};
    const double c[] = {6 * (2 * x - 1) / (L * L * d), (-4 + 6 * x - phi) / (L * d), 6 * (1 - 2 * x) / (L * L * d),
                        (-2 + 6 * x + phi) / (L * d)};
    const double s[] = {(-6 * x + 6 * x * x - phi) / (L * d), (1 - 4 * x + 3 * x * x + phi / 2 * (1 - 2 * x)) / d,
                        (6 * x - 6 * x * x + phi) / (L * d), (-2 * x + 3 * x * x - phi / 2 * (1 - 2 * x)) / d};
    const double N = axial(x * L);
    for (int i = 0; i < 4; ++i)
      for (int j = 0; j < 4; ++j) {
        const double both = sign[i] * sign[j] * h;
        piece.K(at[i], at[j]) += both * (EI * c[i] * c[j] + GA * (s[i] - t[i]) * (s[j] - t[j]));
        piece.M(at[i], at[j]) += both * (m * w[i] * w[j] + rotary * t[i] * t[j]);
        piece.G(at[i], at[j]) += both * N * s[i] * s[j];
      }
  }
}

void add_along(Piece& piece, double rigidity, double inertia, double L, int at) {
  for (const int i : {0, 1})
    for (const int j : {0, 1}) {
      piece.K(at + 6 * i, at + 6 * j) += (i == j ? 1 : -1) * rigidity / L;
      piece.M(at + 6 * i, at + 6 * j) += (i == j ? 2 : 1) * inertia * L / 6;
    }
}

// All matrices of a structure, held and idle degrees of freedom left out.
struct Whole {
  Matrix K, M, G;
  std::vector<Eigen::Index> kept;  // of all degrees of freedom, of which the first six are those of the first point
};

Whole assembled(const Structure& s, const CaseResult* result, int pieces) {
  const bool plane = s.is_plane();
  std::vector<std::array<int, 6>> nodes(s.points().size());
  int next = 0;
  const auto new_node = [&] {
    std::array<int, 6> n{};
    for (int& f : n) f = next++;
    return n;
  };
  for (auto& n : nodes) n = new_node();
  struct Part {
    std::array<int, 12> at;
    Matrix12 K, M, G;
  };
  std::vector<Part> parts;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    Member flat = m;
    if (plane) flat.roll = 0;
    const Axes a = local_axes(s, flat);
    const Figures f = figures(s, m);
    const bool link = m.kind == MemberKind::link;
    std::optional<Diagram> axial;
    if (result) axial = (*result)[MemberId(i)].axial();
    Eigen::Matrix3d r;
    r << a.x.x, a.x.y, a.x.z, a.y.x, a.y.y, a.y.z, a.z.x, a.z.y, a.z.z;
    Matrix12 turn = Matrix12::Zero();
    for (int k = 0; k < 4; ++k) turn.block<3, 3>(3 * k, 3 * k) = r;
    for (std::size_t k = 0; k + 1 < m.through.size(); ++k) {
      const double from = s.place_of(m, k), L = (s.place_of(m, k + 1) - from) / pieces;
      std::array<int, 6> start = nodes[m.through[k].index];
      const bool first = k == 0, last = k + 2 == m.through.size();
      // A hinged end turns by itself; torsion is passed on by beams. Its own rotations are counted in the member's
      // axes, so that only those about y and z are new.
      const auto hinged = [&](bool at_start) {
        return link || (at_start ? m.freed_start[5] || m.freed_start[4] : m.freed_end[5] || m.freed_end[4]);
      };
      for (int p = 0; p < pieces; ++p) {
        const std::array<int, 6> end = p + 1 == pieces ? nodes[m.through[k + 1].index] : new_node();
        Piece piece;
        const auto along = [&](double x) {
          const double at = std::min(from + p * L + x, s.length_of(m));
          return axial ? axial->at(Length::si(at)).si : 0;
        };
        add_along(piece, f.EA, f.m, L, 0);
        if (!plane && f.GJ > 0) add_along(piece, f.GJ, f.polar, L, 3);
        add_plane(piece, f.EIz, f.GAy, f.m, f.rotary_z, L, along, 1, 5, 1);
        if (!plane) add_plane(piece, f.EIy, f.GAz, f.m, f.rotary_y, L, along, 2, 4, -1);
        Part part{{},
                  turn.transpose() * piece.K * turn,
                  turn.transpose() * piece.M * turn,
                  turn.transpose() * piece.G * turn};
        for (std::size_t c = 0; c < 6; ++c) part.at[c] = start[c], part.at[6 + c] = end[c];
        // Own rotations at a hinge: three new degrees of freedom along the member's axes, of which the first is that of
        // the joint.
        for (const bool at_start : {true, false}) {
          const bool here = at_start ? (p == 0 && first) : (p + 1 == pieces && last);
          if (!here || !hinged(at_start)) continue;
          const int base = at_start ? 3 : 9;
          // Rows in the member's axes again, at this end alone.
          Matrix12 back = Matrix12::Identity();
          back.block<3, 3>(base, base) = r.transpose();
          part.K = (back.transpose() * part.K * back).eval();
          part.M = (back.transpose() * part.M * back).eval();
          part.G = (back.transpose() * part.G * back).eval();
          for (int c = 0; c < 3; ++c) part.at[static_cast<std::size_t>(base + c)] = next++;
          // Torsion goes on into the joint by a stiff spring, only in space and of beams.
          if (!plane && !link) {
            Part tie{{}, Matrix12::Zero(), Matrix12::Zero(), Matrix12::Zero()};
            const std::array<int, 6>& joint = at_start ? start : end;
            for (std::size_t c = 0; c < 3; ++c)
              tie.at[c] = joint[3 + c], tie.at[3 + c] = part.at[static_cast<std::size_t>(base) + c];
            for (std::size_t c = 6; c < 12; ++c) tie.at[c] = tie.at[0];
            Eigen::Matrix<double, 6, 1> apart;
            apart << a.x.x, a.x.y, a.x.z, -1, 0, 0;
            tie.K.topLeftCorner<6, 6>() = 1e5 * f.GJ / L * apart * apart.transpose();
            parts.push_back(tie);
          }
        }
        parts.push_back(part);
        start = end;
      }
    }
  }
  std::vector<bool> held(static_cast<std::size_t>(next), false);
  for (const PointSupport& p : s.supports())
    for (std::size_t c = 0; c < 6; ++c)
      if (p.held[c]) held[static_cast<std::size_t>(nodes[p.at.index][c])] = true;
  Matrix K = Matrix::Zero(next, next), M = K, G = K;
  for (const Part& p : parts)
    for (std::size_t i = 0; i < 12; ++i)
      for (std::size_t j = 0; j < 12; ++j) {
        const auto r = static_cast<Eigen::Index>(i), c = static_cast<Eigen::Index>(j);
        K(p.at[i], p.at[j]) += p.K(r, c), M(p.at[i], p.at[j]) += p.M(r, c), G(p.at[i], p.at[j]) += p.G(r, c);
      }
  for (const PointMass& m : s.point_masses())
    for (std::size_t c = 0; c < 3; ++c) M(nodes[m.at.index][c], nodes[m.at.index][c]) += m.mass;
  std::vector<Eigen::Index> kept;
  const double largest = K.diagonal().maxCoeff();
  for (Eigen::Index i = 0; i < next; ++i)
    if (!held[static_cast<std::size_t>(i)] && K(i, i) > 1e-14 * largest) kept.push_back(i);
  return {K(kept, kept), M(kept, kept), G(kept, kept), kept};
}

// The reciprocals of the largest eigenvalues of K⁻¹ S.
std::vector<double> values(const Matrix& K, const Matrix& S, std::size_t count) {
  // A trace of stiffness for joints that only turn about their own axis.
  Matrix safe = K;
  safe.diagonal() *= 1 + 1e-12;
  const Eigen::GeneralizedSelfAdjointEigenSolver<Matrix> solver(S, safe, Eigen::EigenvaluesOnly);
  std::vector<double> all;
  for (Eigen::Index i = solver.eigenvalues().size(); i-- > 0 && all.size() < count;)
    if (solver.eigenvalues()(i) > 1e-12) all.push_back(1 / solver.eigenvalues()(i));
  return all;
}

}  // namespace

std::vector<double> fine_frequencies(const Structure& structure, int pieces, std::size_t count) {
  const Whole w = assembled(structure, nullptr, pieces);
  std::vector<double> all = values(w.K, w.M, count);
  for (double& v : all) v = std::sqrt(v) / (2 * std::numbers::pi);
  return all;
}

std::vector<Vector> fine_displacements(const Solution& solution, std::size_t load_case, int pieces) {
  const CaseResult result = solution[load_case];
  const Structure& s = solution.structure();
  const Whole w = assembled(s, &result, pieces);
  Eigen::VectorXd f = Eigen::VectorXd::Zero(w.K.rows());
  const auto load = [&](const LoadCase& c, double factor) {
    for (const Load& l : c.loads())
      if (const auto* p = std::get_if<PointLoad>(&l))
        for (std::size_t i = 0; i < w.kept.size(); ++i) {
          const Eigen::Index k = w.kept[i] - static_cast<Eigen::Index>(6 * p->at.index);
          const double six[] = {p->force.x, p->force.y, p->force.z, p->moment.x, p->moment.y, p->moment.z};
          if (k >= 0 && k < 6) f(static_cast<Eigen::Index>(i)) += factor * six[k];
        }
  };
  const std::size_t cases = s.load_cases().size();
  if (load_case < cases)
    load(s.load_cases()[load_case], 1);
  else
    for (const Combination::Term& t : s.combinations()[load_case - cases].terms)
      load(s.load_cases()[t.load_case], t.factor);
  const Eigen::VectorXd z = (w.K + w.G).ldlt().solve(f);
  std::vector<Vector> all(s.points().size());
  for (std::size_t i = 0; i < w.kept.size(); ++i) {
    const auto point = static_cast<std::size_t>(w.kept[i] / 6);
    if (point >= all.size()) continue;
    double* const parts[] = {&all[point].x, &all[point].y, &all[point].z};
    if (w.kept[i] % 6 < 3) *parts[w.kept[i] % 6] = z(static_cast<Eigen::Index>(i));
  }
  return all;
}

std::vector<double> fine_factors(const Solution& solution, std::size_t load_case, int pieces, std::size_t count) {
  const CaseResult result = solution[load_case];
  const Whole w = assembled(solution.structure(), &result, pieces);
  return values(w.K, -w.G, count);
}

}  // namespace corvex::test
