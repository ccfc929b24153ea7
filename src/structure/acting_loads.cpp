#include "structure/acting_loads.hpp"

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

}  // namespace

double plan_share(const Structure& structure, const Member& member) {
  const Vector along = structure.axis_end(member) - structure.axis_start(member);
  const Vector up = structure.up_direction();
  return length(along - up * dot(along, up)) / length(along);
}

namespace {

// Resolves the loads of a case, one after the other.
class Resolver {
 public:
  explicit Resolver(const Structure& s) : s_(s) {}

  ActingLoads operator()(const LoadCase& loads) {
    for (const Load& load : loads.loads()) {
      own_ = {};
      std::visit(*this, load);
      all_.gross_force += length(own_);
      ++number_;
    }
    return std::move(all_);
  }

  // Of a case the forces at places, without what goes along members.
  std::vector<ActingForce> forces_of(const LoadCase& loads) {
    for (const Load& load : loads.loads()) {
      if (const auto* l = std::get_if<PointLoad>(&load)) (*this)(*l);
      if (const auto* l = std::get_if<MemberLoad>(&load)) (*this)(*l);
      ++number_;
    }
    return std::move(all_.forces);
  }

  void operator()(const PointLoad& l) {
    ActingForce f{.load = number_, .point = l.at, .place = s_[l.at].position, .force = l.force, .moment = l.moment};
    const Through& t = l.through ? *l.through : s_.analysis().through;
    if (t.place != Through::Place::shear_centre)
      if (const auto beam = only_beam_at(s_, l.at)) f.lever = lever_moment(s_, s_[*beam], l.force, l.through);
    add(std::move(f));
  }
  void operator()(const MemberLoad& l) {
    const Member& m = s_[l.on];
    const Vector force = in_global_axes(s_, m, l.force, l.axes);
    add({.load = number_,
         .point = std::nullopt,
         .on = l.on,
         .at = l.at,
         .place = place(m, l.at),
         .force = force,
         .moment = in_global_axes(s_, m, l.moment, l.axes),
         .lever = lever_moment(s_, m, force, l.through)});
  }
  void operator()(const LineLoad& l) {
    const Member& m = s_[l.on];
    const double share = l.per == Per::plan ? plan_share(s_, m) : 1;
    add({l.on, l.from, l.to.value_or(s_.length_of(m)), in_global_axes(s_, m, l.first, l.axes) * share,
         in_global_axes(s_, m, l.last, l.axes) * share},
        l.through);
  }
  void operator()(const SpreadLoad& l) {
    double total = 0;
    for (const MemberId id : l.on) total += s_.length_of(s_[id]);
    for (const MemberId id : l.on) {
      const Vector q = in_global_axes(s_, s_[id], l.force, l.axes) / total;
      add({id, 0, s_.length_of(s_[id]), q, q}, l.through);
    }
  }
  void operator()(const GravityLoad& l) {
    all_.acceleration += l.acceleration;
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      const Member& m = s_.members()[i];
      const Vector q =
          l.acceleration * (s_.section_of(m).area().si() * s_.material_of(m).density.value_or(Density()).si());
      if (!zero(q)) add({MemberId(i), 0, s_.length_of(m), q, q}, l.through);
    }
    for (const PointMass& m : s_.point_masses()) {
      const Vector force = l.acceleration * m.mass;
      sum(s_[m.at].position + m.arm, force, {});
      all_.masses.push_back({number_, m.at, m.arm, force, m.mass});
    }
  }
  void operator()(const TemperatureLoad& l) {
    const Member& m = s_[l.on];
    const double expansion = s_.material_of(m).expansion.si();
    if (l.across == TemperatureLoad::Across::nothing) {
      all_.strains.push_back({number_, l.on, expansion * l.plus, 0, 0});
      return;
    }
    const AreaProperties& p = s_.section_of(m).area_properties();
    const bool y = l.across == TemperatureLoad::Across::y;
    const double height = (y ? p.height : p.width).si(), centroid = (y ? p.centroid_y : p.centroid_z).si();
    const double rise = (l.plus - l.minus) / height;
    const double along = expansion * (l.minus + rise * centroid), curve = -expansion * rise;
    all_.strains.push_back({number_, l.on, along, y ? curve : 0, y ? 0 : curve});
  }
  void operator()(const LackOfFitLoad& l) {
    all_.strains.push_back({number_, l.on, -l.by / s_.length_of(s_[l.on]), 0, 0});
  }
  void operator()(const SettlementLoad& l) { all_.movements.push_back({number_, l.at, l.move, l.turn}); }

