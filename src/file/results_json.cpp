// Results as JSON, as the commands page fixes them: SI units, full precision.
#include <cmath>

#include "corvex/export.hpp"
#include "corvex/figures.hpp"
#include "corvex/formula_text.hpp"
#include "file/findings_json.hpp"
#include "judge/limit_kinds.hpp"

namespace corvex {
namespace {

using file::add;
using file::Json;
using file::json_text;

// Values that are not computed or are infinite are null; minus zero is zero.
Json number(double v) {
  if (!std::isfinite(v)) return nullptr;
  return v + 0.0;
}

Json six(const char* const (&keys)[6], const double (&values)[6]) {
  Json j = Json::object();
  for (int i = 0; i < 6; ++i) add(j, keys[i], number(values[i]));
  return j;
}

Json reaction_json(const Reaction& r) {
  return six({"x", "y", "z", "mx", "my", "mz"}, {r.x.si(), r.y.si(), r.z.si(), r.mx.si(), r.my.si(), r.mz.si()});
}

Json extreme_json(const Extreme& e) {
  return {{"value", number(e.value.si)}, {"at", number(e.at.si())}};
}

Json extremes(const Diagram& d) {
  return {{"max", extreme_json(d.max())}, {"min", extreme_json(d.min())}};
}

Json stress_json(const std::optional<StressExtreme>& s) {
  const auto coordinate = [](const std::optional<Length>& l) { return l ? number(l->si()) : Json(nullptr); };
  if (!s) return {{"value", nullptr}, {"at", nullptr}, {"y", nullptr}, {"z", nullptr}};
  return {
      {"value", number(s->value.si())}, {"at", number(s->at.si())}, {"y", coordinate(s->y)}, {"z", coordinate(s->z)}};
}

Json forces_json(const SectionState& s) {
  Json j;
  for (const MemberFigure& f : member_figures())
    if (f.kind == MemberFigure::Kind::force || f.kind == MemberFigure::Kind::moment) j[f.name] = number(f.at(s).si);
  return j;
}

Json place_json(const MemberResult& m, double at, Side side = Side::after) {
  const SectionState s = m.at(Length::si(at), side);
  Json j = {{"at", number(at)}};
  for (const MemberFigure& f : member_figures()) j[f.name] = number(f.at(s).si);
  return j;
}

Json member_json(const Structure& structure, const MemberResult& m, const JsonOptions& options) {
  Json j;
  j["kind"] = m.member().kind == MemberKind::beam ? "beam" : "link";
  j["length"] = number(m.length().si());
  if (const Acts acts = m.member().acts; acts != Acts::always) {
    j["acts"] = acts == Acts::tension ? "tension" : "compression";
    j["slack"] = m.is_slack();
  }
  for (const MemberFigure& f : member_figures())
    if (f.envelope) j[f.name] = extremes(f.diagram(m));
  // Unsigned.
  j["sag"] = {{"max", extreme_json(m.sag())}, {"min", {{"value", 0.0}, {"at", 0.0}}}};
  j["stress"] = {{"max", stress_json(m.max_stress())}, {"min", stress_json(m.min_stress())}};
  const auto worst = m.von_mises();
  j["shear_stress"] = {{"max", stress_json(m.max_shear_stress())}};
  j["von_mises"] = {{"max", stress_json(worst)}};
  const auto safety = worst ? m.safety_against(worst->value) : std::nullopt;
  j["safety"] = safety ? number(*safety) : Json(nullptr);
  if (m.leaves_out_warping()) j["without"] = "warping stress";
  j["stretches"] = Json::array();
  for (const Stretch& s : m.stretches()) {
    const auto name = [&](std::size_t k) { return structure[m.member().through[k]].name; };
    static constexpr const char* readings[] = {"chord", "ends", "overhang"};
    j["stretches"].push_back({{"from", name(s.first)},
                              {"to", name(s.last)},
                              {"reading", readings[static_cast<std::size_t>(s.reading)]},
                              {"value", number(s.sag.value.si)},
                              {"at", number(s.sag.at.si())}});
  }
  j["joints"] = Json::array();
  for (const Joint& joint : m.joints()) {
    Json k = {{"point", structure[joint.point].name}, {"side", joint.side == Side::before ? "before" : "after"}};
    k.update(forces_json(joint.state));
    j["joints"].push_back(std::move(k));
  }
  if (options.places > 0) {
    j["places"] = Json::array();
    const double L = m.length().si();
    const int n = options.places;
    for (int i = 0; i < n; ++i) j["places"].push_back(place_json(m, n == 1 ? 0 : i == n - 1 ? L : L * i / (n - 1)));
  }
  return j;
}

Json case_json(const Structure& s, const CaseResult& c, const JsonOptions& options) {
  Json j;
  Json& displacements = j["displacements"] = Json::object();
  for (std::size_t i = 0; i < s.points().size(); ++i) {
    const Displacement d = c.displacement(PointId{i});
    add(displacements, s.points()[i].name,
        six({"x", "y", "z", "rx", "ry", "rz"}, {d.x.si(), d.y.si(), d.z.si(), d.rx.si(), d.ry.si(), d.rz.si()}));
  }
  Json& reactions = j["reactions"] = Json::object();
  for (const PointSupport& support : s.supports())
    add(reactions, s[support.at].name, reaction_json(c.reaction(support.at)));
  const Balance b = c.balance();
  j["balance"] = {
      {"applied", reaction_json(b.applied)}, {"reacted", reaction_json(b.reacted)}, {"error", number(b.error)}};
  j["digits"] = c.digits();
  if (const auto critical = c.critical_load()) {
    j["critical_load_factor"] = critical->factor ? number(*critical->factor) : Json(nullptr);
    if (!critical->factor) j["stability"] = critical->examined ? "above 10" : "not examined";
    if (!critical->description.empty()) j["critical_mode"] = critical->description;
  }
  if (const auto steps = c.steps(); !steps.empty()) {
    Json& all = j["steps"] = Json::array();
    for (const LoadStep& step : steps)
      all.push_back({{"load", number(step.load)}, {"displacement", number(step.movement.si())}});
  }
  Json& members = j["members"] = Json::object();
  for (std::size_t i = 0; i < s.members().size(); ++i)
    add(members, s.members()[i].name, member_json(s, c[MemberId{i}], options));
  return j;
}

Json governing_json(const GoverningExtreme& e, bool with_place = true) {
  Json j = {{"value", number(e.value.si)}};
  if (with_place) j["at"] = number(e.at.si());
  j["case"] = e.load_case;
  return j;
}

Json range_json(const Range& r, bool with_place = true) {
  return {{"max", governing_json(r.max, with_place)}, {"min", governing_json(r.min, with_place)}};
}

Json governing_json(const GoverningStress& s) {
  Json j = stress_json(s.stress);
  j["case"] = s.stress ? Json(s.load_case) : Json(nullptr);
  return j;
}

Json six_json(const char* const (&keys)[6], const std::array<Range, 6>& ranges) {
  Json j = Json::object();
  for (std::size_t k = 0; k < 6; ++k) add(j, keys[k], range_json(ranges[k], false));
  return j;
}

// The worst of the combinations, or of the load cases where there are none.
Json envelope_json(const Solution& solution) {
  const Structure& s = solution.structure();
  Json j;
  Json& displacements = j["displacements"] = Json::object();
  for (std::size_t i = 0; i < s.points().size(); ++i)
    add(displacements, s.points()[i].name,
        six_json({"x", "y", "z", "rx", "ry", "rz"}, displacement_envelope(solution, PointId{i})));
  Json& reactions = j["reactions"] = Json::object();
  for (const PointSupport& p : s.supports())
    add(reactions, s[p.at].name, six_json({"x", "y", "z", "mx", "my", "mz"}, reaction_envelope(solution, p.at)));
  Json& members = j["members"] = Json::object();
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const MemberEnvelope e = envelope(solution, MemberId{i});
    Json m = {{"kind", s.members()[i].kind == MemberKind::beam ? "beam" : "link"},
              {"length", number(s.length_of(s.members()[i]))}};
    for (const MemberFigure& f : member_figures())
      if (f.envelope) m[f.name] = range_json(e.*f.envelope);
    m["sag"] = {{"max", governing_json(e.sag)}};
    m["stress"] = {{"max", governing_json(e.max_stress)}, {"min", governing_json(e.min_stress)}};
    m["von_mises"] = {{"max", governing_json(e.von_mises)}};
    m["safety"] = e.safety ? number(*e.safety) : Json(nullptr);
    if (leaves_out_warping(solution, MemberId{i})) m["without"] = "warping stress";
    add(members, s.members()[i].name, std::move(m));
  }
  return j;
}

Json limits_json(const LimitCheck& check) {
  Json list = Json::array();
  for (const Verdict& v : check.verdicts) {
    const char* const key = judging::kind_of(v.kind).key;
    Json j = {{"limit", key ? std::string(key) : v.what}, {"on", v.on}};
    if (v.between) j["between"] = {v.between->first, v.between->second};
    j["case"] = v.load_case;
    j["value"] = v.value ? number(v.value->si) : Json(nullptr);
    j["required"] = number(v.required.si);
    if (v.band_end) j["outside"] = {number(v.required.si), number(v.band_end->si)};
    j["at_least"] = v.at_least;
    j["met"] = v.state == Verdict::State::not_checked ? Json(nullptr) : Json(v.state == Verdict::State::met);
    if (v.at) j["at"] = number(v.at->si());
    if (!v.note.empty()) j["note"] = v.note;
    list.push_back(std::move(j));
  }
  return list;
}

Json head_json(const Solution& solution) {
  const Structure& s = solution.structure();
  Json j;
  j["format"] = "corvex-results";
  j["version"] = 2;
  j["model"] = file::model_json(s);
  return j;
}

// `deviation` and `within` are shares of the hand value, or SI values of its dimension where `absolute` stands.
Json comparison_json(const Comparison& c, const ModelUnits& units) {
  Json j = {{"what", c.what}};
  if (!c.load_case.empty()) j["case"] = c.load_case;
  if (!c.formula.text.empty()) {
    j["formula"] = c.formula.text;
    j["numbers"] = numbers_put_in(c.formula, units);
  }
  j["hand"] = number(c.hand.si);
  j["computed"] = number(c.computed.si);
  j["deviation"] = number(c.deviation);
  j["within"] = number(c.within);
  if (c.absolute) j["absolute"] = true;
  j["agrees"] = c.agrees;
  if (!c.note.empty()) j["note"] = c.note;
  if (!c.remark.empty()) j["remark"] = c.remark;
  return j;
}

Json hand_json(const Verification& hand, const ModelUnits& units) {
  Json j = Json::array();
  for (const Comparison& c : hand.comparisons) j.push_back(comparison_json(c, units));
  return j;
}

// Reason for missing results.
std::string refused_json(const Problems& problems) {
  return json_text({{"format", "corvex-results"}, {"version", 2}, {"problems", file::findings_list(problems)}});
}

}  // namespace

