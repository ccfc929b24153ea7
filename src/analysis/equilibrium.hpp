// The force and moment that must act on each point from outside for equilibrium with the spans and springs that meet
// there: the reaction at a restrained degree of freedom, zero at a free one once the equations are satisfied, and minus
// the loads while the displacements are still zero.
//
// Forces are taken from what deforms each span, not from a product of the whole stiffness matrix with the
// movements: the large common part of the movements drops out first, and a chain of many short pieces keeps
// its digits.
#pragma once

#include "analysis/block.hpp"

namespace corvex::solver {

struct JointForces {
  std::vector<Six> at;  // of each point, global axes
  double largest = 0;   // of the forces and moments that meet at points; reference size of a residual
};

// Loads on the points in a case.
JointForces loads_on_points(const Structure& structure, const Acting& acting);
// Adds the forces of the points on a span, along its axes and on the ends of its arms.
void add_span_forces(JointForces& need, const Span& span, const Axes& axes, const Vector12& forces);
// Adds what the springs of supports give.
void add_spring_forces(JointForces& need, const Dofs& dofs, const Acting& acting,
                       const std::vector<Movement>& movement);

// In each case while nothing has moved: the loads alone.
std::vector<JointForces> joint_forces_at_rest(const Block& block);
// The same with what the first movements of the points bring, which have no rests yet.
void add_elastic(const Block& block, std::vector<JointForces>& needs);
// All of it for the movements of the block, in all the digits that they are kept to.
std::vector<JointForces> joint_forces(const Block& block);

// The sizes of all forces and moments that meet at each point, summed, for these movements of a structure with the
// elements of the block: what their rounding is a share of. Loads within spans are left out.
std::vector<Six> gross_forces(const Block& block, const std::vector<Six>& movement);

// Forces of the springs of a support on the structure.
Six spring_force(const Acting& acting, const std::vector<Movement>& movement, const PointSpring& spring);

}  // namespace corvex::solver
