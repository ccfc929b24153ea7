#include "beam/span.hpp"

#include <cmath>

namespace corvex::solver {

namespace {

// The member's axes, or those in which its section bends without going sideways.
Axes axes_of_bending(const Structure& structure, const Member& member) {
  const Axes local = local_axes(structure, member);
  const double turn = principal_turn(structure, member);
  if (turn == 0) return local;
  const double c = std::cos(turn), s = std::sin(turn);
  return {local.x, local.y * c + local.z * s, local.z * c - local.y * s};
}

}  // namespace

Spans cut(const Structure& structure) {
  Spans spans;
  spans.all.reserve(structure.members().size());
  spans.first.reserve(structure.members().size() + 1);
  spans.axes.reserve(structure.members().size());
  for (std::size_t i = 0; i < structure.members().size(); ++i) {
    const Member& m = structure.members()[i];
    spans.first.push_back(spans.all.size());
    spans.axes.push_back(axes_of_bending(structure, m));
    const bool armed = !zero(m.arm_start) || !zero(m.arm_end);
    const double L = structure.length_of(m);
    double start = 0;
    for (std::size_t k = 0; k + 1 < m.through.size(); ++k) {
      const bool last = k + 2 == m.through.size();
      const double end = structure.place_of(m, k + 1);
      Span s{i, m.through[k].index, m.through[k + 1].index, start, end - start, m.kind == MemberKind::beam};
      if (k == 0) s.freed_a = m.freed_start;
      if (last) s.freed_b = m.freed_end;
      if (armed) {
        s.armed = true;
        s.arm_a = m.arm_start + (m.arm_end - m.arm_start) * (start / L);
        s.arm_b = m.arm_start + (m.arm_end - m.arm_start) * (end / L);
      }
      spans.all.push_back(s);
      start = end;
    }
  }
  spans.first.push_back(spans.all.size());
  return spans;
}

}  // namespace corvex::solver
