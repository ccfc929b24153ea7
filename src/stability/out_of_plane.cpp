#include "stability/out_of_plane.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "section/worked.hpp"
#include "stability/restraint.hpp"

namespace corvex::stability {

namespace {

class OutOfPlane {
 public:
  explicit OutOfPlane(const Structure& s)
      : s_(s), held_(s.points().size(), false), twist_held_(s.points().size(), false) {}

  OutOfPlaneVibration run() {
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      const Restraints held = restraints(s_, MemberId(i), nullptr);
      const bool along = held.y_along || held.z_along;
      for (const Restraint& r : held.at) {
        const std::size_t p = s_.members()[i].through[r.point].index;
        if (along || r.lateral_y) held_[p] = true;
        if (held.twist_along || r.twist > 0) twist_held_[p] = true;
      }
      if (!along) bending(i, held);
      if (!held.twist_along && s_.members()[i].kind == MemberKind::beam) torsion(i, held);
    }
    for (const PointMass& mass : s_.point_masses()) {
      if (!held_[mass.at.index])
        uncovered(mass, "is not restrained out of the plane");
      else if (mass.turns() && !twist_held_[mass.at.index])
        uncovered(mass, "can twist its member");
    }
    return std::move(all_);
  }

 private:
  void uncovered(MemberId m, std::string reason) {
    all_.not_checked.push_back(
        {m, "out-of-plane vibration: " + reason, "give `bracing`, or describe the structure in space"});
  }
  void uncovered(const PointMass& mass, const char* why) {
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      const auto& through = s_.members()[i].through;
      if (std::find(through.begin(), through.end(), mass.at) == through.end()) continue;
      return uncovered(MemberId(i), fmt::format("the mass at '{}' {}", s_[mass.at].name, why));
    }
  }
  void offer(std::size_t i, double hertz) {
    const Frequency f = Frequency::si(hertz);
    if (!all_.lowest || f.si() < all_.lowest->si()) all_.lowest = f, all_.member = MemberId(i);
  }

  void bending(std::size_t i, const Restraints& held) {
    const Member& m = s_.members()[i];
    for (const Restraint& end : {held.at.front(), held.at.back()})
      if (!end.lateral_y)
        return uncovered(MemberId(i), fmt::format("its end at '{}' is not restrained out of the plane",
                                                  s_[m.through[end.point]].name));
    const AreaProperties& a = s_.section_of(m).area_properties();
    // Of an unsymmetric section the smaller one.
    const double I = a.Iyz.si() != 0 ? section::stiffness(s_.section_of(m)).I2.si()
                                     : (bending_axes(s_, m).z ? a.Iy : a.Iz).si(),
                 mass = s_.material_of(m).density.value_or(Density()).si() * a.A.si();
    if (!(mass > 0)) return;
    if (!(I > 0)) return uncovered(MemberId(i), "its section has no second moment of area for it");
    double L = 0, last = 0;
    for (const Restraint& r : held.at)
      if (r.lateral_y) L = std::max(L, r.at - last), last = r.at;
    // Timoshenko's beam: shear deformation and rotary inertia lower the frequency, in first terms (TW, art. 5.12).
    const double slender = std::numbers::pi * std::numbers::pi / (L * L), E = s_.material_of(m).E.si();
    double lower = 1;
    if (s_.analysis().shear && m.kind == MemberKind::beam) {
      const SectionProperties& p = section::stiffness(s_.section_of(m));
      const double shear_area = (bending_axes(s_, m).z ? p.Az : p.Ay).si();
      lower += slender * I / a.A.si();
      if (shear_area > 0) lower += slender * E * I / (s_.material_of(m).shear_modulus().si() * shear_area);
    }
    offer(i, slender / (2 * std::numbers::pi) * std::sqrt(E * I / mass / lower));
  }

  // Half a wave of twist between restraints, a quarter beyond the last one; warping is left out, which lowers it.
  void torsion(std::size_t i, const Restraints& held) {
    const Member& m = s_.members()[i];
    const AreaProperties& a = s_.section_of(m).area_properties();
    const double inertia = s_.material_of(m).density.value_or(Density()).si() * (a.Iy + a.Iz).si(),
                 GJ = s_.material_of(m).shear_modulus().si() * section::stiffness(s_.section_of(m)).J.si();
    if (!(inertia > 0)) return;
    if (!(GJ > 0)) return uncovered(MemberId(i), "its section has no torsion constant");
    double L = 0, last = 0;
    bool any = false;
    for (const Restraint& r : held.at) {
      if (!(r.twist > 0)) continue;
      L = std::max(L, any ? r.at - last : 2 * r.at), last = r.at, any = true;
    }
    if (!any) return uncovered(MemberId(i), "nothing restrains its twist");
    L = std::max(L, 2 * (s_.length_of(m) - last));
    offer(i, std::sqrt(GJ / inertia) / (2 * L));
  }

  const Structure& s_;
  std::vector<bool> held_, twist_held_;  // points, out of the plane and against twist of a member
  OutOfPlaneVibration all_;
};

}  // namespace

OutOfPlaneVibration out_of_plane_vibration(const Structure& s) {
  return OutOfPlane(s).run();
}

}  // namespace corvex::stability
