// What stands in a model file and has no effect.
#pragma once

#include "corvex/structure.hpp"
#include "file/tree.hpp"

namespace corvex::file {

// Parameters that no formula names, and materials that nothing is made of. `tables`: formulas may stand in tables
// beside the file too, which are not looked at; then nothing is said of parameters.
Problems unused(const Tree& tree, const Structure& structure, bool tables);

}  // namespace corvex::file