std::string results_json(const Evaluation& evaluation, const JsonOptions& options) {
  const Solution& solution = evaluation.solution;
  if (!solution.ok()) return refused_json(solution.problems());
  const Structure& s = solution.structure();
  Json j = head_json(solution);
  Json& cases = j["cases"] = Json::object();
  for (std::size_t i = 0; i < solution.size(); ++i) cases[solution[i].name()] = case_json(s, solution[i], options);
  cases["envelope"] = envelope_json(solution);
  j["limits"] = limits_json(evaluation.limits);
  j["hand"] = hand_json(evaluation.hand, options.units);
  j["findings"] = file::findings_list(evaluation.findings);
  if (!options.record.empty()) j["record"] = options.record;
  return json_text(j);
}

namespace {

// The output of `figures` for each place, with additional entries.
template <class Figures>
std::string trace_json(const Solution& solution, const Member& member, const std::string& load_case,
                       std::optional<int> digits, const std::vector<TracePlace>& places, const Figures& figures) {
  Json j = head_json(solution);
  j["format"] = "corvex-trace";
  j["member"] = member.name;
  j["length"] = number(solution.structure().length_of(member));
  j["case"] = load_case;
  if (digits) j["digits"] = *digits;
  Json& places_json = j["places"] = Json::array();
  for (const TracePlace& p : places) {
    Json s = figures(p);
    s["side"] = p.side == Side::before ? "before" : "after";
    for (const auto& [figure, which] : p.extremes) s["extremes"].push_back(figure + " " + which);
    places_json.push_back(std::move(s));
  }
  return json_text(j);
}

}  // namespace

