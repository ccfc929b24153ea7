// The verbs `solve` and `verify`.
#pragma once

#include <string>

#include "output.hpp"
#include "selection.hpp"

namespace corvex::cli {

struct SolveOptions {
  std::string model;
  OutputOptions output;
  Wanted wanted{};
  int places = 0;
};

// Results, or the hand calculation alone. The exit status.
int solve(SolveOptions options, bool hand_only);

}  // namespace corvex::cli
