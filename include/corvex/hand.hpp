// Corvex: hand calculations compared with computed values.
//
// Hand calculations are given as formulas with units; `verify` evaluates them and compares each
// against the figure that it speaks of.
//
//     const corvex::HandCalculation hand{
//         .let = {{"P", 3.2_kN}, {"q", "0.8 kN/m"}, {"L", "length(rail)"}},
//         .expect = {{.figure = {.kind = corvex::Figure::Kind::reaction, .of = "A", .part = corvex::Part::y},
//                     .is = "P/2 + q*L/2", .load_case = "product", .note = "symmetry"}}};
//     const auto verified = corvex::verify(solution, hand);
//     for (const corvex::Comparison& c : verified->comparisons)
//       fmt::print("{}: {:.0f} N\n", c.what, c.computed.in(corvex::units::N));   // reaction A y: 2560 N
//
// In addition to the names of `let`, a formula may ask for E(S235), G, density, yield, expansion of a material or of
// a member's material; A, Ay, Az, Iy, Iz, J, Wy, Wz of a section or of a member's section; length of a member.
// Signs are those of solution.hpp and diagram.hpp; `size` has none. Formulas are evaluated in double precision; a
// comparison adds no error of its own.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "corvex/formula.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// A formula as written, or a quantity from the calling code.
struct HandFormula {
  std::string text{};
  std::optional<Quantity> value{};

  HandFormula() = default;
  HandFormula(const char* formula) : text(formula) {}                         // NOLINT: meant to convert
  HandFormula(std::string formula) : text(std::move(formula)) {}              // NOLINT: meant to convert
  HandFormula(const Quantity& q) : value(q) {}                                // NOLINT: meant to convert
  HandFormula(double number) : value(Quantity(number, dimension::number)) {}  // NOLINT: meant to convert
  template <int L, int M, int T, int K, int A>
  HandFormula(Measure<L, M, T, K, A> m) : value(Quantity(m)) {}  // NOLINT: meant to convert
};

// Which value along a member. `extreme` is the largest by size, with its sign (of two that differ in sign only, the one
// of the hand value's sign); of stress, which has both signs in a section that bends, it has none. `size` is the same
// without a sign.
enum class Take { extreme, size, max, min, start, end };

// The compared figure. `of` is a point, a member, or the number of a mode.
struct Figure {
  enum class Kind {
    reaction,      // of a point
    displacement,  // of a point
    rotation,      // of a point
    axial,
    shear_y,
    shear_z,
    torsion,
    moment_y,
    moment_z,  // along a member
    deflection_y,
    deflection_z,  // displacement of a member in its local axes
    sag,           // distance of a member from its chord
    stress,        // normal stress in a member
    safety,        // of a member: its strength over the worst von Mises stress
    mass,          // of the whole structure
    frequency,     // the natural frequency of the mode of this number
    buckling,      // the load factor of the mode of this number
  };
  Kind kind = Kind::mass;
  std::string of{};  // the point or the member; `all` is the worst of all members, unless one has this name
  Part part = Part::size;
  Take take = Take::extreme;
  // A place on the member instead of `take`: the value there with its sign, behind a jump; for stress the
  // largest across the section, or the one that `take` names.
  std::optional<HandFormula> at{};
};

struct HandValue {
  std::string name;
  HandFormula is;
};

struct Expectation {
  Figure figure{};
  HandFormula is{};
  // The allowed difference: a share of the hand value, or a quantity, which it must be where the hand value is 0.
  HandFormula within{"1 %"};
  // May be empty where there is only one.
  std::string load_case{};
  // Where the figure comes from.
  std::string note{};
};

// SI value of the unit that a plain number of a formula is counted in; without one it is a mistake.
struct BareUnits {
  std::optional<double> length{}, force{}, moment{}, stress{}, deflection{}, mass{};
  double angle = 1;
};

struct HandCalculation {
  std::vector<HandValue> let{};
  std::vector<Expectation> expect{};
  BareUnits units{};
};

// A formula, and the values that stood for its names.
struct WorkedFormula {
  std::string text;  // as written; empty where a quantity was given
  std::vector<Use> uses;
};

struct Comparison {
  std::string what;       // "reaction A y", "moment rail at L/2"
  std::string load_case;  // empty for the mass
  WorkedFormula formula;
  Quantity hand, computed;
  // Of the allowed difference: a share of the hand value, or (`absolute`) an SI value of its dimension.
  double within = 0;
  // Computed less hand, in the same way.
  double deviation = 0;
  bool absolute = false;
  bool agrees = false;
  std::string note;
  std::string remark;  // possible explanation of a difference
};

// A value of `let`.
struct WorkedValue {
  std::string name;
  WorkedFormula formula;
  Quantity value;
};

struct Verification {
  std::vector<WorkedValue> values;
  std::vector<Comparison> comparisons;  // one an expectation, in their order
  bool all_agree() const;
};

// Errors in a hand calculation, found without solving.
Problems check(const Structure& structure, const HandCalculation& hand);

// The comparisons, or what is wrong with the hand calculation. The solution must be ok.
Expected<Verification, Problems> verify(const Solution& solution, const HandCalculation& hand);

// Whether a value written as `number` needs brackets in this place of a formula, so as not to be read wrongly.
bool needs_brackets(const std::string& formula, const Use& use, const std::string& number);

// The formula with its numbers put in, each written by `write`: "P/2" becomes "3.2 kN/2". The result is again a
// formula, of the same value to the digits written.
template <class Write>
std::string with_numbers(const WorkedFormula& formula, const Write& write) {
  std::string text;
  std::size_t done = 0;
  for (const Use& u : formula.uses) {
    text += formula.text.substr(done, u.offset - done);
    const std::string number = write(u.value);
    text += needs_brackets(formula.text, u, number) ? "(" + number + ")" : number;
    done = u.offset + u.length;
  }
  return text + formula.text.substr(done);
}

// The words of the model file for a kind of figure ("moment-z"), and whether it is of a point, a member or all.
struct FigureKind {
  const char* name;
  Figure::Kind kind;
  enum class Of { point, member, total, mode } of;
};
const std::vector<FigureKind>& figure_kinds();
// Dimension of the values of a figure.
Dimension figure_dimension(const Figure& figure);

}  // namespace corvex

#pragma GCC visibility pop
