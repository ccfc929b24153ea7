// The verbs `solve` and `verify`.
#pragma once

#include <string>

#include "corvex/document.hpp"
#include "output.hpp"

namespace corvex::cli {

struct SolveOptions {
  ModelOptions model;
  OutputOptions output;
  Choice wanted{};
  int places = 0;
  bool record = false;
};

// Results, or the hand calculation alone. The exit status.
int solve(SolveOptions options, bool hand_only);

}  // namespace corvex::cli
