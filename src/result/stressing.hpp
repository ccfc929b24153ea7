// The axial forces of a case, as buckling and vibration take them.
#pragma once

#include "corvex/solution.hpp"
#include "modes/eigen_modes.hpp"

namespace corvex::result {

// Axial forces along the spans of a case, and which spans are slack.
struct Stressing {
  std::vector<solver::AxialCourse> axial{};
  std::vector<bool> slack{};
  // One-way members, are not slack, and have no force but rounding.
  std::vector<MemberId> untensioned{};
  std::vector<std::pair<std::size_t, Eigen::Matrix3d>> turned_arms{};
};
// Of a result of first order.
Stressing stressing_of(const Structure& structure, const CaseResult& result);

// These spans, and those of the members, are slack.
std::vector<bool> with_slack(const solver::Spans& spans, std::vector<bool> slack, const std::vector<MemberId>& members);
// For the buckling of a case, with its untensioned members slack.
solver::ModeInput buckling_input(const Structure& structure, const Stressing& stressing);

}  // namespace corvex::result
