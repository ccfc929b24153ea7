// One-way members, ties and props: which of them are slack in a case.
//
// A tie pulls with EA/L times what its ends are farther apart than its free length, and never pushes; its force is a
// growing function of its stretch, so that the state of least energy is the only one. It is looked for by solving with
// all members acting, letting those go slack whose force has the wrong sign, and taking up those again that the new
// movements stretch, until none changes. Where whole sets of them begin to take turns, one at a time is changed, the
// worst first; members that take turns even so are named.
//
// A slack member carries nothing but the loads along it, as far as they act the way it can: a rope hangs from its upper
// end.
#pragma once

#include <functional>

#include "analysis/equations.hpp"

namespace corvex::solver {

// The state of this case in which no member has a force of the wrong sign.
// `solve` gives the movements with these elements; where `from` has slack members they are where the search begins.
using SolveWith = std::function<Expected<Solved, Problems>(Elements)>;
Expected<Solved, Problems> find_slack(const Structure& structure, const System& system, const SolveWith& solve,
                                      const LoadedCase& load_case, Solved from);
bool some_act_one_way(const Structure& structure);

}  // namespace corvex::solver
