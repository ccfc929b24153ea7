// Geometric stiffness of rigid arms.
#pragma once

#include <Eigen/Core>

#include "corvex/vector.hpp"

namespace corvex::solver {

// Stiffness of a force f on the end of an arm r against rotation θ: the symmetric part of (θ × r) × f. (The other part
// depends on how moments follow the turn, and vanishes over a joint in equilibrium.)
inline Eigen::Matrix3d turned_arm(const Vector& r, const Vector& f) {
  const Eigen::Vector3d a(r.x, r.y, r.z), b(f.x, f.y, f.z);
  return (a * b.transpose() + b * a.transpose()) / 2 - a.dot(b) * Eigen::Matrix3d::Identity();
}

// θ × r as a matrix times θ.
inline Eigen::Matrix3d lever(const Vector& r) {
  Eigen::Matrix3d m;
  m << 0, r.z, -r.y, -r.z, 0, r.x, r.y, -r.x, 0;
  return m;
}

}  // namespace corvex::solver
