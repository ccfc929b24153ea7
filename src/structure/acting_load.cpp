#include "structure/acting_load.hpp"

#include <algorithm>
#include <cmath>

#include "section/worked.hpp"

namespace corvex {

Vector in_global_axes(const Structure& structure, const Member& member, const Vector& v, LoadAxes axes) {
  return axes == LoadAxes::member ? local_axes(structure, member).global(v) : v;
}

namespace {

// The moment, in global axes, that a force through this place of the section has about the axis on which loads only
// bend the member: across it about the shear centre, along it about the centroid.
Vector lever_moment(const Structure& s, const Member& m, const Vector& force, const std::optional<Through>& through) {
  const Through& t = through ? *through : s.analysis().through;
  if (t.place == Through::Place::shear_centre || m.kind == MemberKind::link || zero(force)) return {};
  const SectionProperties& p = section::stiffness(s.section_of(m));
  const bool given = t.place == Through::Place::at;
  const double y = given ? t.y.si() : 0, z = given ? t.z.si() : 0;
  const Axes axes = local_axes(s, m);
  const Vector f = axes.local(force);
  const double twist = (y - p.shear_centre_y.si()) * f.z - (z - p.shear_centre_z.si()) * f.y;
  const Vector moment = axes.global({twist, z * f.x, -y * f.x});
  return s.is_plane() ? Vector{0, 0, moment.z} : moment;
}

ActingLine with_lever(const Structure& s, ActingLine line, const std::optional<Through>& through) {
  line.first_moment = lever_moment(s, s[line.on], line.first, through);
  line.last_moment = lever_moment(s, s[line.on], line.last, through);
  return line;
}

}  // namespace

double plan_share(const Structure& structure, const Member& member) {
  const Vector along = structure.axis_end(member) - structure.axis_start(member);
  const Vector up = structure.up_direction();
  return length(along - up * dot(along, up)) / length(along);
}

ActingLine acting(const Structure& s, const LineLoad& load) {
  const Member& m = s[load.on];
  const double share = load.per == Per::plan ? plan_share(s, m) : 1;
  return with_lever(
      s,
      {load.on, load.from, load.to.value_or(s.length_of(m)), in_global_axes(s, m, load.first, load.axes) * share,
       in_global_axes(s, m, load.last, load.axes) * share},
      load.through);
}

std::vector<ActingLine> acting(const Structure& s, const SpreadLoad& load) {
  double total = 0;
  for (const MemberId id : load.on) total += s.length_of(s[id]);
  std::vector<ActingLine> all;
  for (const MemberId id : load.on) {
    const Vector q = in_global_axes(s, s[id], load.force, load.axes) / total;
    all.push_back(with_lever(s, {id, 0, s.length_of(s[id]), q, q}, load.through));
  }
  return all;
}

std::vector<ActingLine> acting(const Structure& s, const GravityLoad& load) {
  std::vector<ActingLine> all;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    const Vector q =
        load.acceleration * (s.section_of(m).area().si() * s.material_of(m).density.value_or(Density()).si());
    if (!zero(q)) all.push_back(with_lever(s, {MemberId(i), 0, s.length_of(m), q, q}, load.through));
  }
  return all;
}

MemberLoad acting(const Structure& s, const MemberLoad& load) {
  MemberLoad l = load;
  l.force = in_global_axes(s, s[load.on], load.force, load.axes);
  l.moment = in_global_axes(s, s[load.on], load.moment, load.axes) + lever_moment(s, s[load.on], l.force, load.through);
  l.axes = LoadAxes::global;
  l.through = Through::shear_centre();
  return l;
}

PointLoad acting(const Structure& s, const PointLoad& load) {
  PointLoad l = load;
  l.through = Through::shear_centre();
  const Through& t = load.through ? *load.through : s.analysis().through;
  if (t.place == Through::Place::shear_centre) return l;
  if (const auto beam = only_beam_at(s, load.at)) l.moment += lever_moment(s, s[*beam], load.force, load.through);
  return l;
}

std::optional<MemberId> only_beam_at(const Structure& s, PointId point) {
  std::optional<MemberId> only;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    if (m.kind == MemberKind::link) continue;
    if (std::find(m.through.begin(), m.through.end(), point) == m.through.end()) continue;
    if (only) return std::nullopt;
    only = MemberId{i};
  }
  return only;
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
