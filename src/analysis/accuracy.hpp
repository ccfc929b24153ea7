// How far the movements of a solution may be off.
//
// The residual of the equations, and its rounding error, are solved for with the factor: N. J. Higham,
// Accuracy and Stability of Numerical Algorithms, 2nd ed., 7.1 (forward error bounds). Rounding is given signs at
// random, as it has them itself: a bound with all of them alike would be larger by orders of magnitude on long chains.
#pragma once

#include "analysis/equilibrium.hpp"
#include "linear_system/factor.hpp"

namespace corvex::solver {

// The largest movement of a point, rotations counting by the size of the structure.
double largest_movement(const Structure& structure, const std::vector<Movement>& movement);

// For each case of the block: the error of its movements as a share of the largest. `lack` has a column for each. Where
// there are many cases some share one estimate, that of the worst.
std::vector<double> movement_errors(const Block& block, const Eigen::MatrixXd& lack, const Factor& factor);

}  // namespace corvex::solver
