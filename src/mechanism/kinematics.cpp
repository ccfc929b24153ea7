#include "mechanism/kinematics.hpp"

#include <cmath>

#include "algebra/dense.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

using Row = Eigen::Matrix<double, 6, 12>;

// The deformations that a span resists, each as a length, for the movements of its points in global axes.
Row resisted(const Element& e, const Axes& axes, const Span& span) {
  const DeformationStiffness whole = e.unreleased_stiffness(), k = e.deformation_stiffness();
  DeformationStiffness share = DeformationStiffness::Zero();
  for (int i = 0; i < 6; ++i)
    for (int j = 0; j < 6; ++j)
      if (const double scale = whole(i, i) * whole(j, j); scale > 0) share(i, j) = k(i, j) / std::sqrt(scale);
  const Eigensystem modes = symmetric_eigensystem(share);
  Row B = deformation_of(axes, span.length);
  B.bottomRows<5>() *= span.length;
  // The rest of a released component is rounding error.
  constexpr double nothing = 1e-10;
  Row rows = Row::Zero();
  for (int i = 0; i < 6; ++i)
    if (modes.values(i) > nothing) rows.row(i) = modes.vectors.col(i).transpose() * B;
  if (!span.armed) return rows;
  // From the ends of rigid arms to the points that turn with them.
  for (const auto& [arm, at] : {std::pair(span.arm_a, 0), {span.arm_b, 6}}) {
    Eigen::Matrix3d lever;  // θ × arm
    lever << 0, arm.z, -arm.y, -arm.z, 0, arm.x, arm.y, -arm.x, 0;
    rows.block<6, 3>(0, at + 3) += rows.block<6, 3>(0, at) * lever;
  }
  return rows;
}

}  // namespace

std::optional<bool> every_motion_strains(const Spans& spans, const std::vector<Element>& elements, const Dofs& f) {
  constexpr int most = 1500;
  if (f.equations == 0) return true;
  if (f.equations > most) return std::nullopt;
  const auto springs = static_cast<Eigen::Index>(6 * f.springs.size());
  Eigen::MatrixXd M = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(6 * spans.all.size()) + springs, f.equations);
  Eigen::VectorXd unit(f.equations);
  const auto spread = [&](std::size_t point, Eigen::Index row, const Eigen::Matrix<double, 1, 6>& by) {
    for (std::size_t k = 0; k < 6; ++k) {
      const int e = f.equation[point][k];
      if (e < 0) continue;
      unit(e) = 1;
      const Six moved = f.of_point(point, unit.data());
      unit(e) = 0;
      for (int i = 0; i < 6; ++i) M(row, e) += by(i) * moved[static_cast<std::size_t>(i)];
    }
  };
  unit.setZero();
  Eigen::Index row = 0;
  for (std::size_t i = 0; i < spans.all.size(); ++i) {
    const Span& s = spans.all[i];
    const Row rows = resisted(elements[i], spans.axes[s.member], s);
    for (int k = 0; k < 6; ++k, ++row) {
      spread(s.a, row, rows.block<1, 6>(k, 0));
      spread(s.b, row, rows.block<1, 6>(k, 6));
    }
  }
  for (const PointSpring& s : f.springs)
    for (int k = 0; k < 6; ++k, ++row)
      if (s.stiffness[static_cast<std::size_t>(k)] > 0) {
        Eigen::Matrix<double, 1, 6> by = Eigen::Matrix<double, 1, 6>::Zero();
        by(k) = 1;
        spread(s.point, row, by);
      }
  // Rotations act on long and short spans alike: each degree of freedom is scaled by the largest length that it moves.
  for (Eigen::Index c = 0; c < M.cols(); ++c) {
    const double size = M.col(c).cwiseAbs().maxCoeff();
    if (size == 0) return false;
    M.col(c) /= size;
  }
  return rank(M, 1e-13) == M.cols();
}

}  // namespace corvex::solver
