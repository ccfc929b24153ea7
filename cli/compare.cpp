#include "compare.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <filesystem>
#include <memory>

#include "command.hpp"
#include "corvex/compare.hpp"
#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "progress.hpp"

namespace corvex::cli {
namespace {

Candidate candidate(const std::string& name, const Expected<Model, Problems>& model) {
  if (!model) return {.name = name, .structure = Structure::plane(name), .refused = model.error()};
  return {.name = name,
          .structure = model->structure,
          .limits = model->limits,
          .hand = model->hand,
          .acceptances = model->acceptances};
}

// Settings common to all models of a comparison.
struct Gathered {
  std::vector<Candidate> candidates;
  std::vector<ShownFigure> show;
  ModelUnits units;
  std::string title;
};

bool has_case(const Structure& s, const std::string& name) {
  return std::any_of(s.load_cases().begin(), s.load_cases().end(), [&](const auto& c) { return c.name() == name; }) ||
         std::any_of(s.combinations().begin(), s.combinations().end(), [&](const auto& c) { return c.name == name; });
}

// In addition to the requested figures, the modes that the first model requests. A case whose axial forces they have is
// left out where not all models have it.
void add_modes(Gathered& g, ModesOptions modes) {
  if (std::any_of(g.candidates.begin(), g.candidates.end(), [&](const Candidate& c) {
        return c.refused.empty() && !modes.under.empty() && !has_case(c.structure, modes.under);
      }))
    modes.under.clear();
  for (ShownFigure& f : figures_of(modes))
    if (std::none_of(g.show.begin(), g.show.end(), [&](const ShownFigure& s) { return words(s) == words(f); }))
      g.show.push_back(std::move(f));
}

// On a terminal that shows the comparison too, the reasons are there.
void tell_refusals(const std::vector<Compared>& all, const std::vector<Candidate>& candidates, bool shown_beside) {
  for (std::size_t i = 0; i < all.size(); ++i) {
    if (all[i].refused.empty()) continue;
    if (shown_beside) {
      tell_failure(fmt::format("'{}' cannot be solved; the comparison gives the reason", all[i].name));
      continue;
    }
    for (const Problem& p : all[i].refused) {
      Problem named = p;
      if (candidates[i].refused.empty()) named.text = all[i].name + ": " + named.text;
      tell(named);
    }
  }
}

// The names of model files: the end of each path that distinguishes it from the others, without its extension.
std::vector<std::string> short_names(const std::vector<std::string>& paths) {
  std::vector<std::filesystem::path> whole;
  for (const std::string& path : paths)
    whole.push_back(std::filesystem::path(path).lexically_normal().replace_extension());
  const auto end_of = [](const std::filesystem::path& path, std::size_t parts) {
    std::vector<std::filesystem::path> all(path.begin(), path.end());
    std::filesystem::path end;
    for (std::size_t i = all.size() - std::min(parts, all.size()); i < all.size(); ++i) end /= all[i];
    return end;
  };
  std::vector<std::string> names;
  for (const std::filesystem::path& path : whole) {
    const auto count = static_cast<std::size_t>(std::distance(path.begin(), path.end()));
    std::size_t parts = 1;
    while (parts < count && std::count_if(whole.begin(), whole.end(), [&](const auto& other) {
                              return end_of(other, parts) == end_of(path, parts);
                            }) > 1)
      ++parts;
    names.push_back(made_printable(end_of(path, parts).string()));
  }
  return names;
}

// Adds a model and its variants; the problems where it cannot be read.
Problems gather(const std::string& path, const std::string& named, const Overrides& overrides, CompareOptions& o,
                Gathered& g, ModesOptions& modes) {
  const auto document = read_document(path);
  if (!document) return document.error();
  const auto as_it_stands = build(*document, overrides);
  if (!as_it_stands) return as_it_stands.error();
  for (const std::string& table : as_it_stands->table_files) o.output.read.push_back(table);
  if (g.candidates.empty()) {
    g.units = as_it_stands->units;
    g.title = as_it_stands->structure.title();
    g.show = as_it_stands->show;
    modes = as_it_stands->modes;
  }
  const bool one = o.models.size() == 1;
  const std::string name = one ? "original" : named;
  g.candidates.push_back(candidate(name, as_it_stands));
  const std::vector<std::string> known = document->variants();
  for (const std::string& wanted : o.variants)
    if (std::find(known.begin(), known.end(), wanted) == known.end()) {
      Overrides unknown = overrides;
      unknown.variant = wanted;
      return build(*document, unknown).error();
    }
  for (const std::string& variant : o.variants.empty() && one ? known : o.variants) {
    Overrides with = overrides;
    with.variant = variant;
    g.candidates.push_back(candidate(one ? variant : name + ", " + variant, build(*document, with)));
  }
  return {};
}

}  // namespace

int compare(CompareOptions o) {
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  auto overrides = overrides_of(o.model);
  if (!overrides) return refuse(overrides.error());
  overrides.value().show = o.show;
  o.output.read = o.models;
  if (const std::string why = overwrites(o.output.output, o.output.read); !why.empty()) return refuse(why);
  Progress progress;
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  Gathered g;
  ModesOptions modes;
  const std::vector<std::string> names = short_names(o.models);
  for (std::size_t i = 0; i < o.models.size(); ++i) {
    progress.doing("reading " + o.models[i]);
    if (const Problems problems = gather(o.models[i], names[i], *overrides, o, g, modes); !problems.empty())
      return refuse(problems);
  }
  if (g.candidates.size() < 2)
    return refuse(std::string("there is nothing to compare with: the model has no variants; name another model"));
  if (const std::string why = choose_units(o.output.units, g.units); !why.empty()) return refuse(why);
  add_modes(g, modes);
  progress.doing(fmt::format("solving {} models", g.candidates.size()));
  const std::vector<Compared> all = corvex::compare(g.candidates, g.show);
  progress.done();
  tell_refusals(all, g.candidates, o.output.output.empty() && isatty(STDOUT_FILENO) && isatty(STDERR_FILENO));
  const int status = *form == Form::json
                         ? put_text(comparison_json(all, g.show), o.output)
                         : put_page(comparison_page(g.title, g.units, all, g.show, style_of(o.output).digits), g.title,
                                    *form, o.output);
  if (status != 0) return status;
  const bool well = std::all_of(all.begin(), all.end(), [](const Compared& c) {
    return c.refused.empty() && c.limits_met().value_or(true) && c.hand_agrees().value_or(true);
  });
  return well ? 0 : limit_not_met;
}

namespace {

Run add_compare_options(CLI::App& app) {
  const auto options = std::make_shared<CompareOptions>();
  CompareOptions& o = *options;
  app.add_option("MODEL", o.models, "Model files; of a single one all variants are compared")
      ->required()
      ->check(some_name());
  app.add_option("--variants", o.variants, "Compare these variants only")
      ->type_name("VARIANT")
      ->delimiter(',')
      ->allow_extra_args(false);
  app.add_option("--show", o.show, "Show a further result, written as a hand value: 'moment: rail, take: max'")
      ->type_name("FIGURE")
      ->allow_extra_args(false);
  add_change_options(app, o.model);
  add_output_options(app, o.output);
  return run_with(options, compare);
}

}  // namespace

extern const Command compare_command{
    .name = "compare",
    .group = "Vary",
    .description = "Compare variants, or several models, side by side",
    .details =
        "Mass, largest displacement, worst stress, safety factor and the verdicts of limits and hand values are printed with their change from the first, and where each is worst. For a variant that cannot be solved the reason is printed.",
    .add_options = add_compare_options};

}  // namespace corvex::cli
