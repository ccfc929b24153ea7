// Newton's method at one share of the load.
#pragma once

#include <cstddef>

#include "analysis/large_tangent.hpp"

namespace corvex::solver {

class LargeNewton {
 public:
  explicit LargeNewton(const AnalysedCase& given) : given_(given) {}

  // Brings the mesh into equilibrium. False where the iteration does not end, ends where the tangent does not lead, or
  // ends where equilibrium is not stable; then the mesh is not usable.
  bool balance(LargeMesh& mesh, double load);
  // A few rounds more at the whole load, of which the one with the least forces left at the nodes is kept: movements
  // stop changing before these do, where members are far stiffer along their axis than across it.
  void polish(LargeMesh& mesh);

  // How often a piece has been evaluated, in total.
  std::size_t evaluations() const { return evaluations_; }
  // The last correction of the last equilibrium, as a share of the size of the structure or as an angle.
  double last_correction() const { return last_correction_; }

 private:
  Tangent tangent(LargeMesh& mesh, double load);

  const AnalysedCase& given_;
  std::size_t evaluations_ = 0;
  double last_correction_ = 0;
};

}  // namespace corvex::solver
