#include <algorithm>
#include <cmath>
#include <numbers>

#include "structure/checks.hpp"

namespace corvex {

Vector Structure::axis_start(const Member& m) const {
  return (*this)[m.through.at(0)].position + m.arm_start;
}
Vector Structure::axis_end(const Member& m) const {
  return (*this)[m.through.at(m.through.size() - 1)].position + m.arm_end;
}

Box Structure::bounds() const {
  if (points_.empty()) return {};
  Box box{points_.front().position, points_.front().position};
  for (const Point& point : points_) {
    const Vector& p = point.position;
    box.low = {std::min(box.low.x, p.x), std::min(box.low.y, p.y), std::min(box.low.z, p.z)};
    box.high = {std::max(box.high.x, p.x), std::max(box.high.y, p.y), std::max(box.high.z, p.z)};
  }
  return box;
}

double Structure::length_of(const Member& m) const {
  return length(axis_end(m) - axis_start(m));
}

double Structure::place_of(const Member& m, std::size_t k) const {
  if (k == 0) return 0;
  const double L = length_of(m);
  if (k + 1 == m.through.size()) return L;
  const Vector a = (*this)[m.through.front()].position, b = (*this)[m.through.back()].position;
  return dot((*this)[m.through[k]].position - a, b - a) / dot(b - a, b - a) * L;
}

std::optional<Mass> Structure::mass() const {
  Mass sum;
  for (const Member& m : members_) {
    const std::optional<Density> density = material_of(m).density;
    if (!density || !has(m.section) || m.through.empty()) return std::nullopt;
    if (!has(m.through.front()) || !has(m.through.back())) return std::nullopt;
    sum += Length::si(length_of(m)) * section_of(m).area() * *density;
  }
  for (const PointMass& m : masses_) sum += Mass::si(m.mass);
  return sum;
}

Axes local_axes(const Structure& structure, const Member& member) {
  const Vector along = structure.axis_end(member) - structure.axis_start(member);
  Axes a;
  a.x = along / length(along);
  const Vector up = structure.up_direction();
  const double vertical = std::cos(std::numbers::pi / 180);
  const Vector reference = std::abs(dot(a.x, up)) > vertical ? Vector{1, 0, 0} : up;
  const Vector side = reference - a.x * dot(reference, a.x);
  a.y = side / length(side);
  a.z = cross(a.x, a.y);
  if (member.roll != 0) {
    // Quarter turns exactly: their rounding would let a plane structure lean out of its plane.
    const double quarters = member.roll / (std::numbers::pi / 2);
    double c = std::cos(member.roll), s = std::sin(member.roll);
    if (std::abs(quarters - std::round(quarters)) < 1e-12) c = std::round(c), s = std::round(s);
    const Vector y = a.y, z = a.z;
    a.y = y * c + z * s;
    a.z = z * c - y * s;
  }
  return a;
}

bool bends_about_y(const Member& member) {
  const double quarters = member.roll / (std::numbers::pi / 2);
  return std::abs(std::fmod(std::round(quarters), 2)) == 1;
}

bool leaves_plane(const Member& member) {
  const double quarters = member.roll / (std::numbers::pi / 2);
  return std::abs(quarters - std::round(quarters)) >= 1e-9;
}

BendingAxes bending_axes(const Structure& structure, const Member& member) {
  if (!structure.is_plane() || leaves_plane(member)) return {true, true};
  const bool y = bends_about_y(member);
  return {y, !y};
}

}  // namespace corvex
