#include "result/notes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/envelope.hpp"
#include "corvex/number.hpp"
#include "section/worked.hpp"
#include "structure/words.hpp"

namespace corvex::result {
namespace {

Problem about(const char* finding, std::string text, const std::vector<std::string>& members,
              Problem::Severity severity) {
  Problem p{std::move(text), {Subject::Kind::member, members.front()}, {}, {}, severity};
  for (std::size_t i = 1; i < members.size(); ++i) p.others.push_back({Subject::Kind::member, members[i]});
  return as_finding(finding, std::move(p));
}

// The shear centre is not the centroid.
bool eccentric(const Structure& s, const Member& m) {
  if (m.kind == MemberKind::link) return false;
  if (section::doubly_symmetric(s.section_of(m))) return false;
  const SectionProperties& p = section::stiffness(s.section_of(m));
  const double beside = std::hypot(p.shear_centre_y.si(), p.shear_centre_z.si());
  return beside * beside > 1e-8 * p.A.si();
}

std::optional<double> worst_of(const Solution& solution, MemberId m) {
  std::optional<double> worst;
  for (const std::size_t c : solution.assessed())
    if (const auto s = solution[c][m].von_mises()) worst = std::max(worst.value_or(0), s->value.si());
  return worst;
}

// The same loads through the centroids: where that raises the worst stress by more than a twentieth, both are reported.
void through_centroid(const Solution& solution, Problems& notes) {
  const Structure& s = solution.structure();
  if (s.is_plane() || s.analysis().through.place != Through::Place::shear_centre) return;
  std::vector<MemberId> members;
  for (std::size_t i = 0; i < s.members().size(); ++i)
    if (eccentric(s, s.members()[i])) members.emplace_back(i);
  if (members.empty()) return;
  Structure other = s;
  other.analysis().through = Through::centroid();
  const Solution twisted = solve(other);
  if (!twisted.ok()) return;
  constexpr double much = 1.05;
  for (const MemberId m : members) {
    const auto bent = worst_of(solution, m), both = worst_of(twisted, m);
    if (!bent || !both || !(*both > much * *bent)) continue;
    const MemberResult r = solution[solution.assessed().front()][m];
    const SectionProperties& p = s.section_of(s[m]).properties();
    const auto safety = r.safety_against(Stress::si(*bent)), twisted_safety = r.safety_against(Stress::si(*both));
    const char* without = leaves_out_warping(twisted, m) ? ", without warping normal stress" : "";
    const std::string figures = safety && twisted_safety
                                    ? fmt::format("safety factor {}; {} if the loads act at the centroid{}",
                                                  short_number(*safety, 3), short_number(*twisted_safety, 3), without)
                                    : fmt::format("largest stress {} MPa; {} MPa if the loads act at the centroid",
                                                  short_number(*bent / 1e6, 4), short_number(*both / 1e6, 4));
    notes.push_back(about(
        "shear-centre",
        fmt::format("'{}': {}. Loads act through the shear centre of the section, {} mm from its centroid, unless "
                    "they have 'through: centroid'",
                    s[m].name, figures,
                    short_number(std::hypot(p.shear_centre_y.in(units::mm), p.shear_centre_z.in(units::mm)), 3)),
        {s[m].name}, Problem::Severity::warning));
  }
}

void warping(const Solution& solution, Problems& notes) {
  const Structure& s = solution.structure();
  std::vector<std::string> members;
  for (std::size_t i = 0; i < s.members().size() && !s.is_plane(); ++i)
    if (leaves_out_warping(solution, MemberId{i})) members.push_back(s.members()[i].name);
  if (members.empty()) return;
  notes.push_back(
      about("warping",
            fmt::format("{}: an open section that is twisted. The normal stress of restrained warping is not "
                        "computed and could govern; stress and safety factor are given without it",
                        list(members)),
            members, Problem::Severity::warning));
}

// Torsion that brings a quarter of the strength about, in a section with sharp re-entrant corners.
void notches(const Solution& solution, Problems& notes) {
  const Structure& s = solution.structure();
  std::vector<std::string> members;
  for (std::size_t i = 0; i < s.members().size() && !s.is_plane(); ++i) {
    const Member& m = s.members()[i];
    if (m.kind == MemberKind::link || !s.section_of(m).stress_map().leaves_out_notches) continue;
    for (const std::size_t c : solution.assessed()) {
      const MemberResult r = solution[c][MemberId{i}];
      const Diagram T = r.torsion();
      const double most = T.largest().si;
      const auto strength = r.strength();
      if (!strength || !(4 * std::sqrt(3.0) * most / s.section_of(m).properties().Wt.si() > strength->si())) continue;
      members.push_back(m.name);
      break;
    }
  }
  if (members.empty()) return;
  notes.push_back(
      about("sharp-corner",
            fmt::format("{}: the section has sharp re-entrant corners, where the shear stress of torsion has no "
                        "bound; stress within a wall's thickness of them is left out. Give the corners their radius",
                        list(members)),
            members, Problem::Severity::note));
}

// The same imperfection the other way moves the structure more.
void favourable_imperfection(const Solution& solution, Problems& notes) {
  const Structure& s = solution.structure();
  const auto& given = s.analysis().imperfection;
  if (s.analysis().order != Order::second || !given || !given->toward) return;
  Structure other = s;
  other.analysis().imperfection->toward = *given->toward * -1.0;
  const Solution reversed = solve(other);
  const auto moved = [&](const CaseResult& c) {
    double most = 0;
    for (std::size_t p = 0; p < s.points().size(); ++p) {
      const Displacement d = c.displacement(PointId(p));
      most = std::max(most, std::hypot(d.x.si(), d.y.si(), d.z.si()));
    }
    for (std::size_t m = 0; m < s.members().size(); ++m) most = std::max(most, c[MemberId(m)].movement().value.si);
    return most;
  };
  for (const std::size_t c : solution.assessed()) {
    const std::string name = solution[c].name();
    const double as_given = moved(solution[c]), the_other = reversed.ok() ? moved(reversed[name]) : 0;
    constexpr double much = 1.02;
    if (reversed.ok() && the_other <= much * as_given) continue;
    Problem p{fmt::format("in case '{}' the imperfection acts against the loads: {}", name,
                          reversed.ok() ? fmt::format("the other way the largest displacement is {} times as large",
                                                      short_number(the_other / as_given, 3))
                                        : "the other way the structure buckles"),
              {Subject::Kind::load_case, name}};
    p.severity = Problem::Severity::warning;
    p.remedy = "leave out 'toward': then both directions are computed";
    notes.push_back(as_finding("favourable-imperfection", std::move(p)));
  }
}

void critical_loads(const Solution& solution, Problems& notes) {
  const Structure& s = solution.structure();
  const bool first = s.analysis().order == Order::first;
  for (const std::size_t c : solution.assessed()) {
    if (solution.base_of(c) != c) continue;
    const CaseResult result = solution[c];
    const auto critical = result.critical_load();
    if (!critical || !critical->factor) continue;
    const double factor = *critical->factor;
    const std::string where = s.is_plane() ? " in the plane" : "";
    std::string text = fmt::format("in case '{}' the critical load factor{} is {} ({})", result.name(), where,
                                   factor > 0 ? short_number(factor, 3) : "0", critical->description);
    Problem p{std::move(text), {Subject::Kind::load_case, result.name()}};
    p.severity = first || factor < 1 ? Problem::Severity::warning : Problem::Severity::note;
    if (factor < 1)
      p.text += ": the structure buckles under these loads";
    else if (first)
      p.text += ": second-order effects are not negligible";
    p.remedy = factor < 1 ? "use a stiffer structure, or less load" : "use analysis: {order: second}";
    notes.push_back(as_finding("low-critical-load", std::move(p)));
    if (s.analysis().order != Order::second || s.analysis().imperfection || factor < 1) continue;
    Problem without{
        fmt::format("in case '{}' second order without an imperfection: buckling does not appear in the results",
                    result.name()),
        {Subject::Kind::load_case, result.name()}};
    without.severity = Problem::Severity::warning;
    without.remedy = "add imperfection: {sway: 1/200, bow: 1/250}";
    notes.push_back(as_finding("no-imperfection", std::move(without)));
  }
}

}  // namespace

Problems notes_of_results(const Solution& solution) {
  Problems notes;
  through_centroid(solution, notes);
  warping(solution, notes);
  notches(solution, notes);
  critical_loads(solution, notes);
  favourable_imperfection(solution, notes);
  return notes;
}

}  // namespace corvex::result
