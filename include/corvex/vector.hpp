// Corvex: a vector in space, in SI units; for positions (m), forces (N) and directions inside the library.
// Right-handed.
//
//     const corvex::Vector arm{3, 4, 0}, force{0, -2, 0};
//     fmt::print("{} {}\n", length(arm), cross(arm, force).z);   // 5 -6
#pragma once

#include <cmath>

#pragma GCC visibility push(default)

namespace corvex {

struct Vector {
  double x = 0, y = 0, z = 0;

  Vector operator-() const { return {-x, -y, -z}; }
  Vector operator+(const Vector& o) const { return {x + o.x, y + o.y, z + o.z}; }
  Vector operator-(const Vector& o) const { return {x - o.x, y - o.y, z - o.z}; }
  Vector operator*(double f) const { return {x * f, y * f, z * f}; }
  Vector operator/(double f) const { return {x / f, y / f, z / f}; }
  Vector& operator+=(const Vector& o) { return *this = *this + o; }
  friend Vector operator*(double f, const Vector& v) { return v * f; }
  bool operator==(const Vector&) const = default;
};

inline double dot(const Vector& a, const Vector& b) {
  return a.x * b.x + a.y * b.y + a.z * b.z;
}
inline Vector cross(const Vector& a, const Vector& b) {
  return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x};
}
inline double length(const Vector& v) {
  return std::sqrt(dot(v, v));
}
inline bool zero(const Vector& v) {
  return v.x == 0 && v.y == 0 && v.z == 0;
}
inline bool finite(const Vector& v) {
  return std::isfinite(v.x) && std::isfinite(v.y) && std::isfinite(v.z);
}

}  // namespace corvex

#pragma GCC visibility pop
