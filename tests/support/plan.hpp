// A frame as plain numbers: random ones are made here, changed in ways that must not change the answer, and
// built through the library or written as a model file.
#pragma once

#include <array>
#include <corvex/corvex.hpp>
#include <string>
#include <vector>

namespace corvex::test {

struct PlanMember {
  std::vector<std::size_t> through;
  std::size_t section = 0;
  bool link = false;
  Hinge hinge = Hinge::none;
  double roll = 0;
  std::array<bool, 6> release_start{}, release_end{};
  Vector arm_start{}, arm_end{};  // m
  Acts acts = Acts::always;
};

struct PlanSupport {
  std::size_t point = 0;
  std::array<bool, 6> held{};
  std::vector<Vector> along{};
  std::array<double, 6> spring{};  // N/m, N·m/rad
};

struct PlanLoad {
  enum class Kind {
    point_force,
    point_moment,
    member_force,
    member_moment,
    line,
    gravity,
    spread,
    heat,
    temperature_gradient_y,
    temperature_gradient_z,
    shorten,
    settle
  };
  Kind kind = Kind::point_force;
  std::size_t on = 0;       // point or member
  double from = 0, to = 0;  // m along the member; K at the plus and the minus side; m of shortening
  Vector first, last;       // N, N·m, N/m, m/s², m; `last` for lines only, and for the turn of a settlement
  LoadAxes axes = LoadAxes::global;
  Per per = Per::length;
  std::vector<std::size_t> also{};  // members beside `on` that a spread force acts on
};

struct Plan {
  bool plane = true;
  Up up = Up::z;
  bool shear = true;
  std::vector<Vector> points;
  std::vector<Shape> sections;
  std::vector<PlanMember> members;
  std::vector<PlanSupport> supports;
  std::vector<std::pair<std::size_t, double>> masses;  // point, kg
  std::vector<std::vector<PlanLoad>> cases;

  double length_of(const PlanMember& m) const;
  // From start to end, between the arms.
  Vector axis(const PlanMember& m) const;
  // Length of ground plan over length.
  double plan_share(const PlanMember& m) const;
};

// Rigid beams from a fixed point hold all points; links, hinged beams, members through three points, exactly
// vertical ones, rolls, further supports and every kind of load come on top. The same seed gives the same
// plan.
Plan random_plan(unsigned seed, bool plane);
// The same with everything else that joins, holds and loads a structure: releases, rigid arms, points held by links
// alone, skew supports, springs, settlements, masses, heat, lack of fit, spread forces, loads per plan and in members'
// axes, unsymmetric sections in space.
Plan rich_plan(unsigned seed, bool plane);

// Points and members are named P0, P1, … and M0, M1, …; cases C0, C1, ….
Structure build(const Plan& plan);

// The same frame, turned about the up direction (space only).
Plan turned(const Plan& plan, double angle);
Vector turn_about_up(const Plan& plan, const Vector& v, double angle);

// The same frame with points and members in another order; where[i] is the new place of point or member i.
struct Shuffled {
  Plan plan;
  std::vector<std::size_t> point, member;
};
Shuffled shuffled(const Plan& plan, unsigned seed);

// Each beam gets a point in between: as a member through it, or as two members end to end (the second part of
// member i is then second[i]).
Plan with_points_between(const Plan& plan);
struct Halved {
  Plan plan;
  std::vector<std::size_t> second;
  std::vector<double> at;
};
Halved halved(const Plan& plan);

// As a model file in which lengths, forces and moments are bare numbers of these units.
std::string model_file(const Plan& plan, const std::string& length, const std::string& force,
                       const std::string& moment);

}  // namespace corvex::test
