// The search for the modes of a pencil: which are the least, whether any was missed, and whether the spans have shapes
// enough to carry them.
#pragma once

#include <functional>
#include <vector>

#include "modes/lanczos.hpp"
#include "modes/pencil.hpp"

namespace corvex::solver {

// Values of the eigenvalues of a problem: λ, increasing as they decrease.
struct ModeSearch {
  const Pencil& pencil;
  EigenProblem problem;
  std::size_t count = 0;
  double least = 0;  // eigenvalues below are nothing
  double shift = 0;  // λ = 1/eigenvalue − shift
  Shares fixed{};    // and the shares of a matrix whose negative pivots count the λ below a value:
  double per_value_geometric = 0, per_value_mass = 0;

  double value(double eigenvalue) const { return 1 / eigenvalue - shift; }
};

// Lanczos's method may find fewer of the same value than there are; these are found by searching again perpendicular to
// what is known, until there are as many as the signs of the pivots say. `not_found`: how many are missing in the end.
std::vector<EigenPair> all_pairs(const ModeSearch& search, Lanczos& first, std::size_t& not_found);

// The inner shapes that a span needs to vibrate or buckle at λ.
using NeededShapes = std::function<InnerShapes(std::size_t span, double value)>;
// A first search shows how many waves the wanted modes have; true where there are shapes enough to carry them, else
// `inner` is raised to what is needed. What the method has at any time are upper bounds of λ.
bool carried(const ModeSearch& search, Lanczos& lanczos, const NeededShapes& needed_at,
             std::vector<InnerShapes>& inner);

}  // namespace corvex::solver
