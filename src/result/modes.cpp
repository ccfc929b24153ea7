#include "corvex/modes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

#include "corvex/formula.hpp"
#include "solve/eigen_modes.hpp"
#include "solve/rigid_arm.hpp"
#include "structure/combined.hpp"

namespace corvex {
namespace {

// Axial forces along the spans of a case, and which spans are slack.
struct Stressing {
  std::vector<solver::AxialCourse> axial{};
  std::vector<bool> slack{};
  std::vector<std::pair<std::size_t, Eigen::Matrix3d>> turned_arms{};
};

// Forces on the ends of arms, and the weights of masses on arms.
void add_turned_arms(const Structure& s, const CaseResult& result, Stressing& all) {
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    if (zero(m.arm_start) && zero(m.arm_end)) continue;
    const Axes axes = local_axes(s, m);
    const double L = s.length_of(m);
    for (const Joint& j : result[MemberId(i)].joints()) {
      const SectionState& state = j.state;
      // The point on the member: before its section from the other side.
      const double sign = j.side == Side::after ? 1 : -1;
      const Vector force = axes.global({-state.axial.si(), state.shear_y.si(), state.shear_z.si()}) * sign;
      const auto k = std::find(m.through.begin(), m.through.end(), j.point) - m.through.begin();
      const double share = s.place_of(m, static_cast<std::size_t>(k)) / L;
      const Vector arm = m.arm_start + (m.arm_end - m.arm_start) * share;
      all.turned_arms.emplace_back(j.point.index, solver::turned_arm(arm, force));
    }
  }
  const auto weigh = [&](const LoadCase& loads) {
    for (const Load& load : loads.loads())
      if (const auto* g = std::get_if<GravityLoad>(&load))
        for (const PointMass& m : s.point_masses())
          if (!zero(m.arm))
            all.turned_arms.emplace_back(m.at.index, -solver::turned_arm(m.arm, g->acceleration * m.mass));
  };
  for (const LoadCase& c : s.load_cases())
    if (c.name() == result.name()) return weigh(c);
  for (const Combination& c : s.combinations())
    if (c.name == result.name()) return weigh(combined(s, c));
}

// Of the distance from the start of a span.
solver::AxialCourse::Piece shifted(const Diagram::Piece& p, double span_start, double from, double to) {
  const double by = span_start - p.from, a = p.powers[0], b = p.powers[1], c = p.powers[2];
  return {from - span_start, to - span_start, {a + by * (b + by * c), b + 2 * c * by, c}};
}

Stressing stressing_of(const Structure& s, const CaseResult& result) {
  Stressing all;
  const solver::Spans spans = solver::cut(s);
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const MemberResult member = result[MemberId(i)];
    const Diagram axial = member.axial();
    const double same = 1e-9 * s.length_of(s.members()[i]);
    for (std::size_t k = spans.first[i]; k < spans.first[i + 1]; ++k) {
      const double start = spans.all[k].start, end = start + spans.all[k].length;
      solver::AxialCourse course;
      for (const Diagram::Piece& p : axial.pieces()) {
        const double from = std::max(p.from, start), to = std::min(p.to, end);
        if (to - from <= same) continue;
        const auto piece = shifted(p, start, from, to);
        // A piece that goes on as the one before it is no new one.
        const auto goes_on = [&](const solver::AxialCourse::Piece& before) {
          return std::equal(std::begin(before.n), std::end(before.n), std::begin(piece.n), [&](double x, double y) {
            return std::abs(x - y) <= 1e-12 * (std::abs(before.n[0]) + std::abs(piece.n[0]));
          });
        };
        if (!course.pieces.empty() && goes_on(course.pieces.back()))
          course.pieces.back().to = piece.to;
        else
          course.pieces.push_back(piece);
      }
      all.axial.push_back(std::move(course));
      all.slack.push_back(member.is_slack());
    }
  }
  add_turned_arms(s, result, all);
  return all;
}

ModeShape shape_of(const Structure& s, const solver::Spans& spans, const solver::FoundMode& found) {
  ModeShape shape;
  double most = 0;
  const auto offer = [&](const Vector& v) { most = std::max(most, length(v)); };
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    std::vector<ModeShape::Place>& places = shape.members.emplace_back();
    double own = 0;
    for (std::size_t k = spans.first[i]; k < spans.first[i + 1]; ++k) {
      const Eigen::VectorXd& by = found.spans[k];
      const Eigen::Index n = by.size() / 3;
      for (Eigen::Index j = places.empty() ? 0 : 1; j < n; ++j) {
        const double at =
            spans.all[k].start + spans.all[k].length * static_cast<double>(j) / static_cast<double>(n - 1);
        places.push_back({at, {by(3 * j), by(3 * j + 1), by(3 * j + 2)}});
        own = std::max(own, length(places.back().by));
      }
    }
    if (own > most * (1 + 1e-9)) most = own, shape.most_moved = i;
  }
  for (const solver::Six& p : found.points) offer({p[0], p[1], p[2]});
  // The largest component counts positive, so that the same shape has the same sign.
  double sign = 1, largest = 0;
  const auto look = [&](double v) {
    if (std::abs(v) > largest * (1 + 1e-6)) largest = std::abs(v), sign = v < 0 ? -1 : 1;
  };
  for (const auto& member : shape.members)
    for (const ModeShape::Place& p : member) look(p.by.x), look(p.by.y), look(p.by.z);
  const double scale = most > 0 ? sign / most : 0;
  for (auto& member : shape.members)
    for (ModeShape::Place& p : member) p.by = p.by * scale;
  for (const solver::Six& p : found.points)
    shape.points.push_back({Length::si(p[0] * scale), Length::si(p[1] * scale), Length::si(p[2] * scale),
                            Angle::si(p[3] * scale), Angle::si(p[4] * scale), Angle::si(p[5] * scale)});
  return shape;
}

