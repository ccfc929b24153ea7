// Profiles as JSON, in SI units at full precision, and as CSV, in the units of section tables.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/export.hpp"
#include "corvex/number.hpp"
#include "file/json.hpp"

namespace corvex {
namespace {

using file::Json;
using file::json_text;

Json number(std::optional<double> v) {
  return v && std::isfinite(*v) ? Json(*v + 0.0) : Json(nullptr);
}

Json head() {
  return {{"format", "corvex-catalogue"}, {"version", 1}};
}

Json section_json(const Profile& p, Density density, bool whole) {
  Json j = {{"designation", p.designation}};
  if (!p.series.empty()) j["series"] = p.series;
  j["standard"] = p.standard;
  j["listed"] = p.listed;
  if (!p.note.empty()) j["note"] = p.note;
  j["shape"] = name(p.section.shape());
  j["mass_per_metre"] = number(mass_per_metre(p.section, density));
  for (const SectionFigure& f : section_figures())
    if (whole || is_quick(f)) j[f.name] = number(f.value(p.section));
  if (p.torsion)
    j["standard_torsion"] = {{"J", p.torsion->J.si()}, {"Wt", p.torsion->Wt.si()}, {"formula", p.torsion->formula}};
  return j;
}

std::string cell(const std::string& text) {
  if (text.find_first_of(",\"\n") == std::string::npos) return text;
  std::string quoted = "\"";
  for (const char c : text) quoted += c == '"' ? std::string("\"\"") : std::string(1, c);
  return quoted + "\"";
}

}  // namespace

std::string catalogue_json(const std::vector<Profile>& profiles, const CatalogueFormat& format) {
  Json j = head();
  j["density"] = format.density.si();
  Json& all = j["profiles"] = Json::array();
  for (const Profile& p : profiles) all.push_back(section_json(p, format.density, format.whole));
  return json_text(j);
}

std::string catalogue_csv(const std::vector<Profile>& profiles, const CatalogueFormat& format, int digits) {
  const int n = digits > 0 ? digits : 8;
  // With inches, mass is given per foot.
  constexpr double lb_per_ft = 0.45359237 / 0.3048;
  const bool inches = format.units.section.text == "in";
  std::string text =
      inches ? "designation,standard,mass per foot [lb/ft]" : "designation,standard,mass per metre [kg/m]";
  for (const SectionFigure& f : section_figures())
    if (format.whole || is_quick(f)) text += fmt::format(",{} [{}]", f.name, unit_for_section(f, format.units).text);
  text += ",note\n";
  for (const Profile& p : profiles) {
    text += fmt::format("{},{},{}", cell(p.designation), cell(p.standard),
                        short_number(mass_per_metre(p.section, format.density) / (inches ? lb_per_ft : 1), n));
    for (const SectionFigure& f : section_figures()) {
      if (!format.whole && !is_quick(f)) continue;
      const auto v = f.value(p.section);
      text += v ? "," + short_number(*v / unit_for_section(f, format.units).si, n) : ",";
    }
    text += "," + cell(p.note) + "\n";
  }
  return text;
}

namespace {

Json material_json(const Material& m) {
  const auto stress = [](const std::optional<Stress>& s) { return s ? Json(s->si()) : Json(nullptr); };
  Json j = {{"name", m.name},
            {"source", m.source},
            {"E", m.E.si()},
            {"G", m.shear_modulus().si()},
            {"poisson", m.poisson},
            {"density", m.density ? Json(m.density->si()) : Json(nullptr)},
            {"expansion", m.expansion.si()},
            {"yield", stress(m.yield)},
            {"tensile", stress(m.tensile)}};
  Json& steps = j["by_thickness"] = Json::array();
  for (const Strength& s : m.by_thickness)
    steps.push_back({{"up_to", s.up_to.si() < 1000 ? Json(s.up_to.si()) : Json(nullptr)},
                     {"yield", stress(s.yield)},
                     {"tensile", stress(s.tensile)}});
  if (m.weld_yield) j["weld_yield"] = m.weld_yield->si();
  if (!m.note.empty()) j["note"] = m.note;
  return j;
}

}  // namespace

std::string materials_json(const std::vector<Material>& materials) {
  Json j = head();
  Json& all = j["materials"] = Json::array();
  for (const Material& m : materials) all.push_back(material_json(m));
  return json_text(j);
}

std::string contents_json(const std::vector<Material>& materials) {
  Json j = head();
  Json& series = j["series"] = Json::array();
  for (const ProfileSeries& s : profile_series())
    series.push_back({{"name", s.name}, {"what", s.what}, {"standard", s.standard}, {"example", s.example}});
  Json& all = j["materials"] = Json::array();
  for (const Material& m : materials) all.push_back(material_json(m));
  return json_text(j);
}

std::string materials_csv(const std::vector<Material>& materials) {
  std::string text =
      "material,source,E [MPa],poisson,density [kg/m^3],expansion [1/K],thickness up to [mm],yield [MPa],tensile [MPa],note\n";
  const auto mpa = [](const std::optional<Stress>& s) {
    return s ? fmt::format("{}", short_number(s->in(units::MPa), 6)) : std::string();
  };
  for (const Material& m : materials)
    for (const Strength& s : m.by_thickness)
      text += fmt::format("{},{},{},{},{},{},{},{},{},{}\n", cell(m.name), cell(m.source),
                          short_number(m.E.in(units::MPa), 6), m.poisson,
                          m.density ? fmt::format("{}", short_number(m.density->si(), 6)) : "",
                          short_number(m.expansion.si(), 6),
                          s.up_to.si() < 1000 ? fmt::format("{}", short_number(s.up_to.in(units::mm), 6)) : "",
                          mpa(s.yield), mpa(s.tensile), cell(m.note));
  return text;
}

}  // namespace corvex
