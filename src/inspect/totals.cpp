// The resultant of each load case.
#include "corvex/acting.hpp"
#include "corvex/finding.hpp"
#include "structure/checks.hpp"

namespace corvex {
std::vector<LoadTotal> load_totals(const Structure& s) {
  if (!errors_of(s).empty()) return {};
  std::vector<LoadTotal> all;
  for (const LoadCase& c : s.load_cases()) {
    const ActingLoads acting = acting_loads(s, c);
    Resultant sum = acting.resultant;
    // Rounding error of loads that cancel is not a force.
    const double noise = 1e-12 * acting.gross_force;
    for (double* v : {&sum.force.x, &sum.force.y, &sum.force.z})
      if (std::abs(*v) <= noise) *v = 0;
    LoadTotal t{.load_case = c.name(),
                .loads = c.loads().size(),
                .force = {ForceSize::si(sum.force.x), ForceSize::si(sum.force.y), ForceSize::si(sum.force.z)},
                .moment = {MomentSize::si(sum.moment.x), MomentSize::si(sum.moment.y), MomentSize::si(sum.moment.z)},
                .through = {}};
    if (const double square = dot(sum.force, sum.force); square > 0) t.through = cross(sum.force, sum.moment) / square;
    all.push_back(std::move(t));
  }
  return all;
}

}  // namespace corvex
