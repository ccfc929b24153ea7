// Corvex: the hand calculation that belongs to a structure, written step by step.
//
// Statics and virtual work alone: no stiffness matrix is used, and nothing of the solution. Reactions and joints by the
// equations of equilibrium that leave one unknown each, members stretch by stretch, statically indeterminate structures
// by the force method, displacements by the unit-load theorem (Gere and Timoshenko, Mechanics of Materials, ch. 4, 9;
// Timoshenko and Young, Theory of Structures, ch. 2, 7). What comes out is a value of typed steps; text, Markdown, HTML
// and JSON are written from it.
//
//     const auto derived = corvex::derive(trestle, "product");
//     fmt::print("indeterminate to degree {}\n", derived->count.degree);   // indeterminate to degree 3
//
// Signs are those of solution.hpp and diagram.hpp; SI units inside. Threads: may be called from several at once.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/hand.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// One line: why it holds, the equation in names, the unknown as a formula of what is known, and its value. Numbers of
// all texts are kept as quantities (WorkedFormula::uses), to be written in any unit.
struct DerivationStep {
  WorkedFormula because{};   // "moments about A"
  WorkedFormula equation{};  // "B_y·2.4 m − P1·1.2 m = 0"; levers are its uses. Empty where the formula says all
  std::string unknown{};     // "B_y"; empty where the value has no name of its own
  WorkedFormula formula{};   // "P1·1.2 m/2.4 m"
  // Nothing where the formula is a course along a member, as V(x) = 3 kN − 2 kN/m·x.
  std::optional<Quantity> result{};
  std::string remark{};  // "tension"
};

// Equations that hold together, and their solution.
struct DerivationSystem {
  // Of the left side, which is zero: "A_x·1.2 m − B_x·0.4 m + 12 kN·m". Unknowns appear as names, everything else as
  // `uses`.
  struct Equation {
    WorkedFormula because{};  // "whole structure, moments about A"; empty where the system says it
    WorkedFormula left{};
  };
  WorkedFormula because{};
  std::vector<Equation> equations{};
  std::vector<std::pair<std::string, Quantity>> solution{};
};

// Repeated steps of one kind, a row each.
struct DerivationTable {
  struct Column {
    std::string head{};
    // Of its numbers; none of columns of words.
    std::optional<Dimension> dimension{};
  };
  struct Cell {
    std::string words{};
    std::optional<double> value{};  // SI units
    WorkedFormula formula{};        // instead of words: a text with numbers in it
  };
  std::string name{};  // "flexibility"
  std::string title{};
  std::vector<Column> columns{};
  std::vector<std::vector<Cell>> rows{};
  // How the last column follows from the others, in their heads: "L/6·(a1·b1 + 4·a2·b2 + a3·b3)/R"; empty where it
  // does not.
  std::string rule{};
};

// A free body: its joints and members, and the forces on it with their places.
struct FreeBody {
  struct Arrow {
    Vector at{}, force{}, moment{};
    std::string name{};
    bool is_load = false;
  };
  std::string name{};  // "whole structure", "joint C"
  std::vector<std::pair<Vector, Vector>> bars{};
  std::vector<std::pair<Vector, std::string>> joints{};
  std::vector<Arrow> arrows{};
};

struct DerivationChapter {
  // A sentence, a line, equations, a table or a sketch.
  using Item = std::variant<WorkedFormula, DerivationStep, DerivationSystem, DerivationTable, FreeBody>;
  std::string name{}, title{};
  std::vector<Item> items{};
};

// Unknowns and equations of equilibrium.
struct StaticCount {
  std::size_t members = 0, bars = 0;  // pieces of beams between their points, and bars that carry axial force only
  std::size_t joints = 0, reactions = 0, releases = 0;
  std::size_t unknowns = 0, equations = 0;
  // Unknowns beyond the independent equations.
  std::size_t degree = 0;
};

// The derived results as numbers.
struct DerivedReaction {
  PointId at;
  Reaction reaction;
};
struct DerivedMember {
  MemberId member;
  Diagram axial, shear_y, shear_z, torsion, moment_y, moment_z;
  bool slack = false;
};
struct DerivedDisplacement {
  std::string of{};  // the point, or the member
  std::optional<PointId> point{};
  std::optional<MemberId> member{};
  Length at{};  // along the member
  Vector by{};  // m, global axes
};
struct DerivedStress {
  MemberId member;
  Length at{};
  Side side = Side::after;
  // The largest normal stress without its sign, and the worst von Mises stress of the points of the outline.
  Stress normal{};
  std::optional<Stress> von_mises{};
  std::optional<double> safety{};
};

struct Derivation {
  std::string title, load_case;
  StaticCount count;
  // "X1 = horizontal reaction at E"
  std::vector<std::string> redundants{};
  std::vector<DerivationChapter> chapters{};
  std::vector<DerivedReaction> reactions{};
  std::vector<DerivedMember> members{};
  std::vector<DerivedDisplacement> displacements{};
  std::optional<DerivedStress> stress{};
};

struct DeriveOptions {
  // Whose stretches and stress are written; all, and the worst, if empty.
  std::vector<MemberId> members{};
  // Whose displacement is derived; if empty the place that moves most.
  std::vector<PointId> points{};
};

// Redundants that the force method is written for.
inline constexpr std::size_t most_redundants = 12;

// The derivation of a load case or combination by its name; an empty name is the only one. The reason where there is
// none: a structure that is not sound or can move, a name that is not known, more than most_redundants redundants, or
// too many members.
Expected<Derivation, Problem> derive(const Structure& structure, std::string_view load_case,
                                     const DeriveOptions& options = {});

// The key of the problem that says so where a structure has too many redundants or members.
inline constexpr const char* too_long = "too long to derive";

// Where the force method would be too long: equilibrium of every joint with the forces of a solution put in.
Derivation check_joints(const Solution& solution, std::size_t load_case);
// The derivation of a case that was solved; where it would be too long, the check of its joints, which says so.
Expected<Derivation, Problem> derive(const Solution& solution, std::size_t load_case,
                                     const DeriveOptions& options = {});

// One figure both ways.
struct BothWays {
  std::string what;
  Quantity derived, solved;
  // Of the largest figure of its kind.
  double difference = 0;
};
// Of the same case of the solution, which must be ok.
std::vector<BothWays> both_ways(const Derivation& derivation, const Solution& solution);

}  // namespace corvex

#pragma GCC visibility pop
