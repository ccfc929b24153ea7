#include "corvex/material.hpp"

#include <algorithm>
#include <iterator>
#include <stdexcept>

#include "corvex/formula.hpp"

namespace corvex {
namespace {

// Strengths in MPa up to a thickness in mm; zero where there is none.
struct Step {
  double up_to, yield, tensile;
};
struct Grade {
  const char* name;
  double E, poisson;  // GPa
  double density, expansion;
  std::vector<Step> steps;
  const char* source;
  const char* note = "";
  double weld_yield = 0;
};

constexpr double any = 1e6;  // mm

// Long: it is a table.
const std::vector<Grade>& grades() {
  constexpr double steel_E = 210, steel_nu = 0.3, steel_rho = 7850, steel_alpha = 12e-6;
  constexpr double alu_E = 70, alu_nu = 0.3, alu_rho = 2700, alu_alpha = 23e-6;
  static const std::vector<Grade> all = {
      {"S235",
       steel_E,
       steel_nu,
       steel_rho,
       steel_alpha,
       {{16, 235, 360}, {40, 225, 360}, {100, 215, 360}, {150, 195, 350}, {200, 185, 340}, {250, 175, 340}},
       "EN 10025-2, table 7 (JR, J0, J2)"},
      {"S275",
       steel_E,
       steel_nu,
       steel_rho,
       steel_alpha,
       {{16, 275, 410},
        {40, 265, 410},
        {63, 255, 410},
        {80, 245, 410},
        {100, 235, 410},
        {150, 225, 400},
        {200, 215, 380},
        {250, 205, 380}},
       "EN 10025-2, table 7 (JR, J0, J2)"},
      {"S355",
       steel_E,
       steel_nu,
       steel_rho,
       steel_alpha,
       {{16, 355, 470},
        {40, 345, 470},
        {63, 335, 470},
        {80, 325, 470},
        {100, 315, 470},
        {150, 295, 450},
        {200, 285, 450},
        {250, 275, 450}},
       "EN 10025-2, table 7 (JR, J0, J2, K2)"},
      {"S420",
       steel_E,
       steel_nu,
       steel_rho,
       steel_alpha,
       {{16, 420, 520},
        {40, 400, 520},
        {63, 390, 520},
        {80, 370, 520},
        {100, 360, 520},
        {150, 340, 500},
        {200, 330, 500},
        {250, 320, 500}},
       "EN 10025-3 (N, NL)"},
      {"S450",
       steel_E,
       steel_nu,
       steel_rho,
       steel_alpha,
       {{16, 450, 550}, {40, 430, 550}, {63, 410, 550}, {80, 390, 550}, {100, 380, 550}, {150, 380, 530}},
       "EN 10025-2, table 7 (J0)"},
      {"S460",
       steel_E,
       steel_nu,
       steel_rho,
       steel_alpha,
       {{16, 460, 540},
        {40, 440, 540},
        {63, 430, 540},
        {80, 410, 540},
        {100, 400, 540},
        {150, 380, 530},
        {200, 370, 530}},
       "EN 10025-3 (N, NL)"},
      {"1.4301",
       200,
       0.3,
       7900,
       16e-6,
       {{75, 210, 520}},
       "EN 10088-4, hot rolled plate",
       "bars (EN 10088-3) yield at 190 MPa, cold rolled strip up to 8 mm at 230 MPa"},
      {"1.4404",
       200,
       0.3,
       8000,
       16e-6,
       {{75, 220, 520}},
       "EN 10088-4, hot rolled plate",
       "bars (EN 10088-3) yield at 200 MPa, cold rolled strip up to 8 mm at 240 MPa"},
      {"1.4571",
       200,
       0.3,
       8000,
       16.5e-6,
       {{75, 220, 520}},
       "EN 10088-4, hot rolled plate",
       "bars (EN 10088-3) yield at 200 MPa, cold rolled strip up to 8 mm at 240 MPa"},
      {"6060-T66",
       alu_E,
       alu_nu,
       alu_rho,
       alu_alpha,
       {{3, 160, 215}, {25, 150, 195}},
       "EN 1999-1-1, table 3.2b, extruded",
       "in the heat-affected zone of welds 65 MPa yield, 110 MPa tensile strength",
       65},
      {"6061-T6",
       alu_E,
       alu_nu,
       alu_rho,
       alu_alpha,
       {{20, 240, 260}},
       "EN 1999-1-1, table 3.2b, extruded",
       "in the heat-affected zone of welds 115 MPa yield, 175 MPa tensile strength",
       115},
      {"6082-T6",
       alu_E,
       alu_nu,
       alu_rho,
       alu_alpha,
       {{5, 250, 290}, {15, 260, 310}},
       "EN 1999-1-1, table 3.2b, extruded",
       "in the heat-affected zone of welds 125 MPa yield, 185 MPa tensile strength",
       125},
      {"5083",
       alu_E,
       alu_nu,
       alu_rho,
       alu_alpha,
       {{any, 110, 270}},
       "EN 1999-1-1, table 3.2b, extruded, temper O or H111",
       "keeps its strength in the heat-affected zone. Plate up to 50 mm (table 3.2a) has 125 MPa: give it as 'yield'"},
      {"A36", 200, 0.3, 7850, 11.7e-6, {{203.2, 250, 400}}, "ASTM A36: 36 ksi, 58 ksi"},
      {"A500 B",
       200,
       0.3,
       7850,
       11.7e-6,
       {{any, 315, 400}},
       "ASTM A500, grade B, shaped: 46 ksi, 58 ksi",
       "round tubes to earlier editions yield at 42 ksi (290 MPa)"},
      {"A500 C",
       200,
       0.3,
       7850,
       11.7e-6,
       {{any, 345, 425}},
       "ASTM A500, grade C, shaped: 50 ksi, 62 ksi",
       "round tubes to earlier editions yield at 46 ksi (315 MPa)"},
      {"A992", 200, 0.3, 7850, 11.7e-6, {{any, 345, 450}}, "ASTM A992: 50 ksi, 65 ksi"},
      {"EN-GJL-250",
       110,
       0.26,
       7200,
       10e-6,
       {{any, 0, 250}},
       "EN 1561, grey cast iron, separately cast 30 mm bar",
       "brittle: it does not yield and carries little tension; a safety factor is shown only against an 'allowable' stress"},
      {"EN-GJS-400-15",
       169,
       0.275,
       7100,
       12.5e-6,
       {{30, 250, 400}, {60, 250, 390}, {200, 240, 370}},
       "EN 1563, spheroidal graphite cast iron"},
      {"C24",
       11,
       0.3,
       420,
       5e-6,
       {{any, 0, 14.5}},
       "EN 338, softwood, mean values along the grain; G = 0.69 GPa",
       "not isotropic: used along the grain only. Characteristic strengths: bending 24, tension 14.5, compression 21, shear "
       "4 MPa; a safety factor is shown only against an 'allowable' stress"},
  };
  return all;
}

std::optional<Stress> stress(double mpa) {
  return mpa > 0 ? std::optional(mpa * units::MPa) : std::nullopt;
}

Material made(const Grade& g) {
  Material m;
  m.name = g.name;
  m.E = g.E * units::GPa;
  m.poisson = g.poisson;
  m.density = Density::si(g.density);
  m.expansion = Expansion::si(g.expansion);
  for (const Step& s : g.steps) m.by_thickness.push_back({s.up_to * units::mm, stress(s.yield), stress(s.tensile)});
  m.yield = m.by_thickness.front().yield;
  m.tensile = m.by_thickness.front().tensile;
  m.weld_yield = stress(g.weld_yield);
  m.source = g.source;
  m.note = g.note;
  if (m.name == "C24") m.G = 0.69 * units::GPa;
  return m;
}

}  // namespace

std::optional<Stress> Material::yield_at(Length thickness) const {
  if (by_thickness.empty() || yield != by_thickness.front().yield) return yield;
  // A hair thicker by rounding is not thicker.
  for (const Strength& s : by_thickness)
    if (thickness <= s.up_to * (1 + 1e-9)) return s.yield;
  return std::nullopt;
}

std::optional<Material> find_material(std::string_view name) {
  const auto& all = grades();
  const auto found = std::find_if(all.begin(), all.end(), [&](const Grade& g) { return g.name == name; });
  if (found == all.end()) return std::nullopt;
  return made(*found);
}

std::vector<std::string> material_names() {
  std::vector<std::string> names;
  for (const Grade& g : grades()) names.emplace_back(g.name);
  return names;
}

Material material(std::string_view name) {
  if (auto found = find_material(name)) return *found;
  throw std::invalid_argument("corvex: no material '" + std::string(name) + "'" + did_you_mean(name, material_names()));
}

}  // namespace corvex
