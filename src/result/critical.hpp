// The critical load factor of a case.
#pragma once

#include "corvex/solution.hpp"

namespace corvex::result {

// For each assessed case of a solution, at first order. One factorisation at ten times the loads and its count of
// negative pivots decide whether anything has to be searched for.
std::vector<CriticalLoad> critical_loads(const Solution& solution);

}  // namespace corvex::result
