#include "catalogue.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cmath>
#include <filesystem>
#include <memory>

#include "command.hpp"
#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "corvex/file.hpp"
#include "corvex/formula.hpp"

namespace corvex::cli {
namespace {

bool is_model(const std::string& word) {
  const std::string extension = std::filesystem::path(word).extension().string();
  return word == "-" || extension == ".yaml" || extension == ".yml" || extension == ".json";
}

// Error in a word of the call.
struct Wrong {
  std::string why;
};

Dimension dimension_of(const std::string& figure) {
  if (figure == "mass") return Dimension::of(-1, 1, 0, 0, 0);
  return find_section_figure(figure)->dimension;
}

double bound(const std::string& option, const std::string& figure, const std::string& text) {
  const auto value = evaluate(text, Scope());
  if (!value) throw Wrong{fmt::format("--{}: '{}': {}", option, text, value.error().text)};
  const Dimension wanted = dimension_of(figure);
  if (!compatible(value->quantity.dimension, wanted))
    throw Wrong{fmt::format("--{}: {} was expected, for example '{}', but '{}' is {}", option, name(wanted),
                            figure == "mass"              ? "12 kg/m"
                            : wanted == dimension::length ? "80 mm"
                            : wanted == Area::dimension() ? "20 cm^2"
                            : figure[0] == 'W'            ? "50 cm^3"
                                                          : "200 cm^4",
                            text, name(value->quantity.dimension))};
  return value->quantity.si;
}

Density density_of(const std::string& material) {
  if (material.empty()) return steel_density;
  const auto found = find_material(material);
  if (!found)
    throw Wrong{fmt::format("there is no material '{}'{}", material, did_you_mean(material, material_names()))};
  return found->density.value_or(steel_density);
}

CatalogueSearch search_for(const CatalogueOptions& o) {
  CatalogueSearch s;
  std::vector<std::string> known;
  for (const ProfileSeries& p : profile_series()) known.push_back(p.name);
  for (const std::string& series : o.series) {
    if (std::find(known.begin(), known.end(), series) == known.end()) {
      std::string hint = did_you_mean(series, known);
      if (hint.empty()) hint = fmt::format("; there are {}", fmt::join(known, ", "));
      throw Wrong{fmt::format("there is no series of profiles '{}'{}", series, hint)};
    }
    s.series.push_back(series);
  }
  for (const std::string& figure : searched_figures()) {
    CatalogueSearch::Bound b{figure, {}, {}};
    if (const auto it = o.bounds.find("min-" + figure); it != o.bounds.end())
      b.min = bound(it->first, figure, it->second);
    if (const auto it = o.bounds.find("max-" + figure); it != o.bounds.end())
      b.max = bound(it->first, figure, it->second);
    if (b.min || b.max) s.bounds.push_back(b);
  }
  if (!o.sort.empty()) {
    s.sort = o.sort;
  } else if (!s.bounds.empty()) {
    s.sort = "mass";
  }
  s.density = density_of(o.material);
  return s;
}

// The sections of a model, or those of them that are named.
std::vector<Profile> own_sections(const Model& model, const std::vector<std::string>& names) {
  std::vector<Profile> all;
  std::vector<std::string> known;
  for (const NamedSection& n : model.structure.sections()) {
    known.push_back(n.name);
    Profile p;
    p.designation = n.name;
    p.standard = n.designation.empty() ? name(n.section.shape()) : n.designation;
    p.section = n.section;
    p.note = n.note;
    if (names.empty() || std::find(names.begin(), names.end(), n.name) != names.end()) all.push_back(p);
  }
  for (const std::string& name : names)
    if (std::find(known.begin(), known.end(), name) == known.end())
      throw Wrong{fmt::format("the model has no section '{}'{}", name, did_you_mean(name, known))};
  return all;
}

int print_profiles(const CatalogueOptions& o, const std::vector<Profile>& profiles, CatalogueFormat format, Form form) {
  if (!o.output.units.empty() && form == Form::json) throw Wrong{"JSON is in SI units: --units is for tables"};
  if (const std::string why = choose_units(o.output.units, format.units); !why.empty()) throw Wrong{why};
  if (form == Form::json) return put_text(catalogue_json(profiles, format), o.output);
  if (form == Form::csv) return put_text(catalogue_csv(profiles, format, o.output.digits), o.output);
  const int digits = style_of(o.output).digits;
  Page page;
  if (!format.whole) return put_page(profile_list(profiles, format), "Profiles", form, o.output);
  for (const Profile& p : profiles) add_profile(page, p, format, digits);
  return put_page(page, "Profiles", form, o.output);
}

int print_materials(const CatalogueOptions& o, const std::vector<Material>& materials, Form form) {
  if (form == Form::json) return put_text(materials_json(materials), o.output);
  if (form == Form::csv) return put_text(materials_csv(materials), o.output);
  return put_page(materials_page(materials), "Materials", form, o.output);
}

// Sizes in inches are read in inches.
bool in_inches(const std::vector<Profile>& profiles) {
  return !profiles.empty() && std::all_of(profiles.begin(), profiles.end(), [](const Profile& p) {
    return p.designation.find(" in") != std::string::npos && p.series != "PIPE";
  });
}

int run(CatalogueOptions o) {
  const auto form = form_of(o.output);
  if (!form) throw Wrong{form.error()};
  std::erase_if(o.bounds, [](const auto& b) { return b.second.empty(); });
  CatalogueFormat format{.density = density_of(o.material)};
  if (!o.what.empty() && is_model(o.what.front())) {
    const auto overrides = overrides_of(o.model);
    if (!overrides) throw Wrong{overrides.error()};
    const auto model = read_model(o.what.front(), *overrides);
    if (!model) return refuse(model.error());
    o.output.read = model->table_files;
    o.output.read.push_back(o.what.front());
    if (const std::string why = overwrites(o.output.output, o.output.read); !why.empty()) throw Wrong{why};
    format.units = model->units;
    return print_profiles(o, own_sections(*model, {o.what.begin() + 1, o.what.end()}), format, *form);
  }
  if (!o.what.empty()) {
    if (!o.series.empty() || !o.bounds.empty() || !o.sort.empty())
      throw Wrong{"either designations or a search (--series, --min-…, --max-…, --sort), not both"};
    std::vector<Profile> profiles;
    std::vector<Material> materials;
    for (const std::string& word : o.what) {
      if (const auto m = find_material(word)) {
        materials.push_back(*m);
        continue;
      }
      auto p = profile(word);
      if (!p) throw Wrong{p.error() + did_you_mean(word, material_names())};
      profiles.push_back(std::move(p.value()));
    }
    if (!materials.empty() && !profiles.empty())
      throw Wrong{"profiles and materials are printed apart: ask for one of them"};
    if (!materials.empty()) return print_materials(o, materials, *form);
    if (in_inches(profiles)) format.units.section = {"in", 0.0254};
    return print_profiles(o, profiles, format, *form);
  }
  const bool searching = !o.series.empty() || !o.bounds.empty() || !o.sort.empty();
  if (!searching) {
    std::vector<Material> materials;
    for (const std::string& name : material_names()) materials.push_back(*find_material(name));
    if (*form == Form::json) return put_text(contents_json(materials), o.output);
    if (*form == Form::csv) return put_text(materials_csv(materials), o.output);
    Page page = contents_page(materials);
    page.emplace_back(
        Words{{{"", "All properties of a profile: corvex catalogue 'IPE 200'. All profiles of a series: --series SHS."},
               {"", "All strengths of a material: corvex catalogue S355."},
               {"", "A search: --series SHS --min-Iz '200 cm^4' --sort mass"}}});
    return put_page(page, "Profiles and materials", *form, o.output);
  }
  const std::vector<Profile> found = search(search_for(o));
  format.whole = false;
  if (found.empty() && (*form == Form::table || *form == Form::markdown)) {
    const int status = put_text("No listed profile lies within these bounds.\n", o.output);
    return status == 0 ? 1 : status;
  }
  return print_profiles(o, found, format, *form);
}

}  // namespace

const std::vector<std::string>& searched_figures() {
  static const std::vector<std::string> all = {"height", "width", "mass", "A", "Iz", "Wz", "Iy", "Wy", "J"};
  return all;
}

int catalogue(const CatalogueOptions& options) {
  try {
    return run(options);
  } catch (const Wrong& wrong) {
    return refuse(wrong.why);
  }
}

namespace {

std::string example(const std::string& property) {
  if (property == "height" || property == "width") return "80 mm";
  if (property == "mass") return "12 kg/m";
  if (property == "A") return "20 cm^2";
  return property[0] == 'W' ? "50 cm^3" : "200 cm^4";
}

Run add_catalogue_options(CLI::App& app) {
  const auto options = std::make_shared<CatalogueOptions>();
  CatalogueOptions& o = *options;
  app.add_option(
         "WHAT", o.what,
         "Designations (\"IPE 200\") or materials (S355), printed with all properties; or a model file, followed by names "
         "of its sections")
      ->type_name("")
      ->expected(0, 1000);
  app.add_option("--series", o.series, "List only these series: SHS,IPE")
      ->type_name("SERIES")
      ->delimiter(',')
      ->allow_extra_args(false);
  for (const std::string& figure : searched_figures()) {
    app.add_option("--min-" + figure, o.bounds["min-" + figure],
                   "List profiles with at least this " + figure + ", for example \"" + example(figure) + "\"")
        ->type_name("Q");
    app.add_option("--max-" + figure, o.bounds["max-" + figure], "List profiles with at most this " + figure)
        ->type_name("Q");
  }
  app.add_option("--sort", o.sort, "Sort by this property, the least first")
      ->check(one_of(searched_figures()))
      ->type_name("PROPERTY");
  app.add_option("--material", o.material,
                 "Use the density of this material for the mass per metre; steel if not given")
      ->type_name("MATERIAL");
  add_model_options(app, o.model, false);
  add_output_options(app, o.output, false);
  return run_with(options, catalogue);
}

}  // namespace

extern const Command catalogue_command{
    .name = "catalogue",
    .group = "Catalogue",
    .description = "Print section properties and materials, or search for profiles",
    .details =
        "Without arguments all series and materials are listed. With designations (\"IPE 200\", \"SHS 60x60x4\") or materials (S355) each is printed with all properties. With a model file its sections are printed, or those that are named after it. With bounds all listed profiles within them are printed, the lightest first.",
    .add_options = add_catalogue_options};

}  // namespace corvex::cli
