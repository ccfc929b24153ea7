// Corvex: natural frequencies and load factors of buckling, with their shapes.
//
// Members are exact to rounding in both: their inner shapes are polynomials of as high a degree as the wanted modes
// need, and no figure changes by points in between (docs/theory.md, "Buckling and vibration"). Modes are counted by the
// signs of a factorisation (Wittrick and Williams, 1971), so that none is skipped and repeated ones are there as often
// as they occur.
//
//     const auto modes = corvex::modes(trestle, {.vibration = 2});
//     fmt::print("{:.1f} Hz\n", modes->vibration[0].frequency.in(corvex::Hz));   // 47.6 Hz
//
// Vibration: mass along the members and of masses on points; sections have rotary inertia where shear deformation is
// counted, and none where it is off; torsional inertia is ρ(Iy + Iz). Buckling: by equilibrium of the case at first
// order, members bent between their points included, links too; axial forces may vary along a member. Shear deformation
// after Engesser. Shapes have no size of their own: their largest movement is 1. Threads: may be called from several at
// once.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

using Frequency = Measure<0, 0, -1>;
inline constexpr Frequency Hz = Frequency::si(1);

struct ModesOptions {
  // So many natural frequencies.
  std::size_t vibration = 0;
  // With the axial forces of this load case or combination; without any if empty.
  std::string under{};
  // So many load factors of these load cases and combinations.
  std::vector<std::pair<std::string, std::size_t>> buckling{};
};

// How a structure moves in a mode; the largest movement is 1.
struct ModeShape {
  std::vector<Displacement> points{};  // of each point
  // Of each member: movements at places evenly from end to end, in metres along it and along the global axes.
  struct Place {
    double at = 0;
    Vector by{};
  };
  std::vector<std::vector<Place>> members{};
  std::size_t most_moved = 0;  // the member of which a place moves most
};

struct VibrationMode {
  Frequency frequency{};
  // Free structures move as a whole, or in part, without anything resisting: frequency 0.
  bool is_free = false;
  // What of the whole mass moves with it along each axis, in a movement of all supports (from 0 to 1).
  double mass_share_x = 0, mass_share_y = 0, mass_share_z = 0;
  ModeShape shape{};

  // Nothing of a free movement.
  std::optional<double> period() const {
    if (is_free) return {};
    return 1 / frequency.si();
  }
};

// A pressed member in a mode of buckling: its force then, and the length of the hinged column that buckles at it.
struct BuckledMember {
  MemberId member;
  ForceSize critical_force{};  // compression, positive
  Length effective_length{};   // π √(EI/N), with the smaller EI in space
};
struct BucklingMode {
  // The loads of the case times this let the structure buckle.
  double factor = 0;
  ModeShape shape{};
  std::vector<BuckledMember> members{};
};
struct CaseBuckling {
  std::string load_case;
  // The least first; fewer than asked for where nothing else is pressed.
  std::vector<BucklingMode> modes{};
};

struct Modes {
  std::vector<VibrationMode> vibration{};
  std::vector<CaseBuckling> buckling{};
  Problems notes{};
};

// Or the reasons why there are none: a description that is not sound, a member without density, a case that there is
// not, a structure that buckles under the case in which it is to vibrate.
Expected<Modes, Problems> modes(const Structure& structure, const ModesOptions& options);
// The same with the axial forces of a solution that is there already.
Expected<Modes, Problems> modes(const Solution& solution, const ModesOptions& options);

}  // namespace corvex

#pragma GCC visibility pop
