#include "corvex/placement.hpp"

#include <cmath>

namespace corvex {
namespace {

// A unit vector; quarter turns exactly.
Vector direction(Angle angle) {
  const double eighths = angle.si() / std::atan(1.0), quarters = std::round(eighths / 2);
  if (std::abs(eighths / 2 - quarters) > 1e-12) return {std::cos(angle.si()), std::sin(angle.si()), 0};
  static constexpr double cosine[] = {1, 0, -1, 0};
  const auto turn = static_cast<long long>(std::fmod(quarters, 4)) + 4;
  return {cosine[turn % 4], cosine[(turn + 3) % 4], 0};
}

Force force(const Vector& v) {
  return {ForceSize::si(v.x), ForceSize::si(v.y), ForceSize::si(v.z)};
}

}  // namespace

Vector moved(const Vector& from, Length x, Length y, Length z) {
  return from + Vector{x.si(), y.si(), z.si()};
}

Vector polar(const Vector& from, Length distance, Angle angle) {
  return from + direction(angle) * distance.si();
}

Vector between(const Vector& a, const Vector& b, double share) {
  return a + (b - a) * share;
}

Vector between(const Vector& a, const Vector& b, Length from_a) {
  return between(a, b, from_a.si() / length(b - a));
}

Vector mirrored(const Vector& p, Axis axis, Length at) {
  Vector m = p;
  double& c = axis == Axis::x ? m.x : axis == Axis::y ? m.y : m.z;
  c = 2 * at.si() - c;
  return m;
}

Force toward(ForceSize size, const Vector& from, const Vector& to) {
  const Vector way = to - from;
  return force(way * (size.si() / length(way)));
}

Force at_angle(ForceSize size, Angle angle) {
  return force(direction(angle) * size.si());
}

}  // namespace corvex
