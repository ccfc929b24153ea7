// Where a member is restrained against displacement across it and against twist.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "corvex/solution.hpp"
#include "linear_system/joint_stiffness.hpp"

namespace corvex::stability {

struct Restraint {
  std::size_t point = 0;  // of the member's points
  double at = 0;          // m along the member
  // Along the local y and z axes. In a plane structure: out of the plane, in both.
  bool lateral_y = false, lateral_z = false;
  double twist = 0;  // stiffness, N·m/rad; infinity: rigid
};
struct Restraints {
  std::vector<Restraint> at;  // of each of the member's points
  bool y_along = false, z_along = false, twist_along = false;
};

// `joints`: of a structure in space; without it the twist of members in space is restrained by bracing alone.
Restraints restraints(const Structure& structure, MemberId member, const solver::JointStiffness* joints);

}  // namespace corvex::stability
