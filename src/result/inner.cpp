#include "result/inner.hpp"

#include <cmath>
#include <utility>

#include "beam/element.hpp"
#include "structure/rigidity.hpp"

namespace corvex::result {
namespace {

using solver::CoursePiece;
using solver::Vector12;

// The integrated end differs from the solved one by rounding error; a straight line corrects it.
void meet(solver::Polynomial& p, double error, double length, double from) {
  p.c[0] += error * from / length;
  p.c[1] += error / length;
}

// A link stays straight between its ends, whatever acts on it.
void straighten(CoursePiece& p, const Vector12& own, double length) {
  for (solver::Polynomial* q : {&p.Vy, &p.Vz, &p.T, &p.My, &p.Mz, &p.v, &p.w, &p.twist, &p.slope_y, &p.slope_z})
    *q = {};
  const double slope_v = (own(7) - own(1)) / length, slope_w = (own(8) - own(2)) / length;
  p.v.c = {own(1) + slope_v * p.from, slope_v};
  p.w.c = {own(2) + slope_w * p.from, slope_w};
}

// From the axes in which the section bends to the member's own. Moments count with the plane that they bend in, so they
// turn as forces and movements do.
void turn_back(CoursePiece& p, double turn) {
  const double c = std::cos(turn), s = std::sin(turn);
  for (const auto& [along_y, along_z] : {std::pair{&CoursePiece::Vy, &CoursePiece::Vz},
                                         {&CoursePiece::Mz, &CoursePiece::My},
                                         {&CoursePiece::v, &CoursePiece::w},
                                         {&CoursePiece::slope_y, &CoursePiece::slope_z}}) {
    const solver::Polynomial u = p.*along_y, v = p.*along_z;
    p.*along_y = u * c - v * s;
    p.*along_z = u * s - v * -c;
  }
}

// Deformation below the rounding error of the displacements is zero.
void tidy(solver::Ends& e) {
  constexpr double rounding = 1e-15;
  const Vector12& m = e.movement;
  const auto largest = [&](int first) {
    return std::max(m.segment<3>(first).cwiseAbs().maxCoeff(), m.segment<3>(first + 6).cwiseAbs().maxCoeff());
  };
  const double moves = largest(0), turns = largest(3);
  for (const int i : solver::deformation_entry)
    if (std::abs(e.bent(i)) <= rounding * (i == 6 ? moves : turns)) e.bent(i) = 0;
}

// Values below rounding error all along a piece are zero.
void clear(solver::Polynomial& p, double length, double noise) {
  double most = 0, power = 1;
  for (const double c : p.c) most += std::abs(c) * power, power *= length;
  if (most <= noise) p = {};
}

// A deviation from the chord of the span below rounding error is zero.
struct Chord {
  double start, end, length;
};
void straighten_noise(solver::Polynomial& p, const Chord& chord, double from, double h, double noise) {
  const double start = chord.start, slope = (chord.end - chord.start) / chord.length;
  solver::Polynomial off = p;
  off.c[0] -= start + slope * from;
  off.c[1] -= slope;
  double most = 0, power = 1;
  for (const double c : off.c) most += std::abs(c) * power, power *= h;
  if (most <= noise) p.c = {start + slope * from, slope};
}

constexpr double nothing = 1e-13;

// Values small compared with the effect of the loads are rounding error: each is set to zero, or to the straight line
// between the ends.
class Tidying {
 public:
  Tidying(const solver::CaseState& state, const solver::Span& span, const Rigidity& r, double length)
      : state_(state), span_(span), r_(r), length_(length) {}

  void forces(Vector12& f) const {
    for (int k = 0; k < 12; ++k)
      if (std::abs(f(k)) <= nothing * state_.gross * (k % 6 < 3 ? 1 : length_)) f(k) = 0;
  }

