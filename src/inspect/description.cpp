#include "inspect/description.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"
#include "section/worked.hpp"
#include "structure/acting_loads.hpp"
#include "structure/words.hpp"

namespace corvex::inspection {
namespace {

using Severity = Problem::Severity;

Problem about_members(const char* finding, const std::vector<std::string>& members, std::string text,
                      Severity severity) {
  Problem p{std::move(text), {Subject::Kind::member, members.front()}, {}, {}, severity};
  for (std::size_t i = 1; i < members.size(); ++i) p.others.push_back({Subject::Kind::member, members[i]});
  return as_finding(finding, std::move(p));
}

// Collects the links that a load acts across: the load goes to their ends.
class LoadedLinks {
 public:
  explicit LoadedLinks(const Structure& s) : s_(s), loaded_(s.members().size(), false) {}

  void take(const ActingLoads& loads) {
    for (const ActingForce& f : loads.forces)
      if (!f.point) across(f.on, f.force), across(f.on, f.whole_moment());
    for (const ActingLine& l : loads.lines) across(l.on, l.first), across(l.on, l.last);
  }

  std::vector<std::string> names() const {
    std::vector<std::string> names;
    for (std::size_t i = 0; i < loaded_.size(); ++i)
      if (loaded_[i]) names.push_back(s_.members()[i].name);
    return names;
  }

 private:
  void across(MemberId on, const Vector& v) {
    if (s_[on].kind != MemberKind::link) return;
    constexpr double rounding = 1e-12;
    const Vector local = local_axes(s_, s_[on]).local(v);
    if (std::hypot(local.y, local.z) > rounding * length(v)) loaded_[on.index] = true;
  }

