#include "solve/element.hpp"

#include <tuple>
#include <type_traits>

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
    : r_(r), f_(r), length_(span.length), beam_(span.beam), hinged_(span.hinge_a || span.hinge_b), axial_(r.EA / span.length) {
  if (!beam_) return;
  torsion_ = r.GJ / length_;
  y_ = BendingEnds(r.EIz, r.GAy, span);
  z_ = BendingEnds(r.EIy, r.GAz, span);
}

BendingEnds::Condensed BendingEnds::condensed() const {
  if (hinge_a && hinge_b) return {0, 0, 0};
  const double left = near > 0 ? near - far * far / near : 0;
  if (hinge_a) return {0, 0, left};
  if (hinge_b) return {left, 0, 0};
  return {near, far, near};
}

namespace {

using Matrix3 = Eigen::Matrix3d;

// f · a bᵀ
Matrix3 outer(double f, const Vector& a, const Vector& b) {
  Matrix3 m;
  const double x = f * a.x, y = f * a.y, z = f * a.z;
  m << x * b.x, x * b.y, x * b.z, y * b.x, y * b.y, y * b.z, z * b.x, z * b.y, z * b.z;
  return m;
}

}  // namespace

// With the axes x y z as columns of Rᵀ every block is a sum of outer products: a movement along y goes with rotations
// about z (bending in the x–y plane), one along z with rotations about −y.
Matrix12 Element::stiffness(const Axes& e) const {
  const BendingEnds::Condensed y = y_.condensed(), z = z_.condensed();
  const double ya = (y.aa + y.ab) / length_, yb = (y.ab + y.bb) / length_;
  const double za = (z.aa + z.ab) / length_, zb = (z.ab + z.bb) / length_;
  Matrix3 move = outer(axial_, e.x, e.x);
  Matrix12 K;
  if (!beam_) {
    K.setZero();
  } else {
    move += outer((ya + yb) / length_, e.y, e.y) + outer((za + zb) / length_, e.z, e.z);
    const Matrix3 twist = outer(torsion_, e.x, e.x);
    const Matrix3 at_a = outer(ya, e.y, e.z) - outer(za, e.z, e.y), at_b = outer(yb, e.y, e.z) - outer(zb, e.z, e.y);
    const Matrix3 far = outer(y.ab, e.z, e.z) + outer(z.ab, e.y, e.y) - twist;
    K.block<3, 3>(3, 3) = outer(y.aa, e.z, e.z) + outer(z.aa, e.y, e.y) + twist;
    K.block<3, 3>(9, 9) = outer(y.bb, e.z, e.z) + outer(z.bb, e.y, e.y) + twist;
    K.block<3, 3>(3, 9) = far;
    K.block<3, 3>(9, 3) = far;  // symmetric in itself
    K.block<3, 3>(0, 3) = at_a;
    K.block<3, 3>(6, 3) = -at_a;
    K.block<3, 3>(0, 9) = at_b;
    K.block<3, 3>(6, 9) = -at_b;
    K.block<3, 3>(3, 0) = at_a.transpose();
    K.block<3, 3>(3, 6) = -at_a.transpose();
    K.block<3, 3>(9, 0) = at_b.transpose();
    K.block<3, 3>(9, 6) = -at_b.transpose();
  }
  K.block<3, 3>(0, 0) = move;
  K.block<3, 3>(6, 6) = move;
  K.block<3, 3>(0, 6) = -move;
  K.block<3, 3>(6, 0) = -move;
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
  const State p = particular(f_, loads);
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

Vector12 Element::elastic_forces(const Vector12& bent) const {
  if (!hinged_) return whole_times(bent);
  Vector12 own = bent;
  std::tie(own(5), own(11)) = y_.turned(bent(5), bent(11), 0, 0);
  std::tie(own(4), own(10)) = z_.turned(bent(4), bent(10), 0, 0);
  return whole_times(own);
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

// Three components in as many digits as asked for.
template <class Digits>
struct Triple {
  Digits x, y, z;
};

template <class Digits>
Triple<Digits> turned(const Axes& a, const Triple<Digits>& v) {
  return {a.x.x * v.x + a.x.y * v.y + a.x.z * v.z, a.y.x * v.x + a.y.y * v.y + a.y.z * v.z,
          a.z.x * v.x + a.z.y * v.y + a.z.z * v.z};
}

template <class Digits>
constexpr bool has_rest = !std::is_same_v<Digits, double>;

template <class Digits>
Triple<Digits> whole(const Movement& m, std::size_t k) {
  const auto at = [&](std::size_t i) { return has_rest<Digits> ? static_cast<Digits>(m.value[i]) + m.rest[i] : m.value[i]; };
  return {at(k), at(k + 1), at(k + 2)};
}

// Values first, so that what they have in common drops out before the rests would be rounded away.
template <class Digits>
Triple<Digits> between(const Movement& a, const Movement& b, std::size_t k) {
  const auto at = [&](std::size_t i) {
    const Digits apart = static_cast<Digits>(b.value[i]) - a.value[i];
    return has_rest<Digits> ? apart + (static_cast<Digits>(b.rest[i]) - a.rest[i]) : apart;
  };
  return {at(k), at(k + 1), at(k + 2)};
}

}  // namespace

template <class Digits>
Ends ends(const Axes& axes, double length, const Movement& a, const Movement& b) {
  const auto local_a = turned(axes, whole<Digits>(a, 0)), apart = turned(axes, between<Digits>(a, b, 0));
  const auto turn_a = turned(axes, whole<Digits>(a, 3)), turn_b = turned(axes, whole<Digits>(b, 3));
  const auto twist = turned(axes, between<Digits>(a, b, 3)).x;
  // The chord turns about y and z only.
  const Digits chord_y = -apart.z / length, chord_z = apart.y / length;
  const auto d = [](Digits v) { return static_cast<double>(v); };
  Ends e;
  e.movement << d(local_a.x), d(local_a.y), d(local_a.z), d(turn_a.x), d(turn_a.y), d(turn_a.z), d(local_a.x + apart.x),
      d(local_a.y + apart.y), d(local_a.z + apart.z), d(turn_b.x), d(turn_b.y), d(turn_b.z);
  e.bent << 0, 0, 0, 0, d(turn_a.y - chord_y), d(turn_a.z - chord_z), d(apart.x), 0, 0, d(twist), d(turn_b.y - chord_y),
      d(turn_b.z - chord_z);
  return e;
}
template Ends ends<double>(const Axes&, double, const Movement&, const Movement&);
template Ends ends<long double>(const Axes&, double, const Movement&, const Movement&);

}  // namespace corvex::solver
