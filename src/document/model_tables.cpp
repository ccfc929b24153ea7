// The model as it was read, and the tables that are printed on request.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>

#include "corvex/acting.hpp"
#include "corvex/document.hpp"
#include "document/number.hpp"
#include "document/result_tables.hpp"

namespace corvex::document {
namespace {

std::string direction(const Vector& v) {
  const auto part = [](double c) { return short_number(std::abs(c) < 5e-4 ? 0 : c, 3); };
  return fmt::format("{} {} {}", part(v.x), part(v.y), part(v.z));
}

}  // namespace

Table members_table(const ModelUnits& u, const Structure& s) {
  Table t{.name = "members", .title = "Members"};
  t.columns = {words_column("member", true),
               words_column("through"),
               number_column("length", u.length.text),
               words_column("kind"),
               words_column("section"),
               words_column("material"),
               number_column("E", u.stress.text),
               number_column("strength", u.stress.text),
               words_column("local x"),
               words_column("local y")};
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    std::string through;
    for (const PointId p : m.through) through += (through.empty() ? "" : " ") + s[p].name;
    const NamedSection& section = s.sections()[m.section.index];
    const bool designated = !section.designation.empty() && section.designation != section.name;
    const auto strength = s.material_of(m).strength(s.section_of(m).thickness());
    const Axes axes = local_axes(s, m);
    t.row({m.name, through, s.length_of(m) / u.length.si, m.kind == MemberKind::beam ? "beam" : "link",
           designated ? section.name + " (" + section.designation + ")" : section.name, s.material_of(m).name,
           s.material_of(m).E.si() / u.stress.si, strength ? Cell(strength->si() / u.stress.si) : unknown(),
           direction(axes.x), m.kind == MemberKind::beam ? direction(axes.y) : ""});
  }
  return t;
}

Table supports_table(const ModelUnits& u, const Structure& s) {
  static constexpr const char* dofs[] = {"x", "y", "z", "rx", "ry", "rz"};
  Table t{.name = "supports", .title = "Supports"};
  t.columns = {words_column("point", true), words_column("restrained"), words_column("springs")};
  for (const PointSupport& p : s.supports()) {
    std::string held, springs;
    for (std::size_t k = 0; k < 6; ++k) {
      const bool there = !s.is_plane() || k < 2 || k == 5;
      if (p.held[k] && there) held += (held.empty() ? "" : " ") + std::string(dofs[k]);
      if (p.spring[k] == 0 || !there) continue;
      const NamedUnit& unit = k < 3 ? u.line : u.moment;
      springs += fmt::format("{}{}: {} {}{}", springs.empty() ? "" : ", ", dofs[k],
                             short_number(p.spring[k] / unit.si, 4), unit.text, k < 3 ? "" : "/rad");
    }
    for (const Vector& v : p.along) held += (held.empty() ? "along " : ", along ") + direction(v);
    t.row({s[p.at].name, held, springs});
  }
  return t;
}

namespace {

// Where the line of action of a resultant passes: "x = 1200", or a point of it.
std::string line_of_action(const LoadTotal& total, bool plane, const NamedUnit& length) {
  if (!total.through) return "";
  const Vector f{total.force.x.si(), total.force.y.si(), total.force.z.si()};
  const double size = corvex::length(f), parts[] = {f.x, f.y, f.z};
  const double at[] = {total.through->x, total.through->y, total.through->z};
  const double reach = corvex::length(*total.through);
  const auto number = [&](double v) { return short_number(std::abs(v) <= 1e-9 * reach ? 0 : v / length.si, 6); };
  const int axes = plane ? 2 : 3;
  std::string text;
  for (int along = 0; along < axes; ++along) {
    if (std::abs(parts[along]) < (1 - 1e-9) * size) continue;
    for (int k = 0; k < axes; ++k)
      if (k != along) text += fmt::format("{}{} = {}", text.empty() ? "" : ", ", "xyz"[k], number(at[k]));
    return text;
  }
  for (int k = 0; k < axes; ++k) text += fmt::format("{}{}", k == 0 ? "through " : ", ", number(at[k]));
  return text;
}

}  // namespace

