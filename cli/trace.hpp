// The verb `trace`.
#pragma once

#include <string>
#include <vector>

#include "output.hpp"

namespace corvex::cli {

struct TraceOptions {
  ModelOptions model;
  std::string member, load_case;
  OutputOptions output;
  std::vector<std::string> at;
  int steps = 0;
};

// One member from place to place, of cases and of their envelope. The exit status.
int trace(TraceOptions options);

}  // namespace corvex::cli
