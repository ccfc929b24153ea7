// How stiffly a structure resists a force or a moment at one of its points: without any load, by the inverse of its
// stiffness matrix.
#pragma once

#include "linear_system/dofs.hpp"
#include "linear_system/signed_factor.hpp"

namespace corvex::solver {

class JointStiffness {
 public:
  // `slack`: members that do not act.
  JointStiffness(const Structure& structure, const std::vector<bool>& slack);

  // False where the structure is a mechanism.
  bool ok() const { return factor_.ok() && factor_.negative() == 0; }
  // The rotation of a point about a global direction of length 1 that a unit moment about it causes, in rad/(N·m):
  // 0 where a support holds it, infinite where nothing there resists.
  double rotation_by_unit_moment(std::size_t point, const Vector& about) const;

 private:
  Spans spans_;
  Dofs dofs_;
  SignedFactor factor_;
};

}  // namespace corvex::solver
