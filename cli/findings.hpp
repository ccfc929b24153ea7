// Findings in short form, printed with results.
#pragma once

#include "output.hpp"

namespace corvex::cli {

// One line a finding on standard error. Notes that only `inspect` lists, and those of limits and the hand calculation
// by themselves, are left out.
void tell_briefly(const Problems& findings, const std::string& model);
// A model that cannot be solved: what moves and how it would hold, and what in the model could be the cause.
int refuse(const Model& model, const Problems& problems);

// Reasons for exit status 1, reported even if the tables do not show them.
void tell_failures(const LimitCheck& limits, const Verification& hand, const ModelUnits& units);

}  // namespace corvex::cli
