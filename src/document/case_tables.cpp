#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "document/number.hpp"
#include "document/result_tables.hpp"

namespace corvex::document {
namespace {

// Of those in this order that are chosen, the first few where tables are short.
Rows chosen(const std::vector<std::size_t>& order, const std::vector<bool>& marked, bool whole, std::size_t most) {
  Rows rows;
  for (std::size_t i = 0; i < marked.size(); ++i) {
    const std::size_t at = whole ? i : order[i];
    if (marked[at]) rows.shown.push_back(at);
  }
  rows.all = rows.shown.size();
  if (!whole && rows.all > most) rows.shown.resize(most);
  return rows;
}

// Points of links only have no rotation, and their supports no moment.
bool turns(const CaseFigures& c, PointId p) {
  if (!c.result().turns(p)) return false;
  const auto& members = c.structure().members();
  return std::any_of(members.begin(), members.end(), [&](const Member& m) {
    return m.kind == MemberKind::beam && std::find(m.through.begin(), m.through.end(), p) != m.through.end();
  });
}
bool gives(const CaseFigures& c, const PointSupport& p, std::size_t component) {
  return p.gives(component) && (component < 3 || turns(c, p.at));
}

Rows shown_members(const CaseFigures& c, const Selection& selection) {
  return chosen(selection.all ? std::vector<std::size_t>() : c.members_by_use(), selection.members, selection.all,
                short_members);
}

}  // namespace

std::string Rows::rest(const char* what, const std::string& one, const Requests& requests) const {
  if (shown.size() == all) return {};
  const std::size_t more = all - shown.size();
  std::string text = fmt::format("and {} more {}{}", more, what, more == 1 ? "" : "s");
  if (!requests.all.empty()) text += fmt::format(": {}", requests.all);
  if (!one.empty()) text += fmt::format("{}{}", requests.all.empty() ? ": " : " or ", one);
  return text;
}

Table reactions_table(const CaseFigures& c, const Selection& selection) {
  static constexpr const char* heads[] = {"Fx", "Fy", "Fz", "Mx", "My", "Mz"};
  const Structure& s = c.structure();
  const ModelUnits& u = c.units();
  // All forces; of the moments those that some support holds.
  std::vector<std::size_t> parts{0, 1};
  if (!s.is_plane()) parts.push_back(2);
  for (std::size_t k = s.is_plane() ? 5 : 3; k < 6; ++k)
    if (std::any_of(s.supports().begin(), s.supports().end(), [&](const PointSupport& p) { return gives(c, p, k); }))
      parts.push_back(k);
  Table t{.name = "reactions", .title = "Reactions, global axes", .load_case = c.result().name()};
  t.columns = {words_column("point", true)};
  for (const std::size_t k : parts) t.columns.push_back(number_column(heads[k], (k < 3 ? u.force : u.moment).text));
  const auto row = [&](const std::string& name, const Reaction& r, const auto& gives) {
    const double six[] = {r.x.si(), r.y.si(), r.z.si(), r.mx.si(), r.my.si(), r.mz.si()};
    std::vector<Cell> cells{name};
    for (const std::size_t k : parts)
      cells.push_back(!gives(k) ? Cell()
                      : k < 3   ? Cell(clean(six[k], u.force, c.sizes().force))
                                : Cell(clean(six[k], u.moment, c.sizes().moment)));
    t.row(std::move(cells));
  };
  // In the order of the model, where there are few; else the largest first.
  std::vector<std::size_t> order;
  std::vector<bool> marked;
  std::vector<double> size;
  for (std::size_t i = 0; i < s.supports().size(); ++i) {
    const Reaction r = c.result().reaction(s.supports()[i].at);
    size.push_back(length(Vector{r.x.si(), r.y.si(), r.z.si()}));
    order.push_back(i);
    marked.push_back(selection.points[s.supports()[i].at.index]);
  }
  if (static_cast<std::size_t>(std::count(marked.begin(), marked.end(), true)) > short_points)
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return size[a] > size[b] + 1e-9 * c.sizes().force; });
  const Rows rows = chosen(order, marked, selection.all, short_points);
  for (const std::size_t i : rows.shown) {
    const PointSupport& p = s.supports()[i];
    row(s[p.at].name, c.result().reaction(p.at), [&](std::size_t k) { return gives(c, p, k); });
  }
  t.after = rows.rest("support", selection.requests.point, selection.requests);
  // Of chosen points the sum of all supports would be read as theirs.
  if (!selection.whole) return t;
  const Balance b = c.result().balance();
  const auto forces = [](std::size_t k) { return k < 3; };
  row("sum", b.reacted, forces);
  row("loads", b.applied, forces);
  for (Row* last : {&t.rows.back(), &t.rows[t.rows.size() - 2]}) last->use = For::people;
  add_up(t, 1);
  return t;
}

