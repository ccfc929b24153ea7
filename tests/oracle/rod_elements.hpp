// Large displacements by the simplest elements there are: each member cut into short straight pieces whose strain is
// that of their middle, with the turn of each end as a rotation matrix (Simo and Vu-Quoc, Computer Methods in Applied
// Mechanics and Engineering 58, 1986), everything in dense matrices.
#pragma once

#include <corvex/corvex.hpp>
#include <vector>

namespace corvex::test {

// How points move in the first load case, which has nothing but forces on points that keep their direction. Beams that
// are stiffly joined, with supports that are fixed. `pieces`: of each member, and twice as many; what is returned is
// extrapolated from both, as the error falls with the square of the length. Empty where no equilibrium was found.
std::vector<Vector> rod_displacements(const Structure& structure, int pieces);

}  // namespace corvex::test
