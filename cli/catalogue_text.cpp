#include "catalogue_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "table.hpp"

namespace corvex::cli {
namespace {

using Align = Table::Align;

// "height 200 mm, width 100 mm": the dimensions as the model file names them.
class Dimensions {
 public:
  explicit Dimensions(const NamedUnit& unit) : unit_(unit) {}

  std::string operator()(const SquareTube& s) {
    return add("width", s.width).add("wall", s.wall).corners(s.corner, s.inside_corner, s.wall);
  }
  std::string operator()(const RectangularTube& s) {
    return add("height", s.height).add("width", s.width).add("wall", s.wall).corners(s.corner, s.inside_corner, s.wall);
  }
  std::string operator()(const RoundTube& s) { return add("diameter", s.diameter).add("wall", s.wall).text_; }
  std::string operator()(const RoundBar& s) { return add("diameter", s.diameter).text_; }
  std::string operator()(const RectangularBar& s) { return add("height", s.height).add("width", s.width).text_; }
  std::string operator()(const IProfile& s) { return flanged(s).text_; }
  std::string operator()(const Tee& s) { return flanged(s).text_; }
  std::string operator()(const Channel& s) {
    flanged(s).add("toe", s.toe);
    if (s.slope > 0) text_ += fmt::format(", flanges sloping by {:.3g} %", s.slope * 100);
    return text_;
  }
  std::string operator()(const AngleProfile& s) {
    return add("height", s.height)
        .add("width", s.width)
        .add("wall", s.wall)
        .add("root", s.root)
        .add("toe", s.toe)
        .text_;
  }
  std::string operator()(const Outline& s) {
    std::size_t holes = s.holes.size();
    return fmt::format("{} points{}", s.points.size(),
                       holes == 0 ? "" : fmt::format(", {} hole{}", holes, holes == 1 ? "" : "s"));
  }
  std::string operator()(const GivenProperties&) { return "figures as given"; }

