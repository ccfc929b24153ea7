#include "solve/eigen_modes.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "solve/matrix.hpp"
#include "solve/rigid_arm.hpp"
#include "solve/spin.hpp"

namespace corvex::solver {
namespace {

using Eigen::Index;
using Eigen::VectorXd;

// What does not change with the number of inner shapes.
struct Frame {
  Spans spans;
  Freedoms freedoms;
  std::vector<SpanBody> bodies;  // of each span
  std::vector<double> turns;
  std::vector<Pencil::AtPoint> at_points;
};

void lay_in_plane(const Structure& s, Spans& spans) {
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    spans.axes[i] = axes_in_plane(s, m);
    for (std::size_t k = spans.first[i]; k < spans.first[i + 1]; ++k)
      for (std::array<bool, 6>* freed : {&spans.all[k].freed_a, &spans.all[k].freed_b})
        *freed = releases_in_plane(s, m, *freed);
  }
}

// A mass that turns with its point about an arm.
Eigen::MatrixXd mass_of(const PointMass& m) {
  Eigen::MatrixXd all = Eigen::MatrixXd::Zero(6, 6), to = Eigen::MatrixXd::Identity(6, 6);
  to.topRightCorner(3, 3) = lever(m.arm);
  all.diagonal() << m.mass, m.mass, m.mass, m.inertia.x, m.inertia.y, m.inertia.z;
  return to.transpose() * all * to;
}

Frame frame_of(const ModeInput& input) {
  const Structure& s = *input.structure;
  Frame f;
  f.spans = cut(s);
  f.freedoms = freedoms(s, f.spans);
  mark_idle_spins(s, f.spans, elements(s, f.spans), f.freedoms);
  // Numbers the freedoms in an order of elimination.
  const Pattern pattern(f.spans, f.freedoms);
  if (s.is_plane()) lay_in_plane(s, f.spans);
  for (const Span& span : f.spans.all) {
    f.bodies.push_back(span_body(s, s.members()[span.member]));
    f.turns.push_back(principal_turn(s, s.members()[span.member]));
  }
  for (const PointMass& m : s.point_masses()) f.at_points.push_back({.point = m.at.index, .mass = mass_of(m)});
  for (const auto& [point, resists] : input.turned_arms) {
    Eigen::MatrixXd geometric = Eigen::MatrixXd::Zero(6, 6);
    geometric.bottomRightCorner(3, 3) = resists;
    f.at_points.push_back({.point = point, .geometric = std::move(geometric)});
  }
  return f;
}

AxialCourse axial_of(const ModeInput& input, std::size_t span) {
  return input.axial.empty() ? AxialCourse{} : input.axial[span];
}

// What tells one span from another.
std::vector<double> likeness(const Frame& f, const ModeInput& input, std::size_t i, int inner) {
  const Span& span = f.spans.all[i];
  const Axes& a = f.spans.axes[span.member];
  const SpanBody& b = f.bodies[i];
  const Rigidity& r = b.rigidity;
  std::vector<double> key{span.length,  a.x.x,        a.x.y,        a.x.z,        a.y.x,        a.y.y,
                          a.y.z,        r.EA,         r.EIy,        r.EIz,        r.GJ,         r.GAy,
                          r.GAz,        b.mass,       b.rotary_y,   b.rotary_z,   b.polar,      f.turns[i],
                          span.arm_a.x, span.arm_a.y, span.arm_a.z, span.arm_b.x, span.arm_b.y, span.arm_b.z};
  for (const AxialCourse::Piece& p : axial_of(input, i).pieces)
    key.insert(key.end(), {p.from, p.to, p.n[0], p.n[1], p.n[2]});
  for (const bool freed : span.freed_a) key.push_back(freed);
  for (const bool freed : span.freed_b) key.push_back(freed);
  key.push_back(span.beam), key.push_back(inner), key.push_back(!input.slack.empty() && input.slack[i]);
  return key;
}

Pencil pencil_of(const Frame& f, const ModeInput& input, const std::vector<int>& inner) {
  // Spans that are alike and lie the same way share their matrices.
  std::map<std::vector<double>, std::shared_ptr<const SpanPencil>> known;
  std::vector<std::shared_ptr<const SpanPencil>> parts;
  parts.reserve(f.spans.all.size());
  for (std::size_t i = 0; i < f.spans.all.size(); ++i) {
    std::shared_ptr<const SpanPencil>& part = known[likeness(f, input, i, inner[i])];
    if (!part)
      part = std::make_shared<const SpanPencil>(
          span_pencil(f.spans.all[i], f.spans.axes[f.spans.all[i].member], f.turns[i], f.bodies[i], axial_of(input, i),
                      input.structure->is_plane(), !input.slack.empty() && input.slack[i], inner[i]));
    parts.push_back(part);
  }
  return Pencil(f.spans, f.freedoms, parts, f.at_points);
}

// Where the axial force jumps inside a span the shapes have kinks in their higher derivatives, which polynomials follow
// less well.
int shapes_at_jumps(const AxialCourse& a) {
  constexpr int more = 8;
  return a.pieces.size() > 1 ? more : 0;
}

// Half waves along a span decide how many inner shapes it needs for 11 digits (measured: eight carry one half wave,
// each further one takes four more, and three carry a quarter).
int shapes_for(double half_waves) {
  constexpr int least = 2, most = 80;
  if (half_waves <= 0.1) return least;
  if (half_waves <= 0.25) return 3;
  return std::clamp(4 + static_cast<int>(std::ceil(5 * half_waves)), least, most);
}

double softest(const SpanBody& b, bool plane) {
  return plane ? b.rigidity.EIz : std::min(b.rigidity.EIy, b.rigidity.EIz);
}

// In free vibration at ω² and with an axial force.
double half_waves(const SpanBody& b, double L, double value, double axial, bool plane) {
  const double EI = softest(b, plane);
  if (!(EI > 0)) return 0;
  const double bending = std::pow(b.mass * value / EI, 0.25) * L, column = std::sqrt(axial / EI) * L;
  double waves = std::max(bending, column) / std::numbers::pi;
  // Along the span and in torsion waves are longer.
  if (b.rigidity.EA > 0) waves = std::max(waves, std::sqrt(b.mass * value / b.rigidity.EA) * L / std::numbers::pi);
  if (b.rigidity.GJ > 0) waves = std::max(waves, std::sqrt(b.polar * value / b.rigidity.GJ) * L / std::numbers::pi);
  return waves;
}

FoundMode mode_of(const Structure& s, const Frame& f, const Pencil& p, double value, const VectorXd& z) {
  FoundMode m{.value = value};
  for (std::size_t i = 0; i < s.points().size(); ++i) m.points.push_back(f.freedoms.used[i] ? p.at_point(i, z) : Six{});
  for (std::size_t i = 0; i < f.spans.all.size(); ++i) m.spans.push_back(p.along_span(i, z));
  return m;
}

// What the eigenvalues of a problem are worth: λ, rising as they fall.
struct Search {
  const Pencil& pencil;
  EigenProblem problem;
  std::size_t count = 0;
  double least = 0;  // eigenvalues below are nothing
  double shift = 0;  // λ = 1/eigenvalue − shift
  Shares fixed{};    // and the shares of a matrix whose negative pivots count the λ below a value:
  double per_value_geometric = 0, per_value_mass = 0;

