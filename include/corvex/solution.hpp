// Corvex: solving, and everything that can be asked of a solution.
//
// All load cases are solved together; nothing has to be ordered beforehand. A solution is a value; copies
// share their data. What depends on a member is computed when it is asked for.
//
// Threads: `solve` may be called from several threads at once, each with a structure that no other changes meanwhile; a
// Solution and everything asked of it may be read from several. A `Solver` belongs to one thread at a time.
//
//     const corvex::Solution solution = corvex::solve(trestle);
//     for (const corvex::Problem& p : solution.problems()) fmt::print("{}\n", describe(p));
//     const corvex::Reaction r = solution["product"].reaction(a);
//     fmt::print("{:.1f} N\n", r.y.in(corvex::units::N));   // 2560.0 N
//
// Accuracy: closed forms are met to 1e-9 of the largest value of their kind (docs/trust.md lists which); where the
// reactions and the loads balance to fewer than six digits a note says so.
//
// Signs: movements and reactions along the global axes, rotations and moments right-handed about them;
// reactions are what the support gives to the structure. Internal forces: see diagram.hpp.
//
// Names and places that do not exist, and results of a refused structure, are slips of the calling code and
// throw std::out_of_range.
#pragma once

#include <cstddef>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "corvex/diagram.hpp"
#include "corvex/displacement.hpp"
#include "corvex/structure.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// Which component of a reaction, a movement or a rotation. `size` is that of the force, the movement or the
// rotation as a vector.
enum class Part { size, x, y, z, mx, my, mz };

struct Reaction {
  ForceSize x, y, z;
  MomentSize mx, my, mz;
};
// Moments about the global origin. `error` is the largest imbalance over the largest applied or reacted force
// (moments: over that force times the structure's size); 0 when all vanish.
struct Balance {
  Reaction applied, reacted;
  double error = 0;
};

// A state of equilibrium on the way to the whole load, of large displacements: the share of the load that acts, and the
// largest movement of a point.
struct LoadStep {
  double load = 0;
  Length movement;
};

// The elastic critical load factor αcr of a case (EN 1993-1-1, 5.2.1): its loads times this reach the first bifurcation
// by bending, on the undeformed structure. Of a plane structure in its plane only. One-way members and
// have no force are left out.
struct CriticalLoad {
  bool examined = true;            // false: a structure of more than 20,000 spans
  std::optional<double> factor{};  // nothing: above 10
  std::string description{};       // of the mode: "sway of 'C' along x"
};

// The place of a stress: along the member and, where the section's shape is known, across it.
struct StressExtreme {
  Stress value;
  Length at;
  std::optional<Length> y, z;
};

// All internal forces and movements of one cross-section.
struct SectionState {
  ForceSize axial, shear_y, shear_z;
  MomentSize torsion, moment_y, moment_z;
  Length deflection_y, deflection_z;    // in the member's axes
  Length x, y, z;                       // the same movement in global axes
  Angle twist, rotation_y, rotation_z;  // of the section about the member's local x, y and z, right-handed
};

// The internal forces just before or after one of a member's points.
struct Joint {
  PointId point;
  Side side;
  SectionState state;
};

// The force and the moment that a member gives to one of its points, along the global axes: at a point within the
// member those of both sides together. With large displacements they act in the displaced position.
struct EndForces {
  enum class End { start, through, end };
  PointId point;
  End end = End::start;
  Force force;
  Moment moment;  // about the point: with the moment of the force at the end of a rigid arm
};

// One reading of the deflection of a member between two of its points.
struct Stretch {
  std::size_t first = 0, last = 0;  // of the member's points, in their order along it
  Length from, to;
  enum class Reading {
    chord,    // the largest distance from the chord between the displaced points
    ends,     // the difference of the displacements of the two points across the member
    overhang  // the displacement of a free end across the member against that of the other point
  };
  Reading reading = Reading::chord;
  Extreme sag;  // value and place

  // Over the distance of the points.
  double ratio() const { return sag.value.si / (to - from).si(); }
};

namespace result {
struct Data;
struct Inner;
}  // namespace result

class MemberResult {
 public:
  [[gnu::visibility("hidden")]] MemberResult(std::shared_ptr<const result::Data> data, std::size_t load_case,
                                             std::size_t member);

  const Member& member() const&;
  Member member() && { return static_cast<const MemberResult&>(*this).member(); }
  Length length() const;
  // Strength for the safety factor: the allowable stress, or the yield strength for the thickness of the section's
  // wall.
  std::optional<Stress> strength() const;
  // The member acts one way only and in this case does not act.
  bool is_slack() const;

