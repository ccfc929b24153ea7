#include "mechanism/unheld_loads.hpp"

#include <fmt/format.h>

#include <cmath>

#include "structure/acting_loads.hpp"

namespace corvex::solver {
namespace {

Problem unheld(std::string text, Subject subject, std::string key, Subject on, std::string remedy) {
  Problem p = as_finding("unheld-load", {std::move(text), std::move(subject), std::move(key)});
  p.others.push_back(std::move(on));
  p.remedy = std::move(remedy);
  return p;
}

void check_at_point(const Structure& s, const Dofs& f, const ActingForce& l, const Subject& subject,
                    Problems& problems) {
  const std::size_t at = l.point->index;
  const std::string& name = s.points()[at].name;
  const Subject point{Subject::Kind::point, name};
  if (!f.used[at]) {
    problems.push_back(unheld(fmt::format("no member has point '{}': nothing carries this load", name), subject, "at",
                              point, fmt::format("include '{}' in a member, or move the load", name)));
    return;
  }
  const double moment[] = {l.moment.x, l.moment.y, l.moment.z};
  for (int k = 0; k < 3; ++k)
    if (moment[k] != 0 && !f.exists(at, 3 + k))
      problems.push_back(
          unheld(fmt::format("point '{}' cannot resist a moment: only links and hinged ends meet there", name), subject,
                 "moment", point, "apply the moment to a member that transfers it, or make a link a beam"));
}

void check_on_member(const Structure& s, const ActingForce& l, const Subject& subject, Problems& problems) {
  const Member& m = s[l.on];
  const double torsion = local_axes(s, m).local(l.whole_moment()).x;
  if (m.kind == MemberKind::link && std::abs(torsion) > 1e-9 * length(l.moment))
    problems.push_back(unheld(fmt::format("'{}' is a link and cannot resist torsion", m.name), subject, "moment",
                              {Subject::Kind::member, m.name},
                              fmt::format("make '{}' a beam, or remove the moment", m.name)));
}

}  // namespace

Problems loads_without_hold(const Structure& s, const Dofs& f) {
  Problems problems;
  for (const PointMass& m : s.point_masses())
    if (!f.used[m.at.index]) {
      const std::string& name = s[m.at].name;
      problems.push_back(unheld(fmt::format("no member has point '{}': nothing carries this mass", name),
                                {Subject::Kind::mass, name}, {}, {Subject::Kind::point, name},
                                fmt::format("include '{}' in a member, or move the mass", name)));
    }
  for (const PointMass& m : s.point_masses())
    if (f.used[m.at.index] && m.turns() && !f.exists(m.at.index, 5)) {
      const std::string& name = s[m.at].name;
      problems.push_back(
          unheld(fmt::format("only links and hinged ends meet at point '{}': no rotation belongs to this mass, "
                             "which has an arm or an inertia",
                             name),
                 {Subject::Kind::mass, name}, {}, {Subject::Kind::point, name},
                 "connect a member rigidly there, or omit arm and inertia"));
    }
  for (const LoadCase& c : s.load_cases())
    for (const ActingForce& l : acting_forces(s, c)) {
      const Subject subject{Subject::Kind::load, c.name(), l.load};
      l.point ? check_at_point(s, f, l, subject, problems) : check_on_member(s, l, subject, problems);
    }
  return problems;
}

}  // namespace corvex::solver
