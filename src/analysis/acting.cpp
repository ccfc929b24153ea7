#include <algorithm>
#include <cmath>

#include "analysis/case_state.hpp"
#include "structure/acting_loads.hpp"

namespace corvex::solver {
namespace {

// Given displacement of each support; empty if there is none. Settlements that cancel are none.
std::vector<Six> ground(const Structure& s, const ActingLoads& loads) {
  std::vector<Six> all, gross;
  for (const ActingMovement& l : loads.movements) {
    all.resize(s.supports().size(), Six{});
    gross.resize(s.supports().size(), Six{});
    const double six[] = {l.move.x, l.move.y, l.move.z, l.turn.x, l.turn.y, l.turn.z};
    for (std::size_t i = 0; i < all.size(); ++i)
      for (std::size_t k = 0; k < 6; ++k)
        if (s.supports()[i].at == l.at) all[i][k] += six[k], gross[i][k] += std::abs(six[k]);
  }
  constexpr double rounding = 1e-14;
  bool moves = false;
  for (std::size_t i = 0; i < all.size(); ++i)
    for (std::size_t k = 0; k < 6; ++k) {
      if (std::abs(all[i][k]) <= rounding * gross[i][k]) all[i][k] = 0;
      moves = moves || all[i][k] != 0;
    }
  if (!moves) all.clear();
  return all;
}

// Forces that the loads would bring, each by itself, if nothing gave way.
double gross_force(const System& system, const ActingLoads& loads) {
  double most = std::max(loads.resultant.largest_force, loads.resultant.largest_moment);
  for (const ActingStrain& free : loads.strains) {
    const Rigidity& r = system.elements[system.spans.first[free.on.index]].rigidity();
    most =
        std::max({most, r.EA * std::abs(free.along), r.EIz * std::abs(free.curve_y), r.EIy * std::abs(free.curve_z)});
  }
  for (const ActingMovement& l : loads.movements) most = std::max(most, system.stiffest * length(l.move));
  return most;
}

}  // namespace

Acting acting_in(const Structure& s, const System& system, const LoadCase& loads) {
  ActingLoads all = acting_loads(s, loads);
  Acting a{.loads = SpanLoads(s, system.spans, all),
           .on_points = {},
           .masses = {},
           .ground = ground(s, all),
           .applied = all.resultant,
           .gross = gross_force(system, all)};
  std::erase_if(all.forces, [](const ActingForce& f) { return !f.point; });
  a.on_points = std::move(all.forces);
  a.masses = std::move(all.masses);
  return a;
}

}  // namespace corvex::solver
