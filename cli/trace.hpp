#pragma once

#include <string>
#include <vector>

namespace corvex::cli {

struct TraceOptions {
  std::string model, member, load_case, output;
  std::vector<std::string> at;
  int steps = 0, digits = 4;
  bool json = false;
};

// One member from place to place. The exit status.
int trace(const TraceOptions& options);

}  // namespace corvex::cli