  // Internal forces along the member, in N and N·m, in its local axes: N positive in tension; of Vy, Vz, T, My and Mz
  // the positive section's face sees the positive direction (docs/signs.md).
  ForceDiagram axial() const;
  ForceDiagram shear_y() const;
  ForceDiagram shear_z() const;
  MomentDiagram torsion() const;
  MomentDiagram moment_y() const;
  MomentDiagram moment_z() const;
  // Displacement of the axis in the member's local axes.
  LengthDiagram deflection_x() const;
  LengthDiagram deflection_y() const;
  LengthDiagram deflection_z() const;
  // Rotation of the section about the member's local y and z, right-handed, without shear strain.
  AngleDiagram rotation_y() const;
  AngleDiagram rotation_z() const;

  // All readings of the deflection of the member. What restrains it, and how much, is not decided: each reading that
  // may be meant is there, and the worst ratio counts. Candidates for supports are the member's ends, its supports and
  // the points where other members join it that reach a support without it.
  // - chord: between every pair of candidates;
  // - ends, for members more than 45° from the vertical: between an end that is not held rigidly and the other end, or
  // a
  //   support of the member;
  // - overhang: of a free end against every candidate. An end is free unless it is supported, or what it is joined to
  //   reaches a support without this member.
  std::vector<Stretch> stretches() const;
  // The reading with the worst ratio of deflection to length.
  Stretch governing_stretch() const;
  // The deflection of that reading.
  Extreme sag() const { return governing_stretch().sag; }
  // The same at one place, of the worst reading that covers it. A place outside the member throws std::out_of_range.
  Length sag_at(Length place) const;
  // The difference of the displacements across the member between two of its points where it is joined, supported or
  // ends, over their distance: the largest, with its points. For columns, the drift between storeys and as a whole.
  Stretch drift() const;
  // The largest distance from the chord between two moved places of the member, perpendicular to it and unsigned.
  // Places outside the member throw std::out_of_range, and others than one before the other std::invalid_argument.
  Extreme sag_between(Length from, Length to) const;

  SectionState at(Length place, Side side = Side::after) const;
  std::vector<Joint> joints() const;
  // At each point of the member, in their order. Of a link the axial force alone: loads across it go to its points too.
  std::vector<EndForces> end_forces() const;

  // The largest movement of the axis, with its place.
  Extreme movement() const;

  // Normal stress: worst tension and worst compression. Empty if the section does not define it (a
  // `properties` section without moduli).
  std::optional<StressExtreme> max_stress() const;
  std::optional<StressExtreme> min_stress() const;
  // The same across the section at one place.
  std::optional<StressExtreme> max_stress_at(Length place, Side side = Side::after) const;
  std::optional<StressExtreme> min_stress_at(Length place, Side side = Side::after) const;
  // Normal stress at one place of the section, y and z from its centroid. Empty if the section does not define it.
  std::optional<Stress> normal_stress_at(Length place, Length y, Length z, Side side = Side::after) const;
  // Whether the stress of restrained warping, which is not computed, could govern: in an open section that is twisted,
  // where the warping stress of a member with warping restrained at one end exceeds 5 % of the worst von Mises stress.
  // It is not counted where warping dies away within the section's own depth, as in tubes and solid sections.
  bool leaves_out_warping() const;
  // From normal stress and the shear of Vy, Vz and T, at the worst place of the whole section. Nothing where a part of
  // it is not known.
  std::optional<StressExtreme> von_mises() const;
  std::optional<StressExtreme> von_mises_at(Length place, Side side = Side::after) const;
  // The largest shear stress of Vy, Vz and T over the section, where its shape is known; zero in a link.
  std::optional<StressExtreme> max_shear_stress() const;
  std::optional<StressExtreme> max_shear_stress_at(Length place, Side side = Side::after) const;
  // Largest and least normal stress along one fibre of the member, y and z from the centroid of its section. Nothing
  // if the section does not define it.
  std::optional<std::pair<StressExtreme, StressExtreme>> normal_stress_along(Length y, Length z) const;
  // The material's allowable stress or yield strength over the worst von Mises stress. Nothing where either
  // is not known, or if the stress is zero.
  std::optional<double> safety() const;
  // The same against a stress that was found already.
  std::optional<double> safety_against(Stress von_mises) const;

 private:
  Diagram diagram(Dimension d, double noise, std::size_t quantity) const;
  double place_on_member(Length place) const;
  // The piece of the course that counts at a place, and the place along it.
  std::pair<std::size_t, double> locate(Length place, Side side) const;

