#include <fmt/format.h>

#include <algorithm>

#include "corvex/document.hpp"
#include "corvex/envelope.hpp"
#include "corvex/load_words.hpp"
#include "corvex/number.hpp"
#include "report/book.hpp"
#include "report/rows.hpp"
#include "view/data.hpp"
#include "view/tables.hpp"

namespace corvex::view {
namespace {

Json list(const Vector& v) {
  return Json::array({v.x, v.y, v.z});
}

Json units_data(const ModelUnits& u) {
  Json j;
  for (const auto& [name, unit] : {std::pair<const char*, const NamedUnit&>{"length", u.length},
                                   {"force", u.force},
                                   {"moment", u.moment},
                                   {"line", u.line},
                                   {"stress", u.stress},
                                   {"deflection", u.deflection},
                                   {"angle", u.angle},
                                   {"mass", u.mass}})
    j[name] = {unit.text, unit.si};
  return j;
}

// The line of each member, where it is known. All in one go: each look takes the whole file.
Json lines_data(const Viewed& v) {
  Problems problems;
  for (const Member& m : v.evaluation.solution.structure().members()) {
    Problem& p = problems.emplace_back();
    p.subject = {Subject::Kind::member, m.name, 0};
  }
  Json lines = Json::object();
  for (const Problem& p : v.model.located(std::move(problems)))
    if (p.place.line > 0) lines[p.subject.name] = p.place.line;
  return lines;
}

Json members_data(const Viewed& v) {
  const Structure& s = v.evaluation.solution.structure();
  Json all = Json::array();
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    const Axes axes = local_axes(s, m);
    const BendingAxes about = bending_axes(s, m);
    const auto strength = s.material_of(m).strength(s.section_of(m).thickness());
    Json through = Json::array();
    for (std::size_t k = 0; k < m.through.size(); ++k)
      through.push_back(Json::array({m.through[k].index, s.place_of(m, k)}));
    Json one = {{"name", m.name},
                {"kind", m.kind == MemberKind::beam ? "beam" : "link"},
                {"section", m.section.index},
                {"material", s.material_of(m).name},
                {"a", list(s.axis_start(m))},
                {"b", list(s.axis_end(m))},
                {"x", list(axes.x)},
                {"y", list(axes.y)},
                {"z", list(axes.z)},
                {"length", s.length_of(m)},
                {"bends", Json::array({about.y, about.z})},
                {"through", std::move(through)}};
    if (strength) one["strength"] = strength->si();
    if (m.acts != Acts::always) one["acts"] = m.acts == Acts::tension ? "tension" : "compression";
    Json hinges = Json::array();
    hinges.push_back(m.freed_start[4] || m.freed_start[5]);
    hinges.push_back(m.freed_end[4] || m.freed_end[5]);
    one["hinges"] = std::move(hinges);
    all.push_back(std::move(one));
  }
  return all;
}

Json sections_data(const Structure& s) {
  Json all = Json::array();
  for (const NamedSection& n : s.sections()) {
    constexpr int pieces_of_arc = 4;
    Json outlines = Json::array();
    for (const auto& polygon : outline_polygons(n.section, pieces_of_arc)) {
      Json line = Json::array();
      for (const Outline::Point& p : polygon) line.push_back(Json::array({p.y.si(), p.z.si()}));
      outlines.push_back(std::move(line));
    }
    const SectionProperties& p = n.section.properties();
    all.push_back({{"name", n.name},
                   {"profile", n.designation.empty() ? name(n.section.shape()) : n.designation},
                   {"outlines", std::move(outlines)},
                   {"A", p.A.si()},
                   {"Iy", p.Iy.si()},
                   {"Iz", p.Iz.si()},
                   {"Iyz", p.Iyz.si()}});
  }
  return all;
}

Json supports_data(const Structure& s) {
  Json all = Json::array();
  for (const PointSupport& p : s.supports()) {
    Json along = Json::array();
    for (const Vector& v : p.along) along.push_back(list(v));
    all.push_back({{"point", p.at.index}, {"held", p.held}, {"along", std::move(along)}, {"spring", p.spring}});
  }
  return all;
}

// Loads as they are drawn: forces and moments at places, line loads between places.
Json loads_data(const Structure& s, const LoadCase& loads, const ModelUnits& units) {
  Json forces = Json::array(), lines = Json::array();
  const ActingLoads acting = acting_loads(s, loads);
  const auto with_remark = [&](Json j, std::size_t load) {
    if (std::string remark = point_of_action(loads.loads()[load], units); !remark.empty()) j["remark"] = remark;
    if (const auto* spread = std::get_if<SpreadLoad>(&loads.loads()[load])) j["total"] = length(spread->force);
    return j;
  };
  for (const ActingForce& f : acting.forces) {
    if (length(f.force) > 0) forces.push_back(with_remark({{"at", list(f.place)}, {"force", list(f.force)}}, f.load));
    if (length(f.moment) > 0) forces.push_back({{"at", list(f.place)}, {"moment", list(f.moment)}});
  }
  for (const ActingLine& l : acting.lines) {
    if (std::holds_alternative<GravityLoad>(loads.loads()[l.load])) continue;
    const Member& m = s[l.on];
    const auto place = [&](double along) {
      const Vector a = s.axis_start(m), b = s.axis_end(m);
      return list(a + (b - a) * (along / s.length_of(m)));
    };
    lines.push_back(with_remark({{"on", l.on.index},
                                 {"a", place(l.from)},
                                 {"b", place(l.to)},
                                 {"first", list(l.first)},
                                 {"last", list(l.last)}},
                                l.load));
  }
  return {{"forces", std::move(forces)}, {"lines", std::move(lines)}};
}

// Loads without an arrow, in words.
Json loads_in_words(const Structure& s, const LoadCase& loads, double factor, const ModelUnits& units) {
  constexpr int digits = 4;
  Json all = Json::array();
  for (const Load& load : loads.loads()) {
    const LoadKind kind = kind_of(load, s.up_direction());
    if (kind < LoadKind::temperature_change) continue;
    const LoadWords w = load_words(s, load, units, factor, digits);
    const bool everywhere = kind == LoadKind::self_weight || kind == LoadKind::acceleration;
    all.push_back((everywhere ? "" : w.on + ": ") + w.kind + " " + w.value);
  }
  return all;
}

Json cases_data(const Solution& solution, const ModelUnits& units) {
  const Structure& s = solution.structure();
  const std::vector<std::size_t> assessed = solution.assessed();
  Json all = Json::array();
  for (std::size_t i = 0; i < solution.size(); ++i) {
    Json terms = Json::array(), words = Json::array();
    const auto add = [&](std::size_t load_case, double factor) {
      terms.push_back(Json::array({load_case, factor}));
      for (Json& w : loads_in_words(s, s.load_cases()[load_case], factor, units)) words.push_back(std::move(w));
    };
    const std::size_t base = solution.base_of(i);
    if (base < s.load_cases().size())
      add(base, 1);
    else
      for (const Combination::Term& t : s.combinations()[base - s.load_cases().size()].terms)
        add(t.load_case, t.factor);
    all.push_back({{"name", solution[i].name()},
                   {"assessed", std::find(assessed.begin(), assessed.end(), i) != assessed.end()},
                   {"terms", std::move(terms)},
                   {"words", std::move(words)}});
  }
  return all;
}

Json hand_data(const Verification& hand, const ModelUnits& units, int digits) {
  const reporting::HandFormulas all = reporting::hand_formulas(hand, units, digits);
  Json formulas = Json::array();
  for (const auto* some : {&all.values, &all.worked})
    for (const reporting::Worked& w : *some)
      formulas.push_back(
          {{"what", w.what}, {"math", reporting::mathml(w.math)}, {"agrees", w.tone != document::Tone::bad}});
  return {{"table", table_data(all.table, digits)}, {"formulas", std::move(formulas)}};
}

}  // namespace

