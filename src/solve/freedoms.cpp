#include "solve/freedoms.hpp"

namespace corvex::solver {

int Freedoms::free_count(std::size_t point) const {
  int n = 0;
  for (const Status s : status[point]) n += s == Status::free;
  return n;
}

Freedoms freedoms(const Structure& structure, const Spans& spans) {
  const std::size_t n = structure.points().size();
  Freedoms f;
  f.used.assign(n, false);
  f.rigid.assign(n, false);
  std::vector<bool> torsion(n, false);
  for (const Span& s : spans.all) {
    f.used[s.a] = f.used[s.b] = true;
    if (!s.beam) continue;
    (s.hinge_a ? torsion : f.rigid)[s.a] = true;
    (s.hinge_b ? torsion : f.rigid)[s.b] = true;
  }
  f.status.assign(n, {});
  const bool plane = structure.is_plane();
  for (std::size_t i = 0; i < n; ++i) {
    if (!f.used[i]) continue;
    auto& s = f.status[i];
    s[0] = s[1] = Status::free;
    if (!plane) s[2] = Status::free;
    if (f.rigid[i]) s[5] = Status::free;
    if (!plane && (f.rigid[i] || torsion[i])) s[3] = s[4] = s[5] = Status::free;
  }
  for (const PointSupport& support : structure.supports()) {
    auto& s = f.status[support.at.index];
    if (!f.used[support.at.index]) continue;
    for (std::size_t k = 0; k < 6; ++k) {
      const bool of_plane = k == 0 || k == 1 || k == 5;
      if (support.held[k] && (!plane || of_plane)) s[k] = Status::held;
    }
  }
  return f;
}

void number(Freedoms& f, const std::vector<std::size_t>& order) {
  f.equation.assign(f.status.size(), {-1, -1, -1, -1, -1, -1});
  f.equations = 0;
  f.first_equation.clear();
  for (const std::size_t p : order) {
    f.first_equation.push_back(f.equations);
    for (std::size_t k = 0; k < 6; ++k)
      if (f.status[p][k] == Status::free) f.equation[p][k] = f.equations++;
  }
  f.first_equation.push_back(f.equations);
}

}  // namespace corvex::solver
