#include "solve/load_checks.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "section/worked.hpp"
#include "structure/words.hpp"

namespace corvex::solver {
namespace {

Problem unheld(std::string text, Subject subject, std::string key, Subject on, std::string remedy) {
  Problem p = as_finding("unheld-load", {std::move(text), std::move(subject), std::move(key)});
  p.others.push_back(std::move(on));
  p.remedy = std::move(remedy);
  return p;
}

void check(const Structure& s, const Freedoms& f, const PointLoad& l, const Subject& subject, Problems& problems) {
  const std::string& name = s[l.at].name;
  const Subject point{Subject::Kind::point, name};
  if (!f.used[l.at.index]) {
    problems.push_back(unheld(fmt::format("no member goes through point {}: nothing carries this load", name), subject,
                              "at", point, fmt::format("name {} in a member, or move the load", name)));
    return;
  }
  const double moment[] = {l.moment.x, l.moment.y, l.moment.z};
  for (int k = 0; k < 3; ++k)
    if (moment[k] != 0 && !f.exists(l.at.index, 3 + k))
      problems.push_back(
          unheld(fmt::format("nothing at point {} can take a moment: only links and hinged ends meet there", name),
                 subject, "moment", point, "give the moment to a member that passes it on, or make a link a beam"));
}

void check(const Structure& s, const MemberLoad& l, const Subject& subject, Problems& problems) {
  const Member& m = s[l.on];
  const double torsion = local_axes(s, m).local(acting(s, l).moment).x;
  if (m.kind == MemberKind::link && std::abs(torsion) > 1e-9 * length(l.moment))
    problems.push_back(unheld(fmt::format("'{}' is a link and cannot take torsion", m.name), subject, "moment",
                              {Subject::Kind::member, m.name},
                              fmt::format("make {} a beam, or remove the moment", m.name)));
}

bool acts_across(const LoadPiece& l) {
  return l.q0.y != 0 || l.q0.z != 0 || l.slope.y != 0 || l.slope.z != 0 || l.jump_force.y != 0 || l.jump_force.z != 0 ||
         l.jump_moment.y != 0 || l.jump_moment.z != 0;
}

// Links that some case loads across.
std::vector<std::string> loaded_links(const Structure& s, const Analysis& a) {
  std::vector<std::string> names;
  for (std::size_t i = 0; i < a.system.spans.all.size(); ++i) {
    if (a.system.spans.all[i].beam) continue;
    const bool loaded = std::any_of(a.acting.begin(), a.acting.end(), [&](const Acting& c) {
      const auto pieces = c.loads.on(i);
      return std::any_of(pieces.begin(), pieces.end(), acts_across);
    });
    if (loaded) names.push_back(s.members()[a.system.spans.all[i].member].name);
  }
  return names;
}

// Sections with those of their beams for which a condition holds.
template <class Condition>
std::vector<std::pair<std::string, std::vector<std::string>>> beams_of(const Structure& s, const Condition& condition) {
  std::vector<std::vector<std::string>> members(s.sections().size());
  for (const Member& m : s.members())
    if (m.kind == MemberKind::beam && condition(m)) members[m.section.index].push_back(m.name);
  std::vector<std::pair<std::string, std::vector<std::string>>> found;
  for (std::size_t i = 0; i < members.size(); ++i)
    if (!members[i].empty()) found.emplace_back(s.sections()[i].name, members[i]);
  return found;
}

}  // namespace

Problems loads_without_hold(const Structure& s, const Freedoms& f) {
  Problems problems;
  for (const PointMass& m : s.point_masses())
    if (!f.used[m.at.index]) {
      const std::string& name = s[m.at].name;
      problems.push_back(unheld(fmt::format("no member goes through point {}: nothing carries this mass", name),
                                {Subject::Kind::mass, name}, {}, {Subject::Kind::point, name},
                                fmt::format("name {} in a member, or move the mass", name)));
    }
  for (const PointMass& m : s.point_masses())
    if (f.used[m.at.index] && m.turns() && !f.exists(m.at.index, 5)) {
      const std::string& name = s[m.at].name;
      problems.push_back(
          unheld(fmt::format("only links and hinged ends meet at point {}: nothing turns with this mass, "
                             "which has an arm or an inertia",
                             name),
                 {Subject::Kind::mass, name}, {}, {Subject::Kind::point, name},
                 "let a member be rigid there, or leave out arm and inertia"));
    }
  for (const LoadCase& c : s.load_cases())
    for (std::size_t i = 0; i < c.loads().size(); ++i) {
      const Subject subject{Subject::Kind::load, c.name(), i};
      if (const auto* l = std::get_if<PointLoad>(&c.loads()[i])) check(s, f, *l, subject, problems);
      if (const auto* l = std::get_if<MemberLoad>(&c.loads()[i])) check(s, *l, subject, problems);
    }
  return problems;
}

Problems notes(const Structure& s, const Analysis& a) {
  Problems notes;
  const auto add = [&](const char* finding, const std::vector<std::string>& members, std::string text,
                       Problem::Severity severity = Problem::Severity::note) {
    Problem p{std::move(text), {Subject::Kind::member, members.front()}, {}, {}, severity};
    for (std::size_t i = 1; i < members.size(); ++i) p.others.push_back({Subject::Kind::member, members[i]});
    notes.push_back(as_finding(finding, std::move(p)));
  };
  const std::vector<std::string> loaded = loaded_links(s, a);
  if (!loaded.empty())
    add("link-load", loaded,
        fmt::format("{}: loads on a link (its own weight too) go to its ends; its own bending is not computed",
                    list(loaded)));
  for (const NamedSection& n : s.sections())
    if (!n.note.empty())
      notes.push_back(as_finding("unlisted-size", {fmt::format("section '{}', {}: {}", n.name, n.designation, n.note),
                                                   {Subject::Kind::section, n.name},
                                                   {},
                                                   {},
                                                   Problem::Severity::note}));
  for (std::size_t i = 0; i < s.materials().size(); ++i) {
    const Material& m = s.materials()[i];
    if (!m.weld_yield || m.allowable) continue;
    std::vector<std::string> members;
    for (const Member& member : s.members())
      if (member.material == i) members.push_back(member.name);
    add("welded-aluminium", members,
        fmt::format("{}: beside welds '{}' yields at {:.4g} MPa already; safety is counted without welds. Where they "
                    "stand in stressed places, give a material with that as 'allowable'",
                    list(members), m.name, m.weld_yield->in(units::MPa)));
  }
  const auto askew = [&](const Member& m) { return s.section_of(m).area_properties().Iyz.si() != 0; };
  // In the plane only forces along the plane's own direction of the section act.
  const auto twists = [&](const Member& m) {
    if (section::doubly_symmetric(s.section_of(m))) return false;
    const SectionProperties& p = section::stiffness(s.section_of(m));
    double beside = std::hypot(p.shear_centre_y.si(), p.shear_centre_z.si());
    if (s.is_plane()) beside = !bending_axes(s, m).z ? p.shear_centre_y.si() : p.shear_centre_z.si();
    return beside * beside > 1e-8 * p.A.si();
  };
  if (s.is_plane())
    for (const auto& [section, members] : beams_of(s, askew))
      add("held-in-plane", members,
          fmt::format("{}: section '{}' has a product of inertia (Iyz is not zero) and would bend out of the plane; "
                      "here it is held in it, and its stress is N/A - Mz*y/Iz. Describe the structure in space to let "
                      "it bend freely",
                      list(members), section),
          Problem::Severity::warning);
  // The torsion of a thin open outline is what is left of a polar moment that is (length/wall)² times larger.
  const auto very_thin = [&](const Member& m) {
    const double perimeter = section::open_perimeter(s.section_of(m));
    constexpr double thin = 1e-3;
    return 4 * s.section_of(m).area().si() < thin * perimeter * perimeter;
  };
  if (!s.is_plane())
    for (const auto& [section, members] : beams_of(s, very_thin))
      add("thin-wall", members,
          fmt::format(
              "{}: the open wall of section '{}' is thinner than 1/1000 of its length: its torsion constant may "
              "be off by 0.3 % and more; give it as a section of 'properties', J = sum of b*t^3/3",
              list(members), section),
          Problem::Severity::warning);
  for (const auto& [section, members] : beams_of(s, twists)) {
    const SectionProperties& p = section::stiffness(s.sections()[s.find_section(section)->index].section);
    add("shear-centre", members,
        fmt::format("{}: the shear centre of section '{}' lies at y = {:.3g} mm, z = {:.3g} mm from its centroid; {}",
                    list(members), section, p.shear_centre_y.in(units::mm) + 0.0, p.shear_centre_z.in(units::mm) + 0.0,
                    s.is_plane() ? "in a plane structure it is held against twisting"
                    : s.analysis().through.place == Through::Place::shear_centre
                        ? "loads act through the shear centre and do not twist it, unless they say 'through'"
                        : "loads act at the place that 'through' names and twist it"));
  }
  return notes;
}

}  // namespace corvex::solver
