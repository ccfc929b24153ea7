#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "corvex/number.hpp"
#include "document/case_figures.hpp"
#include "document/number.hpp"
#include "section/shape_dimensions.hpp"

namespace corvex::document {
namespace {

// The unit of mass per length: lb/ft with inches.
NamedUnit per_length(const CatalogueFormat& format) {
  constexpr double lb = 0.45359237, ft = 0.3048;
  return format.units.section.text == "in" ? NamedUnit{"lb/ft", lb / ft} : NamedUnit{"kg/m", 1};
}

// "height 200 mm, width 100 mm": the dimensions as the model file names them.
class Dimensions {
 public:
  explicit Dimensions(const NamedUnit& unit) : unit_(unit) {}

  template <section::HasDimensions S>
  std::string operator()(const S& s) {
    constexpr bool tube = requires {
      s.inside_corner;
    };
    for (const auto& d : section::ShapeDimensions<S>::all)
      if (!(tube && d.is_radius)) add(d.key, s.*d.value);
    if constexpr (tube) return corners(s.corner, s.inside_corner, s.wall);
    if constexpr (std::is_same_v<S, Channel>) {
      add("toe", s.toe);
      if (s.slope > 0) text_ += fmt::format(", flanges sloping by {} %", short_number(s.slope * 100, 3));
    }
    return text_;
  }
  std::string operator()(const Outline& s) {
    std::size_t holes = s.holes.size();
    return fmt::format("{} points{}", s.points.size(),
                       holes == 0 ? "" : fmt::format(", {} hole{}", holes, holes == 1 ? "" : "s"));
  }
  std::string operator()(const GivenProperties&) { return "figures as given"; }

 private:
  Dimensions& add(const char* what, Length v) {
    if (v.si() > 0)
      text_ +=
          fmt::format("{}{} {} {}", text_.empty() ? "" : ", ", what, short_number(v.si() / unit_.si, 5), unit_.text);
    return *this;
  }
  std::string corners(Length corner, std::optional<Length> inside, Length wall) {
    if (!(corner.si() > 0)) return text_ + ", sharp corners";
    add("corner", corner);
    const double in = inside ? inside->si() : std::max((corner - wall).si(), 0.0);
    return text_ + fmt::format(" (inside {} {})", short_number(in / unit_.si, 5), unit_.text);
  }

