// Corvex: natural frequencies and critical load factors, with their mode shapes.
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
#include "corvex/stability.hpp"

#pragma GCC visibility push(default)

namespace corvex {

using Frequency = Measure<0, 0, -1>;
inline constexpr Frequency Hz = Frequency::si(1);

struct ModesOptions {
  // So many natural frequencies.
  std::size_t vibration = 0;
  // With the axial forces of this load case or combination; without any if empty.
  std::string under{};
  // Number of critical load factors for each of these load cases and combinations.
  std::vector<std::pair<std::string, std::size_t>> buckling{};
};

struct VibrationMode {
  Frequency frequency{};
  // Free structures move as a whole, or in part, without anything resisting: frequency 0.
  bool is_free = false;
  // Effective modal mass along each axis as a share of the total mass (0 to 1).
  double effective_mass_x = 0, effective_mass_y = 0, effective_mass_z = 0;
  ModeShape shape{};

  // Nothing of rigid-body motion.
  std::optional<double> period() const {
    if (is_free) return {};
    return 1 / frequency.si();
  }
};

// A member in compression in a buckling mode: its critical force, and the length of the pinned column that buckles at
// that force.
struct BuckledMember {
  MemberId member;
  ForceSize critical_force{};  // compression, positive
  Length effective_length{};   // π √(EI/N), with the EI of the axis about which it bends in the mode
  // About which axis of its section: 'y', 'z', or '1', '2' for principal axes that lie askew.
  char axis = 'z';
};
struct BucklingMode {
  // The loads of the case times this let the structure buckle.
  double factor = 0;
  ModeShape shape{};
  // "sway towards x", "bending of 'post' about its y axis".
  std::string description{};
  std::vector<BuckledMember> members{};
};
struct CaseBuckling {
  std::string load_case;
  // In ascending order; fewer than requested if no further mode exists.
  std::vector<BucklingMode> modes{};
  // Some movement has no stiffness without the members that act one way only and have no force: no load factor.
  bool is_mechanism = false;
  // One-way members and have no force in this case. Load factors are those without them; where they
  // differ by more than 1 %, `if_all_acted` is the lowest one with all of them.
  std::vector<MemberId> untensioned{};
  std::optional<double> if_all_acted{};
  // Torsional, flexural-torsional and lateral torsional buckling, and in a plane structure buckling out of the plane.
  MemberEstimates estimates{};

  // The lowest factor of all of these; nothing where nothing buckles.
  std::optional<double> lowest() const;
  // Description of the mode: "lateral torsional buckling of 'beam' between 'A' and 'B' (estimated)".
  std::string governing(const Structure& structure) const;
};

// Vibration out of the plane of a plane structure: bending and torsion of its members between bracing and supports.
struct OutOfPlaneVibration {
  std::optional<Frequency> lowest{};  // nothing where all members are braced along their whole length
  std::optional<MemberId> member{};
  // Members and masses that no restraint covers; empty: all are.
  std::vector<UncoveredMember> not_checked{};
};

struct Modes {
  std::vector<VibrationMode> vibration{};
  // One-way members and have no force, or are not looked at under a case: frequencies are those without
  // them. The lowest one with all of them, where that differs by more than 1 %.
  std::vector<MemberId> untensioned{};
  std::optional<Frequency> if_all_acted{};
  // So many frequencies there are at all, where only masses on points have inertia.
  std::optional<std::size_t> possible{};
  OutOfPlaneVibration out_of_plane{};
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
