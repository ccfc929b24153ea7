#include "modes/bracing.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::solver {
namespace {

HeldAlong directions(const Bracing& b) {
  const bool both = b.against == Against::both || b.against == Against::lateral;
  return {both || b.against == Against::y, both || b.against == Against::z};
}

// Restrained directions of a point, perpendicular to each other.
class HeldDirections {
 public:
  explicit HeldDirections(const std::optional<Support>& support) : support_(support.value_or(Support())) {
    constexpr Vector global[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
    for (std::size_t k = 0; k < 3; ++k)
      if (support_.held()[k]) enter(global[k]);
    for (const Vector& v : support_.directions()) enter(v);
  }

  // Of a direction what is not held yet; a fourth one there is not.
  void hold(const Vector& direction) {
    if (const Vector rest = enter(direction); length(rest) > 0) support_ = support_.along(rest);
  }
  const Support& support() const { return support_; }

 private:
  Vector enter(Vector v) {
    constexpr double same = 1e-9;
    v = v / length(v);
    for (const Vector& u : known_) v = v - u * dot(u, v);
    if (length(v) <= same) return {};
    known_.push_back(v / length(v));
    return known_.back();
  }

  Support support_;
  std::vector<Vector> known_;
};

}  // namespace

HeldAlong held_along(const Structure& s, std::size_t member) {
  HeldAlong held;
  if (s.is_plane()) return held;
  for (const Bracing& b : s.bracing())
    if (b.member.index == member && b.at.empty()) {
      const HeldAlong d = directions(b);
      held.y = held.y || d.y, held.z = held.z || d.z;
    }
  return held;
}

bool has_lateral_bracing(const Structure& s) {
  return !s.is_plane() && std::any_of(s.bracing().begin(), s.bracing().end(), [](const Bracing& b) {
    const HeldAlong d = directions(b);
    return d.y || d.z;
  });
}

Structure with_braced_points(const Structure& given) {
  Structure s = given;
  for (const Bracing& b : given.bracing()) {
    const HeldAlong d = directions(b);
    if (!d.y && !d.z) continue;
    const Member& m = given[b.member];
    const Axes axes = local_axes(given, m);
    for (const PointId p : b.at.empty() ? m.through : b.at) {
      HeldDirections held(s.support_of(p));
      if (d.y) held.hold(axes.y);
      if (d.z) held.hold(axes.z);
      s.replace_support(p, held.support());
    }
  }
  return s;
}

}  // namespace corvex::solver
