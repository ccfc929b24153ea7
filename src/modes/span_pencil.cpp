#include "modes/span_pencil.hpp"

#include <algorithm>
#include <cmath>

#include "algebra/products.hpp"
#include "beam/axes_matrix.hpp"
#include "beam/rigid_arm.hpp"
#include "section/worked.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

using Eigen::Index;
using Eigen::MatrixXd;

// Places of a direction's own shapes among the degrees of freedom of the span's ends and the inner ones.
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

// A piece of a span between two places, its axial force counted from its own start.
struct Cut {
  double from = 0, length = 0;
  AxialCourse axial{};
  Index a = 0, b = 6;  // where the degrees of freedom of its ends begin
};

// Where the axial force jumps, shapes have kinks in their higher derivatives, which polynomials follow badly: the span
// is cut there. Pieces that are very short would cost digits; jumps that are so near each other stay inside a piece.
std::vector<Cut> cut_at_jumps(const AxialCourse& axial, double L) {
  constexpr double least = 1e-4;
  std::vector<Cut> cuts(1);
  for (const AxialCourse::Piece& p : axial.pieces) {
    if (p.from - cuts.back().from > least * L && L - p.from > least * L) {
      cuts.back().length = p.from - cuts.back().from;
      cuts.push_back({.from = p.from});
    }
    const double x = cuts.back().from;
    cuts.back().axial.pieces.push_back({p.from - x, p.to - x, {p.at(x), p.n[1] + 2 * x * p.n[2], p.n[2]}});
  }
  cuts.back().length = L - cuts.back().from;
  // Ends of the span, then joints between pieces.
  for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
    const Index joint = 12 + 6 * static_cast<Index>(i);
    cuts[i].b = joint, cuts[i + 1].a = joint;
  }
  if (cuts.size() > 1) cuts.back().b = 6;
  return cuts;
}

// Where the places of the whole span lie that are on this piece, from 0 to 1 of it; and the first of them.
struct Places {
  Index first = 0;
  Eigen::VectorXd at;
};
Places places_on(const Cut& cut, double L) {
  Places all;
  std::vector<double> at;
  for (Index i = 0; i < SpanPencil::places; ++i) {
    const double x = L * static_cast<double>(i) / (SpanPencil::places - 1);
    const bool here = x >= cut.from && (x < cut.from + cut.length || i + 1 == SpanPencil::places);
    if (!here) continue;
    if (at.empty()) all.first = i;
    at.push_back(std::min((x - cut.from) / cut.length, 1.0));
  }
  all.at = Eigen::Map<const Eigen::VectorXd>(at.data(), static_cast<Index>(at.size()));
  return all;
}

// Own ends 12, joints between pieces 6 each, then inner shapes.
struct Own {
  MatrixXd stiffness, geometric, mass, movement;
  Index next = 12;
};

struct Plane {
  double EI = 0, GA = 0, rotary = 0;
  Index across = 1, turning = 5;  // degrees of freedom: v and θz, or w and θy
  double sense = 1;               // of the rotation against the slope
  Index row = 1;                  // of the movement: y or z
  bool held = false;              // by bracing: no effect of the axial force
};

struct Bending {
  std::shared_ptr<const BendingShapes> shapes;
  Direction direction;
};

// A link whose section has no second moment of area stays straight: its ends move across it and nothing resists their
// turning.
Bending add_straight(Own& own, const Plane& p, const Cut& cut, const Places& places, double mass) {
  const auto shapes = axial_shapes(0);
  const Direction d{{cut.a + p.across, cut.b + p.across}, {1, 1}};
  // ∫ N v′² dx with v′ = (v_b − v_a)/L.
  if (!p.held) add(own.geometric, shapes->stiffness, d, cut.axial.mean() / cut.length);
  add(own.mass, shapes->mass, d, mass * cut.length);
  const MatrixXd moved = shapes->movement_at(places.at);
  for (Index place = 0; place < moved.rows(); ++place)
    for (std::size_t i = 0; i < 2; ++i)
      own.movement(3 * (places.first + place) + p.row, d.at[i]) += moved(place, static_cast<Index>(i));
  return {};
}

