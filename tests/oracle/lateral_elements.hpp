// Buckling of a plane structure out of its plane by fine elements with warping: a second calculation for the tests.
//
// Each member is cut into pieces with cubic functions for the displacement out of the plane and for the twist, the
// twist rate free at the ends of members. Between pieces moment and axial force of the given solution vary linearly.
// Doubly symmetric sections, loads in the shear centre (Trahair, Flexural-Torsional Buckling of Structures, ch. 4).
#pragma once

#include <corvex/corvex.hpp>

namespace corvex::test {

// Supports and bracing at points hold the displacement out of the plane and the twist of the member there; nothing else
// is held. The lowest load factor; infinity where nothing buckles.
double lateral_factor(const Solution& plane, std::size_t load_case, int pieces);

}  // namespace corvex::test
