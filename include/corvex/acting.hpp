// Corvex: loads as they act, supports as they hold: for programs that show a structure.
//
//     const corvex::Structure& s = solution.structure();
//     const corvex::ActingLoads acting = corvex::acting_loads(s, s.load_cases()[0]);
//     for (const corvex::ActingLine& line : acting.lines)
//       fmt::print("{} from {} m to {} m\n", line.first.y, line.from, line.to);   // -800 from 0 m to 2.4 m
//
// Global axes, right-handed; SI units: m, N, N·m, N/m, K. Of a sound structure only (`validate`). Threads: every
// function may be called from several threads at once.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "corvex/structure.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// Standard gravity is that within 0.1 % of 9.80665 m/s².
LoadKind kind_of(const Load& load, const Vector& up);
// "line load", "temperature change": as tables, pictures, pages and reports name it.
std::string name(LoadKind kind);
// The point of the section through which a load acts; nothing for loads that have none, or none of their own.
std::optional<Through> through_of(const Load& load);

// A force and a moment at one place: on a point, or on a member at a distance from its first point.
struct ActingForce {
  std::size_t load = 0;          // its number in LoadCase::loads()
  std::optional<PointId> point;  // nothing: on the member
  MemberId on{};
  double at = 0;
  Vector place;
  Vector force, moment;
  Vector lever{};  // the moment of the lever of the force about the axis (Through)

  Vector whole_moment() const { return moment + lever; }
};

// A force along [from, to] of a member, changing linearly, and the moment per length that its lever about the axis
// brings about (Through).
struct ActingLine {
  MemberId on;
  double from = 0, to = 0;
  Vector first, last;
  Vector first_moment{}, last_moment{};
  std::size_t load = 0;
};

// The force of an acceleration on a mass at a point; `arm` is from the point to the mass.
struct ActingMass {
  std::size_t load = 0;
  PointId at{};
  Vector arm, force;
  double mass = 0;
};

// Initial strain of a member, constant along it: elongation per length, and the curvature that its axis
// takes in the local x–y and x–z planes (positive: it sags).
struct ActingStrain {
  std::size_t load = 0;
  MemberId on{};
  double along = 0, curve_y = 0, curve_z = 0;
};

// How the ground of a support moves: along and about the global axes.
struct ActingMovement {
  std::size_t load = 0;
  PointId at{};
  Vector move, turn;
};

// The sum of forces, and of their moments about the origin.
struct Resultant {
  Vector force, moment;
  // The largest force and moment of single parts, which may cancel in the sum.
  double largest_force = 0, largest_moment = 0;
};

// All loads of a case, each resolved once into what it does. The parts of one load have its number.
struct ActingLoads {
  std::vector<ActingForce> forces;
  std::vector<ActingLine> lines;  // of line loads, spread forces and accelerations
  std::vector<ActingMass> masses;
  std::vector<ActingStrain> strains;
  std::vector<ActingMovement> movements;
  Vector acceleration;  // the sum of all
  Resultant resultant;
  double gross_force = 0;  // the sum of the sizes of the resultants of single loads
};
ActingLoads acting_loads(const Structure& structure, const LoadCase& loads);

// Square axes, of which the first `count` are held: they span all directions that the support names. Where these are
// global axes, so are all three.
struct HeldAxes {
  Axes axes{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
  int count = 0;
  bool skew = false;  // else the global axes are held as `PointSupport::held` says, and `axes`, `count` are not used
};
HeldAxes held_axes(const Structure& structure, const PointSupport& support);

}  // namespace corvex

#pragma GCC visibility pop