  double value(const EigenPair& p) const { return 1 / p.value - shift; }
};

// How many of the values just below the last one were not found (Wittrick and Williams, 1971). The last one itself may
// have twins beyond it.
std::size_t missing(const Search& s, const std::vector<EigenPair>& pairs) {
  if (pairs.empty()) return 0;
  constexpr double margin = 1e-5;
  const double last = s.value(pairs.back()), bound = last - margin * std::abs(last);
  const auto found = static_cast<std::size_t>(
      std::count_if(pairs.begin(), pairs.end(), [&](const EigenPair& p) { return s.value(p) < bound; }));
  Shares shares = s.fixed;
  shares.geometric += s.per_value_geometric * bound, shares.mass += s.per_value_mass * bound;
  const ShiftedPencil shifted(s.pencil, shares);
  if (!shifted.ok()) return 0;
  const auto there = static_cast<std::size_t>(shifted.negative());
  return there > found ? there - found : 0;
}

// Lanczos finds each value once; what is there several times is found by looking again beside what is known, until
// there are as many as the signs of the pivots say.
std::vector<EigenPair> all_pairs(const Search& s, std::size_t& not_found) {
  std::vector<EigenPair> all = largest_pairs(s.problem, s.count, s.least, {});
  const auto by_value = [](const EigenPair& a, const EigenPair& b) { return a.value > b.value; };
  for (;;) {
    std::sort(all.begin(), all.end(), by_value);
    if (all.size() > s.count) all.resize(s.count);
    not_found = missing(s, all);
    if (not_found == 0 && all.size() == s.count) break;
    // Where there are fewer than asked for, a last look shows that there are no more.
    std::vector<EigenPair> more = largest_pairs(s.problem, std::max<std::size_t>(not_found, 1), s.least, all);
    const double bound = all.size() < s.count ? s.least : all.back().value;
    std::erase_if(more, [&](const EigenPair& m) { return m.value <= bound; });
    if (more.empty()) break;
    all.insert(all.end(), more.begin(), more.end());
  }
  return all;
}

// What single movements of points would swing at, all others at rest: λ between these as a rule.
struct Scale {
  double low = 0, high = 0;
};
constexpr double rounding = 1e-13;

Scale scale_of(const Pencil& p, const Shares& stiffness) {
  const VectorXd k = p.diagonal(stiffness), m = p.diagonal({0, 0, 1});
  Scale s{std::numeric_limits<double>::infinity(), 0};
  for (Index i = 0; i < k.size(); ++i)
    if (m(i) > 0 && k(i) > 0) s.low = std::min(s.low, k(i) / m(i)), s.high = std::max(s.high, k(i) / m(i));
  if (!std::isfinite(s.low)) s.low = 0;
  return s;
}

// Whether the structure has a movement without stiffness: what its own mass does to it is beyond all bounds then.
bool is_free(const Pencil& p, const ShiftedPencil& trial, const Shares& stiffness, const Scale& scale) {
  if (!trial.ok() || trial.negative() > 0) return true;
  const VectorXd moved = trial.solve(p.times({0, 0, 1}, VectorXd::Ones(p.size())));
  const double mass = moved.dot(p.times({0, 0, 1}, moved)), energy = moved.dot(p.times(stiffness, moved));
  return !(energy > rounding * scale.high * mass);
}

}  // namespace

