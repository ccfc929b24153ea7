#include "mechanism/unheld_loads.hpp"

#include <fmt/format.h>

#include <cmath>

#include "structure/acting_load.hpp"

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

}  // namespace corvex::solver
