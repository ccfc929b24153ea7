#include "inspect/mirror.hpp"

#include <algorithm>
#include <map>

namespace corvex::inspection {

std::optional<Mirror> mirror(const Structure& s, double Vector::*axis) {
  const Box box = s.bounds();
  const double touch = 1e-6 * box.diagonal(), middle = (box.low.*axis + box.high.*axis) / 2;
  Mirror m{axis, {}, {}, {}};
  for (const Point& p : s.points()) {
    Vector v = p.position;
    v.*axis = 2 * middle - v.*axis;
    const auto it = std::find_if(s.points().begin(), s.points().end(),
                                 [&](const Point& q) { return length(q.position - v) <= touch; });
    if (it == s.points().end()) return std::nullopt;
    m.point.push_back(static_cast<std::size_t>(it - s.points().begin()));
  }
  std::map<std::pair<std::size_t, std::size_t>, std::size_t> by_ends;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const auto& through = s.members()[i].through;
    by_ends.emplace(std::minmax(through.front().index, through.back().index), i);
  }
  for (const Member& member : s.members()) {
    const std::size_t a = m.point[member.through.front().index], b = m.point[member.through.back().index];
    const auto it = by_ends.find(std::minmax(a, b));
    if (it == by_ends.end()) return std::nullopt;
    m.member.push_back(it->second);
    m.runs_back.push_back(s.members()[it->second].through.front().index != a);
  }
  return m;
}

}  // namespace corvex::inspection
