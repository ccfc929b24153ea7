#include "stability/out_of_plane.hpp"

#include <fmt/format.h>

#include <cmath>
#include <numbers>

#include "section/worked.hpp"
#include "stability/restraint.hpp"

namespace corvex::stability {

OutOfPlaneVibration out_of_plane_vibration(const Structure& s) {
  OutOfPlaneVibration all;
  std::vector<bool> held_points(s.points().size(), false);
  const auto uncovered = [&](MemberId m, std::string reason) {
    all.not_checked.push_back({m, std::move(reason), "say `bracing`, or describe the structure in space"});
  };
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    const Restraints held = restraints(s, MemberId(i), nullptr);
    const bool along = held.y_along || held.z_along;
    for (const Restraint& r : held.at)
      if (along || r.lateral_y) held_points[m.through[r.point].index] = true;
    if (along) continue;
    const Restraint* free_end = !held.at.front().lateral_y  ? &held.at.front()
                                : !held.at.back().lateral_y ? &held.at.back()
                                                            : nullptr;
    if (free_end) {
      uncovered(MemberId(i), fmt::format("out-of-plane vibration: its end at '{}' is not restrained out of the plane",
                                         s[m.through[free_end->point]].name));
      continue;
    }
    const AreaProperties& a = s.section_of(m).area_properties();
    // Of an unsymmetric section the smaller one.
    const double I = a.Iyz.si() != 0 ? section::stiffness(s.section_of(m)).I2.si()
                                     : (bending_axes(s, m).z ? a.Iy : a.Iz).si(),
                 mass = s.material_of(m).density.value_or(Density()).si() * a.A.si();
    if (!(mass > 0)) continue;
    if (!(I > 0)) {
      uncovered(MemberId(i), "out-of-plane vibration: its section has no second moment of area for it");
      continue;
    }
    double L = 0, last = 0;
    for (const Restraint& r : held.at)
      if (r.lateral_y) L = std::max(L, r.at - last), last = r.at;
    // Timoshenko's beam: shear deformation and rotary inertia lower the frequency, in first terms (TW, art. 5.12).
    const double slender = std::numbers::pi * std::numbers::pi / (L * L), E = s.material_of(m).E.si();
    double lower = 1;
    if (s.analysis().shear && m.kind == MemberKind::beam) {
      const SectionProperties& p = section::stiffness(s.section_of(m));
      const double shear_area = (bending_axes(s, m).z ? p.Az : p.Ay).si();
      lower += slender * I / a.A.si();
      if (shear_area > 0) lower += slender * E * I / (s.material_of(m).shear_modulus().si() * shear_area);
    }
    const Frequency f = Frequency::si(slender / (2 * std::numbers::pi) * std::sqrt(E * I / mass / lower));
    if (!all.lowest || f.si() < all.lowest->si()) all.lowest = f, all.member = MemberId(i);
  }
  for (const PointMass& mass : s.point_masses()) {
    if (held_points[mass.at.index]) continue;
    for (std::size_t i = 0; i < s.members().size(); ++i) {
      const auto& through = s.members()[i].through;
      if (std::find(through.begin(), through.end(), mass.at) == through.end()) continue;
      uncovered(MemberId(i), fmt::format("out-of-plane vibration: the mass at '{}' is not restrained out of the plane",
                                         s[mass.at].name));
      break;
    }
  }
  return all;
}

}  // namespace corvex::stability
