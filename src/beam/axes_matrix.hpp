// Axes as a matrix that brings components along them to the global ones.
#pragma once

#include <Eigen/Core>

#include "corvex/structure.hpp"

namespace corvex::solver {

inline Eigen::Matrix3d columns_of(const Axes& a) {
  Eigen::Matrix3d m;
  m << a.x.x, a.y.x, a.z.x, a.x.y, a.y.y, a.z.y, a.x.z, a.y.z, a.z.z;
  return m;
}

}  // namespace corvex::solver
