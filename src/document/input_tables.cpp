// Tables of the input: points, materials, sections, loads, combinations.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "corvex/document.hpp"
#include "corvex/load_words.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

std::size_t axes_of(const Structure& s) {
  return s.is_plane() ? 2 : 3;
}

void add_axes(Table& t, const Structure& s, const std::string& unit) {
  for (std::size_t k = 0; k < axes_of(s); ++k) t.columns.push_back(number_column(std::string(1, "xyz"[k]), unit));
}

// Dimensions as on a drawing, without the zeros at their end.
Cell dimension_cell(double value, double size) {
  const double v = std::abs(value) <= noise * size ? 0 : value;
  return {v, short_number(v, 7)};
}

// "Iyz -51.2, I1 197, I2 28.9 cm⁴; axis of I1 at 14.4° from y towards z".
std::string principal_words(const SectionProperties& p, const NamedUnit& l) {
  const double unit = std::pow(l.si, 4);
  return fmt::format("Iyz {}, I1 {}, I2 {} {}⁴; axis of I1 at {}° from y towards z", short_number(p.Iyz.si() / unit, 4),
                     short_number(p.I1.si() / unit, 4), short_number(p.I2.si() / unit, 4), l.text,
                     short_number(p.principal.si() * 180 / std::numbers::pi, 4));
}

}  // namespace

Table points_table(const ModelUnits& u, const Structure& s) {
  Table t{.name = "points", .title = "Points"};
  t.columns = {words_column("point", true)};
  add_axes(t, s, u.length.text);
  const bool masses = !s.point_masses().empty();
  if (masses) t.columns.push_back(number_column("mass", u.mass.text));
  const double size = s.bounds().diagonal();
  for (std::size_t i = 0; i < s.points().size(); ++i) {
    const Point& p = s.points()[i];
    const double at[] = {p.position.x, p.position.y, p.position.z};
    std::vector<Cell> cells{p.name};
    for (std::size_t k = 0; k < axes_of(s); ++k)
      cells.push_back(dimension_cell(at[k] / u.length.si, size / u.length.si));
    double mass = 0;
    for (const PointMass& m : s.point_masses()) mass += m.at.index == i ? m.mass : 0;
    if (masses) cells.push_back(mass > 0 ? Cell(mass / u.mass.si) : Cell());
    t.row(std::move(cells));
  }
  return t;
}

Table materials_table(const ModelUnits& u, const Structure& s) {
  Table t{.name = "materials", .title = "Materials"};
  t.columns = {words_column("material", true),
               number_column("E", u.stress.text),
               number_column("G", u.stress.text),
               number_column("ν"),
               number_column("density", "kg/m³"),
               number_column("expansion", "1e-6/K"),
               number_column("yield", u.stress.text),
               number_column("allowable", u.stress.text),
               words_column("source")};
  std::vector<bool> used(s.materials().size(), false);
  for (const Member& m : s.members()) used[m.material] = true;
  const auto stress = [&](const std::optional<Stress>& v) { return v ? Cell(v->si() / u.stress.si) : Cell(); };
  for (std::size_t i = 0; i < s.materials().size(); ++i) {
    if (!used[i]) continue;
    const Material& m = s.materials()[i];
    constexpr double per_million = 1e-6;
    t.row({m.name, m.E.si() / u.stress.si, m.shear_modulus().si() / u.stress.si, m.poisson,
           m.density ? Cell(m.density->si()) : unknown(), m.expansion.si() / per_million, stress(m.yield),
           stress(m.allowable), m.source});
    // For strengths by thickness, the strength of each member is in the table of members.
    for (const Strength& by : m.by_thickness)
      if (m.by_thickness.size() > 1 && by.yield)
        t.say_beneath(fmt::format("up to {} {}: yield strength {} {}", short_number(by.up_to.si() * 1e3, 4), "mm",
                                  short_number(by.yield->si() / u.stress.si, 4), u.stress.text));
    if (!m.note.empty()) t.say_beneath(m.note);
  }
  return t;
}

