#include "analysis/large_order.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "analysis/large_reading.hpp"
#include "analysis/large_stepping.hpp"
#include "corvex/number.hpp"
#include "structure/words.hpp"

namespace corvex::solver {
namespace {

// Sliding ends are not computed.
Problems sliding_ends(const Structure& structure) {
  Problems problems;
  for (const Member& m : structure.members())
    for (const auto& freed : {m.freed_start, m.freed_end})
      if (freed[0] || freed[1] || freed[2]) {
        problems.push_back(
            {fmt::format("member '{}' slides at an end: that is not computed with large displacements", m.name),
             {Subject::Kind::member, m.name}});
        break;
      }
  return problems;
}

Problem too_large(const std::string& load_case, const LoadStepping& stepping) {
  Problem p{
      fmt::format("in case '{}' large displacements cannot be computed beyond {} of the load: it is far too large "
                  "for the structure",
                  load_case, short_number(stepping.load(), 3)),
      {Subject::Kind::load_case, load_case}};
  p.remedy = "check the sizes and units of the loads";
  return as_finding("buckles", std::move(p));
}

Problem limit_point(const std::string& load_case, const LoadStepping& stepping) {
  const std::string& link = stepping.overloaded();
  std::string text = stepping.steps().empty()
                         ? fmt::format("in case '{}' no equilibrium is found for a billionth of the load", load_case)
                         : fmt::format("in case '{}' equilibrium ends at {} of the load: there {}", load_case,
                                       short_number(stepping.load(), 6),
                                       link.empty() ? "the structure buckles or snaps through"
                                                    : fmt::format("link '{}' buckles between its ends", link));
  return as_finding("buckles", {std::move(text), {Subject::Kind::load_case, load_case}});
}

// Where a series does not reach its last digit the pieces are halved.
Expected<Solved, Problems> followed(const AnalysedCase& given, LoadStepping& stepping) {
  using Outcome = LoadStepping::Outcome;
  constexpr int most_parts = 64;
  const std::string& name = given.load_case.loads->name();
  for (int parts = 2; parts <= most_parts;) {
    LargeMesh mesh = large_mesh(given, parts);
    switch (stepping.follow(mesh)) {
      case Outcome::done: return read_results(given, mesh, stepping.steps(), stepping.last_correction());
      case Outcome::ends: return Problems{limit_point(name, stepping)};
      case Outcome::endless: return Problems{too_large(name, stepping)};
      case Outcome::coarse: break;
    }
    // A member bends over lengths of √(EI/P): the pieces that it needs grow with the root of the load. Where the
    // whole load would need far more than there may be, nothing is gained by more of them.
    constexpr double margin = 4;
    const double wanted = parts / std::sqrt(stepping.coarse_at());
    if (wanted > margin * most_parts) return Problems{too_large(name, stepping)};
    for (parts *= 2; parts < std::min<double>(wanted / 2, most_parts);) parts *= 2;
  }
  return Problems{too_large(name, stepping)};
}

}  // namespace

Expected<Solved, Problems> LargeOrder::solve(const LoadedCase& load_case, double* reached) const {
  if (reached) *reached = 0;
  if (Problems problems = sliding_ends(structure_); !problems.empty()) return problems;
  const AnalysedCase given(structure_, system_, load_case);
  LoadStepping stepping(given);
  auto solved = followed(given, stepping);
  if (reached) *reached = solved ? 1 : stepping.steps().empty() ? 0 : stepping.load();
  return solved;
}

}  // namespace corvex::solver