Table reactions_by_case(const std::vector<CaseFigures>& cases, const Selection& selection) {
  Table t{.name = "reactions", .title = "Reactions, global axes", .use = For::people};
  if (cases.empty()) return t;
  std::vector<Table> each;
  for (const CaseFigures& c : cases) each.push_back(reactions_table(c, selection));
  t.columns = each.front().columns;
  t.columns.front().grouped = true;
  t.columns.insert(t.columns.begin() + 1, words_column("case", true));
  // Short tables have the largest supports of each case; here they are those of the first.
  for (const Row& of : each.front().rows)
    for (std::size_t c = 0; c < cases.size(); ++c) {
      const auto row = std::find_if(each[c].rows.begin(), each[c].rows.end(),
                                    [&](const Row& r) { return r.cells.front().words == of.cells.front().words; });
      if (row == each[c].rows.end()) continue;
      std::vector<Cell> cells = row->cells;
      cells.insert(cells.begin() + 1, cases[c].result().name());
      t.row(std::move(cells));
    }
  t.after = each.front().after;
  if (selection.whole) add_up(t, 2);
  return t;
}

// The way to the whole load, of large displacements.
Table steps_table(const CaseFigures& c) {
  const ModelUnits& units = c.units();
  Table t{.name = "steps", .title = "Load steps", .load_case = c.result().name()};
  t.columns = {number_column("load", "%"), number_column("displacement", units.deflection.text)};
  for (const LoadStep& s : c.result().steps()) t.row({100 * s.load, s.movement.si() / units.deflection.si});
  t.after = "Displacement: the largest of a point in equilibrium under this share of the load.";
  return t;
}

Table balance_table(const CaseFigures& c) {
  static constexpr const char* heads[] = {"Fx", "Fy", "Fz", "Mx", "My", "Mz"};
  const ModelUnits& u = c.units();
  Table t{.name = "balance", .load_case = c.result().name(), .use = For::data};
  t.columns = {words_column("of")};
  for (std::size_t k = 0; k < 6; ++k) t.columns.push_back(number_column(heads[k], (k < 3 ? u.force : u.moment).text));
  const Balance b = c.result().balance();
  for (const auto& [name, r] :
       {std::pair<const char*, const Reaction&>{"reactions", b.reacted}, {"loads", b.applied}}) {
    const double six[] = {r.x.si(), r.y.si(), r.z.si(), r.mx.si(), r.my.si(), r.mz.si()};
    std::vector<Cell> cells{name};
    for (std::size_t k = 0; k < 6; ++k)
      cells.push_back(k < 3 ? clean(six[k], u.force, c.sizes().force) : clean(six[k], u.moment, c.sizes().moment));
    t.row(std::move(cells));
  }
  return t;
}

Table movements_table(const CaseFigures& c, const Selection& selection) {
  const Structure& s = c.structure();
  const ModelUnits& u = c.units();
  const bool plane = s.is_plane();
  const std::string& l = u.deflection.text;
  Table t{.name = "displacements", .title = "Displacements, global axes", .load_case = c.result().name()};
  t.columns = {words_column("point", true), number_column("x", l), number_column("y", l)};
  if (!plane) t.columns.push_back(number_column("z", l));
  // Where no beam is, no point has rotations.
  const bool beams =
      std::any_of(s.members().begin(), s.members().end(), [](const Member& m) { return m.kind == MemberKind::beam; });
  for (const char* about : {"about x", "about y", "about z"})
    if (beams && (!plane || about[6] == 'z')) t.columns.push_back(number_column(about, u.angle.text));
  const Rows rows = chosen(selection.all ? std::vector<std::size_t>() : c.points_by_movement(), selection.points,
                           selection.all, short_points);
  for (const std::size_t i : rows.shown) {
    const Displacement d = c.result().displacement(PointId{i});
    std::vector<Cell> cells{s.points()[i].name};
    const double m[] = {d.x.si(), d.y.si(), d.z.si()}, r[] = {d.rx.si(), d.ry.si(), d.rz.si()};
    for (int k = 0; k < (plane ? 2 : 3); ++k) cells.push_back(clean(m[k], u.deflection, c.sizes().move));
    if (beams && c.result().turns(PointId{i}))
      for (int k = plane ? 2 : 0; k < 3; ++k) cells.push_back(clean(r[k], u.angle, c.sizes().turn));
    t.row(std::move(cells));
  }
  t.after = rows.rest("point", selection.requests.point, selection.requests);
  return t;
}

