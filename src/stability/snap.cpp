#include "stability/snap.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "analysis/large_order.hpp"
#include "analysis/reusable.hpp"
#include "structure/combined.hpp"

namespace corvex::stability {
namespace {

// Beyond this many spans large displacements take minutes.
constexpr std::size_t most_spans = 600;

// Large displacements change nothing that matters where turning members lengthens them by little: the force EA ψ²/2
// that the turn ψ of the chord would bring if the member were held at its length stays below a twentieth of the
// largest axial force, and the linear load factor has a margin of a tenth.
bool is_unnecessary(const Solution& solution, const CaseResult& result, double factor, double linear) {
  constexpr double little = 0.05, margin = 1.1;
  if (!(linear >= margin * factor)) return false;
  const Structure& s = solution.structure();
  double largest = 0, by_turning = 0;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const MemberResult r = result[MemberId(i)];
    const Member& m = s.members()[i];
    largest = std::max(largest, r.axial().largest().si());
    const double EA = s.material_of(m).E.si() * s.section_of(m).area().si();
    for (std::size_t k = 0; k + 1 < m.through.size(); ++k) {
      const double from = s.place_of(m, k), to = k + 2 == m.through.size() ? s.length_of(m) : s.place_of(m, k + 1);
      const SectionState a = r.at(Length::si(from)), b = r.at(Length::si(to), Side::before);
      const double turn =
          factor * std::hypot(b.deflection_y.si() - a.deflection_y.si(), b.deflection_z.si() - a.deflection_z.si()) /
          (to - from);
      by_turning = std::max(by_turning, EA * turn * turn / 2);
    }
  }
  return by_turning <= little * factor * largest;
}

}  // namespace

LargeCheck stable_with_large_displacements(const Solution& solution, std::string_view load_case, double factor,
                                           double linear) {
  const Structure& given = solution.structure();
  const CaseResult result = solution[load_case];
  LargeCheck check;
  std::string why;
  for (const Member& m : given.members())
    for (const auto& freed : {m.freed_start, m.freed_end})
      if (freed[0] || freed[1] || freed[2]) why = fmt::format("'{}' slides at an end", m.name);
  std::size_t spans = 0;
  for (const Member& m : given.members()) spans += m.through.size() - 1;
  if (why.empty() && spans > most_spans) why = fmt::format("the structure has more than {} spans", most_spans);
  if (!why.empty()) {
    check.examined = check.stable = is_unnecessary(solution, result, factor, linear);
    check.reason = "snap-through: large displacements are not computed, since " + why;
    return check;
  }
  Structure s = with_single_case(given, load_case, factor);
  s.analysis().order = Order::large;
  s.analysis().imperfection.reset();
  solver::Reusable reusable;
  const auto system = solver::make_system(s, reusable);
  if (!system) {
    check.reason = "snap-through: " + system.error().front().text;
    return check;
  }
  const LoadCase& loads = s.load_cases().front();
  const solver::Acting acting = solver::acting_in(s, *system, loads);
  check.examined = check.computed = true;
  const auto solved = solver::LargeOrder(s, *system).solve({&loads, &acting}, &check.reached);
  check.stable = solved.ok();
  if (!check.stable && !(check.reached > 0)) {
    check.examined = false;
    check.reason = "snap-through: " + solved.error().front().text;
  }
  return check;
}

}  // namespace corvex::stability
