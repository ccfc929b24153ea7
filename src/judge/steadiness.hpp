// Whether a structure can move, whatever its loads are.
#pragma once

#include "corvex/structure.hpp"

namespace corvex::judging {

// Description of the mechanism; empty if there is none. All members that act one way only act.
Problems motions(const Structure& structure);

}  // namespace corvex::judging
