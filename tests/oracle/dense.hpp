// A second way to solve a structure, for the tests: written from docs/theory.md alone, it shares nothing with the
// solver.
//
// No member is cut. The inner forces and movements at a member's start are unknowns, as are the forces that each point
// in between puts on it; Macaulay's brackets carry them and the loads along the whole member in one formula. What the
// ends pass on to their points, equilibrium of the points, supports and springs are further equations: one dense
// system, solved in 64-bit mantissas.
#pragma once

#include <array>
#include <corvex/structure.hpp>
#include <memory>

namespace corvex::test {

class DenseSolution {
 public:
  explicit DenseSolution(const Structure& structure);

  // Movement and rotation, global axes.
  std::array<double, 6> displacement(std::size_t load_case, PointId point) const;
  // What the support gives to the structure.
  std::array<double, 6> reaction(std::size_t load_case, std::size_t support) const;
  // Of a member, in its own axes: N Vy Vz T My Mz, then the movement of the axis along x y z. Behind a jump at this
  // place. Of links only N and the movement along x mean anything.
  std::array<double, 9> at(std::size_t load_case, MemberId member, double place) const;

 private:
  std::shared_ptr<const class Dense> dense_;
};

}  // namespace corvex::test