Table sections_table(const ModelUnits& u, const Structure& s) {
  const NamedUnit& l = u.section;
  const auto power = [&](const char* exponent) { return l.text + exponent; };
  Table t{.name = "sections", .title = "Sections"};
  t.columns = {words_column("section", true),   words_column("profile"),         number_column("A", power("²")),
               number_column("Iy", power("⁴")), number_column("Iz", power("⁴")), number_column("Wy", power("³")),
               number_column("Wz", power("³")), number_column("J", power("⁴")),  number_column("Ay", power("²")),
               number_column("Az", power("²")), number_column("height", "mm"),   number_column("width", "mm")};
  std::vector<bool> used(s.sections().size(), false);
  for (const Member& m : s.members()) used[m.section.index] = true;
  constexpr double mm = 1e-3;
  for (std::size_t i = 0; i < s.sections().size(); ++i) {
    if (!used[i]) continue;
    const NamedSection& n = s.sections()[i];
    const SectionProperties& p = n.section.properties();
    const auto cell = [&](double si, int exponent) { return si > 0 ? Cell(si / std::pow(l.si, exponent)) : unknown(); };
    const AreaProperties& a = n.section.area_properties();
    t.row({n.name, n.designation.empty() ? name(n.section.shape()) : n.designation, cell(p.A.si(), 2),
           cell(p.Iy.si(), 4), cell(p.Iz.si(), 4), cell(p.Wy.si(), 3), cell(p.Wz.si(), 3), cell(p.J.si(), 4),
           cell(p.Ay.si(), 2), cell(p.Az.si(), 2),
           a.height.si() > 0 ? dimension_cell(a.height.si() / mm, 1) : unknown(),
           a.width.si() > 0 ? dimension_cell(a.width.si() / mm, 1) : unknown()});
    if (p.Iyz.si() != 0) t.say_beneath(principal_words(p, l));
    if (!n.note.empty()) t.say_beneath(n.note);
  }
  t.after = "Axes: y up and z across the section as it is drawn; My bends about y, Mz about z.";
  return t;
}

namespace {

// The components of a load, a row for each of its vectors; without a direction its value in words.
void add_load(Table& table, const ModelUnits& units, const Structure& s, const Load& load) {
  const LoadWords words = load_words(s, load, units);
  for (const LoadPart& part : words.parts) {
    const double components[] = {part.value.x, part.value.y, part.value.z};
    std::vector<Cell> cells{words.on, part.name};
    // A moment in the plane is about z alone.
    for (std::size_t k = 0; k < axes_of(s) + (s.is_plane() ? 1 : 0); ++k)
      cells.push_back(std::abs(components[k]) <= noise * length(part.value) ? Cell()
                                                                            : Cell(components[k] / part.unit.si));
    cells.emplace_back(part.unit.text);
    cells.emplace_back(words.remark);
    table.row(std::move(cells));
  }
  if (!words.parts.empty()) return;
  std::vector<Cell> cells{words.on, words.kind};
  cells.resize(6);
  cells.emplace_back(words.value);
  table.row(std::move(cells));
}

}  // namespace

Table loads_table(const ModelUnits& units, const Structure& s, std::size_t load_case) {
  const LoadCase& c = s.load_cases()[load_case];
  Table t{.name = "loads", .title = c.name(), .load_case = c.name()};
  t.columns = {words_column("on", true), words_column("load", true), number_column("x"),  number_column("y"),
               number_column("z"),       words_column("unit"),       words_column("acts")};
  t.columns[5].tied = true;
  for (const Load& load : c.loads()) add_load(t, units, s, load);
  return t;
}

Table combinations_table(const Structure& s) {
  Table t{.name = "combinations", .title = "Combinations"};
  t.columns = {words_column("combination", true), words_column("is")};
  for (const Combination& c : s.combinations()) {
    std::string is;
    for (const Combination::Term& term : c.terms) {
      const double size = std::abs(term.factor);
      is += is.empty() ? (term.factor < 0 ? "−" : "") : term.factor < 0 ? " − " : " + ";
      is += (size == 1 ? "" : short_number(size, 6) + "·") + s.load_cases()[term.load_case].name();
    }
    t.row({c.name, is});
  }
  return t;
}

}  // namespace corvex::document
