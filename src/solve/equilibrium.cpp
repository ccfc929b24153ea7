#include "solve/equilibrium.hpp"

#include <algorithm>

#include "solve/element.hpp"

namespace corvex::solver {
namespace {

bool at_rest(const Movement& m) {
  return m.value == Six{} && m.rest == Six{};
}

void take_point_loads(const LoadCase& loads, Need& need) {
  for (const Load& load : loads.loads()) {
    const auto* l = std::get_if<PointLoad>(&load);
    if (!l) continue;
    const double six[] = {l->force.x, l->force.y, l->force.z, l->moment.x, l->moment.y, l->moment.z};
    for (std::size_t k = 0; k < 6; ++k) {
      need.at[l->at.index][k] -= six[k];
      need.largest = std::max(need.largest, std::abs(six[k]));
    }
  }
}

}  // namespace

std::vector<Need> needs(const Structure& structure, const Analysis& a) {
  std::vector<Need> all(a.cases.size());
  for (std::size_t c = 0; c < all.size(); ++c) {
    all[c].at.assign(structure.points().size(), Six{});
    take_point_loads(structure.load_cases()[c], all[c]);
  }
  for (std::size_t i = 0; i < a.spans.all.size(); ++i) {
    const Span& s = a.spans.all[i];
    const Axes& axes = a.spans.axes[s.member];
    const Element& element = a.elements[i];
    for (std::size_t c = 0; c < all.size(); ++c) {
      const Movement &at_a = a.cases[c].movement[s.a], &at_b = a.cases[c].movement[s.b];
      const auto loads = a.cases[c].loads.on(i);
      if (loads.empty() && at_rest(at_a) && at_rest(at_b)) continue;
      const Vector12 local = element.end_forces(element.own_ends(ends(axes, s.length, at_a, at_b), loads), loads);
      const Vector12 force = to_global(axes, local);
      all[c].largest = std::max(all[c].largest, local.cwiseAbs().maxCoeff());
      for (int k = 0; k < 6; ++k) {
        all[c].at[s.a][static_cast<std::size_t>(k)] += force(k);
        all[c].at[s.b][static_cast<std::size_t>(k)] += force(6 + k);
      }
    }
  }
  return all;
}

}  // namespace corvex::solver
