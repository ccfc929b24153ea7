#pragma once

#include <string>

#include "corvex/file.hpp"

namespace corvex::cli {

// The hand calculation beside the computed values, as a table.
std::string hand_text(const Verification& hand, const ModelUnits& units, int digits);

}  // namespace corvex::cli