Table bracing_table(const Structure& s) {
  static constexpr const char* against[] = {"displacement and twist", "displacement across the member", "twist",
                                            "displacement along y", "displacement along z"};
  Table t{.name = "bracing", .title = "Bracing"};
  t.columns = {words_column("member", true), words_column("at", true), words_column("against")};
  for (const Bracing& b : s.bracing()) {
    std::string at;
    for (const PointId p : b.at) at += (at.empty() ? "" : ", ") + s[p].name;
    t.row({s[b.member].name, at.empty() ? "its whole length" : at, against[static_cast<std::size_t>(b.against)]});
  }
  return t;
}

Table load_sums_table(const ModelUnits& u, const Structure& s) {
  const std::vector<LoadTotal> totals = load_totals(s);
  Table t{.name = "load-sums", .title = "Sums of the loads"};
  t.columns = {words_column("case", true), number_column("loads"), number_column("Fx", u.force.text),
               number_column("Fy", u.force.text)};
  t.columns[1].most_digits = 6;
  if (!s.is_plane()) t.columns.push_back(number_column("Fz", u.force.text));
  t.columns.push_back(words_column(fmt::format("line of action [{}]", u.length.text)));
  double size = 0;
  for (const LoadTotal& r : totals)
    size = std::max({size, std::abs(r.force.x.si()), std::abs(r.force.y.si()), std::abs(r.force.z.si())});
  for (const LoadTotal& r : totals) {
    std::vector<Cell> cells{r.load_case, Cell(static_cast<double>(r.loads), std::to_string(r.loads))};
    const double parts[] = {r.force.x.si(), r.force.y.si(), r.force.z.si()};
    for (std::size_t k = 0; k < (s.is_plane() ? 2u : 3u); ++k)
      cells.emplace_back(std::abs(parts[k]) <= noise * size ? 0 : parts[k] / u.force.si);
    cells.emplace_back(line_of_action(r, s.is_plane(), u.length));
    t.row(std::move(cells));
  }
  return t;
}

Table parts_table(const ModelUnits& u, const Structure& s) {
  Table t{.name = "parts", .title = "Bill of materials"};
  t.columns = {words_column("section", true), words_column("material"), number_column("pieces"),
               number_column("length", u.length.text), number_column("mass", u.mass.text)};
  for (const PartsOfOneKind& p : bill_of_materials(s))
    t.row({p.section, p.material, Cell(static_cast<double>(p.pieces), std::to_string(p.pieces)),
           p.length.si() / u.length.si, p.mass ? Cell(p.mass->si() / u.mass.si) : unknown()});
  add_up(t, 3);
  return t;
}

void add_model(Page& page, const ModelUnits& units, const Structure& structure) {
  page.emplace_back(Heading{"model", 2});
  page.emplace_back(members_table(units, structure));
  page.emplace_back(supports_table(units, structure));
  if (!structure.bracing().empty()) page.emplace_back(bracing_table(structure));
  page.emplace_back(load_sums_table(units, structure));
  page.emplace_back(parts_table(units, structure));
}

