#include "solve/span.hpp"

namespace corvex::solver {

Rigidity rigidity(const Structure& structure, const Member& member) {
  const SectionProperties& p = structure.section_of(member).properties();
  const Material& material = structure.material_of(member);
  const double E = material.E.si(), G = material.shear_modulus().si();
  Rigidity r{E * p.A.si(), E * p.Iy.si(), E * p.Iz.si(), G * p.J.si(), 0, 0};
  if (structure.analysis().shear) {
    r.GAy = G * p.Ay.si();
    r.GAz = G * p.Az.si();
  }
  return r;
}

Spans cut(const Structure& structure) {
  Spans spans;
  spans.all.reserve(structure.members().size());
  spans.first.reserve(structure.members().size() + 1);
  spans.axes.reserve(structure.members().size());
  for (std::size_t i = 0; i < structure.members().size(); ++i) {
    const Member& m = structure.members()[i];
    spans.first.push_back(spans.all.size());
    spans.axes.push_back(local_axes(structure, m));
    const Vector origin = structure[m.through.front()].position;
    const double L = structure.length_of(m);
    const Vector along = (structure[m.through.back()].position - origin) / L;
    double start = 0;
    for (std::size_t k = 0; k + 1 < m.through.size(); ++k) {
      const bool last = k + 2 == m.through.size();
      const double end = last ? L : dot(structure[m.through[k + 1]].position - origin, along);
      Span s{i, m.through[k].index, m.through[k + 1].index, start, end - start, m.kind == MemberKind::beam};
      s.hinge_a = k == 0 && (m.hinge == Hinge::start || m.hinge == Hinge::both);
      s.hinge_b = last && (m.hinge == Hinge::end || m.hinge == Hinge::both);
      spans.all.push_back(s);
      start = end;
    }
  }
  spans.first.push_back(spans.all.size());
  return spans;
}

}  // namespace corvex::solver
