#include "structure/held.hpp"

#include <algorithm>
#include <cmath>

namespace corvex {
namespace {

constexpr double same_direction = 1e-9;

constexpr Vector global[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};

// Orthonormal vectors, as many as there are independent directions.
class Basis {
 public:
  void add(const Vector& direction) {
    const double size = length(direction);
    if (!(size > 0)) return;
    Vector rest = direction / size;
    // Twice, so that rounding of the first time is gone.
    for (int i = 0; i < 2; ++i) rest = beside(rest);
    if (length(rest) > same_direction) axes_.push_back(rest / length(rest));
  }
  Vector beside(Vector v) const {
    for (const Vector& a : axes_) v += a * -dot(a, v);
    return v;
  }
  const std::vector<Vector>& axes() const { return axes_; }

 private:
  std::vector<Vector> axes_;
};

Basis held_basis(const PointSupport& support) {
  Basis basis;
  for (std::size_t k = 0; k < 3; ++k)
    if (support.held[k]) basis.add(global[k]);
  for (const Vector& v : support.along) basis.add(v);
  return basis;
}

bool is_global(const Vector& v) {
  return std::max({std::abs(v.x), std::abs(v.y), std::abs(v.z)}) > 1 - 1e-15;
}

}  // namespace

HeldAxes held_axes(const Structure& structure, const PointSupport& support) {
  HeldAxes h;
  if (support.along.empty()) return h;
  Basis basis = held_basis(support);
  h.count = static_cast<int>(basis.axes().size());
  h.skew = !std::all_of(basis.axes().begin(), basis.axes().end(), is_global);
  // The others perpendicular to them. In the plane the last axis stays z.
  Vector third{0, 0, 1};
  if (structure.is_plane() && h.count == 1) basis.add(cross(third, basis.axes()[0]));
  for (const Vector& g : global)
    if (basis.axes().size() < 3) basis.add(g);
  h.axes = {basis.axes()[0], basis.axes()[1], basis.axes()[2]};
  return h;
}

Vector beside_hold(const PointSupport& support, const Vector& movement) {
  Basis basis = held_basis(support);
  for (std::size_t k = 0; k < 3; ++k)
    if (support.spring[k] != 0) basis.add(global[k]);
  return basis.beside(movement);
}

}  // namespace corvex
