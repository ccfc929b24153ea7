#include "structure/acting_load.hpp"

#include <cmath>

namespace corvex {

Vector in_global_axes(const Structure& structure, const Member& member, const Vector& v, LoadAxes axes) {
  return axes == LoadAxes::member ? local_axes(structure, member).global(v) : v;
}

double plan_share(const Structure& structure, const Member& member) {
  const Vector along = structure.axis_end(member) - structure.axis_start(member);
  const Vector up = structure.up_direction();
  return length(along - up * dot(along, up)) / length(along);
}

ActingLine acting(const Structure& s, const LineLoad& load) {
  const Member& m = s[load.on];
  const double share = load.per == Per::plan ? plan_share(s, m) : 1;
  return {load.on, load.from, load.to.value_or(s.length_of(m)), in_global_axes(s, m, load.first, load.axes) * share,
          in_global_axes(s, m, load.last, load.axes) * share};
}

std::vector<ActingLine> acting(const Structure& s, const SpreadLoad& load) {
  double total = 0;
  for (const MemberId id : load.on) total += s.length_of(s[id]);
  std::vector<ActingLine> all;
  for (const MemberId id : load.on) {
    const Vector q = in_global_axes(s, s[id], load.force, load.axes) / total;
    all.push_back({id, 0, s.length_of(s[id]), q, q});
  }
  return all;
}

std::vector<ActingLine> acting(const Structure& s, const GravityLoad& load) {
  std::vector<ActingLine> all;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    const Vector q = load.acceleration * (s.section_of(m).area().si() * s.material_of(m).density.si());
    if (!zero(q)) all.push_back({{i}, 0, s.length_of(m), q, q});
  }
  return all;
}

MemberLoad acting(const Structure& s, const MemberLoad& load) {
  MemberLoad l = load;
  l.force = in_global_axes(s, s[load.on], load.force, load.axes);
  l.moment = in_global_axes(s, s[load.on], load.moment, load.axes);
  l.axes = LoadAxes::global;
  return l;
}

FreeStrain free_strain(const Structure& s, const HeatLoad& load) {
  const Member& m = s[load.on];
  const double expansion = s.material_of(m).expansion.si();
  if (load.across == HeatLoad::Across::nothing) return {expansion * load.plus, 0, 0};
  const AreaProperties& p = s.section_of(m).area_properties();
  const bool y = load.across == HeatLoad::Across::y;
  const double height = (y ? p.height : p.width).si(), centroid = (y ? p.centroid_y : p.centroid_z).si();
  const double rise = (load.plus - load.minus) / height;
  const double along = expansion * (load.minus + rise * centroid), curve = -expansion * rise;
  return y ? FreeStrain{along, curve, 0} : FreeStrain{along, 0, curve};
}

FreeStrain free_strain(const Structure& s, const ShortenLoad& load) {
  return {-load.by / s.length_of(s[load.on]), 0, 0};
}

}  // namespace corvex
