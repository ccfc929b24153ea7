#include "analysis/balance.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace corvex::solver {
namespace {

double worst(const Vector& v) {
  return std::max({std::abs(v.x), std::abs(v.y), std::abs(v.z)});
}

// Levers count from the origin, wherever the structure stands.
double size(const Structure& s) {
  const Box box = s.bounds();
  return std::max({box.diagonal(), length(box.low), length(box.high)});
}

}  // namespace

Reacted reacted(const Structure& s, const Resultant& applied, const CaseState& state) {
  Reacted r;
  double largest = applied.largest_force, turning = applied.largest_moment;
  for (std::size_t i = 0; i < s.supports().size(); ++i) {
    const Six& six = state.reaction[i];
    const Vector force{six[0], six[1], six[2]}, moment{six[3], six[4], six[5]};
    r.force += force;
    r.moment += cross(s[s.supports()[i].at].position, force) + moment;
    largest = std::max(largest, length(force));
    turning = std::max(turning, length(moment));
  }
  // Where only moments act, the forces are rounding: a moment counts as the pair of forces that spans the
  // structure.
  const double span = size(s), reference = std::max(largest, turning / span);
  constexpr double rounding = 1e-10;
  if (!state.forceless && reference > rounding * state.largest)
    r.error = std::max(worst(r.force + applied.force), worst(r.moment + applied.moment) / span) / reference;
  return r;
}

Problems imbalances(const Structure& s, const Analysis& a) {
  constexpr double poor = 1e-6, hopeless = 1e-3, no_digit = 0.1;
  Problems problems;
  for (std::size_t c = 0; c < a.states.size(); ++c) {
    const Reacted r = reacted(s, a.applied(c), a.states[c]);
    const bool sound = finite(r.force) && finite(r.moment);
    const double error = sound ? r.error : std::numeric_limits<double>::infinity(), movement = a.states[c].error;
    if (error <= poor && movement <= poor) continue;
    const std::string& name = a.load_case(s, c).name();
    const bool refused = error > hopeless || !(movement < no_digit);
    std::string text =
        error > poor
            ? fmt::format("in case '{}' the equilibrium error is {:.1e} of the largest force: ", name, error)
            : fmt::format("in case '{}' the displacements may be wrong by {:.1e} of the largest: ", name, movement);
    text += refused ? "no digit is reliable" : "few reliable digits";
    text += " (long chains of very short members, or members far stiffer than their neighbours, are the usual cause)";
    problems.push_back(as_finding(refused ? "ill-conditioned" : "digits",
                                  {std::move(text),
                                   {Subject::Kind::load_case, name},
                                   {},
                                   {},
                                   refused ? Problem::Severity::error : Problem::Severity::note}));
  }
  return problems;
}

}  // namespace corvex::solver
