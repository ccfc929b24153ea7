#include "trace.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "corvex/file.hpp"
#include "corvex/formula.hpp"
#include "output.hpp"
#include "selection.hpp"
#include "table.hpp"

namespace corvex::cli {
namespace {

// A point of the member, a share of its length or a length; an empty answer means success.
std::string place(const Structure& s, const Member& m, const ModelUnits& units, const std::string& text, Length& at) {
  const double L = s.length_of(m);
  for (std::size_t k = 0; k < m.through.size(); ++k)
    if (s[m.through[k]].name == text) return at = Length::si(s.place_of(m, k)), "";
  const auto e = evaluate(text, Scope());
  if (!e) return fmt::format("--at '{}': {}", text, e.error().text);
  const Quantity& q = e->quantity;
  if (q.dimension.none() && e->percent)
    at = Length::si(q.si * L);
  else if (q.dimension.none())
    at = Length::si(q.si * units.length.si);
  else if (q.dimension == dimension::length)
    at = Length::si(q.si);
  else
    return fmt::format("--at '{}' is {}; a place was expected: a length, a share as '50 %', or a point of {}", text,
                       name(q.dimension), m.name);
  if (at.si() >= -1e-9 * L && at.si() <= L * (1 + 1e-9)) return {};
  return fmt::format("--at '{}' is not on {}, which is {} {} long", text, m.name, short_number(L / units.length.si, 6),
                     units.length.text);
}

struct Figure {
  const char *key, *head;
  NamedUnit unit;
  double (*of)(const SectionState&);
};

// Those that the structure and the member can have.
std::vector<Figure> figures(const Structure& s, const Member& m, const ModelUnits& u) {
  const bool plane = s.is_plane(), link = m.kind == MemberKind::link;
  const Axes axes = local_axes(s, m);
  const bool y = !plane || std::abs(axes.y.z) < 0.99, z = !plane || std::abs(axes.z.z) < 0.99;
  std::vector<Figure> all{{"axial", "N", u.force, [](const SectionState& t) { return t.axial.si(); }}};
  const auto add = [&](bool there, Figure f) {
    if (there) all.push_back(std::move(f));
  };
  add(y && !link, {"shear_y", "Vy", u.force, [](const SectionState& t) { return t.shear_y.si(); }});
  add(z && !link, {"shear_z", "Vz", u.force, [](const SectionState& t) { return t.shear_z.si(); }});
  add(!plane && !link, {"torsion", "T", u.moment, [](const SectionState& t) { return t.torsion.si(); }});
  add(z && !link, {"moment_y", "My", u.moment, [](const SectionState& t) { return t.moment_y.si(); }});
  add(y && !link, {"moment_z", "Mz", u.moment, [](const SectionState& t) { return t.moment_z.si(); }});
  add(y, {"deflection_y", "defl. y", u.deflection, [](const SectionState& t) { return t.deflection_y.si(); }});
  add(z, {"deflection_z", "defl. z", u.deflection, [](const SectionState& t) { return t.deflection_z.si(); }});
  add(true, {"x", "x", u.deflection, [](const SectionState& t) { return t.x.si(); }});
  add(true, {"y", "y", u.deflection, [](const SectionState& t) { return t.y.si(); }});
  add(!plane, {"z", "z", u.deflection, [](const SectionState& t) { return t.z.si(); }});
  return all;
}

std::string table(const Structure& s, const MemberResult& m, const std::vector<TracePlace>& places, const ModelUnits& u,
                  int digits) {
  using Align = Table::Align;
  const std::vector<Figure> shown = figures(s, m.member(), u);
  std::vector<Table::Column> columns{{"at", u.length.text}, {"", "", Align::left}};
  for (const Figure& f : shown) columns.push_back({f.head, f.unit.text});
  columns.insert(columns.end(), {{"tension", u.stress.text}, {"compression", u.stress.text}, {"", "", Align::left}});
  // Rounding beside the largest figure of its kind is nothing.
  std::vector<SectionState> states;
  double sizes[3] = {0, 0, 0}, stress = 0;
  const auto kind = [&](const Figure& f) {
    return f.unit.text == u.force.text ? 0 : f.unit.text == u.moment.text ? 1 : 2;
  };
  for (const TracePlace& p : places) {
    states.push_back(m.at(p.at, p.side));
    for (const Figure& f : shown) sizes[kind(f)] = std::max(sizes[kind(f)], std::abs(f.of(states.back())));
  }
  for (const auto& worst : {m.max_stress(), m.min_stress()})
    if (worst) stress = std::max(stress, std::abs(worst->value.si()));
  const auto cell = [&](double si, const NamedUnit& unit, double size) {
    return std::abs(si) <= 1e-9 * size ? "0" : number(si / unit.si, digits);
  };
  Table t(columns);
  for (std::size_t i = 0; i < places.size(); ++i) {
    const TracePlace& p = places[i];
    const bool twice = (i > 0 && places[i - 1].at == p.at) || (i + 1 < places.size() && places[i + 1].at == p.at);
    std::string where;
    for (std::size_t k = 0; k < m.member().through.size(); ++k)
      if (std::abs(s.place_of(m.member(), k) - p.at.si()) < 1e-9 * m.length().si())
        where = s[m.member().through[k]].name;
    if (twice) where += (where.empty() ? "" : ", ") + std::string(p.side == Side::before ? "before" : "after");
    std::vector<std::string> cells{short_number(p.at.si() / u.length.si, digits), where};
    for (const Figure& f : shown) cells.push_back(cell(f.of(states[i]), f.unit, sizes[kind(f)]));
    const auto high = m.max_stress_at(p.at, p.side), low = m.min_stress_at(p.at, p.side);
    cells.push_back(high ? cell(std::max(high->value.si(), 0.0), u.stress, stress) : "–");
    cells.push_back(low ? cell(std::min(low->value.si(), 0.0), u.stress, stress) : "–");
    std::vector<std::string> extremes;
    for (const Figure& f : shown)
      for (const auto& [figure, which] : p.extremes)
        if (figure == f.key) extremes.push_back(fmt::format("{} {}", which, f.head));
    for (const auto& [figure, which] : p.extremes)
      if (figure == "sag") extremes.push_back("most sag");
    cells.push_back(fmt::format("{}", fmt::join(extremes, ", ")));
    t.row(std::move(cells));
  }
  return t.text();
}

}  // namespace

int trace(const TraceOptions& o) {
  const auto model = read_model(o.model);
  if (!model) return refuse(model.error());
  const Structure& s = model->structure;
  const Solution solution = solve(s);
  if (!solution.ok()) return refuse(model->located(solution.problems()));
  const auto shown = select(
      solution,
      {.cases = o.load_case.empty() ? std::vector<std::string>{} : std::vector{o.load_case}, .members = {o.member}});
  if (!shown) return refuse(shown.error());
  const auto id = s.find_member(o.member);
  if (!id) return refuse(fmt::format("'{0}' is a family of members; one of them was expected, as '{0}.1'", o.member));
  const std::vector<std::size_t>& cases = shown->cases;
  if (o.json && cases.size() > 1) return refuse("with --json say which one, as --case " + solution[cases[0]].name());
  for (const Problems* notes : {&model->notes, &solution.notes()})
    for (const Problem& p : model->located(*notes)) fmt::print(stderr, "{}\n", describe(p));
  const double L = s.length_of(s[*id]);
  std::string text = fmt::format("{}\n{}, {} {} long\n", s.title(), o.member,
                                 short_number(L / model->units.length.si, o.digits), model->units.length.text);
  for (const std::size_t c : cases) {
    const MemberResult m = solution[c][*id];
    std::vector<TracePlace> places = o.steps > 0 ? even_places(m, o.steps) : std::vector<TracePlace>{};
    for (const std::string& at : o.at) {
      Length x;
      if (const std::string why = place(s, s[*id], model->units, at, x); !why.empty()) return refuse(why);
      for (TracePlace& p : places_at(m, x)) places.push_back(std::move(p));
    }
    if (places.empty()) places = extreme_places(m);
    std::stable_sort(places.begin(), places.end(),
                     [](const TracePlace& a, const TracePlace& b) { return a.at < b.at; });
    if (o.json)
      text = trace_json(solution, m, solution[c].name(), places);
    else
      text += fmt::format("\n== {} ==\n\n{}", solution[c].name(), table(s, m, places, model->units, o.digits));
  }
  if (const std::string why = write(o.output, text); !why.empty()) return refuse(why);
  return 0;
}

}  // namespace corvex::cli
