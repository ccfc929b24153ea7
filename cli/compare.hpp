// The verb `compare`.
#pragma once

#include <string>
#include <vector>

#include "output.hpp"

namespace corvex::cli {

struct CompareOptions {
  std::vector<std::string> models{}, variants{}, show{};
  ModelOptions model;  // values and folders, for all of them
  OutputOptions output;
};

// Variants of a model, or several models, side by side. The exit status.
int compare(CompareOptions options);

}  // namespace corvex::cli
