#include "linear_system/joint_stiffness.hpp"

#include <cmath>
#include <limits>

#include "beam/element.hpp"
#include "linear_system/matrix.hpp"
#include "linear_system/spin.hpp"

namespace corvex::solver {

JointStiffness::JointStiffness(const Structure& s, const std::vector<bool>& slack)
    : spans_(cut(s)), dofs_(dofs(s, spans_)) {
  std::vector<Element> all = elements(s, spans_);
  mark_idle_spins(s, spans_, all, dofs_);
  for (std::size_t i = 0; i < slack.size(); ++i)
    if (slack[i])
      for (std::size_t k = spans_.first[i]; k < spans_.first[i + 1]; ++k) all[k] = all[k].slack(s.members()[i].acts);
  Pattern pattern(spans_, dofs_);
  LowerMatrix K;
  pattern.assemble(spans_, all, dofs_, K);
  factor_ = SignedFactor(K);
}

double JointStiffness::rotation_by_unit_moment(std::size_t point, const Vector& about) const {
  const Six moment = dofs_.in_frame(point, {0, 0, 0, about.x, about.y, about.z});
  Eigen::MatrixXd force = Eigen::MatrixXd::Zero(dofs_.equations, 1);
  constexpr double none = 1e-9;
  bool turns = false;
  for (std::size_t k = 3; k < 6; ++k) {
    if (std::abs(moment[k]) < none) continue;
    const Status status = dofs_.status[point][k];
    // Nothing that turns meets there.
    if (status == Status::absent || status == Status::idle) return std::numeric_limits<double>::infinity();
    if (status == Status::held) continue;
    force(dofs_.equation[point][k], 0) = moment[k];
    turns = true;
  }
  if (!turns) return 0;
  const Eigen::MatrixXd moved = factor_.solve(force);
  return force.col(0).dot(moved.col(0));
}

}  // namespace corvex::solver
