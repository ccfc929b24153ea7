#include "beam/element.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <type_traits>

#include "algebra/products.hpp"

namespace corvex::solver {

using namespace algebra;

BendingEnds::BendingEnds(double EI, double GA, double L) {
  const double phi = GA > 0 ? 12 * EI / (GA * L * L) : 0;
  const double k = EI / (L * (1 + phi));
  near = (4 + phi) * k;
  far = (2 - phi) * k;
}

namespace {

bool any(const std::array<bool, 6>& freed) {
  return std::find(freed.begin(), freed.end(), true) != freed.end();
}

}  // namespace

Element::Element(const Rigidity& r, const Span& span, double turn)
    : r_(r), f_(r), length_(span.length), beam_(span.beam), axial_(r.EA / span.length) {
  if (!beam_) return;
  torsion_ = r.GJ / length_;
  y_ = BendingEnds(r.EIz, r.GAy, length_);
  z_ = BendingEnds(r.EIy, r.GAz, length_);
  if (r.coupling != 0) couple(r);
  if (any(span.freed_a) || any(span.freed_b)) released_ = std::make_shared<const Released>(span, turn, whole());
}

// In each plane the sum of both end rotations is p·(Ma + Mb), their difference L/2EI·(Ma − Mb). Shear couples the sums:
// with q = −2c/L (moments about y count against the slope)
//   αz + βz = pz·Σz + q·Σy        αy + βy = q·Σz + py·Σy
void Element::couple(const Rigidity& r) {
  const double p_y = 1 / (y_.near + y_.far), p_z = 1 / (z_.near + z_.far), q = -2 * r.coupling / length_;
  const double det = p_y * p_z - q * q, turn_y = y_.near - y_.far, turn_z = z_.near - z_.far;
  y_ = {(p_z / det + turn_y) / 2, (p_z / det - turn_y) / 2};
  z_ = {(p_y / det + turn_z) / 2, (p_y / det - turn_z) / 2};
  cross_ = -q / (2 * det);
}

Element Element::slack(Acts acts) const {
  Element e = *this;
  e.slack_ = acts;
  e.axial_ = 0;
  return e;
}

DeformationStiffness Element::whole() const {
  DeformationStiffness k = DeformationStiffness::Zero();
  k(0, 0) = axial_;
  k(1, 1) = torsion_;
  k(2, 2) = k(3, 3) = y_.near;
  k(2, 3) = k(3, 2) = y_.far;
  k(4, 4) = k(5, 5) = z_.near;
  k(4, 5) = k(5, 4) = z_.far;
  if (cross_ != 0)
    for (const int i : {2, 3})
      for (const int j : {4, 5}) k(i, j) = k(j, i) = cross_;
  return k;
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
  if (released_ || cross_ != 0) {
    const auto B = deformation_of(e, length_);
    return turned(deformation_stiffness(), B);
  }
  const double y = (y_.near + y_.far) / length_, z = (z_.near + z_.far) / length_;
  Matrix3 move = outer(axial_, e.x, e.x);
  Matrix12 K;
  if (!beam_) {
    K.setZero();
  } else {
    move += outer(2 * y / length_, e.y, e.y) + outer(2 * z / length_, e.z, e.z);
    const Matrix3 twist = outer(torsion_, e.x, e.x), coupling = outer(y, e.y, e.z) - outer(z, e.z, e.y);
    const Matrix3 near = outer(y_.near, e.z, e.z) + outer(z_.near, e.y, e.y) + twist;
    const Matrix3 far = outer(y_.far, e.z, e.z) + outer(z_.far, e.y, e.y) - twist;
    K.block<3, 3>(3, 3) = near;
    K.block<3, 3>(9, 9) = near;
    K.block<3, 3>(3, 9) = far;
    K.block<3, 3>(9, 3) = far;  // symmetric in itself
    for (const int turn : {3, 9}) {
      K.block<3, 3>(0, turn) = coupling;
      K.block<3, 3>(6, turn) = -coupling;
      K.block<3, 3>(turn, 0) = coupling.transpose();
      K.block<3, 3>(turn, 6) = -coupling.transpose();
    }
  }
  K.block<3, 3>(0, 0) = move;
  K.block<3, 3>(6, 6) = move;
  K.block<3, 3>(0, 6) = -move;
  K.block<3, 3>(6, 0) = -move;
  return K;
}

// Forces for what deforms the span, nothing freed.
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
  if (cross_ == 0) return f;
  const double of_y = cross_ * (bent(5) + bent(11)), of_z = cross_ * (bent(4) + bent(10));
  f(5) += of_z, f(11) += of_z;
  f(1) += 2 * of_z / length_, f(7) -= 2 * of_z / length_;
  f(4) += of_y, f(10) += of_y;
  f(8) += 2 * of_y / length_, f(2) -= 2 * of_y / length_;
  return f;
}