 private:
  Vector place(const Member& m, double along) const {
    const Vector a = s_.axis_start(m), b = s_.axis_end(m);
    return a + (b - a) * (along / s_.length_of(m));
  }

  void add(ActingForce f) {
    sum(f.place, f.force, f.whole_moment());
    all_.forces.push_back(std::move(f));
  }

  void add(ActingLine line, const std::optional<Through>& through) {
    const Member& m = s_[line.on];
    line.load = number_;
    line.first_moment = lever_moment(s_, m, line.first, through);
    line.last_moment = lever_moment(s_, m, line.last, through);
    // A constant part acts at the middle, a triangular part at two thirds.
    const double reach = line.to - line.from;
    sum(place(m, (line.from + line.to) / 2), line.first * reach, line.first_moment * reach);
    sum(place(m, line.from + reach * 2 / 3), (line.last - line.first) * (reach / 2),
        (line.last_moment - line.first_moment) * (reach / 2));
    all_.lines.push_back(std::move(line));
  }

  void sum(const Vector& at, const Vector& force, const Vector& moment) {
    Resultant& r = all_.resultant;
    own_ += force;
    r.force += force;
    r.moment += cross(at, force) + moment;
    r.largest_force = std::max(r.largest_force, length(force));
    r.largest_moment = std::max(r.largest_moment, length(moment));
  }

  const Structure& s_;
  ActingLoads all_;
  std::size_t number_ = 0;
  Vector own_;  // the resultant of the load that is being resolved
};

}  // namespace

ActingLoads acting_loads(const Structure& structure, const LoadCase& loads) {
  return Resolver(structure)(loads);
}

std::vector<ActingForce> acting_forces(const Structure& structure, const LoadCase& loads) {
  return Resolver(structure).forces_of(loads);
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

namespace {

LoadKind of_force(const Vector& force, const Vector& moment) {
  return zero(force) && !zero(moment) ? LoadKind::moment : LoadKind::force;
}

struct Kind {
  const Vector& up;

  LoadKind operator()(const PointLoad& l) const { return of_force(l.force, l.moment); }
  LoadKind operator()(const MemberLoad& l) const { return of_force(l.force, l.moment); }
  LoadKind operator()(const LineLoad&) const { return LoadKind::line_load; }
  LoadKind operator()(const SpreadLoad&) const { return LoadKind::spread_force; }
  LoadKind operator()(const TemperatureLoad&) const { return LoadKind::temperature_change; }
  LoadKind operator()(const LackOfFitLoad&) const { return LoadKind::lack_of_fit; }
  LoadKind operator()(const SettlementLoad&) const { return LoadKind::settlement; }
  LoadKind operator()(const GravityLoad& l) const {
    constexpr double standard = 9.80665, tolerance = 1e-3;
    const bool weight = length(l.acceleration + up * standard) <= tolerance * standard;
    return weight ? LoadKind::self_weight : LoadKind::acceleration;
  }
};

}  // namespace

LoadKind kind_of(const Load& load, const Vector& up) {
  return std::visit(Kind{up}, load);
}

std::string name(LoadKind kind) {
  static constexpr const char* names[] = {
      "force",       "moment",     "line load",   "force, spread evenly", "temperature change",
      "lack of fit", "settlement", "self-weight", "acceleration"};
  return names[static_cast<std::size_t>(kind)];
}

std::optional<Through> through_of(const Load& load) {
  return std::visit(
      [](const auto& l) -> std::optional<Through> {
        if constexpr (requires { l.through; })
          return l.through;
        else
          return std::nullopt;
      },
      load);
}

}  // namespace corvex