  void piece(CoursePiece& p, const Vector12& own) const {
    const double h = p.to - p.from;
    for (const auto part : {&CoursePiece::N, &CoursePiece::Vy, &CoursePiece::Vz})
      clear(p.*part, h, nothing * state_.gross);
    for (const auto part : {&CoursePiece::T, &CoursePiece::My, &CoursePiece::Mz})
      clear(p.*part, h, nothing * state_.gross * length_);
    // Between its ends a span stays straight where only such forces bend it.
    const double bend = nothing * state_.gross * std::pow(span_.length, 3);
    straighten_noise(p.v, {own(1), own(7), span_.length}, p.from, h, r_.EIz > 0 ? bend / r_.EIz : 0);
    straighten_noise(p.w, {own(2), own(8), span_.length}, p.from, h, r_.EIy > 0 ? bend / r_.EIy : 0);
    straighten_noise(p.u, {own(0), own(6), span_.length}, p.from, h, nothing * state_.gross * span_.length / r_.EA);
    // Where no point moves, the ends that run away from released joints are rounding as well.
    const double rest =
        state_.moved == 0 ? std::max(r_.EIz > 0 ? bend / r_.EIz : 0, r_.EIy > 0 ? bend / r_.EIy : 0) : 0;
    for (const auto part : {&CoursePiece::u, &CoursePiece::v, &CoursePiece::w})
      clear(p.*part, h, std::max(state_.still, rest));
  }

 private:
  const solver::CaseState& state_;
  const solver::Span& span_;
  const Rigidity& r_;
  double length_;
};

solver::State start_of(const Vector12& f, const Vector12& own) {
  return {-f(0), f(1), f(2), -f(3), f(4), -f(5), own(0), own(1), own(2), own(3), own(5), -own(4)};
}

}  // namespace

Inner inner(const Structure& structure, const solver::Analysis& analysis, std::size_t load_case, std::size_t member) {
  Inner result;
  const Member& m = structure.members()[member];
  const Axes& axes = analysis.system.spans.axes[member];
  const solver::CaseState& state = analysis.states[load_case];
  result.length = structure.length_of(m);
  const double turn = principal_turn(structure, m);
  double force = 0, moment = 0, movement = 0;
  for (std::size_t i = analysis.system.spans.first[member]; i < analysis.system.spans.first[member + 1]; ++i) {
    const solver::Span& span = analysis.system.spans.all[i];
    const solver::Element& element = analysis.element(load_case, i);
    const auto loads = analysis.acting[load_case].loads.on(i);
    solver::Ends ends =
        element.own_ends(solver::ends<long double>(axes, span, state.movement[span.a], state.movement[span.b]), loads);
    tidy(ends);
    const solver::BentForces* bent = state.bent ? &state.bent->spans[i] : nullptr;
    const Vector12& own = bent ? bent->own : ends.movement;
    Vector12 f = state.forceless ? Vector12::Zero().eval() : bent ? bent->forces : element.tidy_end_forces(ends, loads);
    const Tidying tidying(state, span, element.rigidity(), result.length);
    tidying.forces(f);
    std::vector<CoursePiece> course = bent && !bent->course.empty()
                                          ? bent->course
                                          : solver::integrate(element.rigidity(), span.length, loads, start_of(f, own));
    const solver::State end = course.back().at(course.back().to - course.back().from);
    for (CoursePiece& p : course) {
      meet(p.u, own(6) - end.u, span.length, p.from);
      if (span.beam) {
        meet(p.v, own(7) - end.v, span.length, p.from);
        meet(p.w, own(8) - end.w, span.length, p.from);
      } else {
        straighten(p, own, span.length);
      }
      if (!(p.to > p.from)) continue;
      tidying.piece(p, own);
      if (turn != 0) turn_back(p, turn);
      p.from += span.start;
      p.to += span.start;
      result.pieces.push_back(p);
    }
    force = std::max({force, f.segment<3>(0).cwiseAbs().maxCoeff(), f.segment<3>(6).cwiseAbs().maxCoeff()});
    moment = std::max({moment, f.segment<3>(3).cwiseAbs().maxCoeff(), f.segment<3>(9).cwiseAbs().maxCoeff()});
    movement = std::max({movement, own.segment<3>(0).cwiseAbs().maxCoeff(), own.segment<3>(6).cwiseAbs().maxCoeff()});
  }
  result.pieces.back().to = result.length;
  constexpr double rounding = 1e-12;
  result.force_noise = std::max(rounding * force, 0.1 * rounding * state.gross);
  result.moment_noise =
      std::max(rounding * std::max(moment, force * result.length), 0.1 * rounding * state.gross * result.length);
  result.movement_noise = std::max(rounding * movement, state.still);
  return result;
}

Inner cross_section(const CoursePiece& piece, double along) {
  CoursePiece p;
  p.from = p.to = piece.from + along;
  for (const auto part :
       {&CoursePiece::N, &CoursePiece::Vy, &CoursePiece::Vz, &CoursePiece::T, &CoursePiece::My, &CoursePiece::Mz})
    (p.*part).c[0] = (piece.*part)(along);
  Inner result;
  result.pieces = {p};
  return result;
}

}  // namespace corvex::result