Table ends_table(const CaseFigures& c, const Selection& selection) {
  const Structure& s = c.structure();
  const ModelUnits& u = c.units();
  Table t{
      .name = "ends", .title = "Forces of member ends on their joints, global axes", .load_case = c.result().name()};
  t.columns = {words_column("member", true), words_column("end", true), words_column("joint", true),
               number_column("Fx", u.force.text), number_column("Fy", u.force.text)};
  t.columns.front().grouped = true;
  if (!s.is_plane()) t.columns.push_back(number_column("Fz", u.force.text));
  for (const char* head : {"Mx", "My", "Mz"})
    if (!s.is_plane() || head[1] == 'z') t.columns.push_back(number_column(head, u.moment.text));
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!selection.members[i]) continue;
    const MemberResult& m = c.member(i);
    for (const EndForces& e : m.end_forces()) {
      static constexpr const char* ends[] = {"start", "through", "end"};
      std::vector<Cell> cells{m.member().name, ends[static_cast<std::size_t>(e.end)], s[e.point].name};
      const double f[] = {e.force.x.si(), e.force.y.si(), e.force.z.si()},
                   n[] = {e.moment.x.si(), e.moment.y.si(), e.moment.z.si()};
      for (std::size_t k = 0; k < (s.is_plane() ? 2u : 3u); ++k) cells.push_back(clean(f[k], u.force, c.sizes().force));
      for (std::size_t k = s.is_plane() ? 2 : 0; k < 3; ++k) cells.push_back(clean(n[k], u.moment, c.sizes().moment));
      t.row(std::move(cells));
    }
  }
  add_up(t, 3);
  const auto& all = s.members();
  if (std::any_of(all.begin(), all.end(), [](const Member& m) { return m.kind == MemberKind::link; }))
    t.after = "Of a link, the axial force only; transverse loads go to its joints in addition.";
  return t;
}

namespace {

// Largest and least normal stress on the part of the outline that lies furthest in one direction; nothing where the
// outline is not known. `out` is the direction, (y, z).
std::optional<std::pair<StressExtreme, StressExtreme>> stress_on_face(const MemberResult& m, const StressMap& map,
                                                                      double out_y, double out_z) {
  if (map.kind != StressMap::Kind::field) return std::nullopt;
  double most = -1e300, size = 0;
  for (const StressPoint& p : map.points) {
    most = std::max(most, out_y * p.y + out_z * p.z);
    size = std::max({size, std::abs(p.y), std::abs(p.z)});
  }
  std::optional<std::pair<StressExtreme, StressExtreme>> face;
  for (const StressPoint& p : map.points) {
    if (out_y * p.y + out_z * p.z < most - 1e-6 * size) continue;
    const auto here = m.normal_stress_along(Length::si(p.y), Length::si(p.z));
    if (!here) continue;
    if (!face) face = here;
    if (here->first.value > face->first.value) face->first = here->first;
    if (here->second.value < face->second.value) face->second = here->second;
  }
  return face;
}

}  // namespace

// Normal stress on each face: the part of the outline that lies furthest along +y, -y, +z or -z.
Table faces_table(const CaseFigures& c, const Selection& selection) {
  const Structure& s = c.structure();
  const ModelUnits& u = c.units();
  Table t{.name = "faces", .title = "Normal stress by face of the section", .load_case = c.result().name()};
  Column member = words_column("member", true);
  member.grouped = true;
  t.columns = {member,
               words_column("face", true),
               number_column("max", u.stress.text),
               place_column(u.length.text, "max at"),
               number_column("min", u.stress.text),
               place_column(u.length.text, "min at")};
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!selection.members[i] || s.members()[i].kind == MemberKind::link) continue;
    const MemberResult& m = c.member(i);
    const StressMap& map = s.section_of(m.member()).stress_map();
    const BendingAxes about = bending_axes(s, m.member());
    for (const auto& [face, y, z] :
         {std::tuple{"+y", 1.0, 0.0}, {"-y", -1.0, 0.0}, {"+z", 0.0, 1.0}, {"-z", 0.0, -1.0}}) {
      if (!(y != 0 ? about.z : about.y)) continue;
      const auto stress = stress_on_face(m, map, y, z);
      if (!stress) continue;
      std::vector<Cell> cells{m.member().name, face};
      for (const StressExtreme* e : {&stress->first, &stress->second}) {
        const double value = clean(e->value.si(), u.stress, c.sizes().stress);
        cells.emplace_back(value);
        cells.push_back(value == 0 ? Cell() : place_cell(s, m.member(), e->at, u.length));
      }
      t.row(std::move(cells));
    }
  }
  return t;
}

}  // namespace corvex::document