Table inner_forces_table(const CaseFigures& c, const Selection& selection) {
  const Structure& s = c.structure();
  const ModelUnits& u = c.units();
  Table t{.name = "internal", .title = "Internal forces, local axes", .load_case = c.result().name()};
  Column member = words_column("member", true), symbol = words_column("", true), unit = words_column("unit", true);
  member.grouped = true;
  symbol.data_head = "figure";
  unit.use = For::people;
  t.columns = {member,
               symbol,
               unit,
               number_column("max"),
               place_column(u.length.text, "max at"),
               number_column("min"),
               place_column(u.length.text, "min at"),
               words_column("")};
  for (const std::size_t k : {std::size_t{3}, std::size_t{5}}) t.columns[k].unit_of_row = true;
  t.columns.back().data_head = "acts";
  t.columns.back().tied = true;
  const Rows rows = shown_members(c, selection);
  for (const std::size_t i : rows.shown) {
    const MemberResult& m = c.member(i);
    const bool link = m.member().kind == MemberKind::link;
    const auto row = [&](const MemberFigure& f, const std::string& words) {
      const Diagram d = f.diagram(m);
      const bool force = f.kind == MemberFigure::Kind::force;
      const NamedUnit& in = force ? u.force : u.moment;
      const double size = force ? c.sizes().force : c.sizes().moment;
      const Extreme high = d.max(), low = d.min();
      const bool nothing = std::max(std::abs(high.value.si), std::abs(low.value.si)) <= 1e-9 * size;
      const bool even = !nothing && high.value.si - low.value.si <= 1e-9 * size;
      Row r{.use = link ? For::data : For::all, .part = force ? "forces" : "moments", .unit = in.text};
      r.cells = {m.member().name, f.symbol, in.text};
      for (const Extreme& e : {high, low}) {
        r.cells.push_back(clean(e.value.si, in, size));
        r.cells.push_back(nothing ? Cell() : place_cell(s, m.member(), e.at, u.length));
      }
      // Values that are constant along the member are printed once, without a place.
      if (even || nothing)
        for (const std::size_t k : {4, 5, 6}) r.cells[k].data_only = true;
      r.cells.push_back(nothing && words != "slack" ? "" : words);
      t.rows.push_back(std::move(r));
    };
    const Diagram axial = m.axial();
    const bool pulled = axial.min().value.si >= 0, pushed = axial.max().value.si <= 0;
    const bool told = link || m.member().acts != Acts::always;
    const char* acts = !told ? "" : m.is_slack() ? "slack" : pulled ? "tension" : pushed ? "compression" : "";
    for (const MemberFigure& f : internal_forces(s, m.member())) row(f, f.symbol == std::string("N") ? acts : "");
  }
  t.after = rows.rest("member", selection.requests.member, selection.requests);
  return t;
}