Json problems_data(const Problems& problems) {
  static constexpr const char* severities[] = {"error", "warning", "note"};
  Json all = Json::array();
  for (const Problem& p : problems) {
    Json on = Json::array();
    const auto name = [&](const Subject& subject) {
      if (subject.kind == Subject::Kind::member || subject.kind == Subject::Kind::point) on.push_back(subject.name);
    };
    name(p.subject);
    for (const Subject& other : p.others) name(other);
    all.push_back({{"severity", severities[static_cast<std::size_t>(p.severity)]},
                   {"finding", p.finding},
                   {"line", p.place.line},
                   {"on", std::move(on)},
                   {"text", p.text},
                   {"remedy", p.remedy},
                   {"because", p.because}});
  }
  return all;
}

Json table_data(const document::Table& table, int digits) {
  const reporting::ReadTable t = reporting::read(table, digits);
  static constexpr const char* tones[] = {"", "", "good", "warning", "bad"};
  Json columns = Json::array(), rows = Json::array();
  for (const reporting::ReadColumn& c : t.columns) columns.push_back(Json::array({c.head, c.unit, c.words}));
  for (const reporting::ReadRow& row : t.rows) {
    Json cells = Json::array();
    for (const reporting::ReadCell& cell : row.cells) {
      const char* tone = tones[static_cast<std::size_t>(cell.tone)];
      *tone ? cells.push_back(Json::array({cell.words, tone})) : cells.push_back(cell.words);
    }
    rows.push_back({{"cells", std::move(cells)}, {"beneath", row.beneath}});
  }
  return {{"title", t.title}, {"columns", std::move(columns)}, {"rows", std::move(rows)}, {"after", t.after}};
}

