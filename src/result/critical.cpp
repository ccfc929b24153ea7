#include "result/critical.hpp"

#include "modes/mode_shapes.hpp"
#include "result/stressing.hpp"
#include "structure/combined.hpp"

namespace corvex::result {
namespace {

// From this factor on second-order effects are negligible (EN 1993-1-1, 5.2.1).
constexpr double negligible = 10;
// Beyond so many spans it is not examined unless asked for.
constexpr std::size_t most_spans = 20000;

CriticalLoad critical_load(const Structure& s, const CaseResult& result) {
  CriticalLoad c;
  const Stressing stressing = stressing_of(s, result);
  const solver::ModeInput input = buckling_input(s, stressing);
  if (!solver::buckles_below(input, negligible)) return c;
  const solver::FoundModes found = solver::buckling_modes(input);
  if (found.is_mechanism) {
    c.factor = 0;
    c.description = "mechanism without the untensioned members";
  } else if (!found.modes.empty() && found.modes.front().value < negligible) {
    c.factor = found.modes.front().value;
    c.description = solver::described(s, solver::shape_of(s, found.spans, found.modes.front()));
  }
  return c;
}

}  // namespace

std::vector<CriticalLoad> critical_loads(const Solution& solution) {
  const Structure& given = solution.structure();
  const std::vector<std::size_t> assessed = solution.assessed();
  std::size_t spans = 0;
  for (const Member& m : given.members()) spans += m.through.size() - 1;
  std::vector<CriticalLoad> all(assessed.size());
  // Directions of an imperfection have the same.
  const auto name_of = [&](std::size_t i) { return solution[solution.base_of(assessed[i])].name(); };
  if (spans > most_spans) {
    for (CriticalLoad& c : all) c.examined = false;
    return all;
  }
  if (given.analysis().order == Order::first) {
    for (std::size_t i = 0; i < assessed.size(); ++i) all[i] = critical_load(given, solution[assessed[i]]);
    return all;
  }
  const Solution at_first = solve(at_first_order(given));
  for (std::size_t i = 0; i < assessed.size(); ++i)
    if (at_first.ok())
      all[i] = critical_load(given, at_first[name_of(i)]);
    else
      all[i].examined = false;
  return all;
}

}  // namespace corvex::result