Vector12 Element::fixed_end_whole(std::span<const LoadPiece> loads) const {
  Vector12 f = Vector12::Zero();
  if (loads.empty()) return f;
  const State p = particular(f_, loads);
  if (!beam_) {
    // Axial force exactly; across, the loads go to the ends as on a simple span.
    const double Va = -p.Mz / length_, Wa = -p.My / length_;
    f << 0, Va, Wa, 0, 0, 0, p.N, -(Va + p.Vy), -(Wa + p.Vz), 0, 0, 0;
  } else {
    // The loads move the free end b so far; it is taken back, less the chord's turn.
    Vector12 bent = Vector12::Zero();
    const double turn_y = p.v / length_, turn_z = p.w / length_;
    bent << 0, 0, 0, 0, turn_z, -turn_y, 0, 0, 0, p.twist, turn_z - p.slope_z, p.slope_y - turn_y;
    f.tail<6>() << p.N, -p.Vy, -p.Vz, p.T, -p.My, p.Mz;
    f -= whole_times(bent);
  }
  const double at_start = is_slack() ? resting_pull(slack_, loads) : -axial_ * p.u;
  f(0) -= at_start;
  f(6) += at_start;
  return f;
}

double Element::resting_pull(Acts acts, std::span<const LoadPiece> loads) {
  const double sign = acts == Acts::compression ? -1 : 1;
  // Inside the member: a load on its very end goes to the point.
  double N = 0, least = std::numeric_limits<double>::infinity();
  for (const LoadPiece& l : loads) {
    const double h = l.to - l.from;
    if (!(h > 0)) break;
    const auto offer = [&](double s) {
      if (s >= 0 && s <= h) least = std::min(least, sign * (N - s * (l.q0.x + s * l.slope.x / 2)));
    };
    N -= l.jump_force.x;
    offer(0);
    if (l.slope.x != 0) offer(-l.q0.x / l.slope.x);
    offer(h);
    N -= h * (l.q0.x + h * l.slope.x / 2);
  }
  return std::isfinite(least) ? -sign * least : 0;
}

double Element::pull(const Ends& e, std::span<const LoadPiece> loads) const {
  const double stiffness = r_.EA / length_;
  return stiffness * (e.bent(6) - (loads.empty() ? 0 : particular(f_, loads).u));
}

Ends Element::own_ends(Ends e, std::span<const LoadPiece> loads) const {
  if (!released_) return e;
  const Vector12 jumps = released_->jumps(whole_times(e.bent) + fixed_end_whole(loads));
  const Vector12 by = released_->deformed(jumps);
  e.movement += jumps;
  e.bent += by;
  // Where a jump takes a deformation back altogether, rounding must not stay as one.
  constexpr double rounding = 1e-14;
  for (const int i : deformation_entry)
    if (by(i) != 0 && std::abs(e.bent(i)) <= rounding * std::abs(by(i))) {
      e.movement(i) -= e.bent(i);
      e.bent(i) = 0;
    }
  return e;
}

