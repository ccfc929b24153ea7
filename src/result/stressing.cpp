#include "result/stressing.hpp"

#include <algorithm>
#include <cmath>

#include "beam/rigid_arm.hpp"
#include "structure/combined.hpp"

namespace corvex::result {
namespace {

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
  for (const ActingMass& m : acting_loads(s, case_loads(s, result.name())).masses)
    if (!zero(m.arm)) all.turned_arms.emplace_back(m.at.index, -solver::turned_arm(m.arm, m.force));
}

// One-way members, are not slack, and have no force but rounding.
std::vector<MemberId> untensioned_in(const Structure& s, const CaseResult& result) {
  double largest = 0;
  std::vector<std::pair<MemberId, double>> forces;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const MemberResult m = result[MemberId(i)];
    const Diagram N = m.axial();
    largest = std::max(largest, N.largest().si);
    if (s.members()[i].acts != Acts::always && !m.is_slack())
      forces.emplace_back(MemberId(i), std::max(N.largest().si - N.noise(), 0.0));
  }
  constexpr double rounding = 1e-9;
  std::vector<MemberId> none;
  for (const auto& [member, force] : forces)
    if (force <= rounding * largest) none.push_back(member);
  return none;
}

// Of the distance from the start of a span.
solver::AxialCourse::Piece shifted(const Diagram::Piece& p, double span_start, double from, double to) {
  const double by = span_start - p.from, a = p.powers[0], b = p.powers[1], c = p.powers[2];
  return {from - span_start, to - span_start, {a + by * (b + by * c), b + 2 * c * by, c}};
}

}  // namespace

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
        // A piece that continues the previous one is not a new one.
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
  for (const MemberId m : untensioned_in(s, result)) all.untensioned.push_back(m);
  add_turned_arms(s, result, all);
  return all;
}

std::vector<bool> with_slack(const solver::Spans& spans, std::vector<bool> slack,
                             const std::vector<MemberId>& members) {
  slack.resize(spans.all.size(), false);
  for (const MemberId m : members)
    for (std::size_t k = spans.first[m.index]; k < spans.first[m.index + 1]; ++k) slack[k] = true;
  return slack;
}

solver::ModeInput buckling_input(const Structure& s, const Stressing& stressing) {
  return {.structure = &s,
          .axial = stressing.axial,
          .slack = with_slack(solver::cut(s), stressing.slack, stressing.untensioned),
          .turned_arms = stressing.turned_arms,
          .count = 1};
}

}  // namespace corvex::result
