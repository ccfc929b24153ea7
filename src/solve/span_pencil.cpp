#include "solve/span_pencil.hpp"

#include <algorithm>
#include <cmath>

#include "section/worked.hpp"
#include "solve/axes_matrix.hpp"
#include "solve/rigid_arm.hpp"

namespace corvex::solver {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;

// Places of a direction's own shapes among the freedoms of the span's ends and the inner ones.
struct Direction {
  std::vector<Index> at;     // of its shapes, among all columns
  std::vector<double> sign;  // and their factors: lengths of rotations, signs
};

void add(MatrixXd& all, const MatrixXd& part, const Direction& rows, const Direction& columns, double factor) {
  for (Index j = 0; j < part.cols(); ++j)
    for (Index i = 0; i < part.rows(); ++i)
      all(rows.at[static_cast<std::size_t>(i)], columns.at[static_cast<std::size_t>(j)]) +=
          factor * part(i, j) * rows.sign[static_cast<std::size_t>(i)] * columns.sign[static_cast<std::size_t>(j)];
}
void add(MatrixXd& all, const MatrixXd& part, const Direction& d, double factor) {
  add(all, part, d, d, factor);
}

// Own ends 12, then inner shapes.
struct Own {
  MatrixXd stiffness, geometric, mass, movement;
  Index next = 12;
};

struct Plane {
  double EI = 0, GA = 0, rotary = 0;
  Index across = 1, turning = 5;  // freedoms: v and θz, or w and θy
  double sense = 1;               // of the rotation against the slope
  Index row = 1;                  // of the movement: y or z
};

struct Bending {
  std::shared_ptr<const BendingShapes> shapes;
  Direction direction;
};

Bending add_bending(Own& own, const Plane& p, double L, double mass, const AxialCourse& axial, int inner) {
  const double shear = p.GA > 0 ? p.EI / (p.GA * L * L) : 0;
  const auto shapes = bending_shapes(shear, inner);
  const Index n = shapes->stiffness.rows();
  Direction d;
  for (const Index end : {0, 6}) {
    d.at.push_back(end + p.across), d.sign.push_back(1);
    // A rotation times the length is a movement.
    d.at.push_back(end + p.turning), d.sign.push_back(L * p.sense);
  }
  for (Index i = 4; i < n; ++i) d.at.push_back(own.next++), d.sign.push_back(1);
  add(own.stiffness, shapes->stiffness, d, p.EI / (L * L * L));
  add(own.mass, shapes->mass, d, mass * L);
  if (p.rotary > 0) add(own.mass, shapes->rotary, d, p.rotary / L);
  for (const AxialCourse::Piece& piece : axial.pieces) {
    const double n[3] = {piece.n[0] / L, piece.n[1], piece.n[2] * L};
    if (axial.pieces.size() == 1)
      for (int i = 0; i < 3; ++i) add(own.geometric, shapes->slope[i], d, n[i]);
    else
      add(own.geometric, shapes->slope_between(piece.from / L, piece.to / L, n), d, 1);
  }
  for (Index place = 0; place < shape_places; ++place)
    for (Index i = 0; i < n; ++i)
      own.movement(3 * place + p.row, d.at[static_cast<std::size_t>(i)]) +=
          shapes->movement(place, i) * d.sign[static_cast<std::size_t>(i)];
  return {shapes, d};
}

// The shear forces (Vy, Vz) of unsymmetric sections shear both directions, by a matrix F of flexibilities. The energy
// ½ γᵀ F⁻¹ γ of the angles γ = s − w′ is that without the coupling and what is added here.
void add_shear_coupling(Own& own, const Bending& y, const Bending& z, const Rigidity& r, double L) {
  const double c = r.coupling, F_y = 1 / r.GAy, F_z = 1 / r.GAz, det = F_y * F_z - c * c;
  add(own.stiffness, y.shapes->slide_with(*y.shapes), y.direction, c * c / (F_y * det) / L);
  add(own.stiffness, z.shapes->slide_with(*z.shapes), z.direction, c * c / (F_z * det) / L);
  const MatrixXd both = y.shapes->slide_with(*z.shapes);
  add(own.stiffness, both, y.direction, z.direction, -c / det / L);
  add(own.stiffness, both.transpose(), z.direction, y.direction, -c / det / L);
}

void add_axial(Own& own, double rigidity, double inertia, Index freedom, double L, int inner) {
  const auto shapes = axial_shapes(inner);
  const Index n = shapes->stiffness.rows();
  Direction d{{freedom, 6 + freedom}, {1, 1}};
  for (Index i = 2; i < n; ++i) d.at.push_back(own.next++), d.sign.push_back(1);
  add(own.stiffness, shapes->stiffness, d, rigidity / L);
  add(own.mass, shapes->mass, d, inertia * L);
  if (freedom != 0) return;
  for (Index place = 0; place < shape_places; ++place)
    for (Index i = 0; i < n; ++i)
      own.movement(3 * place, d.at[static_cast<std::size_t>(i)]) += shapes->movement(place, i);
}

}  // namespace

