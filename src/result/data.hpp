// What a solution shares between its copies.
#pragma once

#include <mutex>

#include "corvex/solution.hpp"
#include "solve/analysis.hpp"

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

struct Data {
  Data(const Structure& s, solver::Analysis a) : structure(s), analysis(std::move(a)), at_points(structure) {}

  const Structure structure;
  const solver::Analysis analysis;
  const PointIndex at_points;
  // Notes that need results are worked out when they are first asked for.
  mutable std::once_flag notes_once;
  mutable Problems notes;
};

}  // namespace corvex::result
