// Properties of a description that change what its results mean: loads across links, shear centres, welded aluminium.
#pragma once

#include "corvex/structure.hpp"

namespace corvex::inspection {

Problems notes_of_description(const Structure& structure);

}  // namespace corvex::inspection