  const Structure& s_;
  std::vector<bool> loaded_;
};

void loads_across_links(const Structure& s, const std::vector<ActingLoads>& acting, Problems& notes) {
  LoadedLinks loaded(s);
  for (const ActingLoads& loads : acting) loaded.take(loads);
  const std::vector<std::string> names = loaded.names();
  if (!names.empty())
    notes.push_back(about_members(
        "link-load", names,
        fmt::format("{}: loads on a link (its self-weight too) go to its ends; its own bending is not computed",
                    list(names)),
        Severity::note));
}

// Line loads and weight act along the axis between its ends; a rigid arm that continues the axis carries none.
void loads_beside_arms(const Structure& s, const std::vector<ActingLoads>& acting, Problems& notes) {
  std::vector<bool> loaded(s.members().size());
  for (const ActingLoads& loads : acting)
    for (const ActingLine& l : loads.lines) loaded[l.on.index] = true;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    if (!loaded[i] || (zero(m.arm_start) && zero(m.arm_end))) continue;
    constexpr double little = 1e-3;
    const double L = s.length_of(m);
    const Vector along = local_axes(s, m).x;
    const double start = dot(m.arm_start, along), end = -dot(m.arm_end, along);
    std::vector<std::string> arms;
    const auto add = [&](double reach, PointId at) {
      if (reach > little * L) arms.push_back(fmt::format("{} mm at '{}'", short_number(reach * 1e3, 4), s[at].name));
    };
    add(start, m.through.front()), add(end, m.through.back());
    if (arms.empty()) continue;
    notes.push_back(
        about_members("unloaded-arm", {m.name},
                      fmt::format("'{}': line loads and self-weight act on the {} mm of its axis, not along "
                                  "its rigid arms ({})",
                                  m.name, short_number(L * 1e3, 5), fmt::join(arms, ", ")),
                      Severity::note));
  }
}

void unlisted_sizes(const Structure& s, Problems& notes) {
  for (const NamedSection& n : s.sections())
    if (!n.note.empty())
      notes.push_back(as_finding("unlisted-size", {fmt::format("section '{}', {}: {}", n.name, n.designation, n.note),
                                                   {Subject::Kind::section, n.name},
                                                   {},
                                                   {},
                                                   Severity::note}));
}

void welded_aluminium(const Structure& s, Problems& notes) {
  for (std::size_t i = 0; i < s.materials().size(); ++i) {
    const Material& m = s.materials()[i];
    if (!m.weld_yield || m.allowable) continue;
    std::vector<std::string> members;
    for (const Member& member : s.members())
      if (member.material == i) members.push_back(member.name);
    if (members.empty()) continue;
    notes.push_back(about_members(
        "welded-aluminium", members,
        fmt::format("{}: in heat-affected zones '{}' yields at {} MPa; the safety factor ignores welds. Where welds "
                    "are in stressed places, give a material with that as 'allowable'",
                    list(members), m.name, short_number(m.weld_yield->in(units::MPa), 4)),
        Severity::note));
  }
}

// Of each section those of its beams for which a condition holds.
template <class Condition>
std::vector<std::pair<const NamedSection*, std::vector<std::string>>> beams_of(const Structure& s,
                                                                               const Condition& condition) {
  std::vector<std::vector<std::string>> members(s.sections().size());
  for (const Member& m : s.members())
    if (m.kind == MemberKind::beam && condition(m)) members[m.section.index].push_back(m.name);
  std::vector<std::pair<const NamedSection*, std::vector<std::string>>> found;
  for (std::size_t i = 0; i < members.size(); ++i)
    if (!members[i].empty()) found.emplace_back(&s.sections()[i], members[i]);
  return found;
}

void held_in_plane(const Structure& s, Problems& notes) {
  const auto askew = [&](const Member& m) { return s.section_of(m).area_properties().Iyz.si() != 0; };
  for (const auto& [section, members] : beams_of(s, askew))
    notes.push_back(about_members(
        "held-in-plane", members,
        fmt::format(
            "{}: section '{}' has a product of inertia (Iyz is not zero) and would bend out of the plane; "
            "here it is restrained in the plane, and its stress is N/A - Mz*y/Iz. Describe the structure in space to let "
            "it bend freely",
            list(members), section->name),
        Severity::warning));
}

// The torsion constant of a thin open outline is the small difference of terms that are (length/wall)² times larger.
void thin_walls(const Structure& s, Problems& notes) {
  const auto very_thin = [&](const Member& m) {
    const double perimeter = section::open_perimeter(s.section_of(m));
    constexpr double thin = 1e-3;
    return 4 * s.section_of(m).area().si() < thin * perimeter * perimeter;
  };
  for (const auto& [section, members] : beams_of(s, very_thin))
    notes.push_back(about_members(
        "thin-wall", members,
        fmt::format("{}: the open wall of section '{}' is thinner than 1/1000 of its length: its torsion constant may "
                    "be inaccurate by 0.3 % and more; give it as a section of 'properties', J = sum of b*t^3/3",
                    list(members), section->name),
        Severity::warning));
}

void shear_centres(const Structure& s, Problems& notes) {
  // In the plane only forces along the plane's own direction of the section act.
  const auto twists = [&](const Member& m) {
    if (section::doubly_symmetric(s.section_of(m))) return false;
    const SectionProperties& p = section::stiffness(s.section_of(m));
    double beside = std::hypot(p.shear_centre_y.si(), p.shear_centre_z.si());
    if (s.is_plane()) beside = !bending_axes(s, m).z ? p.shear_centre_y.si() : p.shear_centre_z.si();
    return beside * beside > 1e-8 * p.A.si();
  };
  const char* effect = s.is_plane() ? "in a plane structure it is restrained against twisting"
                       : s.analysis().through.place == Through::Place::shear_centre
                           ? "loads act through the shear centre and do not twist it, unless they say 'through'"
                           : "loads act at the place that 'through' names and twist it";
  for (const auto& [section, members] : beams_of(s, twists)) {
    const SectionProperties& p = section::stiffness(section->section);
    notes.push_back(about_members(
        "shear-centre", members,
        fmt::format("{}: the shear centre of section '{}' lies at y = {} mm, z = {} mm from its centroid; {}",
                    list(members), section->name, short_number(p.shear_centre_y.in(units::mm), 3),
                    short_number(p.shear_centre_z.in(units::mm), 3), effect),
        Severity::note));
  }
}

}  // namespace

Problems notes_of_description(const Structure& s) {
  Problems notes;
  // Loads are resolved for the members that the notes are about, where there are any.
  const bool matters = std::any_of(s.members().begin(), s.members().end(), [](const Member& m) {
    return m.kind == MemberKind::link || !zero(m.arm_start) || !zero(m.arm_end);
  });
  std::vector<ActingLoads> acting;
  for (std::size_t i = 0; matters && i < s.load_cases().size(); ++i)
    acting.push_back(acting_loads(s, s.load_cases()[i]));
  loads_across_links(s, acting, notes);
  loads_beside_arms(s, acting, notes);
  unlisted_sizes(s, notes);
  welded_aluminium(s, notes);
  if (s.is_plane())
    held_in_plane(s, notes);
  else
    thin_walls(s, notes);
  shear_centres(s, notes);
  return notes;
}

}  // namespace corvex::inspection
