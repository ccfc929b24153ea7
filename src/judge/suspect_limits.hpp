#pragma once

#include "corvex/limits.hpp"
#include "inspect/findings.hpp"

namespace corvex::inspection {

// Adds findings about the limits of a model, found without solving.
void check_limits(Findings& f, const Limits& limits);

}  // namespace corvex::inspection
