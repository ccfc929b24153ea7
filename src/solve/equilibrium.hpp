// What every point must be given from outside so that all spans and springs that meet there are in balance: the
// reaction where a support holds, nothing where the equations are met, the loads themselves while nothing has moved.
//
// Forces are taken from what deforms each span, not from a product of the whole stiffness matrix with the
// movements: the large common part of the movements drops out first, and a chain of many short pieces keeps
// its digits.
#pragma once

#include <span>

#include "solve/analysis.hpp"

namespace corvex::solver {

struct Need {
  std::vector<Six> at;  // of each point, global axes
  double largest = 0;   // of the forces and moments that meet there: what a remainder is small against
  // Their sizes, summed: what its rounding is small against. Of points with skew supports in any direction.
  std::vector<std::array<float, 6>> gross{};
};
using Cases = std::span<const std::size_t>;

// Of each of these cases while nothing has moved: the loads alone.
std::vector<Need> needs_at_rest(const Structure& structure, const Analysis& analysis, Cases cases);
// The same with what the first movements of the points bring, which have no rests yet.
void add_elastic(const Analysis& analysis, Cases cases, std::vector<Need>& needs);
// All of it for the movements that `analysis` holds, in all the digits that they are kept to.
std::vector<Need> needs(const Structure& structure, const Analysis& analysis, Cases cases);

// What the springs of a support give to the structure in a case.
Six spring_force(const Analysis& analysis, std::size_t load_case, const PointSpring& spring);

}  // namespace corvex::solver
