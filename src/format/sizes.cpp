#include "format/sizes.hpp"

#include <algorithm>
#include <cmath>

#include "corvex/figures.hpp"

namespace corvex::format {

double clean(double si, const NamedUnit& unit, double size) {
  return std::abs(si) <= noise * size ? 0 : si / unit.si;
}

Sizes sizes_of(const Structure& s, const CaseResult& result, const std::vector<MemberResult>& members) {
  Sizes z;
  for (std::size_t i = 0; i < s.points().size(); ++i) {
    const Displacement d = result.displacement(PointId{i});
    z.move = std::max({z.move, std::abs(d.x.si()), std::abs(d.y.si()), std::abs(d.z.si())});
    z.turn = std::max({z.turn, std::abs(d.rx.si()), std::abs(d.ry.si()), std::abs(d.rz.si())});
  }
  for (const MemberResult& m : members) {
    for (const MemberFigure& f : member_figures()) {
      if (f.kind == MemberFigure::Kind::force) z.force = std::max(z.force, f.diagram(m).largest().si);
      if (f.kind == MemberFigure::Kind::moment) z.moment = std::max(z.moment, f.diagram(m).largest().si);
    }
    z.move = std::max(z.move, m.movement().value.si);
  }
  const Balance b = result.balance();
  z.force = std::max({z.force, std::abs(b.applied.x.si()), std::abs(b.applied.y.si()), std::abs(b.applied.z.si())});
  const double size = s.bounds().diagonal();
  // If all moments are zero, their rounding error is that of a force times a lever.
  z.moment = std::max(z.moment, z.force * size * 1e-3);
  // Under moments alone the noise of a force is theirs over a lever.
  if (size > 0) z.force = std::max(z.force, z.moment / size * 1e-3);
  z.turn = std::max(z.turn, size > 0 ? z.move / size * 1e-3 : 0);
  return z;
}

}  // namespace corvex::format
