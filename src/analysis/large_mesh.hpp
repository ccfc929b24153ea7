// Discretisation for large displacements: points, members cut into a few pieces, and the cuts between them.
#pragma once

#include <Eigen/Core>
#include <array>
#include <cstddef>
#include <vector>

#include "analysis/equations.hpp"
#include "analysis/large_rod.hpp"
#include "beam/axes_matrix.hpp"

namespace corvex::solver {

using Vector6 = Eigen::Matrix<double, 6, 1>;

inline Eigen::Vector3d column(const Vector& v) {
  return {v.x, v.y, v.z};
}
inline Vector plain(const Eigen::Vector3d& v) {
  return {v.x(), v.y(), v.z()};
}

// A case of a structure, and what follows from them for every mesh.
struct AnalysedCase {
  AnalysedCase(const Structure& structure, const System& system, const LoadedCase& load_case);

  const Structure& structure;
  const System& system;
  const LoadedCase& load_case;
  double size;                  // of the structure: the diagonal of its bounds
  std::vector<int> directions;  // of x, y, z, rx, ry, rz those in which a point may move
};

// A point, or a cut within a span.
struct LargeNode {
  Eigen::Vector3d first;  // its place before any load
  RodPose pose;           // R is the turn from then
  Eigen::Vector3d turn = Eigen::Vector3d::Zero();
  std::array<int, 6> dof{-1, -1, -1, -1, -1, -1};
  const Axes* frame = nullptr;  // along which its movements are counted

  Eigen::Matrix3d axes() const { return frame ? columns_of(*frame) : Eigen::Matrix3d::Identity(); }
};

// How the end of a piece is joined to its node: by a rigid arm, and by hinges about axes of the section one after
// another.
struct LargeJoint {
  std::size_t node = 0;
  Eigen::Vector3d arm = Eigen::Vector3d::Zero();
  Eigen::Matrix3d section = Eigen::Matrix3d::Identity();  // its axes before any load
  std::vector<Eigen::Vector3d> hinge{};                   // in these axes
  std::vector<double> angle{};
  std::vector<int> dof{};
};

struct LargePiece {
  std::size_t span = 0;
  LargeJoint a, b;
  bool link = false;
  RodPiece rod;
  RodForce start;  // of a rod
  // Of a link: its rigidity, its free strain, its force, and the forces on its ends from the loads on it.
  double EA = 0, free = 0, pull = 0;
  Eigen::Vector3d share_a = Eigen::Vector3d::Zero(), share_b = Eigen::Vector3d::Zero();
  Acts acts = Acts::always;
  // From the last assembly: how the forces at the start follow the ends, and the gap at the end.
  Eigen::MatrixXd follow;
  Eigen::VectorXd gap;
};

// A load at the very end of a member, which goes to the point there.
struct EndLoad {
  std::size_t piece;
  Eigen::Vector3d force, moment;
};

// The cuts, with the place and the forces that each has reached. A copy keeps a configuration.
struct LargeMesh {
  std::vector<LargeNode> nodes{};
  std::vector<LargePiece> pieces{};
  std::vector<EndLoad> end_loads{};
  int unknowns = 0;
};

// The unloaded structure: beams are cut where their loads change, and each of these stretches into `parts` pieces.
LargeMesh large_mesh(const AnalysedCase& given, int parts);

}  // namespace corvex::solver
