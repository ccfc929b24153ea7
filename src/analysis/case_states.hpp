// The state of a case from its movements, and of a combination from its terms.
#pragma once

#include "analysis/equations.hpp"

namespace corvex::solver {

// `is_combination`: the loads are the sum of several cases, which may cancel.
CaseState state_of(const Structure& structure, const System& system, const Acting& acting, Solved solved,
                   bool is_combination);
// The sum of the states of the terms, which are load cases.
CaseState superposed(const Structure& structure, const Combination& combination, const std::vector<CaseState>& states);

// Points that a load turns though nothing restrains them: spins that are idle (spin.hpp).
std::vector<std::size_t> spun_points(const System& system, const Acting& acting, const JointForces& need);

}  // namespace corvex::solver
