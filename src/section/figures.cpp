#include <algorithm>
#include <cmath>

#include "corvex/catalogue.hpp"

namespace corvex {
namespace {

using Value = std::optional<double>;

// Zero represents a property that the section does not define.
template <class Q>
Value known(Q q) {
  return q.si() != 0 ? Value(q.si()) : Value();
}

template <class I>
Value gyration(I second, Area A) {
  return second.si() > 0 && A.si() > 0 ? Value(std::sqrt(second.si() / A.si())) : Value();
}

bool has_outline(const Section& s) {
  return s.area_properties().height.si() > 0;
}

std::vector<SectionFigure> make() {
  using S = const Section&;
  constexpr Dimension length = Length::dimension(), area = Area::dimension(), modulus = SectionModulus::dimension(),
                      second = SecondMoment::dimension(), sixth = WarpingConstant::dimension();
  return {
      {"height", "h", "height", length, [](S s) { return known(s.area_properties().height); }},
      {"width", "b", "width", length, [](S s) { return known(s.area_properties().width); }},
      {"thickness", "t", "wall, thickest part", length, [](S s) { return known(s.thickness()); }},
      {"A", "A", "area", area, [](S s) { return known(s.area()); }},
      {"Iz", "Iy", "second moment of area, strong axis", second, [](S s) { return known(s.area_properties().Iz); }},
      {"Wz", "Wel,y", "elastic modulus", modulus, [](S s) { return known(s.area_properties().Wz); }},
      {"Wplz", "Wpl,y", "plastic modulus", modulus, [](S s) { return known(s.details().plastic_z); }},
      {"iz", "iy", "radius of gyration", length, [](S s) { return gyration(s.area_properties().Iz, s.area()); }},
      {"Ay", "", "shear area, along y", area, [](S s) { return known(s.properties().Ay); }},
      {"Iy", "Iz", "second moment of area, weak axis", second, [](S s) { return known(s.area_properties().Iy); }},
      {"Wy", "Wel,z", "elastic modulus", modulus, [](S s) { return known(s.area_properties().Wy); }},
      {"Wply", "Wpl,z", "plastic modulus", modulus, [](S s) { return known(s.details().plastic_y); }},
      {"iy", "iz", "radius of gyration", length, [](S s) { return gyration(s.area_properties().Iy, s.area()); }},
      {"Az", "", "shear area, along z", area, [](S s) { return known(s.properties().Az); }},
      {"Iyz", "Iyz", "product of inertia", second,
       [](S s) { return has_outline(s) ? Value(s.area_properties().Iyz.si()) : Value(); }},
      {"I1", "Iu", "principal second moment, larger", second, [](S s) { return known(s.properties().I1); }},
      {"I2", "Iv", "principal second moment, smaller", second, [](S s) { return known(s.properties().I2); }},
      {"principal", "α", "its axis, from y towards z", Angle::dimension(),
       [](S s) { return has_outline(s) ? Value(s.properties().principal.si()) : Value(); }},
      {"J", "It", "torsion constant", second, [](S s) { return known(s.properties().J); }},
      {"Wt", "Wt", "torsion modulus", modulus, [](S s) { return known(s.properties().Wt); }},
      {"Cw", "Iw", "warping constant", sixth,
       [](S s) { return has_outline(s) ? Value(s.details().Cw.si()) : Value(); }},
      {"centroid_y", "ez", "centroid above the lowest place", length,
       [](S s) { return known(s.area_properties().centroid_y); }},
      {"centroid_z", "ey", "centroid from the leftmost place", length,
       [](S s) { return known(s.area_properties().centroid_z); }},
      {"shear_centre_y", "zM", "shear centre above the centroid", length,
       [](S s) { return has_outline(s) ? Value(s.properties().shear_centre_y.si()) : Value(); }},
      {"shear_centre_z", "yM", "shear centre right of the centroid", length,
       [](S s) { return has_outline(s) ? Value(s.properties().shear_centre_z.si()) : Value(); }},
  };
}

}  // namespace

const std::vector<SectionFigure>& section_figures() {
  static const std::vector<SectionFigure> all = make();
  return all;
}

const SectionFigure* find_section_figure(std::string_view name) {
  for (const SectionFigure& f : section_figures())
    if (f.name == name) return &f;
  return nullptr;
}

bool is_quick(const SectionFigure& f) {
  static constexpr std::string_view quick[] = {"height", "width", "A", "Iz", "Wz", "iz", "Iy", "Wy", "iy"};
  return std::find(std::begin(quick), std::end(quick), f.name) != std::end(quick);
}

NamedUnit unit_for_section(const SectionFigure& f, const ModelUnits& units) {
  if (f.dimension == Angle::dimension()) return {"deg", 0.017453292519943295};
  // Dimensions of a drawing: mm with cm, otherwise the unit of the section.
  if (f.dimension == dimension::length) return units.section.text == "cm" ? NamedUnit{"mm", 1e-3} : units.section;
  return unit_for(f.dimension, units);
}

double mass_per_metre(const Section& section, Density density) {
  return section.area().si() * density.si();
}

std::vector<Profile> search(const CatalogueSearch& wanted) {
  const auto value = [&](const std::string& figure, const Section& s) -> Value {
    if (figure == "mass") return mass_per_metre(s, wanted.density);
    const SectionFigure* f = find_section_figure(figure);
    return f ? f->value(s) : Value();
  };
  const auto fits = [&](const Profile& p) {
    return std::all_of(wanted.bounds.begin(), wanted.bounds.end(), [&](const CatalogueSearch::Bound& b) {
      const Value v = value(b.figure, p.section);
      // A bound that is met to the last printed digit is met.
      constexpr double rounding = 1e-9;
      return v && (!b.min || *v >= *b.min * (1 - rounding)) && (!b.max || *v <= *b.max * (1 + rounding));
    });
  };
  std::vector<Profile> found;
  const auto take = [&](const std::string& series) {
    for (Profile& p : profiles_of(series))
      if (fits(p)) found.push_back(std::move(p));
  };
  for (const std::string& series : wanted.series) take(series);
  // SHS and RHS are aliases of the cold formed ones, which are listed already.
  if (wanted.series.empty())
    for (const ProfileSeries& s : profile_series())
      if (s.name != "CFSHS" && s.name != "CFRHS") take(s.name);
  if (!wanted.sort.empty())
    std::stable_sort(found.begin(), found.end(), [&](const Profile& a, const Profile& b) {
      return value(wanted.sort, a.section).value_or(1e300) < value(wanted.sort, b.section).value_or(1e300);
    });
  return found;
}

}  // namespace corvex
