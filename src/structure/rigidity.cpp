#include "structure/rigidity.hpp"

#include "section/worked.hpp"

namespace corvex {

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

double per(double rigidity) {
  return rigidity > 0 ? 1 / rigidity : 0;
}

}  // namespace

Flexibility::Flexibility(const Rigidity& r)
    : EA(per(r.EA)),
      EIy(per(r.EIy)),
      EIz(per(r.EIz)),
      GJ(per(r.GJ)),
      GAy(per(r.GAy)),
      GAz(per(r.GAz)),
      coupling(r.coupling) {}

Axes axes_in_plane(const Structure& structure, const Member& member) {
  Member flat = member;
  flat.roll = 0;
  return local_axes(structure, flat);
}

std::array<bool, 6> releases_in_plane(const Structure& structure, const Member& member,
                                      const std::array<bool, 6>& freed) {
  const bool about_z = bending_axes(structure, member).z;
  return {freed[0], freed[about_z ? 1 : 2], false, false, false, freed[about_z ? 5 : 4]};
}

}  // namespace corvex
