// Bracing against displacement across members, as modes take it.
#pragma once

#include "corvex/structure.hpp"

namespace corvex::solver {

// Along which local axes a member is held over its whole length: there its axial force has no effect.
struct HeldAlong {
  bool y = false, z = false;
};
HeldAlong held_along(const Structure& structure, std::size_t member);
bool has_lateral_bracing(const Structure& structure);
// The same structure in space with the braced points of members held along the local axes across them. Twist is not
// held: bending does not depend on it.
Structure with_braced_points(const Structure& structure);

}  // namespace corvex::solver
