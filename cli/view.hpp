// The verb `view`.
#pragma once

#include <string>

#include "output.hpp"

namespace corvex::cli {

struct ViewCommand {
  ModelOptions model;
  std::string output{}, units{};
  int port = 0, digits = 4;
  double seconds = -1;  // how long the page is served; until it is ended if negative
};

// The model as a page: served until it is interrupted, or as one file. The exit status.
int view(const ViewCommand& command);

}  // namespace corvex::cli
