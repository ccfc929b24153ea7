// The verb `modes`.
#pragma once

#include <string>
#include <vector>

#include "output.hpp"

namespace corvex::cli {

struct ModesCommand {
  ModelOptions model;
  int vibration = -1;  // as the model says if below zero
  std::vector<std::string> buckling{};
  std::string under{};
  OutputOptions output;
};

// Natural frequencies and critical load factors. The exit status.
int modes(ModesCommand command);

}  // namespace corvex::cli
