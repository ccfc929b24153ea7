// What a solution shares between its copies.
#pragma once

#include "corvex/solution.hpp"
#include "solve/analysis.hpp"

namespace corvex::result {

struct Data {
  Structure structure;
  solver::Analysis analysis;
};

}  // namespace corvex::result
