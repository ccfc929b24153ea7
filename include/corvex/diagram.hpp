// Corvex: the exact course of a quantity along a member.
//
// A diagram is a list of polynomials with its breaks and jumps: shear is piecewise quadratic, moment cubic,
// slope quartic, deflection quintic. It is evaluated anywhere; its extremes are roots of the derivative, not
// samples.
//
// Extremes: at roots of the derivative and on both sides of every break; at a jump the larger side counts; of
// equal extremes (to eleven digits) the one with the smallest place is returned. A load at the very end of a
// member does not count as a jump inside it.
//
//     const corvex::MomentDiagram bending = solution["product"]["rail"].moment_z();
//     const auto most = bending.max();
//     const double most_Nm = most.value.in(corvex::units::N_m), at_m = most.at.in(corvex::units::m);
//     fmt::print("{:.0f} N·m at {:.1f} m\n", most_Nm, at_m);   // 1458 N·m at 1.2 m
//     fmt::print("{}\n", corvex::to_text(bending.at(0.3_m), 3));   // -306 N·m
//
// A member's diagrams know their dimension: a moment in a unit of force does not compile. Tables of diagrams of several
// kinds hold them as `Diagram`, whose values are of type Quantity.
//
// Signs: docs/theory.md; N tension, Mz tension on the −y side, dM/dx = V. Accuracy: the tests hold values and
// places of extremes against closed forms to 1e-9.
#pragma once

#include <array>
#include <utility>
#include <vector>

#include "corvex/quantity.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// Which value counts at a jump.
enum class Side { before, after };

struct Extreme {
  Quantity value;
  Length at;
};

class Diagram {
 public:
  struct Piece {
    double from = 0, to = 0;         // m along the member
    std::array<double, 6> powers{};  // of (x − from), SI units
  };

  // `noise` is the size below which differences are rounding.
  Diagram(Dimension dimension, std::vector<Piece> pieces, double noise);

  const std::vector<Piece>& pieces() const { return pieces_; }
  const Dimension& dimension() const { return dimension_; }
  double noise() const { return noise_; }

  // At the member's end the value before it counts, at its start the value after. A place beyond them is a slip of the
  // calling code and throws std::out_of_range.
  Quantity at(Length place, Side side = Side::after) const;
  Extreme max() const;
  Extreme min() const;
  // The larger of the two without its sign.
  Quantity largest() const;

 private:
  Extreme extreme(double sign) const;

  Dimension dimension_;
  std::vector<Piece> pieces_;
  double noise_;
};

template <class M>
struct ExtremeOf {
  M value;
  Length at;

  operator Extreme() const { return {value, at}; }  // NOLINT: meant to convert
};

// A diagram of forces, moments, lengths or angles.
template <class M>
class DiagramOf : public Diagram {
 public:
  // `diagram` has the dimension of M.
  explicit DiagramOf(Diagram diagram) : Diagram(std::move(diagram)) {}

  M at(Length place, Side side = Side::after) const { return M::si(Diagram::at(place, side).si); }
  ExtremeOf<M> max() const { return typed(Diagram::max()); }
  ExtremeOf<M> min() const { return typed(Diagram::min()); }
  M largest() const { return M::si(Diagram::largest().si); }

 private:
  static ExtremeOf<M> typed(const Extreme& e) { return {M::si(e.value.si), e.at}; }
};
using ForceDiagram = DiagramOf<ForceSize>;
using MomentDiagram = DiagramOf<MomentSize>;
using LengthDiagram = DiagramOf<Length>;
using AngleDiagram = DiagramOf<Angle>;

}  // namespace corvex

#pragma GCC visibility pop
