#pragma once

#include <string>

#include "corvex/file.hpp"
#include "selection.hpp"

namespace corvex::cli {

// Results as an engineer likes to read them; the hand calculation at the end, where there is one.
std::string solve_text(const Model& model, const Solution& solution, const Verification& hand, const LimitCheck& limits,
                       const Selection& shown, int digits);

}  // namespace corvex::cli
