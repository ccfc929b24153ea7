// The verb `inspect`.
#pragma once

#include <string>

#include "output.hpp"

namespace corvex::cli {

struct InspectOptions {
  ModelOptions model;
  OutputOptions output;
};

// Findings, and the model as it was read. The exit status.
int inspect(InspectOptions options);

}  // namespace corvex::cli
