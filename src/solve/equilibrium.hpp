// The force and moment that must act on each point from outside for equilibrium with the spans and springs that meet
// there: the reaction at a held freedom, zero at a free one once the equations are satisfied, and minus the loads while
// the displacements are still zero.
//
// Forces are taken from what deforms each span, not from a product of the whole stiffness matrix with the
// movements: the large common part of the movements drops out first, and a chain of many short pieces keeps
// its digits.
#pragma once

#include <span>

#include "solve/analysis.hpp"

namespace corvex::solver {

struct JointForces {
  std::vector<Six> at;  // of each point, global axes
  double largest = 0;   // of the forces and moments that meet at points; a residual is judged against it
};
using Cases = std::span<const std::size_t>;

// Of each of these cases while nothing has moved: the loads alone.
std::vector<JointForces> joint_forces_at_rest(const Structure& structure, const Analysis& analysis, Cases cases);
// The same with what the first movements of the points bring, which have no rests yet.
void add_elastic(const Analysis& analysis, Cases cases, std::vector<JointForces>& needs);
// All of it for the movements that `analysis` holds, in all the digits that they are kept to.
std::vector<JointForces> joint_forces(const Structure& structure, const Analysis& analysis, Cases cases);

// The sizes of all forces and moments that meet at each point, summed, for these movements of a state with the elements
// of that case: what their rounding is a share of. Loads within spans are left out.
std::vector<Six> gross_forces(const Analysis& analysis, std::size_t load_case, const std::vector<Six>& movement);

// What the springs of a support give to the structure in a case.
Six spring_force(const Analysis& analysis, std::size_t load_case, const PointSpring& spring);

}  // namespace corvex::solver
