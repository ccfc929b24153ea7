#include "solve/span.hpp"

#include <cmath>

#include "section/worked.hpp"

namespace corvex::solver {

double principal_turn(const Structure& structure, const Member& member) {
  if (structure.is_plane() || member.kind == MemberKind::link) return 0;
  const SectionProperties& p = section::stiffness(structure.section_of(member));
  return p.Iyz.si() == 0 ? 0 : p.principal.si();
}

Rigidity rigidity(const Structure& structure, const Member& member) {
  const Section& section = structure.section_of(member);
  const Material& material = structure.material_of(member);
  const double E = material.E.si(), G = material.shear_modulus().si();
  Rigidity r;
  r.EA = E * section.area().si();
  if (member.kind == MemberKind::link) return r;
  if (structure.is_plane()) {
    // Both planes are given the figures of the one in which the member bends.
    const bool about_z = bending_axes(structure, member).z;
    r.EIz = r.EIy = E * (about_z ? section.area_properties().Iz : section.area_properties().Iy).si();
    if (structure.analysis().shear)
      r.GAy = r.GAz = G * (about_z ? section::plane_shear_area(section) : section::stiffness(section).Az).si();
    return r;
  }
  const SectionProperties& p = section::stiffness(section);
  const bool turned = principal_turn(structure, member) != 0;
  r.EIz = E * (turned ? p.I1 : p.Iz).si();
  r.EIy = E * (turned ? p.I2 : p.Iy).si();
  r.GJ = G * p.J.si();
  if (structure.analysis().shear) {
    r.GAy = G * (turned ? p.A1 : p.Ay).si();
    r.GAz = G * (turned ? p.A2 : p.Az).si();
    if (p.A12.si() != 0) r.coupling = 1 / (G * p.A12.si());
  }
  return r;
}

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