FoundModes vibration_modes(const ModeInput& input) {
  const Structure& s = *input.structure;
  const Frame f = frame_of(input);
  FoundModes found{.spans = f.spans};
  const bool plane = s.is_plane();
  const bool stressed = !input.axial.empty();
  std::vector<int> inner(f.spans.all.size());
  const auto needed_at = [&](std::size_t i, double value) {
    const AxialCourse axial = axial_of(input, i);
    return shapes_for(half_waves(f.bodies[i], f.spans.all[i].length, value, axial.largest(), plane)) +
           shapes_at_jumps(axial);
  };
  for (std::size_t i = 0; i < inner.size(); ++i) inner[i] = needed_at(i, 0);
  // The first round tells how many waves the wanted modes have, the second counts with shapes that carry them.
  for (int round = 0; round < 4; ++round) {
    const Pencil p = pencil_of(f, input, inner);
    const Shares at_rest{1, stressed ? 1.0 : 0.0, 0};
    const Scale scale = scale_of(p, at_rest);
    double shift = 0;
    auto factor = std::make_unique<const ShiftedPencil>(p, at_rest);
    if (stressed && factor->ok() && factor->negative() > 0) {
      found.buckles = true;
      return found;
    }
    if (is_free(p, *factor, at_rest, scale)) shift = 1e-3 * scale.low;
    const Shares moved{1, at_rest.geometric, shift};
    if (shift != 0) factor = std::make_unique<const ShiftedPencil>(p, moved);
    const ShiftedPencil& energy = *factor;
    if (!energy.ok()) return found;
    const EigenProblem problem{p.size(), [&](const VectorXd& x) { return p.times(moved, x); },
                               [&](const VectorXd& x) { return energy.solve(x); },
                               [&](const VectorXd& x) {
                                 return p.times({0, 0, 1}, x);
                               }};
    const std::vector<EigenPair> pairs = all_pairs({p, problem, input.count, 0, shift, at_rest, 0, -1}, found.missing);
    if (pairs.empty()) return found;
    std::vector<double> values;
    for (const EigenPair& e : pairs) values.push_back(1 / e.value - shift);
    std::vector<int> needed = inner;
    for (std::size_t i = 0; i < inner.size(); ++i)
      needed[i] = std::max(inner[i], needed_at(i, std::abs(values.back())));
    if (needed != inner && round < 3) {
      inner = std::move(needed);
      continue;
    }
    const double whole = p.whole_mass();
    const VectorXd along[] = {p.mass_along(0), p.mass_along(1), p.mass_along(2)};
    for (std::size_t i = 0; i < pairs.size(); ++i) {
      const VectorXd& z = pairs[i].vector;
      const double kinetic = z.dot(p.times({0, 0, 1}, z));
      // Rayleigh's quotient of what was found is twice as many digits as the vector.
      const double strain = z.dot(p.times(at_rest, z));
      FoundMode m = mode_of(s, f, p, strain / kinetic, z);
      if (shift > 0 && std::abs(m.value) < std::max(1e-10 * shift, rounding * scale.high)) m.value = 0, ++found.free;
      for (std::size_t k = 0; k < (plane ? 2U : 3U); ++k) {
        const double moved_mass = z.dot(along[k]);
        m.share[k] = whole > 0 && kinetic > 0 ? moved_mass * moved_mass / kinetic / whole : 0;
      }
      found.modes.push_back(std::move(m));
    }
    break;
  }
  return found;
}

