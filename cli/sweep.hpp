// `corvex sweep`: figures against what is varied.
#pragma once

#include "output.hpp"

namespace corvex::cli {

struct SweepCommand {
  ModelOptions model{};
  std::string name{}, size{};
  bool dark = false;
  OutputOptions output{};
};
int sweep(SweepCommand o);

}  // namespace corvex::cli