Bending add_bending(Own& own, const Plane& p, const Cut& cut, const Places& places, double mass, int inner) {
  if (!(p.EI > 0)) return add_straight(own, p, cut, places, mass);
  const double L = cut.length, shear = p.GA > 0 ? p.EI / (p.GA * L * L) : 0;
  const auto shapes = bending_shapes(shear, inner);
  const Index n = shapes->stiffness.rows();
  Direction d;
  for (const Index end : {cut.a, cut.b}) {
    d.at.push_back(end + p.across), d.sign.push_back(1);
    // A rotation times the length is a movement.
    d.at.push_back(end + p.turning), d.sign.push_back(L * p.sense);
  }
  for (Index i = 4; i < n; ++i) d.at.push_back(own.next++), d.sign.push_back(1);
  add(own.stiffness, shapes->stiffness, d, p.EI / (L * L * L));
  add(own.mass, shapes->mass, d, mass * L);
  if (p.rotary > 0) add(own.mass, shapes->rotary, d, p.rotary / L);
  for (const AxialCourse::Piece& piece : cut.axial.pieces) {
    if (p.held) break;
    const double N[3] = {piece.n[0] / L, piece.n[1], piece.n[2] * L};
    if (cut.axial.pieces.size() == 1)
      for (int i = 0; i < 3; ++i) add(own.geometric, shapes->slope[i], d, N[i]);
    else
      add(own.geometric, shapes->slope_between(piece.from / L, piece.to / L, N), d, 1);
  }
  const MatrixXd moved = shapes->movement_at(places.at);
  for (Index place = 0; place < moved.rows(); ++place)
    for (Index i = 0; i < n; ++i)
      own.movement(3 * (places.first + place) + p.row, d.at[static_cast<std::size_t>(i)]) +=
          moved(place, i) * d.sign[static_cast<std::size_t>(i)];
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

// Along the span, or in torsion: degree of freedom 0 or 3.
struct Lengthwise {
  double rigidity, inertia;
  Index freedom;
};
void add_axial(Own& own, const Lengthwise& bar, const Cut& cut, const Places& places, int inner) {
  const auto [rigidity, inertia, freedom] = bar;
  const auto shapes = axial_shapes(inner);
  const Index n = shapes->stiffness.rows();
  Direction d{{cut.a + freedom, cut.b + freedom}, {1, 1}};
  for (Index i = 2; i < n; ++i) d.at.push_back(own.next++), d.sign.push_back(1);
  add(own.stiffness, shapes->stiffness, d, rigidity / cut.length);
  add(own.mass, shapes->mass, d, inertia * cut.length);
  if (freedom != 0) return;
  const MatrixXd moved = shapes->movement_at(places.at);
  for (Index place = 0; place < moved.rows(); ++place)
    for (Index i = 0; i < n; ++i)
      own.movement(3 * (places.first + place), d.at[static_cast<std::size_t>(i)]) += moved(place, i);
}

// Of so many shapes for the whole span those for a piece of it: see shapes_for in eigen_modes.cpp. Jumps that stay
// inside take more.
InnerShapes share_of(const InnerShapes& whole, const Cut& cut, double L) {
  constexpr int few = 4, for_jumps = 8;
  const auto share = [&](int n) {
    return n <= few ? n : few + static_cast<int>(std::ceil((n - few) * cut.length / L));
  };
  return {share(whole.bending) + (cut.axial.pieces.size() > 1 ? for_jumps : 0), share(whole.lengthwise)};
}

// How the joints between pieces follow the ends of the whole span in statics, and its stiffness against these.
struct Followed {
  MatrixXd joints, stiffness;  // 6 rows a joint; 12 × 12
};

void follow_bending(Followed& f, const Plane& p, const std::vector<Cut>& cuts, double L) {
  const auto whole = bending_shapes(p.GA > 0 ? p.EI / (p.GA * L * L) : 0, 0);
  const Direction d{{p.across, p.turning, 6 + p.across, 6 + p.turning}, {1, L * p.sense, 1, L * p.sense}};
  add(f.stiffness, whole->stiffness, d, p.EI / (L * L * L));
  for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
    const Eigen::VectorXd at = Eigen::VectorXd::Constant(1, cuts[i + 1].from / L);
    const MatrixXd moved = whole->movement_at(at), turned = whole->rotation_at(at);
    for (std::size_t k = 0; k < 4; ++k) {
      const auto column = static_cast<Index>(k), joint = 6 * static_cast<Index>(i);
      f.joints(joint + p.across, d.at[k]) += moved(0, column) * d.sign[k];
      f.joints(joint + p.turning, d.at[k]) += p.sense * turned(0, column) * d.sign[k] / L;
    }
  }
}

