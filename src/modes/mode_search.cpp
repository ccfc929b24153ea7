#include "modes/mode_search.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::solver {
namespace {

// How many of the values just below the last one were not found (Wittrick and Williams, 1971). The last one itself may
// have twins beyond it.
std::size_t missing(const ModeSearch& s, const std::vector<EigenPair>& pairs) {
  if (pairs.empty()) return 0;
  constexpr double margin = 1e-5;
  const double last = s.value(pairs.back().value), bound = last - margin * std::abs(last);
  const auto found = static_cast<std::size_t>(
      std::count_if(pairs.begin(), pairs.end(), [&](const EigenPair& p) { return s.value(p.value) < bound; }));
  Shares shares = s.fixed;
  shares.geometric += s.per_value_geometric * bound, shares.mass += s.per_value_mass * bound;
  const ShiftedPencil shifted(s.pencil, shares);
  if (!shifted.ok()) return 0;
  const auto there = static_cast<std::size_t>(shifted.negative());
  return there > found ? there - found : 0;
}

}  // namespace

std::vector<EigenPair> all_pairs(const ModeSearch& s, Lanczos& first, std::size_t& not_found) {
  first.run({s.count, s.least});
  std::vector<EigenPair> all = first.pairs();
  const auto by_value = [](const EigenPair& a, const EigenPair& b) { return a.value > b.value; };
  for (;;) {
    std::sort(all.begin(), all.end(), by_value);
    if (all.size() > s.count) all.resize(s.count);
    not_found = missing(s, all);
    if (not_found == 0 && all.size() == s.count) break;
    // If fewer exist than requested, a last count confirms it.
    Lanczos again(s.problem, all);
    again.run({std::max<std::size_t>(not_found, 1), s.least});
    std::vector<EigenPair> more = again.pairs();
    const double bound = all.size() < s.count ? s.least : all.back().value;
    std::erase_if(more, [&](const EigenPair& m) { return m.value <= bound; });
    if (more.empty()) break;
    all.insert(all.end(), more.begin(), more.end());
  }
  return all;
}

bool carried(const ModeSearch& s, Lanczos& lanczos, const NeededShapes& needed_at, std::vector<InnerShapes>& inner) {
  constexpr double roughly = 0.3;
  lanczos.run({s.count, s.least, roughly});
  const double last = lanczos.last_value();
  if (last == 0) return true;
  bool enough = true;
  for (std::size_t i = 0; i < inner.size(); ++i) {
    const InnerShapes needed = needed_at(i, std::abs(s.value(last)));
    if (needed.bending > inner[i].bending) inner[i].bending = needed.bending, enough = false;
    if (needed.lengthwise > inner[i].lengthwise) inner[i].lengthwise = needed.lengthwise, enough = false;
  }
  return enough;
}

}  // namespace corvex::solver
