#pragma once

#include <string>

#include "corvex/file.hpp"

namespace corvex::cli {

// The limits as a table with a verdict for each; what is not kept comes first.
std::string limits_text(const LimitCheck& check, const ModelUnits& units, int digits);

}  // namespace corvex::cli
