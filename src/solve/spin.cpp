#include "solve/spin.hpp"

#include "solve/factor.hpp"

namespace corvex::solver {

void mark_idle_spins(const Structure& structure, const Spans& spans, Freedoms& f) {
  if (structure.is_plane()) return;
  Freedoms only = f;
  bool any = false;
  for (std::size_t p = 0; p < f.status.size(); ++p)
    for (std::size_t k = 0; k < 6; ++k) {
      const bool spin = k >= 3 && !f.rigid[p] && f.status[p][k] == Status::free;
      if (!spin && only.status[p][k] == Status::free) only.status[p][k] = Status::held;
      any |= spin;
    }
  if (!any) return;
  const PointGraph g = point_graph(spans, only);
  const std::vector<int> order = elimination_order(g.graph, g.weight);
  std::vector<std::size_t> points;
  for (const int v : order) points.push_back(g.point[v]);
  number(only, points);
  Assembly assembly(g, order, only);
  for (const Span& s : spans.all) {
    if (!s.beam || (only.free_count(s.a) == 0 && only.free_count(s.b) == 0)) continue;
    const Member& m = structure.members()[s.member];
    assembly.add(s, to_global(local_axes(structure, m), Element(rigidity(structure, m), s).stiffness()));
  }
  const std::vector<int> idle = null_pivots(assembly.take());
  std::vector<bool> is_idle(static_cast<std::size_t>(only.equations), false);
  for (const int j : idle) is_idle[j] = true;
  for (const std::size_t p : points)
    for (std::size_t k = 3; k < 6; ++k)
      if (only.equation[p][k] >= 0 && is_idle[only.equation[p][k]]) f.status[p][k] = Status::idle;
}

}  // namespace corvex::solver