Table stress_table(const CaseFigures& c, const Selection& selection) {
  const Structure& s = c.structure();
  const ModelUnits& u = c.units();
  const std::string& l = u.length.text;
  Table t{.name = "stress", .title = "Stress, safety factor, deflection", .load_case = c.result().name()};
  t.columns = {words_column("member", true)};
  for (const char* head : {"tension", "compression", "shear", "von Mises"})
    t.columns.insert(t.columns.end(), {number_column(head, u.stress.text), place_column(l, head + std::string(" at"))});
  t.columns.insert(t.columns.end(), {number_column("safety factor"), number_column("deflection", u.deflection.text),
                                     place_column(l, "deflection at")});
  t.columns[9].most_digits = 3;
  const Rows rows = shown_members(c, selection);
  const bool left_out = std::any_of(rows.shown.begin(), rows.shown.end(),
                                    [&](std::size_t i) { return c.member(i).leaves_out_warping(); });
  // Between which points the worst reading of the deflection lies, where a member has more than two.
  const bool between = std::any_of(rows.shown.begin(), rows.shown.end(),
                                   [&](std::size_t i) { return c.member(i).member().through.size() > 2; });
  if (between) {
    t.columns.push_back(words_column("between"));
    t.columns.back().data_head = "deflection between";
  }
  if (left_out) t.columns.push_back(words_column("without"));
  for (const std::size_t i : rows.shown) {
    const MemberResult& m = c.member(i);
    const CaseFigures::Stresses& found = c.stresses(i);
    std::vector<Cell> cells{m.member().name};
    const For use = m.member().kind == MemberKind::link ? For::data : For::all;
    const auto add = [&](double si, const NamedUnit& unit, double size, Length at) {
      const double value = clean(si, unit, size);
      cells.emplace_back(value);
      cells.push_back(value == 0 ? Cell() : place_cell(s, m.member(), at, u.length));
    };
    const auto stress = [&](const std::optional<StressExtreme>& e, double side) {
      if (!e) return (void)cells.insert(cells.end(), {unknown(), Cell()});
      // Without any tension the cell is empty, not the least compression.
      add(e->value.si() * side > 0 || side == 0 ? e->value.si() : 0, u.stress, c.sizes().stress, e->at);
    };
    stress(found.tension, 1);
    stress(found.compression, -1);
    stress(m.max_shear_stress(), 0);
    stress(found.mises, 0);
    const bool stressed = found.mises && clean(found.mises->value.si(), u.stress, c.sizes().stress) != 0;
    cells.push_back(unknown());
    if (const auto safety = stressed ? m.safety_against(found.mises->value) : std::nullopt) {
      cells.back() = Cell(*safety);
      if (*safety < 1) cells.back().tone = Tone::bad;
    }
    const Stretch worst = m.governing_stretch();
    add(worst.sag.value.si, u.deflection, c.sizes().move, worst.sag.at);
    if (between) {
      const auto& through = m.member().through;
      const bool none = clean(worst.sag.value.si, u.deflection, c.sizes().move) == 0;
      cells.emplace_back(none ? "" : s[through[worst.first]].name + "-" + s[through[worst.last]].name);
    }
    if (left_out) cells.emplace_back(m.leaves_out_warping() ? "warping stress" : "");
    t.rows.push_back({.cells = std::move(cells), .use = use});
  }
  t.after = rows.rest("member", selection.requests.member, selection.requests);
  return t;
}

Table bars_table(const CaseFigures& c, const Selection& selection) {
  const Structure& s = c.structure();
  const ModelUnits& u = c.units();
  Table t{.name = "bars", .title = "Bars", .load_case = c.result().name(), .use = For::people};
  const std::string area = unit_for(dimension::area, u).text;
  t.columns = {words_column("member", true),
               number_column("length", u.length.text),
               number_column("area", area),
               number_column("N", u.force.text),
               words_column(""),
               number_column("stress", u.stress.text),
               number_column("safety factor"),
               number_column("utilisation", "%")};
  t.columns[4].tied = true;
  t.columns[6].most_digits = t.columns[7].most_digits = 3;
  const Rows rows = shown_members(c, selection);
  for (const std::size_t i : rows.shown) {
    const MemberResult& m = c.member(i);
    if (m.member().kind != MemberKind::link) continue;
    const Diagram axial = m.axial();
    const Extreme high = axial.max(), low = axial.min();
    const double N = std::abs(high.value.si) >= std::abs(low.value.si) ? high.value.si : low.value.si;
    const double shown = clean(N, u.force, c.sizes().force);
    const char* word = m.is_slack() ? "slack" : shown > 0 ? "tension" : shown < 0 ? "compression" : "";
    std::vector<Cell> cells{m.member().name, m.length().si() / u.length.si,
                            s.section_of(m.member()).area().si() / unit_for(dimension::area, u).si, shown, word};
    const auto& mises = c.stresses(i).mises;
    const double stress = mises ? clean(mises->value.si(), u.stress, c.sizes().stress) : 0;
    cells.push_back(mises ? Cell(N < 0 ? -stress : stress) : unknown());
    const auto safety = stress != 0 ? m.safety_against(mises->value) : std::nullopt;
    cells.push_back(safety ? Cell(*safety) : unknown());
    cells.push_back(safety ? Cell(100 / *safety) : stress == 0 && mises ? Cell(0.0) : unknown());
    if (safety && *safety < 1) cells[6].tone = cells[7].tone = Tone::bad;
    t.row(std::move(cells));
  }
  if (!t.rows.empty()) t.after = rows.rest("member", selection.requests.member, selection.requests);
  return t;
}

}  // namespace corvex::document
