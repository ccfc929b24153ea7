#include "modes/eigen_modes.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <optional>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"
#include "beam/rigid_arm.hpp"
#include "corvex/stop.hpp"
#include "linear_system/matrix.hpp"
#include "linear_system/spin.hpp"
#include "modes/bracing.hpp"
#include "modes/mode_search.hpp"
#include "modes/reduced_pencil.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

using Eigen::Index;
using Eigen::VectorXd;

// Data that do not depend on the number of inner shapes.
struct Frame {
  Spans spans;
  Dofs dofs;
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
  return turned(all, to);
}

Frame frame_of(const ModeInput& input) {
  const Structure& s = *input.structure;
  Frame f;
  f.spans = cut(s);
  // In space bracing holds points of members too.
  f.dofs = dofs(has_lateral_bracing(s) ? with_braced_points(s) : s, f.spans);
  mark_idle_spins(s, f.spans, elements(s, f.spans), f.dofs);
  // Numbers the degrees of freedom in an order of elimination.
  const Pattern pattern(f.spans, f.dofs);
  if (s.is_plane()) lay_in_plane(s, f.spans);
  for (const Span& span : f.spans.all) {
    f.bodies.push_back(span_body(s, s.members()[span.member]));
    // Of unsymmetric sections the axes in which the span bends lie askew to those along which it is held.
    const HeldAlong held = held_along(s, span.member);
    const bool askew = principal_turn(s, s.members()[span.member]) != 0;
    f.bodies.back().held_y = askew ? held.y && held.z : held.y;
    f.bodies.back().held_z = askew ? held.y && held.z : held.z;
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

// Data that distinguish one span from another.
std::vector<double> likeness(const Frame& f, const ModeInput& input, std::size_t i, const InnerShapes& inner) {
  const Span& span = f.spans.all[i];
  const Axes& a = f.spans.axes[span.member];
  const SpanBody& b = f.bodies[i];
  const Rigidity& r = b.rigidity;
  std::vector<double> key{span.length,  a.x.x,        a.x.y,        a.x.z,        a.y.x,
                          a.y.y,        a.y.z,        r.EA,         r.EIy,        r.EIz,
                          r.GJ,         r.GAy,        r.GAz,        b.mass,       b.rotary_y,
                          b.rotary_z,   b.polar,      f.turns[i],   span.arm_a.x, span.arm_a.y,
                          span.arm_a.z, span.arm_b.x, span.arm_b.y, span.arm_b.z, r.coupling};
  for (const AxialCourse::Piece& p : axial_of(input, i).pieces)
    key.insert(key.end(), {p.from, p.to, p.n[0], p.n[1], p.n[2]});
  for (const bool freed : span.freed_a) key.push_back(freed);
  for (const bool freed : span.freed_b) key.push_back(freed);
  key.insert(key.end(), {static_cast<double>(inner.bending), static_cast<double>(inner.lengthwise)});
  key.push_back(b.held_y), key.push_back(b.held_z);
  key.push_back(span.beam), key.push_back(!input.slack.empty() && input.slack[i]);
  return key;
}

Pencil pencil_of(const Frame& f, const ModeInput& input, const std::vector<InnerShapes>& inner) {
  // Spans that are alike and lie the same way share their matrices.
  std::map<std::vector<double>, std::shared_ptr<const SpanPencil>> known;
  std::vector<std::shared_ptr<const SpanPencil>> parts;
  parts.reserve(f.spans.all.size());
  for (std::size_t i = 0; i < f.spans.all.size(); ++i) {
    std::shared_ptr<const SpanPencil>& part = known[likeness(f, input, i, inner[i])];
    if (!part)
      part = std::make_shared<const SpanPencil>(
          span_pencil({f.spans.all[i], f.spans.axes[f.spans.all[i].member], f.turns[i], f.bodies[i], axial_of(input, i),
                       input.structure->is_plane(), !input.slack.empty() && input.slack[i], inner[i]}));
    parts.push_back(part);
  }
  return Pencil(f.spans, f.dofs, parts, f.at_points);
}

// Half waves along a span decide how many inner shapes it needs so that its ends and its inside together are off by
// less than 1e-11 of what its mass or axial force do (measured against many more shapes, with and without deformation
// by shear).
int shapes_for(double half_waves, double four_carry) {
  constexpr int most = 80;
  if (half_waves <= 0.05) return 2;
  if (half_waves <= four_carry) return 4;
  return static_cast<int>(std::min(4 + std::ceil(4 * half_waves), static_cast<double>(most)));
}
int bending_shapes_for(double half_waves) {
  // Four cost little compared with a second round.
  return std::max(4, shapes_for(half_waves, 0.4));
}
int lengthwise_shapes_for(double half_waves) {
  return shapes_for(half_waves, 0.25);
}

double softest(const SpanBody& b, bool plane) {
  if (plane) return b.rigidity.EIz;
  // A direction without stiffness stays straight.
  if (!(b.rigidity.EIy > 0) || !(b.rigidity.EIz > 0)) return std::max(b.rigidity.EIy, b.rigidity.EIz);
  return std::min(b.rigidity.EIy, b.rigidity.EIz);
}

// Half waves of bending along a span in free vibration at ω² and with an axial force.
double bending_waves(const SpanBody& b, double L, double value, double axial, bool plane) {
  const double EI = softest(b, plane);
  if (!(EI > 0)) return 0;
  const double bending = std::pow(b.mass * value / EI, 0.25) * L, column = std::sqrt(axial / EI) * L;
  return std::max(bending, column) / std::numbers::pi;
}

// The same along the span and in torsion, where waves are longer.
double lengthwise_waves(const SpanBody& b, double L, double value) {
  double waves = 0;
  for (const auto& [inertia, rigidity] : {std::pair{b.mass, b.rigidity.EA}, {b.polar, b.rigidity.GJ}})
    if (rigidity > 0) waves = std::max(waves, std::sqrt(inertia * value / rigidity) * L / std::numbers::pi);
  return waves;
}

FoundMode mode_of(const Structure& s, const Frame& f, const Pencil& p, double value, const VectorXd& z) {
  FoundMode m{.value = value};
  for (std::size_t i = 0; i < s.points().size(); ++i) m.points.push_back(f.dofs.used[i] ? p.at_point(i, z) : Six{});
  for (std::size_t i = 0; i < f.spans.all.size(); ++i) m.spans.push_back(p.along_span(i, z));
  return m;
}

// The vectors of the pencil, one a column.
Eigen::MatrixXd movements(const ReducedPencil& reduced, const std::vector<EigenPair>& pairs) {
  Eigen::MatrixXd all(pairs.front().vector.size(), static_cast<Index>(pairs.size()));
  for (std::size_t i = 0; i < pairs.size(); ++i) all.col(static_cast<Index>(i)) = pairs[i].vector;
  return reduced.whole(all);
}

// Structures in space are often alike in two directions, and have each value twice; plane ones seldom have.
Index block_of(const Structure& s) {
  return s.is_plane() ? 1 : 2;
}

constexpr int most_rounds = 5;

// The lowest frequency of a single displacement of a point, all others at rest.
double lowest_alone(const Pencil& p, const Shares& stiffness) {
  const VectorXd k = p.diagonal(stiffness), m = p.diagonal({0, 0, 1});
  double low = std::numeric_limits<double>::infinity();
  for (Index i = 0; i < k.size(); ++i)
    if (m(i) > 0 && k(i) > 0) low = std::min(low, k(i) / m(i));
  return std::isfinite(low) ? low : 0;
}

// Whether the energy of a movement is rounding error compared with that of the same displacements of the points one by
// one.
bool is_rounding(double energy, const VectorXd& z, const VectorXd& diagonal) {
  constexpr double rounding = 1e-13;
  return !(energy > rounding * diagonal.dot(z.head(diagonal.size()).cwiseAbs2()));
}

// Whether the structure has a movement without stiffness: what its own mass does to it is beyond all bounds then.
bool is_free(const ReducedPencil& trial, const VectorXd& diagonal) {
  if (!trial.ok()) return true;
  const EigenProblem problem = trial.problem(1);
  const Eigen::MatrixXd force = problem.other(Eigen::MatrixXd::Ones(problem.size, 1));
  Eigen::MatrixXd moved = force;
  moved.topRows(problem.outer) = problem.solve(force.topRows(problem.outer));
  return is_rounding(moved.col(0).dot(force.col(0)), moved.col(0), diagonal);
}

// Load factors beyond this are those of forces that are only rounding.
constexpr double beyond_all = 1e12;

// A load factor below the first one, and more than half of it. Modes are looked for from there: K + factor·G is
// positive definite, and in its energy strongly tensioned members, whose eigenvalues are negative and close to zero,
// do not hide the others.
struct Below {
  double factor = 0;
  bool nothing = false;       // no load factor below `beyond_all`
  bool is_mechanism = false;  // some displacement has no stiffness
};
Below below_first(const Pencil& p, double guess) {
  const auto is_below = [&](double factor) {
    const ShiftedPencil shifted(p, {1, factor, 0});
    return shifted.ok() && shifted.negative() == 0;
  };
  constexpr double least = 1e-9;
  double low = guess, high = 0;
  while (!is_below(low)) {
    high = low, low /= 8;
    if (low < least) return {.is_mechanism = true};
  }
  while (high == 0) {
    if (low > beyond_all) return {.nothing = true};
    if (is_below(8 * low))
      low *= 8;
    else
      high = 8 * low;
  }
  while (high > 2 * low) {
    const double middle = std::sqrt(low * high);
    (is_below(middle) ? low : high) = middle;
  }
  // Away from the first one, so that the matrix is far from singular.
  return {.factor = 0.9 * low};
}

// Without compression, and without forces on rigid arms, nothing buckles.
bool can_buckle(const ModeInput& input) {
  if (!input.turned_arms.empty()) return true;
  return std::any_of(input.axial.begin(), input.axial.end(),
                     [](const AxialCourse& a) { return a.largest_compression() > 0; });
}

// How many modes the masses can have: the rank of the mass matrix. Nothing where members have mass, which have any
// number.
std::optional<std::size_t> rank_of_mass(const Structure& s, const Frame& f) {
  if (std::any_of(f.bodies.begin(), f.bodies.end(), [](const SpanBody& b) { return b.mass > 0; })) return {};
  std::vector<Eigen::MatrixXd> at(s.points().size());
  for (const Pencil::AtPoint& p : f.at_points)
    if (p.mass.size() > 0) at[p.point] = at[p.point].size() > 0 ? at[p.point] + p.mass : p.mass;
  std::size_t rank = 0;
  for (std::size_t p = 0; p < at.size(); ++p) {
    if (at[p].size() == 0) continue;
    // The movements of the point that are free, in its own frame.
    std::vector<Eigen::VectorXd> free;
    for (std::size_t k = 0; k < 6; ++k) {
      if (f.dofs.equation[p][k] < 0) continue;
      Six own{};
      own[k] = 1;
      const Six global = f.dofs.in_global(p, own);
      free.push_back(Eigen::Map<const Eigen::Matrix<double, 6, 1>>(global.data()));
    }
    if (free.empty()) continue;
    Eigen::MatrixXd to(6, static_cast<Index>(free.size()));
    for (std::size_t i = 0; i < free.size(); ++i) to.col(static_cast<Index>(i)) = free[i];
    Eigen::MatrixXd m = turned(at[p], to);
    // Of equal units: rotations are scaled to the diagonal.
    const VectorXd scale = m.diagonal().cwiseMax(0).cwiseSqrt();
    for (Index i = 0; i < m.rows(); ++i)
      for (Index j = 0; j < m.cols(); ++j) m(i, j) = scale(i) > 0 && scale(j) > 0 ? m(i, j) / scale(i) / scale(j) : 0;
    const VectorXd values = symmetric_eigensystem(m).values;
    constexpr double rounding = 1e-12;
    rank += static_cast<std::size_t>((values.array() > rounding).count());
  }
  return rank;
}

}  // namespace

FoundModes vibration_modes(const ModeInput& input) {
  const Structure& s = *input.structure;
  const Frame f = frame_of(input);
  FoundModes found{.spans = f.spans};
  const bool plane = s.is_plane();
  const bool stressed = !input.axial.empty();
  const auto needed_at = [&](std::size_t i, double value) {
    const AxialCourse axial = axial_of(input, i);
    const double L = f.spans.all[i].length;
    return InnerShapes{bending_shapes_for(bending_waves(f.bodies[i], L, value, axial.largest(), plane)),
                       lengthwise_shapes_for(lengthwise_waves(f.bodies[i], L, value))};
  };
  found.possible = rank_of_mass(s, f);
  const std::size_t count = std::min(input.count, found.possible.value_or(input.count));
  if (count == 0) return found;
  std::vector<InnerShapes> inner(f.spans.all.size());
  for (std::size_t i = 0; i < inner.size(); ++i) inner[i] = needed_at(i, 0);
  for (int round = 0; round < most_rounds; ++round) {
    stop_point();
    const Pencil p = pencil_of(f, input, inner);
    const Shares at_rest{1, stressed ? 1.0 : 0.0, 0}, mass{0, 0, 1};
    const VectorXd diagonal = p.diagonal(at_rest);
    auto reduced = std::make_unique<const ReducedPencil>(p, at_rest, mass);
    if (stressed && reduced->is_factorised() && reduced->negative() > 0) {
      found.buckles = true;
      return found;
    }
    double shift = 0;
    if (is_free(*reduced, diagonal)) {
      shift = 1e-3 * lowest_alone(p, at_rest);
      reduced = std::make_unique<const ReducedPencil>(p, Shares{1, at_rest.geometric, shift}, mass);
    }
    if (!reduced->ok()) return found;
    const ModeSearch search{p, reduced->problem(block_of(s)), count, 0, shift, at_rest, 0, -1};
    Lanczos lanczos(search.problem, {});
    if (!carried(search, lanczos, needed_at, inner) && round + 1 < most_rounds) continue;
    const std::vector<EigenPair> pairs = all_pairs(search, lanczos, found.missing);
    if (pairs.empty()) return found;
    const Eigen::MatrixXd z = movements(*reduced, pairs);
    // Rayleigh's quotient of what was found is twice as many digits as the vector.
    const VectorXd kinetic = z.cwiseProduct(p.times(mass, z)).colwise().sum(),
                   strain = z.cwiseProduct(p.times(at_rest, z)).colwise().sum();
    const double whole = p.whole_mass();
    const VectorXd along[] = {p.mass_along(0), p.mass_along(1), p.mass_along(2)};
    for (Index i = 0; i < z.cols(); ++i) {
      FoundMode m = mode_of(s, f, p, strain(i) / kinetic(i), z.col(i));
      if (shift > 0 && is_rounding(std::abs(strain(i)), z.col(i), diagonal)) m.value = 0, ++found.free;
      for (std::size_t k = 0; k < (plane ? 2U : 3U); ++k) {
        const double moved_mass = z.col(i).dot(along[k]);
        m.share[k] = whole > 0 && kinetic(i) > 0 ? moved_mass * moved_mass / kinetic(i) / whole : 0;
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
  // Axial forces do nothing to movements along spans and to torsion. A link in tension stays nearly straight.
  const auto needed_at = [&](std::size_t i, double factor) {
    const AxialCourse axial = axial_of(input, i);
    const double force = f.spans.all[i].beam ? axial.largest() : axial.largest_compression();
    const double waves = bending_waves(f.bodies[i], f.spans.all[i].length, 0, factor * force, plane);
    return InnerShapes{axial.none() ? 0 : bending_shapes_for(waves), 0};
  };
  if (!can_buckle(input)) return found;
  std::vector<InnerShapes> inner(f.spans.all.size());
  for (std::size_t i = 0; i < inner.size(); ++i) inner[i] = needed_at(i, 0);
  double from = 1;
  for (int round = 0; round < most_rounds; ++round) {
    const Pencil p = pencil_of(f, input, inner);
    const Shares stiffness{1, 0, 0}, geometric{0, 1, 0};
    const Below below = below_first(p, from);
    found.is_mechanism = below.is_mechanism;
    if (below.nothing || below.is_mechanism) return found;
    from = below.factor;
    const ReducedPencil reduced(p, {1, from, 0}, {0, -1, 0});
    if (!reduced.ok()) return found;
    const ModeSearch search{p, reduced.problem(block_of(s)), input.count, 1 / beyond_all, -from, stiffness, 1, 0};
    Lanczos lanczos(search.problem, {});
    if (!carried(search, lanczos, needed_at, inner) && round + 1 < most_rounds) continue;
    const std::vector<EigenPair> pairs = all_pairs(search, lanczos, found.missing);
    if (pairs.empty()) return found;
    const Eigen::MatrixXd z = movements(reduced, pairs);
    const VectorXd held = z.cwiseProduct(p.times(stiffness, z)).colwise().sum(),
                   pressed = z.cwiseProduct(p.times(geometric, z)).colwise().sum();
    for (Index i = 0; i < z.cols(); ++i) found.modes.push_back(mode_of(s, f, p, -held(i) / pressed(i), z.col(i)));
    break;
  }
  return found;
}

bool buckles_below(const ModeInput& input, double factor) {
  if (!can_buckle(input)) return false;
  const Frame f = frame_of(input);
  const bool plane = input.structure->is_plane();
  std::vector<InnerShapes> inner(f.spans.all.size());
  for (std::size_t i = 0; i < inner.size(); ++i) {
    const double waves =
        bending_waves(f.bodies[i], f.spans.all[i].length, 0, factor * axial_of(input, i).largest_compression(), plane);
    // Without inner shapes the count is off by less than 0.1 % of the factor up to so many half waves.
    constexpr double few = 0.25;
    inner[i] = {waves <= few ? 0 : bending_shapes_for(waves), 0};
  }
  const ShiftedPencil shifted(pencil_of(f, input, inner), {1, factor, 0});
  return !shifted.ok() || shifted.negative() > 0;
}

}  // namespace corvex::solver