std::string trace_json(const Solution& solution, const MemberResult& member, const std::string& load_case,
                       const std::vector<TracePlace>& places) {
  const int digits = solution[load_case].digits();
  return trace_json(solution, member.member(), load_case, digits, places, [&](const TracePlace& p) {
    Json s = place_json(member, p.at.si(), p.side);
    s["stress"] = {{"max", stress_json(member.max_stress_at(p.at, p.side))},
                   {"min", stress_json(member.min_stress_at(p.at, p.side))}};
    s["shear_stress"] = {{"max", stress_json(member.max_shear_stress_at(p.at, p.side))}};
    s["von_mises"] = {{"max", stress_json(member.von_mises_at(p.at, p.side))}};
    return s;
  });
}

std::string trace_json(const Solution& solution, const MemberRef& which, const std::vector<TracePlace>& places) {
  const MemberId member = solution.structure().at(which);
  return trace_json(solution, solution.structure()[member], "envelope", {}, places, [&](const TracePlace& p) {
    const SectionEnvelope e = envelope_at(solution, member, p.at, p.side);
    Json j = {{"at", number(p.at.si())}};
    for (const MemberFigure& f : member_figures())
      if (f.envelope_at) j[f.name] = range_json(e.*f.envelope_at, false);
    j["stress"] = {{"max", governing_json(e.max_stress)}, {"min", governing_json(e.min_stress)}};
    j["von_mises"] = {{"max", governing_json(e.von_mises)}};
    return j;
  });
}

std::string verification_json(const Evaluation& evaluation, const JsonOptions& options) {
  if (!evaluation.solution.ok()) return refused_json(evaluation.solution.problems());
  Json j = head_json(evaluation.solution);
  j["hand"] = hand_json(evaluation.hand, options.units);
  j["findings"] = file::findings_list(evaluation.findings);
  if (!options.record.empty()) j["record"] = options.record;
  return json_text(j);
}

}  // namespace corvex
