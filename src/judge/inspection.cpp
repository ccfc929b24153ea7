// Findings that need no results.
#include <set>

#include "analysis/system.hpp"
#include "corvex/findings.hpp"
#include "inspect/findings.hpp"
#include "judge/suspect_limits.hpp"
#include "linear_system/dofs.hpp"
#include "structure/checks.hpp"

namespace corvex {
namespace {

// Each span transfers a number of independent forces; each free degree of freedom is one equation of equilibrium. A
// reaction is an unknown of the degree of freedom that it restrains: neither counts.
int indeterminacy(const Structure& s) {
  const solver::Spans spans = solver::cut(s);
  const solver::Dofs f = solver::dofs(s, spans);
  int unknowns = 0, equations = 0;
  for (const solver::Span& span : spans.all) {
    if (!span.beam) {
      ++unknowns;
      continue;
    }
    const bool about_y = s.is_plane() && !bending_axes(s, s.members()[span.member]).z;
    int forces = 0;
    for (std::size_t k = 0; k < 6; ++k) {
      const bool there = !s.is_plane() || k == 0 || (about_y ? k == 2 || k == 4 : k == 1 || k == 5);
      if (!there) continue;
      // Twelve end forces less six conditions of equilibrium; each release makes one of them known.
      ++forces;
      forces -= span.freed_a[k] + span.freed_b[k];
    }
    unknowns += forces;
  }
  for (std::size_t p = 0; p < f.status.size(); ++p)
    for (const solver::Status status : f.status[p]) equations += status == solver::Status::free;
  for (const solver::PointSpring& spring : f.springs)
    for (std::size_t k = 0; k < 6; ++k)
      unknowns += spring.stiffness[k] > 0 && f.status[spring.point][k] == solver::Status::free;
  return unknowns - equations;
}

// An end that is loose because it is not joined to what it touches is reported once.
Problems without_consequences(Problems findings) {
  std::set<std::string> unjoined;
  for (const Problem& p : findings)
    if (p.finding == "unjoined-point" || p.finding == "near-points" || p.finding == "coincident-points")
      for (const std::string& name : objects_of(p)) unjoined.insert(name);
  std::erase_if(findings, [&](const Problem& p) {
    return p.finding == "loose-end" && !p.others.empty() && unjoined.contains(p.others.front().name);
  });
  return findings;
}

}  // namespace

namespace {

Inspection examined(const Structure& structure, const Limits& limits) {
  Inspection result;
  result.findings = structure.validate();
  inspection::Findings f(structure);
  if (has_errors(result.findings)) {
    // A coordinate in another unit is a usual reason.
    inspection::check_coordinates(f);
    for (Problem& p : f.take()) result.findings.push_back(std::move(p));
    return result;
  }
  inspection::check_joints(f);
  inspection::check_ends(f);
  inspection::check_loads(f);
  inspection::check_gravity(f);
  inspection::check_cases(f);
  inspection::check_coordinates(f);
  inspection::check_materials(f);
  inspection::check_load_sizes(f);
  inspection::check_sections(f);
  inspection::check_slips(f);
  inspection::check_limits(f, limits);
  for (Problem& p : without_consequences(f.take())) result.findings.push_back(std::move(p));
  result.totals = load_totals(structure);
  result.indeterminacy = indeterminacy(structure);
  return result;
}

void add(Inspection& inspection, const Problems& problems) {
  inspection.findings.insert(inspection.findings.end(), problems.begin(), problems.end());
}

void add_of_solution(Inspection& inspection, const Solution& solution) {
  add(inspection, solution.ok() ? solution.notes() : with_remedies(solution.structure(), solution.problems()));
}

}  // namespace

Inspection inspect_description(const Structure& structure, const Limits& limits) {
  return examined(structure, limits);
}

Inspection inspect(const Structure& structure, const Limits& limits) {
  constexpr std::size_t few = 2000;
  Inspection result = examined(structure, limits);
  if (!result.indeterminacy || structure.members().size() > few) return result;
  add_of_solution(result, solve(structure));
  return result;
}

Inspection inspect(const Solution& solution, const Limits& limits) {
  Inspection result = examined(solution.structure(), limits);
  add_of_solution(result, solution);
  return result;
}

}  // namespace corvex
