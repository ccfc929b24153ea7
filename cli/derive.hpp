// The verb `derive`.
#pragma once

#include <string>
#include <vector>

#include "output.hpp"

namespace corvex::cli {

struct DeriveCommand {
  ModelOptions model;
  std::string load_case{};
  std::vector<std::string> members{}, points{};
  bool brief = false;
  OutputOptions output;
};

// The hand calculation of a load case, written step by step. The exit status.
int derive(DeriveCommand command);

}  // namespace corvex::cli
