// The load grows in steps until all of it acts, or until equilibrium ends.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "analysis/large_newton.hpp"

namespace corvex::solver {

class LoadStepping {
 public:
  enum class Outcome {
    done,
    ends,    // at a limit point, or where a link buckles
    coarse,  // a power series does not reach its last digit: the pieces are too long
    endless  // the load is far too large for the structure
  };

  explicit LoadStepping(const AnalysedCase& given) : given_(given), newton_(given) {}

  // From the unloaded mesh.
  Outcome follow(LargeMesh& mesh);

  // The share of the load that was reached; where the outcome is `coarse`, the share that needed shorter pieces.
  double load() const { return load_; }
  double coarse_at() const { return coarse_at_; }
  // Of each step the share of the load and the largest movement of a point.
  const std::vector<std::pair<double, double>>& steps() const { return steps_; }
  // The link that buckled between its ends in the last step that was tried; empty if none did.
  const std::string& overloaded() const { return overloaded_; }
  double last_correction() const { return newton_.last_correction(); }

 private:
  double first_step(LargeMesh& mesh);
  double step_by_turns(const LargeMesh& mesh, double step, double load) const;
  std::string overloaded_link(const LargeMesh& mesh) const;

  const AnalysedCase& given_;
  LargeNewton newton_;
  double load_ = 0, coarse_at_ = 1;
  std::vector<std::pair<double, double>> steps_;
  std::string overloaded_;
};

}  // namespace corvex::solver
