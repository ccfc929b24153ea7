// What is probably a mistake, told briefly beside results.
#pragma once

#include "output.hpp"

namespace corvex::cli {

// One line a finding on standard error. Notes that only `inspect` tells, and what limits and the hand calculation tell
// by themselves, are left out.
void tell_briefly(const Problems& findings, const std::string& model);
// A model that cannot be solved: what moves and how it would hold, and what in the model could be the cause.
int refuse(const Model& model, const Problems& problems);

// What makes the exit status 1, told even where the tables do not show it.
void tell_failures(const LimitCheck& limits, const Verification& hand, const ModelUnits& units);

}  // namespace corvex::cli
