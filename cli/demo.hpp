#pragma once

#include <string>

namespace corvex::cli {

// Writes the example models and their results into a folder and prints what to look at. The exit status.
int demo(const std::string& folder);

}  // namespace corvex::cli