FoundModes buckling_modes(const ModeInput& input) {
  const Structure& s = *input.structure;
  const Frame f = frame_of(input);
  FoundModes found{.spans = f.spans};
  const bool plane = s.is_plane();
  std::vector<int> inner(f.spans.all.size());
  const auto needed_at = [&](std::size_t i, double factor) {
    const AxialCourse axial = axial_of(input, i);
    return shapes_for(half_waves(f.bodies[i], f.spans.all[i].length, 0, factor * axial.largest(), plane)) +
           shapes_at_jumps(axial);
  };
  for (std::size_t i = 0; i < inner.size(); ++i) inner[i] = std::max(shapes_for(0.5), needed_at(i, 0));
  for (int round = 0; round < 5; ++round) {
    const Pencil p = pencil_of(f, input, inner);
    const ShiftedPencil energy(p, {1, 0, 0});
    if (!energy.ok()) return found;
    const EigenProblem problem{p.size(),
                               [&](const VectorXd& x) {
                                 return p.times({1, 0, 0}, x);
                               },
                               [&](const VectorXd& x) { return energy.solve(x); },
                               [&](const VectorXd& x) -> VectorXd {
                                 return -p.times({0, 1, 0}, x);
                               }};
    // Factors beyond a million million are those of forces that are only rounding.
    const std::vector<EigenPair> pairs = all_pairs({p, problem, input.count, 1e-12, 0, {1, 0, 0}, 1, 0}, found.missing);
    if (pairs.empty()) return found;
    std::vector<double> values;
    for (const EigenPair& e : pairs) values.push_back(1 / e.value);
    std::vector<int> needed = inner;
    for (std::size_t i = 0; i < inner.size(); ++i) needed[i] = std::max(inner[i], needed_at(i, values.back()));
    if (needed != inner && round < 4) {
      inner = std::move(needed);
      continue;
    }
    for (std::size_t i = 0; i < pairs.size(); ++i) {
      const VectorXd& z = pairs[i].vector;
      const double factor = -z.dot(p.times({1, 0, 0}, z)) / z.dot(p.times({0, 1, 0}, z));
      found.modes.push_back(mode_of(s, f, p, factor, z));
    }
    break;
  }
  return found;
}

}  // namespace corvex::solver
