// A structure as statics sees it: joints, pieces of members between them, what holds the joints, what acts.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "corvex/acting.hpp"
#include "corvex/diagram.hpp"
#include "structure/rigidity.hpp"

namespace corvex::hand {

// Internal forces in the order N, Vy, Vz, T, My, Mz; the signs are those of docs/theory.md.
using Forces = std::array<double, 6>;
inline constexpr std::size_t N = 0, Vy = 1, Vz = 2, T = 3, My = 4, Mz = 5;

// One force or moment that a support can give: along a direction, or about it.
struct Hold {
  std::size_t point = 0;
  Vector direction{};
  bool turning = false;
  double stiffness = 0;  // N/m or N·m/rad; 0 is rigid
  std::string name{};    // "A_x"
};

// A member from one of its points to the next.
struct Piece {
  std::size_t member = 0, a = 0, b = 0;
  double start = 0, length = 0;  // m along the member
  bool beam = true;
  Axes axes{};
  Vector at_a{}, at_b{};  // the ends of its axis
  std::array<bool, 6> freed_a{}, freed_b{};
  // By how much its section's principal axes are turned from `axes` (y towards z), in space.
  double turn = 0;
  Flexibility flexible{};
  std::string name{}, name_from_b{};  // "AB", "BA"

  Vector at(double x) const { return at_a + axes.x * x; }
};

struct Skeleton {
  const Structure* structure = nullptr;
  bool plane = true;
  std::vector<Piece> pieces{};
  std::vector<std::size_t> first{};  // piece of each member, and one more
  std::vector<Hold> holds{};
  std::vector<bool> used{};  // points at which a member is
  // Pieces that end at each point, and what holds it.
  std::vector<std::vector<std::size_t>> pieces_at{}, holds_at{};
  double size = 1;  // m, of the structure

  // The internal forces that a piece has at all: in the plane N, Vy and Mz of its plane, of a bar N.
  std::vector<std::size_t> components(const Piece& piece) const;
};
Skeleton skeleton(const Structure& structure);

// Unit force and moment that an internal force of this kind, 1 at the end of a piece, gives to the joint there.
struct UnitWrench {
  Vector force{}, moment{};
};
UnitWrench on_joint(const Piece& piece, std::size_t component, bool at_a);

// A load along a piece of a member or at one place of it; global axes.
struct LineOn {
  std::size_t member = 0;
  double from = 0, to = 0;
  Vector first{}, last{}, first_moment{}, last_moment{};
  std::string name{};
  LoadKind kind = LoadKind::line_load;

  Vector at(double x) const { return first + (last - first) * ((x - from) / (to - from)); }
  Vector moment_at(double x) const { return first_moment + (last_moment - first_moment) * ((x - from) / (to - from)); }
};
struct PlaceOn {
  std::size_t piece = 0;
  double at = 0;  // along the piece
  Vector force{}, moment{};
  std::string name{};
  LoadKind kind = LoadKind::force;
};
struct JointOn {
  std::size_t point = 0;
  Vector force{}, moment{};
  std::string name{};
  LoadKind kind = LoadKind::force;
};
// A temperature change, on the sides of + and − of the section, or a lack of fit.
struct FreeChange {
  LoadKind kind = LoadKind::temperature_change;
  std::size_t member = 0;
  double plus = 0, minus = 0;  // K
  double shorter_by = 0;       // m
};
// Free deformation of a member.
struct Strain {
  double along = 0, curve_y = 0, curve_z = 0;
  bool none() const { return along == 0 && curve_y == 0 && curve_z == 0; }
};

// All that acts in a case.
struct Acting {
  std::vector<LineOn> lines{};
  std::vector<PlaceOn> places{};
  std::vector<JointOn> joints{};
  std::vector<FreeChange> changes{};
  std::vector<Strain> strains{};  // of each member; empty where none
  std::vector<double> ground{};   // movement of each hold along its direction; empty where none

  // Those of `lines` on a member and those of `places` on a piece, by their numbers. Loads of a whole structure are
  // indexed once; of a few others all are looked through.
  void index(const Skeleton& skeleton);
  std::vector<std::size_t> lines_on(std::size_t member) const;
  std::vector<std::size_t> places_on(std::size_t piece) const;

 private:
  std::vector<std::vector<std::size_t>> lines_on_{}, places_on_{};
};
Acting acting_on(const Skeleton& skeleton, const LoadCase& loads);

// A course: its value at distance x from the start of a stretch is Σ c[i] xⁱ.
using Course = std::array<double, 4>;
double at(const Course& c, double x);

// A part of a piece without a break.
struct Stretch {
  double from = 0, to = 0;  // along the piece
  std::array<Course, 6> forces{};
};
// All of a piece from the internal forces just behind the joint at its start, and what comes out at the joint at its
// end.
struct PieceCourse {
  std::vector<Stretch> stretches{};
  Forces end{};
};
PieceCourse course_of(const Skeleton& skeleton, const Acting& acting, std::size_t piece, const Forces& start);

// The axial force at the start of a piece that is slack: its loads hang on the end that can hold them, so that nothing
// of it acts the wrong way. `hanging`: its course with no force at the start.
double resting_force(const Skeleton& skeleton, const Piece& piece, const std::vector<Stretch>& hanging);

// Forces 1 on the joints of a piece that push them apart along it.
Acting pushed_apart(const Skeleton& skeleton, std::size_t piece);

// Sums in the local axes of a member, where the axes of its pieces are not those: in the plane a rolled member.
Forces in_own_axes(const Skeleton& skeleton, const Piece& piece, const Forces& forces);

}  // namespace corvex::hand