void follow_lengthwise(Followed& f, double rigidity, Index freedom, const std::vector<Cut>& cuts, double L) {
  add(f.stiffness, axial_shapes(0)->stiffness, {{freedom, 6 + freedom}, {1, 1}}, rigidity / L);
  for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
    const double share = cuts[i + 1].from / L;
    const Index row = 6 * static_cast<Index>(i) + freedom;
    f.joints(row, freedom) += 1 - share, f.joints(row, 6 + freedom) += share;
  }
}

// Movements of joints counted from where they follow the ends to. Without it a short piece, which is stiff, would take
// digits from the stiffness of the whole span. `exact`: that of the ends is the one of statics, and nothing joins it to
// the inner ones.
void count_from_ends(Own& own, const Followed& f, bool exact) {
  const Index n = f.joints.rows();
  for (MatrixXd* m : {&own.stiffness, &own.geometric, &own.mass}) {
    m->leftCols(12) += times(m->middleCols(12, n), f.joints);
    m->topRows(12) += transposed_times(f.joints, m->middleRows(12, n));
  }
  own.movement.leftCols(12) += times(own.movement.middleCols(12, n), f.joints);
  if (!exact) return;
  own.stiffness.leftCols(12).setZero(), own.stiffness.topRows(12).setZero();
  own.stiffness.topLeftCorner(12, 12) = f.stiffness;
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

namespace {

// The matrices of a span in its local axes: the degrees of freedom of its ends, of the joints between its pieces, then
// inner ones.
struct Filled {
  Own own;
  Index joints_end;  // behind the degrees of freedom of the joints
};

Filled fill_pieces(const SpanInput& in) {
  const double L = in.span.length;
  const SpanBody& body = in.body;
  const Rigidity& r = body.rigidity;
  // A span that remains straight is one piece.
  const std::vector<Cut> cuts =
      in.bends_y() && in.bends_z() ? cut_at_jumps(in.axial, L) : std::vector<Cut>{{0, L, in.axial}};
  // Of Timoshenko's beam each load brings two shapes, some of which fall together.
  Index most = 12;
  for (const Cut& cut : cuts) {
    const InnerShapes n = share_of(in.inner, cut, L);
    most += 6 + 2 * 2 * n.bending + 2 * n.lengthwise;
  }
  Own own{MatrixXd::Zero(most, most), MatrixXd::Zero(most, most), MatrixXd::Zero(most, most),
          MatrixXd::Zero(3 * SpanPencil::places, most), 12 + 6 * static_cast<Index>(cuts.size() - 1)};
  const Index joints_end = own.next;
  const Plane in_y{r.EIz, r.GAy, body.rotary_z, 1, 5, 1, 1, body.held_y},
      in_z{r.EIy, r.GAz, body.rotary_y, 2, 4, -1, 2, body.held_z};
  const double EA = in.slack ? 0 : r.EA;
  const bool twists = !in.plane && in.span.beam, coupled = !in.plane && r.coupling != 0 && r.GAy > 0 && r.GAz > 0;
  for (const Cut& cut : cuts) {
    const InnerShapes n = share_of(in.inner, cut, L);
    const Places places = places_on(cut, L);
    // Of a link the ends turn by themselves (released_ends).
    add_axial(own, {EA, body.mass, 0}, cut, places, in.slack ? 0 : n.lengthwise);
    const Bending across_y = add_bending(own, in_y, cut, places, body.mass, n.bending);
    if (in.plane) continue;
    const Bending across_z = add_bending(own, in_z, cut, places, body.mass, n.bending);
    if (coupled) add_shear_coupling(own, across_y, across_z, r, cut.length);
    if (twists) add_axial(own, {r.GJ, body.polar, 3}, cut, places, n.lengthwise);
  }
  if (cuts.size() > 1) {
    Followed ends{MatrixXd::Zero(joints_end - 12, 12), MatrixXd::Zero(12, 12)};
    follow_lengthwise(ends, EA, 0, cuts, L);
    follow_bending(ends, in_y, cuts, L);
    if (!in.plane) follow_bending(ends, in_z, cuts, L);
    if (twists) follow_lengthwise(ends, r.GJ, 3, cuts, L);
    count_from_ends(own, ends, !coupled);
  }
  return {std::move(own), joints_end};
}

// Ends that turn or move without their points are inner degrees of freedom of their own: the movement of the ends for
// each.
std::vector<Eigen::VectorXd> released_ends(const SpanInput& in) {
  std::vector<Eigen::VectorXd> jumps;
  const double c = std::cos(in.turn), s = std::sin(in.turn);
  const Eigen::Vector3d own_axes[] = {{1, 0, 0}, {0, c, -s}, {0, s, c}};
  for (const Index end : {0, 1})
    for (Index k = 0; k < 6; ++k) {
      const auto component = static_cast<std::size_t>(k);
      const bool exists = !in.plane || k == 0 || k == 1 || k == 5;
      const bool freed = in.span.beam ? (end == 0 ? in.span.freed_a : in.span.freed_b)[component] : k >= 4;
      // An end that nothing turns has no rotation of its own.
      const bool turns = k < 4 || (k == 5 ? in.bends_y() : in.bends_z());
      if (!exists || !freed || !turns) continue;
      Eigen::VectorXd jump = Eigen::VectorXd::Zero(12);
      jump.segment<3>(6 * end + 3 * (k / 3)) = own_axes[k % 3];
      jumps.push_back(std::move(jump));
    }
  return jumps;
}

// From the degrees of freedom of the points, of released ends and of what is inside to those of the span.
MatrixXd map_to_points(const SpanInput& in, const Filled& filled) {
  const std::vector<Eigen::VectorXd> jumps = released_ends(in);
  // Joints between pieces have what bends and turns in this structure.
  std::vector<Index> inside;
  for (Index i = 12; i < filled.own.next; ++i) {
    const Index k = i < filled.joints_end ? i % 6 : -1;
    if (k < 0 || (in.plane ? k == 0 || k == 1 || k == 5 : in.span.beam || k != 3)) inside.push_back(i);
  }
  const Index released = static_cast<Index>(jumps.size());
  // From points to own ends: arms, then axes.
  MatrixXd to = MatrixXd::Zero(filled.own.next, 12 + released + static_cast<Index>(inside.size()));
  const Eigen::Matrix3d own_rows = columns_of(in.axes).transpose();
  for (const Index end : {0, 1}) {
    const Vector& arm = end == 0 ? in.span.arm_a : in.span.arm_b;
    to.block<3, 3>(6 * end, 6 * end) = own_rows;
    to.block<3, 3>(6 * end + 3, 6 * end + 3) = own_rows;
    if (in.span.armed) to.block<3, 3>(6 * end, 6 * end + 3) = own_rows * lever(arm);
  }
  for (Index i = 0; i < released; ++i) to.block(0, 12 + i, 12, 1) = jumps[static_cast<std::size_t>(i)];
  for (std::size_t i = 0; i < inside.size(); ++i) to(inside[i], 12 + released + static_cast<Index>(i)) = 1;
  return to;
}

}  // namespace

SpanPencil span_pencil(const SpanInput& in) {
  const Filled filled = fill_pieces(in);
  const Own& own = filled.own;
  const MatrixXd to = map_to_points(in, filled);
  const auto carried = [&](const MatrixXd& m) { return turned(m.topLeftCorner(own.next, own.next), to); };
  SpanPencil p;
  p.stiffness = carried(own.stiffness);
  p.geometric = in.axial.none() ? MatrixXd() : carried(own.geometric);
  p.mass = carried(own.mass);
  MatrixXd moved = times(own.movement.leftCols(own.next), to);
  const Eigen::Matrix3d own_rows = columns_of(in.axes).transpose();
  for (Index place = 0; place < SpanPencil::places; ++place)
    moved.middleRows(3 * place, 3) = transposed_times(own_rows, moved.middleRows(3 * place, 3));
  p.movement = std::move(moved);
  return p;
}

}  // namespace corvex::solver