 private:
  template <class S>
  Dimensions& flanged(const S& s) {
    return add("height", s.height).add("width", s.width).add("web", s.web).add("flange", s.flange).add("root", s.root);
  }
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

std::string shown(double si, const NamedUnit& unit, double size, int digits) {
  constexpr double noise = 1e-9;
  return std::abs(si) <= noise * size ? "0" : number(si / unit.si, digits);
}

// What a figure would be as a power of the section's size: noise is told against that.
double size_of(const Section& s, const Dimension& d) {
  const AreaProperties& a = s.area_properties();
  const double length = std::max({a.height.si(), a.width.si(), std::sqrt(a.A.si())});
  return d == Angle::dimension() ? 1 : std::pow(length, d.exponent[0]);
}

}  // namespace

std::string profile_text(const Profile& p, const CatalogueFormat& format, int digits) {
  const NamedUnit length = length_unit(format.units);
  const std::string shape = name(p.section.shape());
  std::string text = p.designation + (p.standard == shape ? "" : ", " + p.standard) + "\n";
  text += fmt::format("{}: {}\n", shape, std::visit(Dimensions(length), p.section.shape()));
  const char* of = format.density == steel_density ? " of steel" : "";
  text += fmt::format("{} kg/m{} ({} kg/m³)\n", number(mass_per_metre(p.section, format.density), digits), of,
                      short_number(format.density.si(), 6));
  if (!p.note.empty()) text += fmt::format("note: {}\n", p.note);
  Table table({{"figure", "", Align::left},
               {"here", "", Align::left},
               {"in tables", "", Align::left},
               {"value", ""},
               {"unit", "", Align::left}});
  for (const SectionFigure& f : section_figures()) {
    const auto v = f.value(p.section);
    if (!v) continue;
    const NamedUnit unit = unit_for_section(f, format.units);
    // Dimensions as on a drawing, without the zeros at their end.
    const bool drawn = f.name == "height" || f.name == "width" || f.name == "thickness";
    table.row({f.what, f.name, f.table_name,
               drawn ? short_number(*v / unit.si, 6) : shown(*v, unit, size_of(p.section, f.dimension), digits),
               unit.text});
  }
  text += "\n" + table.text();
  if (p.torsion) {
    const SectionFigure& J = *find_section_figure("J");
    const SectionFigure& Wt = *find_section_figure("Wt");
    const NamedUnit uj = unit_for_section(J, format.units), uw = unit_for_section(Wt, format.units);
    text +=
        fmt::format("\n{}: It = {} {}, Wt = {} {}.\n", p.torsion->formula, number(p.torsion->J.si() / uj.si, digits),
                    uj.text, number(p.torsion->Wt.si() / uw.si, digits), uw.text);
    const bool used = p.section.properties().J == p.torsion->J;
    const double exact = Section(p.section.shape()).properties().J.si();
    text +=
        used
            ? fmt::format(
                  "The standard's torsion constant is the one that counts here; the exact one of this outline is {} {}.\n",
                  number(exact / uj.si, digits), uj.text)
            : "These formulas are approximate; the figures above are the exact ones of this outline.\n";
  }
  text += "\nHere y is up and z to the right, seen along the member; section tables call them z and y.\n";
  return text;
}

std::string profile_list(const std::vector<Profile>& profiles, const CatalogueFormat& format, int digits) {
  std::vector<Table::Column> columns = {{"profile", "", Align::left}, {"mass", "kg/m"}};
  std::vector<const SectionFigure*> figures;
  for (const SectionFigure& f : section_figures())
    if (is_quick(f)) {
      figures.push_back(&f);
      columns.push_back({f.name, unit_for_section(f, format.units).text});
    }
  Table table(columns);
  for (const Profile& p : profiles) {
    std::vector<std::string> row = {p.designation, number(mass_per_metre(p.section, format.density), digits)};
    for (const SectionFigure* f : figures) {
      const auto v = f->value(p.section);
      const bool drawn = f->name == "height" || f->name == "width";
      const double shown = v.value_or(0) / unit_for_section(*f, format.units).si;
      row.push_back(!v ? "" : drawn ? short_number(shown, 6) : number(shown, digits));
    }
    table.row(std::move(row));
  }
  std::string text = table.text("");
  text += fmt::format(
      "\n{} profile{}. Iz is bending upright: section tables call it Iy, and Wz Wel,y. corvex catalogue 'NAME' tells all of one.\n",
      profiles.size(), profiles.size() == 1 ? "" : "s");
  return text;
}

std::string material_text(const std::vector<Material>& materials) {
  std::string text;
  for (const Material& m : materials) {
    if (!text.empty()) text += "\n";
    text += fmt::format("{}, {}\n", m.name, m.source);
    text += fmt::format("  E {} GPa, G {} GPa, Poisson's ratio {}, density {} kg/m³, expansion {} µm/(m·K)\n",
                        short_number(m.E.in(GPa), 4), short_number(m.shear_modulus().in(GPa), 4), m.poisson,
                        short_number(m.density.si(), 5), short_number(m.expansion.si() * 1e6, 4));
    Table table({{"thickness up to", "mm"}, {"yield", "MPa"}, {"tensile strength", "MPa"}});
    const auto mpa = [](const std::optional<Stress>& s) { return s ? short_number(s->in(MPa), 4) : std::string("–"); };
    for (const Strength& s : m.by_thickness)
      table.row({s.up_to.in(mm) >= 1e6 ? "any" : short_number(s.up_to.in(mm), 4), mpa(s.yield), mpa(s.tensile)});
    text += table.text();
    if (!m.note.empty()) text += fmt::format("  note: {}\n", m.note);
  }
  return text;
}

std::string contents_text(const std::vector<Material>& materials) {
  Table series({{"series", "", Align::left},
                {"", "", Align::left},
                {"standard", "", Align::left},
                {"written", "", Align::left}});
  for (const ProfileSeries& s : profile_series()) series.row({s.name, s.what, s.standard, s.example});
  std::string text = "Profiles\n" + series.text();
  text +=
      "\n  Heights come first. Any size of a tube or bar will do; one that is not listed says so. Inches: 'SHS 4x4x1/4 in'.\n"
      "  One with all its figures: corvex catalogue 'IPE 200'. Those of a series: --series SHS.\n"
      "  A search: --series SHS --min-Iz '200 cm^4' --sort mass\n";
  Table table({{"material", "", Align::left},
               {"E", "GPa"},
               {"density", "kg/m³"},
               {"yield", "MPa"},
               {"tensile", "MPa"},
               {"source", "", Align::left}});
  const auto mpa = [](const std::optional<Stress>& s) { return s ? short_number(s->in(MPa), 4) : std::string("–"); };
  for (const Material& m : materials)
    table.row({m.name, short_number(m.E.in(GPa), 4), short_number(m.density.si(), 5), mpa(m.yield), mpa(m.tensile),
               m.source});
  return text + "\nMaterials (strengths of the thinnest walls; corvex catalogue S355 tells the others)\n" +
         table.text();
}

}  // namespace corvex::cli
