#include "solve/element.hpp"

#include <tuple>

namespace corvex::solver {

BendingEnds::BendingEnds(double EI, double GA, const Span& span) : hinge_a(span.hinge_a), hinge_b(span.hinge_b) {
  const double L = span.length, phi = GA > 0 ? 12 * EI / (GA * L * L) : 0;
  const double k = EI / (L * (1 + phi));
  near = (4 + phi) * k;
  far = (2 - phi) * k;
}

std::pair<double, double> BendingEnds::released(double Ma, double Mb) const {
  if (hinge_a && hinge_b) return {0, 0};
  const double carried = near > 0 ? far / near : 0;
  if (hinge_a) return {0, Mb - carried * Ma};
  if (hinge_b) return {Ma - carried * Mb, 0};
  return {Ma, Mb};
}

std::pair<double, double> BendingEnds::turned(double a, double b, double Ma, double Mb) const {
  if (near == 0) return {a, b};
  if (hinge_a && hinge_b) {
    const double det = (near - far) * (near + far);
    return {(far * Mb - near * Ma) / det, (far * Ma - near * Mb) / det};
  }
  if (hinge_a) return {-(far * b + Ma) / near, b};
  if (hinge_b) return {a, -(far * a + Mb) / near};
  return {a, b};
}

Element::Element(const Rigidity& r, const Span& span)
    : r_(r), length_(span.length), beam_(span.beam), hinged_(span.hinge_a || span.hinge_b), axial_(r.EA / span.length) {
  if (!beam_) return;
  torsion_ = r.GJ / length_;
  y_ = BendingEnds(r.EIz, r.GAy, span);
  z_ = BendingEnds(r.EIy, r.GAz, span);
}

namespace {

// One bending plane at the freedoms (deflection a, rotation a, deflection b, rotation b); `sign` is −1 where the
// rotation about the axis is minus the slope.
void add_bending(Matrix12& K, const BendingEnds& e, double L, const std::array<int, 4>& f, double sign) {
  // Columns: the moments and the shear force for a rotation of one at either end, the hinges freed.
  const auto [aa, ba] = e.hinge_a ? std::pair(0.0, 0.0) : e.released(e.near, e.far);
  const auto [ab, bb] = e.hinge_b ? std::pair(0.0, 0.0) : e.released(e.far, e.near);
  const double va = (aa + ba) / L * sign, vb = (ab + bb) / L * sign, v = (va + vb) / L * sign;
  const double block[4][4] = {{v, va, -v, vb}, {va, aa, -va, ab}, {-v, -va, v, -vb}, {vb, ba, -vb, bb}};
  for (int i = 0; i < 4; ++i)
    for (int j = 0; j < 4; ++j) K(f[i], f[j]) += block[i][j];
}

void add_pair(Matrix12& K, double k, int a, int b) {
  K(a, a) += k;
  K(b, b) += k;
  K(a, b) -= k;
  K(b, a) -= k;
}

}  // namespace

Matrix12 Element::stiffness() const {
  Matrix12 K = Matrix12::Zero();
  add_pair(K, axial_, 0, 6);
  if (!beam_) return K;
  add_pair(K, torsion_, 3, 9);
  add_bending(K, y_, length_, {1, 5, 7, 11}, 1);
  add_bending(K, z_, length_, {2, 4, 8, 10}, -1);
  return K;
}

// Forces for what deforms the span, no hinge freed.
Vector12 Element::whole_times(const Vector12& bent) const {
  Vector12 f = Vector12::Zero();
  const double N = axial_ * (bent(6) - bent(0));
  f(0) = -N;
  f(6) = N;
  if (!beam_) return f;
  const double T = torsion_ * (bent(9) - bent(3));
  f(3) = -T;
  f(9) = T;
  f(5) = y_.near * bent(5) + y_.far * bent(11);
  f(11) = y_.far * bent(5) + y_.near * bent(11);
  // The shear force from the sum of the rotations, which is exact where they all but cancel.
  f(1) = (y_.near + y_.far) * (bent(5) + bent(11)) / length_;
  f(7) = -f(1);
  f(4) = z_.near * bent(4) + z_.far * bent(10);
  f(10) = z_.far * bent(4) + z_.near * bent(10);
  f(8) = (z_.near + z_.far) * (bent(4) + bent(10)) / length_;
  f(2) = -f(8);
  return f;
}

Vector12 Element::fixed_end_whole(std::span<const LoadPiece> loads) const {
  Vector12 f = Vector12::Zero();
  if (loads.empty()) return f;
  const State p = particular(r_, loads);
  if (!beam_) {
    // Axial force exactly; across, the loads go to the ends as on a simple span.
    const double Va = -p.Mz / length_, Wa = -p.My / length_;
    const double pull = p.u * axial_;
    f << pull, Va, Wa, 0, 0, 0, p.N - pull, -(Va + p.Vy), -(Wa + p.Vz), 0, 0, 0;
    return f;
  }
  // The loads move the free end b so far; it is taken back, less the chord's turn.
  Vector12 bent = Vector12::Zero();
  const double turn_y = p.v / length_, turn_z = p.w / length_;
  bent << 0, 0, 0, 0, turn_z, -turn_y, p.u, 0, 0, p.twist, turn_z - p.slope_z, p.slope_y - turn_y;
  f.tail<6>() << p.N, -p.Vy, -p.Vz, p.T, -p.My, p.Mz;
  return f - whole_times(bent);
}

Ends Element::own_ends(Ends e, std::span<const LoadPiece> loads) const {
  if (!hinged_ || !beam_) return e;
  // Beside the rigid motion of the span, the freed rotations are those that its other deformations and its
  // loads bring.
  const Vector12 rigid = e.movement - e.bent;
  const Vector12 fixed = fixed_end_whole(loads);
  std::tie(e.bent(5), e.bent(11)) = y_.turned(e.bent(5), e.bent(11), fixed(5), fixed(11));
  std::tie(e.bent(4), e.bent(10)) = z_.turned(e.bent(4), e.bent(10), fixed(4), fixed(10));
  for (const int i : {4, 5, 10, 11}) e.movement(i) = rigid(i) + e.bent(i);
  return e;
}

Vector12 Element::end_forces(const Ends& own_ends, std::span<const LoadPiece> loads) const {
  Vector12 f = whole_times(own_ends.bent) + fixed_end_whole(loads);
  if (y_.hinge_a) f(4) = f(5) = 0;
  if (y_.hinge_b) f(10) = f(11) = 0;
  return f;
}

std::vector<Element> elements(const Structure& structure, const Spans& spans) {
  std::vector<Element> all;
  all.reserve(spans.all.size());
  for (std::size_t m = 0; m < structure.members().size(); ++m) {
    const Rigidity r = rigidity(structure, structure.members()[m]);
    for (std::size_t i = spans.first[m]; i < spans.first[m + 1]; ++i) all.emplace_back(r, spans.all[i]);
  }
  return all;
}

namespace {

Eigen::Matrix3d rows(const Axes& a) {
  Eigen::Matrix3d R;
  R << a.x.x, a.x.y, a.x.z, a.y.x, a.y.y, a.y.z, a.z.x, a.z.y, a.z.z;
  return R;
}

}  // namespace

namespace {

// Where movements all but cancel, the digits beyond those of a double count.
struct Wide {
  long double x, y, z;
};

Wide turned(const Axes& a, const Wide& v) {
  return {a.x.x * v.x + a.x.y * v.y + a.x.z * v.z, a.y.x * v.x + a.y.y * v.y + a.y.z * v.z,
          a.z.x * v.x + a.z.y * v.y + a.z.z * v.z};
}

Wide whole(const Movement& m, std::size_t k) {
  const auto at = [&](std::size_t i) { return static_cast<long double>(m.value[i]) + m.rest[i]; };
  return {at(k), at(k + 1), at(k + 2)};
}

// Values first, so that what they have in common drops out before the rests would be rounded away.
Wide between(const Movement& a, const Movement& b, std::size_t k) {
  const auto at = [&](std::size_t i) {
    return (static_cast<long double>(b.value[i]) - a.value[i]) + (static_cast<long double>(b.rest[i]) - a.rest[i]);
  };
  return {at(k), at(k + 1), at(k + 2)};
}

}  // namespace

Ends ends(const Axes& axes, double length, const Movement& a, const Movement& b) {
  const Wide local_a = turned(axes, whole(a, 0)), apart = turned(axes, between(a, b, 0));
  const Wide turn_a = turned(axes, whole(a, 3)), turn_b = turned(axes, whole(b, 3));
  // The chord turns about y and z only.
  const long double chord_y = -apart.z / length, chord_z = apart.y / length;
  const auto d = [](long double v) { return static_cast<double>(v); };
  Ends e;
  e.movement << d(local_a.x), d(local_a.y), d(local_a.z), d(turn_a.x), d(turn_a.y), d(turn_a.z), d(local_a.x + apart.x),
      d(local_a.y + apart.y), d(local_a.z + apart.z), d(turn_b.x), d(turn_b.y), d(turn_b.z);
  e.bent << 0, 0, 0, 0, d(turn_a.y - chord_y), d(turn_a.z - chord_z), d(apart.x), 0, 0,
      d(turned(axes, between(a, b, 3)).x), d(turn_b.y - chord_y), d(turn_b.z - chord_z);
  return e;
}

Vector12 to_global(const Axes& axes, const Vector12& local) {
  const Eigen::Matrix3d R = rows(axes);
  Vector12 r;
  for (int i = 0; i < 12; i += 3) r.segment<3>(i) = R.transpose() * local.segment<3>(i);
  return r;
}

Matrix12 to_global(const Axes& axes, const Matrix12& local) {
  const Eigen::Matrix3d R = rows(axes);
  Matrix12 K;
  for (int i = 0; i < 12; i += 3)
    for (int j = 0; j < 12; j += 3) K.block<3, 3>(i, j) = R.transpose() * local.block<3, 3>(i, j) * R;
  return K;
}

}  // namespace corvex::solver
