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

std::vector<Need> point_loads(const Structure& structure) {
  std::vector<Need> all(structure.load_cases().size());
  for (std::size_t c = 0; c < all.size(); ++c) {
    all[c].at.assign(structure.points().size(), Six{});
    take_point_loads(structure.load_cases()[c], all[c]);
  }
  return all;
}

void add(Need& need, const Span& s, const Axes& axes, const Vector12& local) {
  need.largest = std::max(need.largest, local.cwiseAbs().maxCoeff());
  Six &a = need.at[s.a], &b = need.at[s.b];
  for (int i = 0; i < 2; ++i) {
    const Vector at_a = axes.global({local(3 * i), local(3 * i + 1), local(3 * i + 2)});
    const Vector at_b = axes.global({local(6 + 3 * i), local(7 + 3 * i), local(8 + 3 * i)});
    const std::size_t k = 3 * static_cast<std::size_t>(i);
    a[k] += at_a.x, a[k + 1] += at_a.y, a[k + 2] += at_a.z;
    b[k] += at_b.x, b[k + 1] += at_b.y, b[k + 2] += at_b.z;
  }
}

}  // namespace

// Case after case, so that loads, movements and needs are met in the order in which they lie.
std::vector<Need> needs_at_rest(const Structure& structure, const Analysis& a) {
  std::vector<Need> all = point_loads(structure);
  const Ends rest{Vector12::Zero(), Vector12::Zero()};
  for (std::size_t c = 0; c < all.size(); ++c)
    for (std::size_t i = 0; i < a.spans.all.size(); ++i)
      if (const auto loads = a.cases[c].loads.on(i); !loads.empty())
        add(all[c], a.spans.all[i], a.spans.axes[a.spans.all[i].member],
            a.elements[i].end_forces(a.elements[i].own_ends(rest, loads), loads));
  return all;
}

void add_elastic(const Analysis& a, std::vector<Need>& all) {
  for (std::size_t c = 0; c < all.size(); ++c) {
    const std::vector<Movement>& movement = a.cases[c].movement;
    for (std::size_t i = 0; i < a.spans.all.size(); ++i) {
      const Span& s = a.spans.all[i];
      const Axes& axes = a.spans.axes[s.member];
      const Ends moved = ends<double>(axes, s.length, movement[s.a], movement[s.b]);
      add(all[c], s, axes, a.elements[i].elastic_forces(moved.bent));
    }
  }
}

std::vector<Need> needs(const Structure& structure, const Analysis& a) {
  std::vector<Need> all = point_loads(structure);
  for (std::size_t i = 0; i < a.spans.all.size(); ++i) {
    const Span& s = a.spans.all[i];
    const Axes& axes = a.spans.axes[s.member];
    for (std::size_t c = 0; c < all.size(); ++c) {
      const Movement &at_a = a.cases[c].movement[s.a], &at_b = a.cases[c].movement[s.b];
      const auto loads = a.cases[c].loads.on(i);
      if (loads.empty() && at_rest(at_a) && at_rest(at_b)) continue;
      const Ends own = a.elements[i].own_ends(ends<long double>(axes, s.length, at_a, at_b), loads);
      add(all[c], s, axes, a.elements[i].end_forces(own, loads));
    }
  }
  return all;
}

}  // namespace corvex::solver
