#pragma once

#include <string>

#include "corvex/file.hpp"

namespace corvex::cli {

// Results as an engineer likes to read them.
std::string solve_text(const Model& model, const Solution& solution, int digits);

}  // namespace corvex::cli
