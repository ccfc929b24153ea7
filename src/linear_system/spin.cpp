#include "linear_system/spin.hpp"

#include "linear_system/factor.hpp"

namespace corvex::solver {

void mark_idle_spins(const Structure& structure, const Spans& spans, const std::vector<Element>& elements, Dofs& f) {
  if (structure.is_plane()) return;
  Dofs only = f;
  bool any = false;
  for (std::size_t p = 0; p < f.status.size(); ++p)
    for (std::size_t k = 0; k < 6; ++k) {
      const bool spin = k >= 3 && !f.rigid[p] && f.status[p][k] == Status::free;
      if (!spin && only.status[p][k] == Status::free) only.status[p][k] = Status::held;
      any |= spin;
    }
  if (!any) return;
  const std::vector<int> idle = null_pivots(assemble_all(spans, elements, only));
  std::vector<bool> is_idle(static_cast<std::size_t>(only.equations), false);
  for (const int j : idle) is_idle[j] = true;
  for (std::size_t p = 0; p < f.status.size(); ++p)
    for (std::size_t k = 3; k < 6; ++k)
      if (only.equation[p][k] >= 0 && is_idle[only.equation[p][k]]) f.status[p][k] = Status::idle;
}

}  // namespace corvex::solver