Vector12 Element::elastic_forces(const Vector12& bent) const {
  const Vector12 forces = whole_times(bent);
  if (!released_) return forces;
  return released_->passed_on(forces + whole_times(released_->deformed(released_->jumps(forces))));
}

Vector12 Element::end_forces(const Ends& own_ends, std::span<const LoadPiece> loads) const {
  if (released_) return tidy_end_forces(own_ends, loads);
  return whole_times(own_ends.bent) + fixed_end_whole(loads);
}

Vector12 Element::tidy_end_forces(const Ends& own_ends, std::span<const LoadPiece> loads) const {
  constexpr double rounding = 1e-13;
  const Vector12 elastic = whole_times(own_ends.bent), fixed = fixed_end_whole(loads);
  Vector12 f = elastic + fixed;
  if (released_) f = released_->passed_on(f);
  for (int i = 0; i < 12; ++i)
    if (std::abs(f(i)) <= rounding * (std::abs(elastic(i)) + std::abs(fixed(i)))) f(i) = 0;
  return f;
}

std::vector<Element> elements(const Structure& structure, const Spans& spans) {
  std::vector<Element> all;
  all.reserve(spans.all.size());
  for (std::size_t m = 0; m < structure.members().size(); ++m) {
    const Member& member = structure.members()[m];
    const Rigidity r = rigidity(structure, member);
    const double turn = principal_turn(structure, member);
    for (std::size_t i = spans.first[m]; i < spans.first[m + 1]; ++i) all.emplace_back(r, spans.all[i], turn);
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
Triple<Digits> in_axes(const Axes& a, const Triple<Digits>& v) {
  return {a.x.x * v.x + a.x.y * v.y + a.x.z * v.z, a.y.x * v.x + a.y.y * v.y + a.y.z * v.z,
          a.z.x * v.x + a.z.y * v.y + a.z.z * v.z};
}

template <class Digits>
constexpr bool has_rest = !std::is_same_v<Digits, double>;

template <class Digits>
Triple<Digits> whole(const Movement& m, std::size_t k) {
  const auto at = [&](std::size_t i) {
    return has_rest<Digits> ? static_cast<Digits>(m.value[i]) + m.rest[i] : m.value[i];
  };
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

// To the end of a rigid arm that turns with the point.
Movement carried(const Movement& point, const Vector& arm) {
  using Digits = long double;
  const auto turn = whole<Digits>(point, 3);
  const Digits by[] = {turn.y * arm.z - turn.z * arm.y, turn.z * arm.x - turn.x * arm.z,
                       turn.x * arm.y - turn.y * arm.x};
  Movement end = point;
  for (std::size_t k = 0; k < 3; ++k) {
    const auto large = static_cast<double>(by[k]);
    end.add(k, large);
    end.rest[k] += static_cast<double>(by[k] - large);
  }
  return end;
}

template <class Digits>
Ends ends(const Axes& axes, double length, const Movement& a, const Movement& b) {
  const auto local_a = in_axes(axes, whole<Digits>(a, 0)), apart = in_axes(axes, between<Digits>(a, b, 0));
  const auto turn_a = in_axes(axes, whole<Digits>(a, 3)), turn_b = in_axes(axes, whole<Digits>(b, 3));
  const auto twist = in_axes(axes, between<Digits>(a, b, 3)).x;
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

}  // namespace

template <class Digits>
Ends ends(const Axes& axes, const Span& s, const Movement& a, const Movement& b) {
  if (!s.armed) return ends<Digits>(axes, s.length, a, b);
  return ends<Digits>(axes, s.length, carried(a, s.arm_a), carried(b, s.arm_b));
}
template Ends ends<double>(const Axes&, const Span&, const Movement&, const Movement&);
template Ends ends<long double>(const Axes&, const Span&, const Movement&, const Movement&);

}  // namespace corvex::solver
