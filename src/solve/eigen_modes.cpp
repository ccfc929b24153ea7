#include "solve/eigen_modes.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "algebra/products.hpp"
#include "solve/matrix.hpp"
#include "solve/mode_search.hpp"
#include "solve/reduced_pencil.hpp"
#include "solve/rigid_arm.hpp"
#include "solve/spin.hpp"

namespace corvex::solver {

using namespace algebra;
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
  return turned(all, to);
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
          span_pencil(f.spans.all[i], f.spans.axes[f.spans.all[i].member], f.turns[i], f.bodies[i], axial_of(input, i),
                      input.structure->is_plane(), !input.slack.empty() && input.slack[i], inner[i]));
    parts.push_back(part);
  }
  return Pencil(f.spans, f.freedoms, parts, f.at_points);
}

// Half waves along a span decide how many inner shapes it needs so that its ends and its inside together are off by
// less than 1e-11 of what its mass or axial force do (measured against many more shapes, with and without deformation
// by shear).
int shapes_for(double half_waves, double four_carry) {
  constexpr int most = 80;
  if (half_waves <= 0.05) return 2;
  if (half_waves <= four_carry) return 4;
  return std::min(4 + static_cast<int>(std::ceil(4 * half_waves)), most);
}
int bending_shapes_for(double half_waves) {
  // Four are little beside what they save in a second round.
  return std::max(4, shapes_for(half_waves, 0.4));
}
int lengthwise_shapes_for(double half_waves) {
  return shapes_for(half_waves, 0.25);
}

double softest(const SpanBody& b, bool plane) {
  return plane ? b.rigidity.EIz : std::min(b.rigidity.EIy, b.rigidity.EIz);
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
  for (std::size_t i = 0; i < s.points().size(); ++i) m.points.push_back(f.freedoms.used[i] ? p.at_point(i, z) : Six{});
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

// The least that a single movement of a point would swing at, all others at rest.
double lowest_alone(const Pencil& p, const Shares& stiffness) {
  const VectorXd k = p.diagonal(stiffness), m = p.diagonal({0, 0, 1});
  double low = std::numeric_limits<double>::infinity();
  for (Index i = 0; i < k.size(); ++i)
    if (m(i) > 0 && k(i) > 0) low = std::min(low, k(i) / m(i));
  return std::isfinite(low) ? low : 0;
}

// Whether the energy of a movement is only rounding: beside that of the same movements of the points one by one.
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
  std::vector<InnerShapes> inner(f.spans.all.size());
  for (std::size_t i = 0; i < inner.size(); ++i) inner[i] = needed_at(i, 0);
  for (int round = 0; round < most_rounds; ++round) {
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
    const ModeSearch search{p, reduced->problem(block_of(s)), input.count, 0, shift, at_rest, 0, -1};
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
  // Axial forces do nothing to movements along spans and to torsion.
  const auto needed_at = [&](std::size_t i, double factor) {
    const AxialCourse axial = axial_of(input, i);
    const double waves = bending_waves(f.bodies[i], f.spans.all[i].length, 0, factor * axial.largest(), plane);
    return InnerShapes{axial.none() ? 0 : bending_shapes_for(waves), 0};
  };
  std::vector<InnerShapes> inner(f.spans.all.size());
  for (std::size_t i = 0; i < inner.size(); ++i) inner[i] = needed_at(i, 0);
  for (int round = 0; round < most_rounds; ++round) {
    const Pencil p = pencil_of(f, input, inner);
    const Shares stiffness{1, 0, 0}, geometric{0, 1, 0};
    const ReducedPencil reduced(p, stiffness, {0, -1, 0});
    if (!reduced.ok()) return found;
    // Factors beyond a million million are those of forces that are only rounding.
    const ModeSearch search{p, reduced.problem(block_of(s)), input.count, 1e-12, 0, stiffness, 1, 0};
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

}  // namespace corvex::solver