Json model_data(const Viewed& v, const std::vector<std::string>& variants, int digits) {
  const Structure& s = v.evaluation.solution.structure();
  const ModelUnits& units = v.model.units;
  Json points = Json::array();
  for (const Point& p : s.points()) points.push_back({{"name", p.name}, {"at", list(p.position)}});
  Json masses = Json::array();
  for (const PointMass& m : s.point_masses()) masses.push_back(Json::array({m.at.index, m.mass}));
  Json loads = Json::array();
  for (const LoadCase& c : s.load_cases()) loads.push_back(loads_data(s, c, units));
  Json data = {{"format", "corvex-view"},
               {"version", 1},
               {"title", s.title()},
               {"file", v.model.file},
               {"variant", v.name},
               {"variants", variants},
               {"plane", s.is_plane()},
               {"up", list(s.up_direction())},
               {"units", units_data(units)},
               {"digits", digits},
               {"points", std::move(points)},
               {"masses", std::move(masses)},
               {"members", members_data(v)},
               {"sections", sections_data(s)},
               {"supports", supports_data(s)},
               {"loads", std::move(loads)},
               {"cases", cases_data(v.evaluation.solution, units)},
               {"governing", governing_case(v.evaluation.solution)}};
  const Evaluation& e = v.evaluation;
  if (!e.hand.comparisons.empty()) data["hand"] = hand_data(e.hand, units, digits);
  if (!e.limits.verdicts.empty()) {
    data["limits"] = table_data(document::limits_table(e.limits, units, digits, true), digits);
    data["limits"]["met"] = e.limits.all_met();
  }
  Problems findings = e.problems();
  findings.insert(findings.end(), e.findings.begin(), e.findings.end());
  data["findings"] = problems_data(findings);
  Json summary = Json::array();
  for (const document::Words& words :
       document::summaries_of(units, v.evaluation.solution, v.evaluation.solution.assessed(), false, digits))
    for (const document::Line& line : words.lines) summary.push_back(Json::array({line.label, line.text}));
  data["summary"] = std::move(summary);
  data["envelope"] = Json::array();
  if (v.evaluation.solution.assessed().size() > 1) {
    document::Selection shown = *document::select(v.evaluation.solution, {});
    shown.all = true;
    for (const document::Table& t : document::tables_of_envelope(units, v.evaluation.solution, shown))
      data["envelope"].push_back(table_data(t, digits));
  }
  data["lines"] = lines_data(v);
  return data;
}

}  // namespace corvex::view
