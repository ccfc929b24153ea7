#include "corvex/modes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <numbers>

#include "corvex/formula.hpp"
#include "modes/mode_shapes.hpp"
#include "result/stressing.hpp"
#include "stability/out_of_plane.hpp"
#include "structure/combined.hpp"
#include "structure/words.hpp"

namespace corvex {

namespace {

using result::Stressing, result::stressing_of, result::with_slack;
using solver::Bow, solver::bow_of, solver::described, solver::shape_of;

std::string names_of(const Structure& s, const std::vector<MemberId>& members) {
  std::vector<std::string> names;
  for (const MemberId m : members) names.push_back(s[m].name);
  return list(names);
}

Problem skipped(std::size_t count, const std::string& of) {
  return {.text = count == 1 ? fmt::format("1 of the {} could not be separated from its neighbours", of)
                             : fmt::format("{} of the {} could not be separated from their neighbours", count, of),
          .severity = Problem::Severity::warning};
}

std::vector<BuckledMember> buckled_members(const Structure& s, const CaseResult& result, double factor,
                                           const ModeShape& shape) {
  std::vector<BuckledMember> all;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    const double pressed = -result[MemberId(i)].axial().min().value.si();
    const double noise = result[MemberId(i)].axial().noise();
    if (!(pressed > noise)) continue;
    const Rigidity r = solver::span_body(s, m).rigidity;
    const Bow bow = bow_of(s, i, shape);
    double EI = r.EIz;
    char axis = bending_axes(s, m).z ? 'z' : 'y';
    if (!s.is_plane()) {
      const double turn = principal_turn(s, m), c = std::cos(turn), n = std::sin(turn);
      // Along the axes in which it bends.
      const double y = std::abs(c * bow.y) + std::abs(n * bow.z), z = std::abs(n * bow.y) + std::abs(c * bow.z);
      const bool about_z = y > z || (y == z && r.EIz <= r.EIy);
      EI = about_z ? r.EIz : r.EIy;
      axis = turn == 0 ? (about_z ? 'z' : 'y') : (r.EIz >= r.EIy) == about_z ? '1' : '2';
    }
    if (!(EI > 0)) continue;
    const double critical = factor * pressed;
    all.push_back(
        {MemberId(i), ForceSize::si(critical), Length::si(std::numbers::pi * std::sqrt(EI / critical)), axis});
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

std::optional<Problems> add_vibration(const Structure& s, const ModesOptions& o,
                                      const std::function<const Solution&()>& solution, Modes& all) {
  const solver::Spans spans = solver::cut(s);
  solver::ModeInput input{.structure = &s, .count = o.vibration};
  if (!o.under.empty()) {
    const auto under = case_of(solution(), o.under);
    if (!under) return under.error();
    Stressing stressing = stressing_of(s, *under);
    input.axial = std::move(stressing.axial), input.slack = std::move(stressing.slack);
    input.turned_arms = std::move(stressing.turned_arms);
    all.untensioned = std::move(stressing.untensioned);
  } else {
    // Without a case nothing keeps them taut.
    for (std::size_t i = 0; i < s.members().size(); ++i)
      if (s.members()[i].acts != Acts::always) all.untensioned.emplace_back(i);
  }
  const std::vector<bool> slack = input.slack;
  input.slack = with_slack(spans, slack, all.untensioned);
  const solver::FoundModes found = solver::vibration_modes(input);
  if (found.buckles)
    return Problems{{fmt::format(
        "under '{}' the structure buckles and does not vibrate: its critical load factor is below 1", o.under)}};
  for (const solver::FoundMode& m : found.modes) {
    VibrationMode mode{.frequency = Frequency::si(std::sqrt(std::max(m.value, 0.0)) / (2 * std::numbers::pi))};
    mode.is_free = m.value == 0;
    mode.effective_mass_x = m.share[0], mode.effective_mass_y = m.share[1], mode.effective_mass_z = m.share[2];
    mode.shape = shape_of(s, found.spans, m);
    all.vibration.push_back(std::move(mode));
  }
  all.possible = found.possible;
  if (found.missing > 0) all.notes.push_back(skipped(found.missing, "frequencies"));
  if (!all.untensioned.empty()) {
    input.slack = slack, input.count = 1;
    const solver::FoundModes acting = solver::vibration_modes(input);
    if (!acting.modes.empty()) {
      const Frequency f = Frequency::si(std::sqrt(std::max(acting.modes.front().value, 0.0)) / (2 * std::numbers::pi));
      constexpr double alike = 1.01;
      if (all.vibration.empty() || f.si() > alike * all.vibration.front().frequency.si()) all.if_all_acted = f;
    }
  }
  if (s.is_plane()) all.out_of_plane = stability::out_of_plane_vibration(s);
  return {};
}

void add_buckling(const Structure& s, const Solution& solution, const CaseResult& result, std::size_t count,
                  Modes& all) {
  const solver::Spans spans = solver::cut(s);
  Stressing stressing = stressing_of(s, result);
  solver::ModeInput input{.structure = &s,
                          .axial = std::move(stressing.axial),
                          .turned_arms = std::move(stressing.turned_arms),
                          .count = count};
  input.slack = with_slack(spans, stressing.slack, stressing.untensioned);
  const solver::FoundModes found = solver::buckling_modes(input);
  CaseBuckling& buckling = all.buckling.emplace_back();
  buckling.load_case = result.name();
  buckling.untensioned = std::move(stressing.untensioned);
  buckling.is_mechanism = found.is_mechanism;
  for (const solver::FoundMode& m : found.modes) {
    BucklingMode& mode = buckling.modes.emplace_back();
    mode.factor = m.value;
    mode.shape = shape_of(s, found.spans, m);
    mode.description = described(s, mode.shape);
    mode.members = buckled_members(s, result, m.value, mode.shape);
  }
  if (found.missing > 0) all.notes.push_back(skipped(found.missing, "load factors of " + result.name()));
  constexpr double none = std::numeric_limits<double>::infinity();
  const double lowest = found.is_mechanism ? 0 : found.modes.empty() ? none : found.modes.front().value;
  if (!buckling.untensioned.empty()) {
    input.slack = stressing.slack, input.count = 1;
    const solver::FoundModes acting = solver::buckling_modes(input);
    constexpr double alike = 1.01;
    if (!acting.modes.empty() && acting.modes.front().value > alike * lowest)
      buckling.if_all_acted = acting.modes.front().value;
  }
  buckling.estimates = member_buckling(solution, result.name(), lowest);
}

// Of a structure that is sound; `solution` is asked only where axial forces are needed.
Expected<Modes, Problems> modes_of(const Structure& s, const ModesOptions& o,
                                   const std::function<const Solution&()>& solution) {
  Modes all;
  if (o.vibration > 0) {
    for (const Member& m : s.members())
      if (!s.material_of(m).density)
        return Problems{{fmt::format("member '{}': its material '{}' has no density, which is needed for frequencies",
                                     m.name, s.material_of(m).name),
                         {Subject::Kind::member, m.name}}};
    if (const auto problems = add_vibration(s, o, solution, all)) return *problems;
  }
  for (const auto& [name, count] : o.buckling) {
    const auto result = case_of(solution(), name);
    if (!result) return result.error();
    add_buckling(s, solution(), *result, count, all);
  }
  return all;
}

// Axial forces are those of first order, solved for when they are first asked for.
std::function<const Solution&()> lazily(const Structure& s) {
  return [&s, solution = std::make_shared<std::optional<Solution>>()]() -> const Solution& {
    if (!*solution) *solution = solve(at_first_order(s));
    return **solution;
  };
}

}  // namespace

std::optional<double> CaseBuckling::lowest() const {
  if (is_mechanism) return 0;
  std::optional<double> least;
  if (!modes.empty()) least = modes.front().factor;
  if (!estimates.members.empty())
    least = std::min(least.value_or(estimates.members.front().factor), estimates.members.front().factor);
  return least;
}

std::string CaseBuckling::governing(const Structure& s) const {
  if (is_mechanism)
    return fmt::format("without the untensioned members {} the structure is a mechanism", names_of(s, untensioned));
  const bool of_member =
      !estimates.members.empty() && (modes.empty() || estimates.members.front().factor < modes.front().factor);
  if (of_member) return words(s, estimates.members.front());
  return modes.empty() ? "" : modes.front().description;
}

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
