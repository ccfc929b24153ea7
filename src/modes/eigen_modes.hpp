// The modes of a structure: buckling under given axial forces, vibration with or without them.
#pragma once

#include <optional>

#include "corvex/expected.hpp"
#include "modes/lanczos.hpp"
#include "modes/pencil.hpp"

namespace corvex::solver {

struct ModeInput {
  const Structure* structure = nullptr;
  // Of each span; none where empty.
  std::vector<AxialCourse> axial{};
  std::vector<bool> slack{};
  // Stiffness of forces on rigid arms against rotation of their points, about the global axes.
  std::vector<std::pair<std::size_t, Eigen::Matrix3d>> turned_arms{};
  std::size_t count = 0;
};

struct FoundMode {
  double value = 0;  // λ: ω² or the load factor
  std::vector<Six> points{};
  std::vector<Eigen::VectorXd> spans{};  // movements of places along each span, three by three
  double share[3] = {0, 0, 0};           // of the mass, along the axes
};

struct FoundModes {
  Spans spans;
  std::vector<FoundMode> modes{};
  // Vibration under axial forces: the structure buckles under them.
  bool buckles = false;
  // Not all modes could be separated: fewer were found than the count requires.
  std::size_t missing = 0;
  // Vibration: so many modes there are at all, where only masses on points have inertia.
  std::optional<std::size_t> possible{};
  // Buckling: some movement has no stiffness, without any load.
  bool is_mechanism = false;
  std::size_t free = 0;  // of vibration: movements that nothing resists, which come first
};

FoundModes vibration_modes(const ModeInput& input);
FoundModes buckling_modes(const ModeInput& input);
// Whether the structure buckles below a load factor: by the count of negative pivots of one factorisation.
bool buckles_below(const ModeInput& input, double factor);

}  // namespace corvex::solver
