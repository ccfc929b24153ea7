// The verb `choose`.
#pragma once

#include "output.hpp"

namespace corvex::cli {

struct ChooseOptions {
  ModelOptions model;
  OutputOptions output;  // its file is that of the model with the choice
  int runners_up = 3;
};

// The lightest listed sections that meet every limit. The exit status.
int choose(ChooseOptions options);

}  // namespace corvex::cli
