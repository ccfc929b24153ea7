// Data shared by the copies of a solution.
#pragma once

#include <map>
#include <memory>
#include <mutex>

#include "analysis/analysis.hpp"
#include "corvex/solution.hpp"

namespace corvex::result {

// Which members go through each point, and which supports hold it.
struct PointIndex {
  std::vector<std::vector<std::size_t>> members, supports;

  explicit PointIndex(const Structure& s) : members(s.points().size()), supports(s.points().size()) {
    for (std::size_t i = 0; i < s.members().size(); ++i)
      for (const PointId p : s.members()[i].through)
        if (members[p.index].empty() || members[p.index].back() != i) members[p.index].push_back(i);
    for (std::size_t i = 0; i < s.supports().size(); ++i) supports[s.supports()[i].at.index].push_back(i);
  }
};

// From each point one way over members to a support, as a tree: the member and the point that come next. Of supports
// and of points without a way the member is `none`.
struct WaysToSupports {
  static constexpr std::size_t none = static_cast<std::size_t>(-1);
  std::vector<std::size_t> member, point;
};

struct Data {
  Data(const Structure& s, solver::Analysis a) : structure(s), analysis(std::move(a)), at_points(structure) {}

  const Structure structure;
  const solver::Analysis analysis;
  const PointIndex at_points;
  // Notes that need results are worked out when they are first asked for.
  mutable std::once_flag notes_once;
  mutable Problems notes;
  // Of each case for which it was asked.
  mutable std::mutex ways_mutex;
  mutable std::map<std::size_t, std::shared_ptr<const WaysToSupports>> ways;
  // The same.
  mutable std::once_flag critical_once;
  mutable std::vector<CriticalLoad> critical;
};

}  // namespace corvex::result
