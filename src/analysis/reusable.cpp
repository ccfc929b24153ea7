#include "analysis/reusable.hpp"

namespace corvex::solver {
namespace {

std::vector<std::pair<std::size_t, std::size_t>> ends_of(const Spans& spans) {
  std::vector<std::pair<std::size_t, std::size_t>> ends;
  ends.reserve(spans.all.size());
  for (const Span& s : spans.all) ends.emplace_back(s.a, s.b);
  return ends;
}

}  // namespace

void Reusable::number(const Spans& spans, Dofs& f) {
  auto joined = ends_of(spans);
  if (pattern && f.status == dofs.status && joined == ends) {
    f.equation = dofs.equation;
    f.equations = dofs.equations;
    f.first_equation = dofs.first_equation;
    return;
  }
  pattern.emplace(spans, f);
  dofs = f;
  ends = std::move(joined);
  K = {};
  factor.reset();
}

void Reusable::assemble(const System& system, const std::vector<Element>& elements) {
  if (single_use) factor.reset();
  single_use = false;
  pattern->assemble(system.spans, elements, system.dofs, K);
}

}  // namespace corvex::solver