  NamedUnit unit_;
  std::string text_;
};

NamedUnit length_unit(const ModelUnits& units) {
  return units.section.text == "cm" ? NamedUnit{"mm", 1e-3} : units.section;
}

// Reference value of a property from the size of the section, to recognise rounding error.
double size_of(const Section& s, const Dimension& d) {
  const AreaProperties& a = s.area_properties();
  const double length = std::max({a.height.si(), a.width.si(), std::sqrt(a.A.si())});
  return d == Angle::dimension() ? 1 : std::pow(length, d.exponent[0]);
}

// Dimensions as on a drawing, without the zeros at their end.
Cell drawn(double value) {
  return {value, short_number(value, 6)};
}

Cell mpa(const std::optional<Stress>& s) {
  return s ? Cell(s->in(units::MPa), short_number(s->in(units::MPa), 4)) : unknown();
}

Cell short_cell(double value, int digits) {
  return {value, short_number(value, digits)};
}

}  // namespace

void add_profile(Page& page, const Profile& p, const CatalogueFormat& format, int digits) {
  const NamedUnit length = length_unit(format.units);
  const std::string shape = name(p.section.shape());
  page.emplace_back(Heading{p.designation + (p.standard == shape ? "" : ", " + p.standard), page.empty() ? 1 : 2});
  const char* of = format.density == steel_density ? " of steel" : "";
  Words words{{{"", fmt::format("{}: {}", shape, std::visit(Dimensions(length), p.section.shape()))},
               {"", fmt::format("{} {}{} ({} kg/m³)",
                                number(mass_per_metre(p.section, format.density) / per_length(format).si, digits),
                                per_length(format).text, of, short_number(format.density.si(), 6))}}};
  if (!p.note.empty()) words.lines.push_back({"", "note: " + p.note});
  page.emplace_back(std::move(words));
  Table table{.name = p.designation};
  table.columns = {words_column("figure", true), words_column("here", true), words_column("in tables", true),
                   number_column("value"), words_column("unit")};
  table.columns.back().tied = true;
  for (const SectionFigure& f : section_figures()) {
    const auto v = f.value(p.section);
    if (!v) continue;
    const NamedUnit unit = unit_for_section(f, format.units);
    const bool is_drawn = f.name == "height" || f.name == "width" || f.name == "thickness";
    table.row({f.what, f.name, f.table_name,
               is_drawn ? drawn(*v / unit.si) : Cell(clean(*v, unit, size_of(p.section, f.dimension))), unit.text});
  }
  page.emplace_back(std::move(table));
  Words after;
  if (p.torsion) {
    const SectionFigure& J = *find_section_figure("J");
    const SectionFigure& Wt = *find_section_figure("Wt");
    const NamedUnit uj = unit_for_section(J, format.units), uw = unit_for_section(Wt, format.units);
    after.lines.push_back(
        {"", fmt::format("{}: It = {} {}, Wt = {} {}.", p.torsion->formula, number(p.torsion->J.si() / uj.si, digits),
                         uj.text, number(p.torsion->Wt.si() / uw.si, digits), uw.text)});
    const bool used = p.section.properties().J == p.torsion->J;
    const double exact = Section(p.section.shape()).properties().J.si();
    after.lines.push_back(
        {"",
         used ? fmt::format("The torsion constant of the standard is used; the exact value of this outline is {} {}.",
                            number(exact / uj.si, digits), uj.text)
              : "These formulas are approximate; the values above are exact for this outline."});
  }
  after.lines.push_back(
      {"", "Here y is up and z to the right, seen along the member; section tables call them z and y."});
  page.emplace_back(std::move(after));
}

Page profile_list(const std::vector<Profile>& profiles, const CatalogueFormat& format) {
  Table table{.name = "profiles",
              .columns = {words_column("profile", true), number_column("mass", per_length(format).text)}};
  std::vector<const SectionFigure*> figures;
  for (const SectionFigure& f : section_figures())
    if (is_quick(f)) {
      figures.push_back(&f);
      table.columns.push_back(number_column(f.name, unit_for_section(f, format.units).text));
    }
  for (const Profile& p : profiles) {
    std::vector<Cell> row = {p.designation, mass_per_metre(p.section, format.density) / per_length(format).si};
    for (const SectionFigure* f : figures) {
      const auto v = f->value(p.section);
      const bool is_drawn = f->name == "height" || f->name == "width";
      const double value = v.value_or(0) / unit_for_section(*f, format.units).si;
      row.push_back(!v ? Cell() : is_drawn ? drawn(value) : Cell(value));
    }
    table.row(std::move(row));
  }
  Page page{std::move(table)};
  page.emplace_back(Words{
      {{"",
        fmt::format(
            "{} profile{}. Iz is for bending about the strong axis: section tables call it Iy, and Wz Wel,y. corvex catalogue 'NAME' lists all properties of one.",
            profiles.size(), profiles.size() == 1 ? "" : "s")}}});
  return page;
}

Page materials_page(const std::vector<Material>& materials) {
  Page page;
  for (const Material& m : materials) {
    page.emplace_back(Heading{fmt::format("{}, {}", m.name, m.source), page.empty() ? 1 : 2});
    page.emplace_back(
        Words{{{"", fmt::format("E {} GPa, G {} GPa, Poisson's ratio {}, density {} kg/m³, expansion {} µm/(m·K)",
                                short_number(m.E.in(units::GPa), 4), short_number(m.shear_modulus().in(units::GPa), 4),
                                m.poisson, m.density ? short_number(m.density->si(), 5) : "–",
                                short_number(m.expansion.si() * 1e6, 4))}}});
    Table table{.name = m.name};
    table.columns = {number_column("thickness up to", "mm"), number_column("yield", "MPa"),
                     number_column("tensile strength", "MPa")};
    for (const Strength& s : m.by_thickness)
      table.row({s.up_to.in(units::mm) >= 1e6 ? Cell("any") : short_cell(s.up_to.in(units::mm), 4), mpa(s.yield),
                 mpa(s.tensile)});
    if (!m.note.empty()) table.after = "note: " + m.note;
    page.emplace_back(std::move(table));
  }
  return page;
}

Page contents_page(const std::vector<Material>& materials) {
  Table series{.name = "series", .title = "Profiles"};
  series.columns = {words_column("series", true), words_column("what"), words_column("standard"),
                    words_column("written")};
  for (const ProfileSeries& s : profile_series()) series.row({s.name, s.what, s.standard, s.example});
  Page page{std::move(series)};
  page.emplace_back(Words{
      {{"",
        "Heights come first. Any size of a tube or bar is accepted; sizes that the standard does not list are marked. "
        "Inches: 'SHS 4x4x1/4 in'."}}});
  Table table{.name = "materials", .title = "Materials (strengths of the thinnest walls)"};
  table.columns = {words_column("material", true), number_column("E", "GPa"),       number_column("density", "kg/m³"),
                   number_column("yield", "MPa"),  number_column("tensile", "MPa"), words_column("source")};
  for (const Material& m : materials)
    table.row({m.name, short_cell(m.E.in(units::GPa), 4), m.density ? short_cell(m.density->si(), 5) : unknown(),
               mpa(m.yield), mpa(m.tensile), m.source});
  page.emplace_back(std::move(table));
  return page;
}

}  // namespace corvex::document
