#include "beam/released.hpp"

#include <Eigen/Cholesky>
#include <cmath>

#include "algebra/products.hpp"

namespace corvex::solver {

using namespace algebra;

Eigen::Matrix<double, 6, 12> deformation_of(const Axes& e, double length) {
  const auto row = [](const Vector& v) { return Eigen::RowVector3d(v.x, v.y, v.z); };
  const Eigen::RowVector3d x = row(e.x), y = row(e.y), z = row(e.z), none = Eigen::RowVector3d::Zero();
  const Eigen::RowVector3d chord_y = y / length, chord_z = z / length;
  Eigen::Matrix<double, 6, 12> B;
  B << -x, none, x, none,          //
      none, -x, none, x,           //
      chord_y, z, -chord_y, none,  //
      chord_y, none, -chord_y, z,  //
      -chord_z, y, chord_z, none,  //
      -chord_z, none, chord_z, y;
  return B;
}

Released::Released(const Span& span, double turn, const DeformationStiffness& whole)
    : deformation_(deformation_of({{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}, span.length)) {
  const double c = std::cos(turn), s = std::sin(turn);
  // The member's own directions in the axes in which it bends.
  const Eigen::Vector3d own[] = {{1, 0, 0}, {0, c, -s}, {0, s, c}};
  r_.resize(12, 0);
  for (int end = 0; end < 2; ++end)
    for (int k = 0; k < 6; ++k) {
      if (!(end == 0 ? span.freed_a : span.freed_b)[static_cast<std::size_t>(k)]) continue;
      r_.conservativeResize(12, r_.cols() + 1);
      r_.rightCols(1).setZero();
      r_.col(r_.cols() - 1).segment<3>(6 * end + 3 * (k / 3)) = own[k % 3];
    }
  const Eigen::MatrixXd jump = times(deformation_, r_), resistance = turned(whole, jump);
  // Jumps along and about the axes differ in scale by the stiffness of what they meet. Where that is none (a plane
  // structure needs no stiffness out of its plane) nothing jumps.
  const auto n = r_.cols();
  Eigen::VectorXd scale(n);
  for (Eigen::Index i = 0; i < n; ++i) scale(i) = resistance(i, i) > 0 ? 1 / std::sqrt(resistance(i, i)) : 0;
  Eigen::MatrixXd scaled = scale.asDiagonal() * resistance * scale.asDiagonal();
  for (Eigen::Index i = 0; i < n; ++i)
    if (scale(i) == 0) scaled(i, i) = 1;
  flexibility_ = scale.asDiagonal() * scaled.ldlt().solve(Eigen::MatrixXd::Identity(n, n)) * scale.asDiagonal();
  const Eigen::MatrixXd pull = times(whole, jump);
  condensed_ = whole - times_transposed(times(pull, flexibility_), pull);
  // Completely released components leave rounding error, which must not be taken for stiffness.
  constexpr double rounding = 1e-13;
  for (int i = 0; i < 6; ++i)
    for (int j = 0; j < 6; ++j)
      if (std::abs(condensed_(i, j)) <= rounding * std::sqrt(whole(i, i) * whole(j, j))) condensed_(i, j) = 0;
}

Vector12 Released::jumps(const Vector12& forces) const {
  return -times(r_, times(flexibility_, transposed_times(r_, forces)));
}

Vector12 Released::deformed(const Vector12& jumps) const {
  const Deformation d = deformation_ * jumps;
  Vector12 bent = Vector12::Zero();
  for (int i = 0; i < 6; ++i) bent(deformation_entry[i]) = d(i);
  return bent;
}

Vector12 Released::passed_on(const Vector12& forces) const {
  return forces - times(r_, transposed_times(r_, forces));
}

}  // namespace corvex::solver
