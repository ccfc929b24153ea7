#include "result/warping_stress.hpp"

#include <algorithm>
#include <cmath>

#include "result/stress.hpp"

namespace corvex::result {

bool warping_could_govern(const Structure& s, const Member& m, const Inner& inner) {
  constexpr double share = 0.05;
  if (m.kind == MemberKind::link || s.is_plane()) return false;
  const Section& section = s.section_of(m);
  // Closed and solid sections have next to none; outlines may be either.
  const Shape& shape = section.shape();
  const bool open = std::holds_alternative<IProfile>(shape) || std::holds_alternative<Channel>(shape) ||
                    std::holds_alternative<AngleProfile>(shape) || std::holds_alternative<Tee>(shape) ||
                    std::holds_alternative<Outline>(shape);
  if (!open || section.stress_map().kind != StressMap::Kind::field) return false;
  double T = 0;
  for (const solver::CoursePiece& p : inner.pieces)
    T = std::max({T, std::abs(p.T(0)), std::abs(p.T(p.to - p.from)), std::abs(p.T((p.to - p.from) / 2))});
  if (!(T > inner.moment_noise)) return false;
  const SectionProperties& p = section.properties();
  const SectionDetails& d = section.details();
  if (!(d.Cw.si() > 0) || !(p.J.si() > 0)) return false;
  const Material& material = s.material_of(m);
  const double length = std::sqrt(material.E.si() * d.Cw.si() / (material.shear_modulus().si() * p.J.si()));
  const AreaProperties& a = section.area_properties();
  if (length < std::max(a.height.si(), a.width.si())) return false;
  const auto worst = StressCourse(s, m, inner).von_mises();
  return worst && T * length * d.warping.si() / d.Cw.si() > share * worst->value.si();
}

}  // namespace corvex::result