Problem skipped(std::size_t count, const std::string& of) {
  return {.text = fmt::format("{} {} could not be told apart from their neighbours", count, of),
          .severity = Problem::Severity::warning};
}

std::vector<BuckledMember> buckled_members(const Structure& s, const CaseResult& result, double factor) {
  std::vector<BuckledMember> all;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const double pressed = -result[MemberId(i)].axial().min().value.si;
    const double noise = result[MemberId(i)].axial().noise();
    if (!(pressed > noise)) continue;
    const solver::SpanBody body = solver::span_body(s, s.members()[i]);
    const double EI = s.is_plane() ? body.rigidity.EIz : std::min(body.rigidity.EIy, body.rigidity.EIz);
    const double critical = factor * pressed;
    all.push_back({MemberId(i), ForceSize::si(critical), Length::si(std::numbers::pi * std::sqrt(EI / critical))});
  }
  return all;
}

Expected<CaseResult, Problems> case_of(const Solution& solution, const std::string& name) {
  if (!solution.ok()) return solution.problems();
  std::vector<std::string> known;
  for (std::size_t i = 0; i < solution.size(); ++i) known.push_back(solution[i].name());
  for (const std::string& k : known)
    if (k == name) return solution[name];
  return Problems{{fmt::format("there is no load case or combination '{}'{}", name, did_you_mean(name, known))}};
}

// Of a structure that is sound; `solution` is asked only where axial forces are needed.
Expected<Modes, Problems> modes_of(const Structure& s, const ModesOptions& o,
                                   const std::function<const Solution&()>& solution) {
  Modes all;
  if (o.vibration > 0) {
    for (const Member& m : s.members())
      if (!s.material_of(m).density)
        return Problems{{fmt::format("member '{}': its material '{}' has no density, and without it nothing swings",
                                     m.name, s.material_of(m).name),
                         {Subject::Kind::member, m.name}}};
    solver::ModeInput input{.structure = &s, .count = o.vibration};
    if (!o.under.empty()) {
      const auto under = case_of(solution(), o.under);
      if (!under) return under.error();
      Stressing stressing = stressing_of(s, *under);
      input.axial = std::move(stressing.axial), input.slack = std::move(stressing.slack);
      input.turned_arms = std::move(stressing.turned_arms);
    }
    const solver::FoundModes found = solver::vibration_modes(input);
    if (found.buckles)
      return Problems{
          {fmt::format("under '{}' the structure buckles, and does not swing: its load factor is below 1", o.under)}};
    for (const solver::FoundMode& m : found.modes) {
      VibrationMode mode{.frequency = Frequency::si(std::sqrt(std::max(m.value, 0.0)) / (2 * std::numbers::pi))};
      mode.is_free = m.value == 0;
      mode.mass_share_x = m.share[0], mode.mass_share_y = m.share[1], mode.mass_share_z = m.share[2];
      mode.shape = shape_of(s, found.spans, m);
      all.vibration.push_back(std::move(mode));
    }
    if (found.missing > 0) all.notes.push_back(skipped(found.missing, "frequencies"));
  }
  for (const auto& [name, count] : o.buckling) {
    const auto result = case_of(solution(), name);
    if (!result) return result.error();
    Stressing stressing = stressing_of(s, *result);
    const solver::FoundModes found = solver::buckling_modes({.structure = &s,
                                                             .axial = std::move(stressing.axial),
                                                             .slack = std::move(stressing.slack),
                                                             .turned_arms = std::move(stressing.turned_arms),
                                                             .count = count});
    CaseBuckling& buckling = all.buckling.emplace_back();
    buckling.load_case = name;
    for (const solver::FoundMode& m : found.modes)
      buckling.modes.push_back({m.value, shape_of(s, found.spans, m), buckled_members(s, *result, m.value)});
    if (found.missing > 0) all.notes.push_back(skipped(found.missing, "load factors of " + name));
  }
  return all;
}

// Axial forces are those of first order, solved for when they are first asked for.
std::function<const Solution&()> lazily(const Structure& s) {
  return [&s, solution = std::make_shared<std::optional<Solution>>()]() -> const Solution& {
    if (!*solution) {
      Structure first = s;
      first.analysis().order = Order::first;
      first.analysis().imperfection.reset();
      *solution = solve(first);
    }
    return **solution;
  };
}

}  // namespace

Expected<Modes, Problems> modes(const Structure& s, const ModesOptions& o) {
  Problems wrong;
  // Vibration needs no load.
  Structure sound = s;
  if (sound.load_cases().empty()) sound.load_case("at rest");
  for (const Problem& p : sound.validate())
    if (p.severity == Problem::Severity::error) wrong.push_back(p);
  if (!wrong.empty()) return wrong;
  return modes_of(s, o, lazily(s));
}

Expected<Modes, Problems> modes(const Solution& solution, const ModesOptions& o) {
  if (!solution.ok()) return solution.problems();
  if (solution.structure().analysis().order != Order::first)
    return modes_of(solution.structure(), o, lazily(solution.structure()));
  return modes_of(solution.structure(), o, [&]() -> const Solution& { return solution; });
}

}  // namespace corvex
