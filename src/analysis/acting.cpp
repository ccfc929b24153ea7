#include <algorithm>
#include <cmath>

#include "analysis/case_state.hpp"
#include "structure/acting_load.hpp"

namespace corvex::solver {
namespace {

// How each support moves by itself; empty where none does. Settlements that take each other back are none.
std::vector<Six> ground(const Structure& s, const LoadCase& loads) {
  std::vector<Six> all, gross;
  for (const Load& load : loads.loads()) {
    const auto* l = std::get_if<SettleLoad>(&load);
    if (!l) continue;
    all.resize(s.supports().size(), Six{});
    gross.resize(s.supports().size(), Six{});
    const double six[] = {l->move.x, l->move.y, l->move.z, l->turn.x, l->turn.y, l->turn.z};
    for (std::size_t i = 0; i < all.size(); ++i)
      for (std::size_t k = 0; k < 6; ++k)
        if (s.supports()[i].at == l->at) all[i][k] += six[k], gross[i][k] += std::abs(six[k]);
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
double gross_force(const Structure& s, const System& system, const LoadCase& loads, const Resultant& applied) {
  double most = std::max(applied.largest_force, applied.largest_moment);
  const auto strained = [&](MemberId on, const FreeStrain& free) {
    const Rigidity& r = system.elements[system.spans.first[on.index]].rigidity();
    most =
        std::max({most, r.EA * std::abs(free.along), r.EIz * std::abs(free.curve_y), r.EIy * std::abs(free.curve_z)});
  };
  for (const Load& load : loads.loads()) {
    if (const auto* l = std::get_if<HeatLoad>(&load)) strained(l->on, free_strain(s, *l));
    if (const auto* l = std::get_if<ShortenLoad>(&load)) strained(l->on, free_strain(s, *l));
    if (const auto* l = std::get_if<SettleLoad>(&load)) most = std::max(most, system.stiffest * length(l->move));
  }
  return most;
}

}  // namespace

Acting acting_in(const Structure& s, const System& system, const LoadCase& loads) {
  Acting a{.loads = SpanLoads(s, system.spans, loads), .ground = ground(s, loads), .applied = resultant(s, loads)};
  a.gross = gross_force(s, system, loads, a.applied);
  return a;
}

}  // namespace corvex::solver
