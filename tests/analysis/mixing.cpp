// Fixed points of linear maps: mixing finds them in about as many steps as there are unknowns.
#include "analysis/mixing.hpp"

#include <Eigen/LU>
#include <catch2/catch.hpp>

namespace tests_of_mixing {

using Eigen::MatrixXd;
using Eigen::VectorXd;

TEST_CASE("A map that turns and diverges by itself is brought to its fixed point") {
  // Eigenvalues of size 1.2: repeating the map leads away from the fixed point.
  MatrixXd B(3, 3);
  B << 0, -1.2, 0, 1.2, 0, 0, 0, 0, 0.7;
  const VectorXd c = VectorXd::LinSpaced(3, 1, 3);
  const VectorXd fixed = (MatrixXd::Identity(3, 3) - B).lu().solve(c);
  corvex::solver::Mixing mixing;
  VectorXd x = VectorXd::Zero(3), plain = x;
  int steps = 0;
  for (; steps < 12 && (x - fixed).norm() > 1e-9 * fixed.norm(); ++steps) {
    x = mixing.next(x, B * x + c - x);
    plain = B * plain + c;
  }
  CHECK((x - fixed).norm() < 1e-9 * fixed.norm());
  CHECK(steps <= 6);
  for (int i = 0; i < 30; ++i) plain = B * plain + c;
  CHECK((plain - fixed).norm() > 10 * fixed.norm());
}

TEST_CASE("The first step is the plain one, and a step of zero stays where it is") {
  corvex::solver::Mixing mixing;
  const VectorXd x = VectorXd::Constant(2, 3), step = VectorXd::Constant(2, -1);
  CHECK((mixing.next(x, step) - (x + step)).norm() == 0);
  corvex::solver::Mixing still;
  CHECK((still.next(x, VectorXd::Zero(2)) - x).norm() == 0);
}

}  // namespace tests_of_mixing
