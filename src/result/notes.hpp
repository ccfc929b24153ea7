// Notes and warnings that need results: what torsion would add, and what stress leaves out.
#pragma once

#include "corvex/solution.hpp"

namespace corvex::result {

Problems notes_of_results(const Solution& solution);

}  // namespace corvex::result
