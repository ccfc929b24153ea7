// Entries of a model file without effect.
#pragma once

#include "corvex/structure.hpp"
#include "file/tree.hpp"

namespace corvex::file {

// Parameters that no formula uses, and materials that no member uses. `tables`: the model has tables, which may contain
// formulas and are not examined; no parameter is reported then.
Problems unused(const Tree& tree, const Structure& structure, bool tables);

}  // namespace corvex::file
