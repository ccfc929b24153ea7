// What a solution shares between its copies.
#pragma once

#include <mutex>

#include "corvex/solution.hpp"
#include "solve/analysis.hpp"

namespace corvex::result {

struct Data {
  Data(const Structure& s, solver::Analysis a) : structure(s), analysis(std::move(a)) {}

  const Structure structure;
  const solver::Analysis analysis;
  // Notes that need results are worked out when they are first asked for.
  mutable std::once_flag notes_once;
  mutable Problems notes;
};

}  // namespace corvex::result
