// What the engineer described, as tables: points, materials, sections, loads, combinations.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
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
    // Of several thicknesses the strength for each member stands in the table of members.
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
    if (!n.note.empty()) t.say_beneath(n.note);
  }
  t.after = "Axes: y up and z across the section as it is drawn; My bends about y, Mz about z.";
  return t;
}

namespace {

// The loads of one case, each by what it is.
class LoadRows {
 public:
  LoadRows(const ModelUnits& units, const Structure& s, Table& table) : u_(units), s_(s), t_(table) {}

  void operator()(const PointLoad& l) { both(s_[l.at].name, "", l.force, l.moment, through(l.through)); }
  void operator()(const MemberLoad& l) {
    both(fmt::format("{} at {}", s_[l.on].name, place(l.at)), "", l.force, l.moment, axes(l.axes) + through(l.through));
  }
  void operator()(const LineLoad& l) {
    std::string on = s_[l.on].name;
    if (l.from != 0 || l.to)
      on += fmt::format(" from {} to {}", place(l.from), place(l.to.value_or(s_.length_of(s_[l.on]))));
    const std::string acts = axes(l.axes) + (l.per == Per::plan ? ", per length in plan" : "") + through(l.through);
    const bool even = length(l.first - l.last) <= noise * std::max(length(l.first), length(l.last));
    row(on, even ? "line load" : "line load, first", l.first, u_.line, acts);
    if (!even) row(on, "line load, last", l.last, u_.line, acts);
  }
  void operator()(const SpreadLoad& l) {
    std::string on;
    constexpr std::size_t most = 6;
    for (std::size_t i = 0; i < l.on.size() && i < most; ++i) on += (i > 0 ? ", " : "") + s_[l.on[i]].name;
    if (l.on.size() > most) on += fmt::format(" and {} more", l.on.size() - most);
    row(on, "force, spread evenly", l.force, u_.force, axes(l.axes) + through(l.through));
  }
  void operator()(const HeatLoad& l) {
    const std::string value =
        l.across == HeatLoad::Across::nothing
            ? fmt::format("{} K everywhere", short_number(l.plus, 6))
            : fmt::format("{0} K on the side of +{2}, {1} K on that of -{2}", short_number(l.plus, 6),
                          short_number(l.minus, 6), l.across == HeatLoad::Across::y ? "y" : "z");
    row(s_[l.on].name, "change of temperature", value);
  }
  void operator()(const ShortenLoad& l) {
    row(s_[l.on].name, l.by < 0 ? "made too long" : "made too short",
        fmt::format("by {} {}", short_number(std::abs(l.by) / u_.deflection.si, 6), u_.deflection.text));
  }
  void operator()(const SettleLoad& l) {
    if (length(l.move) > 0) row(s_[l.at].name, "support moves", l.move, u_.deflection, "");
    if (length(l.turn) > 0) row(s_[l.at].name, "support turns", l.turn, u_.angle, "");
  }
  void operator()(const GravityLoad& l) {
    row("all members and masses", "own weight", l.acceleration, {"m/s²", 1}, through(l.through));
  }

 private:
  std::string place(double at) const { return short_number(at / u_.length.si, 6) + " " + u_.length.text; }
  static std::string axes(LoadAxes a) { return a == LoadAxes::member ? "in the member's own axes" : ""; }
  std::string through(const std::optional<Through>& t) const {
    if (!t) return "";
    if (t->place == Through::Place::shear_centre) return ", through the shear centre";
    if (t->place == Through::Place::centroid) return ", through the centroid";
    return fmt::format(", through y = {}, z = {} of the section", place(t->y.si()), place(t->z.si()));
  }

  void both(const std::string& on, const std::string& what, const Vector& force, const Vector& moment,
            const std::string& acts) {
    if (length(force) > 0 || !(length(moment) > 0)) row(on, "force" + what, force, u_.force, acts);
    if (length(moment) > 0) row(on, "moment" + what, moment, u_.moment, acts);
  }
  static std::string trimmed(const std::string& acts) { return acts.starts_with(", ") ? acts.substr(2) : acts; }
  void row(const std::string& on, const std::string& what, const Vector& v, const NamedUnit& unit,
           const std::string& acts) {
    const double parts[] = {v.x, v.y, v.z};
    std::vector<Cell> cells{on, what};
    // A moment in the plane is about z alone.
    for (std::size_t k = 0; k < axes_of(s_) + (s_.is_plane() ? 1 : 0); ++k)
      cells.push_back(std::abs(parts[k]) <= noise * length(v) ? Cell() : Cell(parts[k] / unit.si));
    cells.emplace_back(unit.text);
    cells.emplace_back(trimmed(acts));
    t_.row(std::move(cells));
  }
  void row(const std::string& on, const std::string& what, const std::string& value) {
    std::vector<Cell> cells{on, what};
    cells.resize(6);
    cells.emplace_back(value);
    t_.row(std::move(cells));
  }

  const ModelUnits& u_;
  const Structure& s_;
  Table& t_;
};

}  // namespace

Table loads_table(const ModelUnits& units, const Structure& s, std::size_t load_case) {
  const LoadCase& c = s.load_cases()[load_case];
  Table t{.name = "loads", .title = c.name(), .load_case = c.name()};
  t.columns = {words_column("on", true), words_column("load", true), number_column("x"),  number_column("y"),
               number_column("z"),       words_column("unit"),       words_column("acts")};
  t.columns[5].tied = true;
  LoadRows rows(units, s, t);
  for (const Load& load : c.loads()) std::visit(rows, load);
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
