#include "analysis/large_mesh.hpp"

#include <Eigen/Geometry>
#include <cmath>

#include "algebra/dense.hpp"

namespace corvex::solver {

using Eigen::Matrix3d;
using Eigen::Vector3d;

AnalysedCase::AnalysedCase(const Structure& s, const System& sys, const LoadedCase& c)
    : structure(s),
      system(sys),
      load_case(c),
      size(s.bounds().diagonal()),
      directions(s.is_plane() ? std::vector{0, 1, 5} : std::vector{0, 1, 2, 3, 4, 5}) {}

namespace {

LargeJoint joint(const AnalysedCase& given, LargeMesh& mesh, std::size_t i, bool at_start) {
  const Span& span = given.system.spans.all[i];
  LargeJoint j;
  j.node = at_start ? span.a : span.b;
  j.arm = column(at_start ? span.arm_a : span.arm_b);
  j.section = columns_of(given.system.spans.axes[span.member]);
  if (!span.beam) return j;
  const double turn = principal_turn(given.structure, given.structure.members()[span.member]), c = std::cos(turn),
               sn = std::sin(turn);
  const Vector3d own[] = {{1, 0, 0}, {0, c, -sn}, {0, sn, c}};
  const std::array<bool, 6>& freed = at_start ? span.freed_a : span.freed_b;
  for (std::size_t k = 0; k < 3; ++k) {
    if (!freed[3 + k]) continue;
    // In the plane only what turns in it.
    if (given.structure.is_plane() && std::abs((j.section * own[k]).z()) < 0.5) continue;
    j.hinge.push_back(own[k]), j.angle.push_back(0), j.dof.push_back(mesh.unknowns++);
  }
  return j;
}

void add_link(const AnalysedCase& given, LargeMesh& mesh, std::size_t i, LargePiece whole) {
  const Span& span = given.system.spans.all[i];
  const Rigidity& r = given.system.elements[i].rigidity();
  const Matrix3d axes = columns_of(given.system.spans.axes[span.member]);
  const auto loads = given.load_case.acting->loads.on(i);
  whole.link = true, whole.EA = r.EA, whole.acts = given.structure.members()[span.member].acts;
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
  mesh.pieces.push_back(whole);
}

// A beam cut where its loads change, and each of these pieces in so many parts.
std::vector<RodPiece> rods_of(const AnalysedCase& given, LargeMesh& mesh, std::size_t i, int parts) {
  const Span& span = given.system.spans.all[i];
  const Flexibility f(given.system.elements[i].rigidity());
  const Matrix3d axes = columns_of(given.system.spans.axes[span.member]);
  const auto loads = given.load_case.acting->loads.on(i);
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
      mesh.end_loads.push_back({mesh.pieces.size() + rods.size() - 1, rod.jump_force, rod.jump_moment});
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

void add_span(const AnalysedCase& given, LargeMesh& mesh, std::size_t i, int parts) {
  const Span& span = given.system.spans.all[i];
  const Matrix3d axes = columns_of(given.system.spans.axes[span.member]);
  LargePiece whole;
  whole.span = i, whole.a = joint(given, mesh, i, true), whole.b = joint(given, mesh, i, false);
  if (!span.beam) return add_link(given, mesh, i, whole);
  const std::vector<RodPiece> rods = rods_of(given, mesh, i, parts);
  const Vector3d start = mesh.nodes[span.a].first + whole.a.arm;
  for (std::size_t k = 0; k < rods.size(); ++k) {
    LargePiece piece = whole;
    piece.rod = rods[k];
    if (k > 0) piece.a = mesh.pieces.back().b;
    if (k + 1 < rods.size()) {
      LargeNode n;
      n.first = n.pose.r = start + axes.col(0) * (rods[k].from + rods[k].length);
      for (const int d : given.directions) n.dof[static_cast<std::size_t>(d)] = mesh.unknowns++;
      piece.b = {};
      piece.b.node = mesh.nodes.size(), piece.b.section = axes;
      mesh.nodes.push_back(n);
    }
    mesh.pieces.push_back(piece);
  }
}

}  // namespace

LargeMesh large_mesh(const AnalysedCase& given, int parts) {
  LargeMesh mesh;
  const Dofs& f = given.system.dofs;
  mesh.unknowns = f.equations;
  for (std::size_t p = 0; p < given.structure.points().size(); ++p) {
    LargeNode n;
    n.first = n.pose.r = column(given.structure.points()[p].position);
    if (!f.equation.empty()) n.dof = f.equation[p];
    n.frame = f.frame(p);
    mesh.nodes.push_back(n);
  }
  for (std::size_t i = 0; i < given.system.spans.all.size(); ++i) add_span(given, mesh, i, parts);
  return mesh;
}

}  // namespace corvex::solver
