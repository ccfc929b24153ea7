#include "analysis/system.hpp"

#include <algorithm>

#include "analysis/reusable.hpp"
#include "linear_system/spin.hpp"
#include "mechanism/mechanism.hpp"
#include "mechanism/unheld_loads.hpp"
#include "structure/checks.hpp"

namespace corvex::solver {

Expected<System, Problems> make_system(const Structure& structure, Reusable& reusable) {
  Problems problems = structure.validate();
  if (has_errors(problems)) return problems;
  System system;
  system.spans = cut(structure);
  system.dofs = dofs(structure, system.spans);
  for (Problem& p : loads_without_hold(structure, system.dofs)) problems.push_back(std::move(p));
  for (Problem& p : rigid_motions(structure, system.spans, system.dofs)) problems.push_back(std::move(p));
  if (has_errors(problems)) return problems;
  system.elements = elements(structure, system.spans);
  for (std::size_t i = 0; i < system.elements.size(); ++i)
    system.stiffest = std::max(system.stiffest, system.elements[i].rigidity().EA / system.spans.all[i].length);
  mark_idle_spins(structure, system.spans, system.elements, system.dofs);
  reusable.number(system.spans, system.dofs);
  return system;
}

}  // namespace corvex::solver
