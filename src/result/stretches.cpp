#include "result/stretches.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::result {
namespace {

// A support that holds movement across the member, rigidly or by a spring.
bool supported(const Data& data, const Member& m, PointId p) {
  const Structure& s = data.structure;
  const Axes axes = local_axes(s, m);
  constexpr double along_only = 1e-6;
  const auto across = [&](const Vector& direction) {
    const Vector v = axes.local(direction);
    return std::hypot(v.y, v.z) > along_only * length(direction);
  };
  for (const std::size_t i : data.at_points.supports[p.index]) {
    const PointSupport& support = s.supports()[i];
    constexpr Vector global[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
    for (std::size_t k = 0; k < 3; ++k)
      if ((support.held[k] || support.spring[k] != 0) && across(global[k])) return true;
    for (const Vector& v : support.along)
      if (across(v)) return true;
  }
  return false;
}

// The members that meet a member at one of its points.
std::string others(const Data& data, MemberId member, PointId p) {
  std::string names;
  for (const std::size_t i : data.at_points.members[p.index])
    if (i != member.index) names += (names.empty() ? "" : ", ") + data.structure.members()[i].name;
  return names;
}

}  // namespace

std::vector<Stretch> held_stretches(const Data& data, MemberId id, const Inner& inner) {
  const Structure& s = data.structure;
  const Member& m = s[id];
  struct Held {
    std::size_t point;
    std::string by;
  };
  std::vector<Held> held;
  for (std::size_t k = 0; k < m.through.size(); ++k) {
    if (supported(data, m, m.through[k])) {
      held.push_back({k, "support"});
      continue;
    }
    const JointAction& j = inner.joints[k];
    const double force = std::hypot(j.force_y, j.force_z);
    if (!(force > inner.joint_noise)) continue;
    // Against the movement, or where there is none.
    if (j.force_y * j.move_y + j.force_z * j.move_z > force * inner.standing) continue;
    if (std::string by = others(data, id, m.through[k]); !by.empty()) held.push_back({k, std::move(by)});
  }
  const auto place = [&](std::size_t k) { return Length::si(s.place_of(m, k)); };
  const auto stretch = [&](std::size_t a, std::size_t b) {
    return Stretch{a, b, place(a), b + 1 == m.through.size() ? Length::si(inner.length) : place(b), false, {}, {}, {}};
  };
  const std::size_t end = m.through.size() - 1;
  // A link is straight from end to end.
  if (held.empty() || m.kind == MemberKind::link) return {stretch(0, end)};
  std::vector<Stretch> all;
  if (held.front().point > 0) {
    Stretch over = stretch(0, held.front().point);
    over.overhang = true;
    over.held_last = held.front().by;
    all.push_back(over);
  }
  for (std::size_t i = 0; i + 1 < held.size(); ++i) {
    Stretch between = stretch(held[i].point, held[i + 1].point);
    between.held_first = held[i].by;
    between.held_last = held[i + 1].by;
    all.push_back(between);
  }
  if (held.back().point < end) {
    Stretch over = stretch(held.back().point, end);
    over.overhang = true;
    over.held_first = held.back().by;
    all.push_back(over);
  }
  return all;
}

Quantity overhang(const Inner& inner, double root, double place) {
  const auto at = [&](solver::Polynomial solver::CoursePiece::*part, double x) {
    const solver::CoursePiece& p = inner.pieces[piece_at(inner.pieces, x, Side::after)];
    return (p.*part)(std::clamp(x, p.from, p.to) - p.from);
  };
  const double v = at(&solver::CoursePiece::v, place) - at(&solver::CoursePiece::v, root);
  const double w = at(&solver::CoursePiece::w, place) - at(&solver::CoursePiece::w, root);
  const double size = std::hypot(v, w);
  return {size > inner.movement_noise ? size : 0, dimension::length};
}

}  // namespace corvex::result
