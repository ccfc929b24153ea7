// Corvex: profiles of open standards, by their designation.
//
// Figures are computed from the standards' nominal dimensions and radii, never typed in. Heights come first; any size
// of a tube or bar is valid, and one outside of its standard's list says so.
//
//     const auto beam = corvex::profile("IPE 200");
//     fmt::print("{:.0f} cm4\n", beam->section.area_properties().Iz.in(corvex::units::cm4));   // 1943 cm4
//     const auto odd = corvex::profile("SHS 61x61x4");
//     fmt::print("{}\n", odd->listed ? "listed" : "not listed");   // not listed
//
// Sources: IPE, HEA, HEB, HEM EN 10365; UPE, UPN DIN 1026-2 and -1 as in EN 10365; angles EN 10056-1; hollow sections
// EN 10210-2 (hot finished) and EN 10219-2 (cold formed), with their corner radii and their formula for the torsion
// constant (annexes A and B); pipes ASME B36.10M and EN 10255; inch tubes of ASTM A500 with outside corners of twice
// the wall.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/model_units.hpp"
#include "corvex/section.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// Approximate values by the formulas of a standard; the exact figures are those of the section.
struct StandardTorsion {
  SecondMoment J;
  SectionModulus Wt;
  std::string formula;  // "EN 10219-2, annex B"
};

struct Profile {
  std::string designation;  // as Corvex writes it: "SHS 60x60x4"
  std::string series;       // "SHS"
  std::string standard;     // "EN 10219-2, cold formed"
  // Of hollow sections with the standard's torsion constant.
  Section section;
  // Whether it is in the standard's list; if not, `note` says so, and what else must be known.
  bool listed = true;
  std::string note;
  std::optional<StandardTorsion> torsion;
};

// "IPE 200", "SHS 60x60x4", "RHS 100x50x5", "CHS 48.3x3.2", "L 100x50x8", "FLAT 80x10", "SHS 4x4x1/4 in", "PIPE DN50
// SCH40". An error says what was expected and names the nearest right word.
Expected<Profile, std::string> profile(std::string_view designation);

struct ProfileSeries {
  std::string name;      // "SHS"
  std::string what;      // "square hollow sections, cold formed"
  std::string standard;  // "EN 10219-2"
  std::string example;   // "SHS 60x60x4"
};
const std::vector<ProfileSeries>& profile_series();
// All listed sizes of a series, in the standard's order; none of a series that does not exist.
std::vector<Profile> profiles_of(std::string_view series);

// One figure of a section, for tables and searches, with both naming habits of the axes: here z lies flat and Iz is the
// strong axis of an upright I; European section tables call that axis y.
struct SectionFigure {
  std::string name;        // "Iz"
  std::string table_name;  // "Iy"
  std::string what;        // "second moment of area, strong axis"
  Dimension dimension;
  // In SI units; empty where the section does not define it.
  std::optional<double> (*value)(const Section&);
};
const std::vector<SectionFigure>& section_figures();
// The one of that name of ours; null if there is none.
const SectionFigure* find_section_figure(std::string_view name);
// Whether a figure follows from the area alone.
bool is_quick(const SectionFigure& figure);
// The unit that a section table has for a figure: cm², cm⁴, and mm for lengths.
NamedUnit unit_for_section(const SectionFigure& figure, const ModelUnits& units);

// Mass per length.
inline constexpr Density steel_density = Density::si(7850);
double mass_per_metre(const Section& section, Density density = steel_density);

// How profiles are written. Whole: every figure, also those that take a few milliseconds a section; else what a section
// table has.
struct CatalogueFormat {
  bool whole = true;
  Density density = steel_density;
  ModelUnits units{};
};

// "mass" means the mass per metre, in kg/m.
struct CatalogueSearch {
  struct Bound {
    std::string figure;
    std::optional<double> min{}, max{};  // SI units
  };
  std::vector<std::string> series{};  // every one, if empty
  std::vector<Bound> bounds{};
  std::string sort{};  // the figure that comes first is the least; the standards' order if empty
  Density density = steel_density;
};
// Listed profiles that lie within all bounds.
std::vector<Profile> search(const CatalogueSearch& wanted);

}  // namespace corvex

#pragma GCC visibility pop