  std::shared_ptr<const result::Data> data_;
  std::size_t case_, member_;
  std::shared_ptr<const result::Inner> inner_;
};

class CaseResult {
 public:
  CaseResult(std::shared_ptr<const result::Data> data, std::size_t load_case)
      : data_(std::move(data)), case_(load_case) {}

  const std::string& name() const&;
  std::string name() && { return static_cast<const CaseResult&>(*this).name(); }
  MemberResult operator[](std::string_view member) const;
  MemberResult operator[](MemberId member) const;
  MemberResult operator[](std::nullptr_t) const = delete;  // 0 is not a name
  Displacement displacement(PointId point) const;
  Displacement displacement(std::string_view point) const;
  Displacement displacement(std::nullptr_t) const = delete;
  // Whether a point has rotations at all: it has none where only links and hinged ends meet.
  bool turns(PointId point) const;
  // The direction of an imperfection without a given one: "sway -x". Empty otherwise.
  const std::string& direction() const&;
  std::string direction() && { return static_cast<const CaseResult&>(*this).direction(); }
  // Nothing but zeros where no support is.
  Reaction reaction(PointId point) const;
  Reaction reaction(std::string_view point) const;
  Reaction reaction(std::nullptr_t) const = delete;
  Balance balance() const;
  // How many decimal digits of the movements are correct, from 0 to 15, relative to the largest of them. An estimate
  // from the residual of the equations and the rounding error of that residual (Higham, Accuracy and Stability of
  // Numerical Algorithms, 7.1). On the closed forms of docs/trust.md never too many, and at most three too few.
  int digits() const;
  // Computed for all assessed cases when first requested; empty for a case that is not assessed.
  std::optional<CriticalLoad> critical_load() const;
  // Of large displacements, the last with all of the load; else none.
  std::vector<LoadStep> steps() const;

 private:
  std::shared_ptr<const result::Data> data_;
  std::size_t case_;
};

class [[nodiscard]] Solution {
 public:
  // Of nothing: not ok.
  Solution();
  [[gnu::visibility("hidden")]] Solution(Structure structure, Problems problems);
  [[gnu::visibility("hidden")]] explicit Solution(std::shared_ptr<const result::Data> data);

  bool ok() const { return data_ != nullptr; }
  // Why the structure was refused; empty if it was solved. A refused solution has its structure, no cases and no notes.
  const Problems& problems() const& { return problems_; }
  Problems problems() && { return std::move(problems_); }
  // Notes on a structure that was solved.
  const Problems& notes() const&;
  Problems notes() && { return static_cast<const Solution&>(*this).notes(); }
  const Structure& structure() const&;
  Structure structure() && { return static_cast<const Solution&>(*this).structure(); }

  // Load cases first, then combinations; both are found by their names too.
  std::size_t size() const;
  // Those that tables, limits and the envelope look at: the combinations if there are any, else the load cases. With
  // an imperfection in no given direction, each of them stands with the direction of the largest displacement at its
  // own place, and with its other directions behind all, named "wind (sway -x)".
  std::vector<std::size_t> assessed() const;
  // The case of which this is another direction of the imperfection; else itself.
  std::size_t base_of(std::size_t index) const;
  // Throw std::out_of_range if no case has this name.
  CaseResult operator[](std::size_t index) const;
  CaseResult operator[](std::string_view load_case) const;

 private:
  Problems problems_;
  std::shared_ptr<const Structure> refused_;
  std::shared_ptr<const result::Data> data_;
};

// May be called from several threads at once.
Solution solve(const Structure& structure);

namespace solver {
struct Reusable;
}

// Solves one structure after another, as `solve` does, and keeps what depends on the topology alone: as long as the
// same members join the same points with the same supports, and only sections, materials, positions and loads change,
// the order of elimination and the places of the matrix are found once. For loops over wall thicknesses and the like.
//
//     corvex::Solver solver;
//     const corvex::Solution thin = solver.solve(walkway(2.5_mm)), thick = solver.solve(walkway(4_mm));
//     fmt::print("{:.2f}\n", *thin["people"]["beam"].safety());   // 2.01
//     fmt::print("{:.2f}\n", *thick["people"]["beam"].safety());   // 3.05
class Solver {
 public:
  Solver();
  ~Solver();
  Solver(Solver&&) noexcept;
  Solver& operator=(Solver&&) noexcept;

  Solution solve(const Structure& structure);

 private:
  std::unique_ptr<solver::Reusable> reusable_;
};

}  // namespace corvex

#pragma GCC visibility pop