SpanBody span_body(const Structure& s, const Member& member) {
  SpanBody b;
  b.rigidity = rigidity(s, member);
  const Section& section = s.section_of(member);
  const Material& material = s.material_of(member);
  const AreaProperties& a = section.area_properties();
  const double density = material.density.value_or(Density()).si(), E = material.E.si();
  b.mass = density * a.A.si();
  if (member.kind == MemberKind::link) {
    const bool about_z = bending_axes(s, member).z;
    b.rigidity.EIz = E * (s.is_plane() && !about_z ? a.Iy : a.Iz).si();
    b.rigidity.EIy = E * a.Iy.si();
    if (!s.is_plane() && a.Iyz.si() != 0) {
      const SectionProperties& p = section::stiffness(section);
      b.rigidity.EIz = E * p.I1.si(), b.rigidity.EIy = E * p.I2.si();
    }
    return b;
  }
  b.polar = density * (a.Iy + a.Iz).si();
  if (!s.analysis().shear) return b;
  // Rotary inertia goes with deformation by shear, in the axes in which the span bends.
  b.rotary_z = density * b.rigidity.EIz / E;
  b.rotary_y = density * b.rigidity.EIy / E;
  return b;
}

SpanPencil span_pencil(const Span& span, const Axes& axes, double turn, const SpanBody& body, const AxialCourse& axial,
                       bool plane, bool slack, const InnerShapes& inner) {
  const double L = span.length;
  const Rigidity& r = body.rigidity;
  // Of Timoshenko's beam each load brings two shapes, some of which fall together.
  const Index most = 12 + 2 * 2 * inner.bending + 2 * inner.lengthwise;
  Own own{MatrixXd::Zero(most, most), MatrixXd::Zero(most, most), MatrixXd::Zero(most, most),
          MatrixXd::Zero(3 * shape_places, most)};
  // Of a link the ends turn by themselves, below.
  add_axial(own, slack ? 0 : r.EA, body.mass, 0, L, slack ? 0 : inner.lengthwise);
  const Bending in_y = add_bending(own, {r.EIz, r.GAy, body.rotary_z, 1, 5, 1, 1}, L, body.mass, axial, inner.bending);
  if (!plane) {
    const Bending in_z =
        add_bending(own, {r.EIy, r.GAz, body.rotary_y, 2, 4, -1, 2}, L, body.mass, axial, inner.bending);
    if (r.coupling != 0 && r.GAy > 0 && r.GAz > 0) add_shear_coupling(own, in_y, in_z, r, L);
    if (span.beam) add_axial(own, r.GJ, body.polar, 3, L, inner.lengthwise);
  }
  // Ends that turn or move without their points are inner freedoms of their own.
  std::vector<Eigen::VectorXd> jumps;
  const double c = std::cos(turn), s = std::sin(turn);
  const Eigen::Vector3d own_axes[] = {{1, 0, 0}, {0, c, -s}, {0, s, c}};
  for (const Index end : {0, 1})
    for (Index k = 0; k < 6; ++k) {
      const auto component = static_cast<std::size_t>(k);
      const bool exists = !plane || k == 0 || k == 1 || k == 5;
      const bool freed = span.beam ? (end == 0 ? span.freed_a : span.freed_b)[component] : k >= 4;
      if (!exists || !freed) continue;
      Eigen::VectorXd jump = Eigen::VectorXd::Zero(12);
      jump.segment<3>(6 * end + 3 * (k / 3)) = own_axes[k % 3];
      jumps.push_back(std::move(jump));
    }
  const Index released = static_cast<Index>(jumps.size()), shapes = own.next - 12;
  // From points to own ends: arms, then axes.
  MatrixXd to = MatrixXd::Zero(own.next, 12 + released + shapes);
  const Eigen::Matrix3d turned = columns_of(axes).transpose();
  for (const Index end : {0, 1}) {
    const Vector& arm = end == 0 ? span.arm_a : span.arm_b;
    to.block<3, 3>(6 * end, 6 * end) = turned;
    to.block<3, 3>(6 * end + 3, 6 * end + 3) = turned;
    if (span.armed) to.block<3, 3>(6 * end, 6 * end + 3) = turned * lever(arm);
  }
  for (Index i = 0; i < released; ++i) to.block(0, 12 + i, 12, 1) = jumps[static_cast<std::size_t>(i)];
  to.bottomRightCorner(shapes, shapes).setIdentity();
  const auto carried = [&](const MatrixXd& m) -> MatrixXd {
    return to.transpose() * m.topLeftCorner(own.next, own.next) * to;
  };
  SpanPencil p;
  p.stiffness = carried(own.stiffness);
  p.geometric = axial.none() ? MatrixXd() : carried(own.geometric);
  p.mass = carried(own.mass);
  MatrixXd moved = own.movement.leftCols(own.next) * to;
  for (Index place = 0; place < shape_places; ++place)
    moved.middleRows(3 * place, 3) = turned.transpose() * moved.middleRows(3 * place, 3).eval();
  p.movement = std::move(moved);
  return p;
}

}  // namespace corvex::solver
