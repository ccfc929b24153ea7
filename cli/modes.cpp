#include "modes.hpp"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <memory>

#include "command.hpp"
#include "corvex/export.hpp"
#include "corvex/modes.hpp"
#include "findings.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

// The modes that the model requests; otherwise six frequencies, and three critical load factors of each assessed case.
ModesOptions wanted(const Model& model, const ModesCommand& o) {
  ModesOptions options = model.modes;
  const Structure& s = model.structure;
  const bool asked = options.vibration > 0 || !options.buckling.empty();
  if (!asked) {
    const bool heavy = std::all_of(s.members().begin(), s.members().end(),
                                   [&](const Member& m) { return s.material_of(m).density.has_value(); });
    options.vibration = heavy ? 6 : 0;
    constexpr std::size_t usual = 3;
    for (const Combination& c : s.combinations()) options.buckling.emplace_back(c.name, usual);
    if (s.combinations().empty())
      for (const LoadCase& c : s.load_cases()) options.buckling.emplace_back(c.name(), usual);
  }
  if (o.vibration >= 0) options.vibration = static_cast<std::size_t>(o.vibration);
  if (!o.under.empty()) options.under = o.under;
  if (!o.buckling.empty()) {
    std::vector<std::pair<std::string, std::size_t>> chosen;
    for (const std::string& name : o.buckling) {
      const auto known = std::find_if(options.buckling.begin(), options.buckling.end(),
                                      [&](const auto& b) { return b.first == name; });
      chosen.emplace_back(name, known == options.buckling.end() ? 3 : known->second);
    }
    options.buckling = std::move(chosen);
  }
  return options;
}

}  // namespace

int modes(ModesCommand o) {
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  Progress progress;
  const auto model = read(o.model, o.output, progress);
  if (!model) return refused;
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  progress.doing("computing modes");
  const auto found = corvex::modes(model->structure, wanted(*model, o));
  if (!found) return refuse(model->located(found.error()));
  progress.done();
  for (const Problem& p : model->located(found->notes)) tell(p);
  if (*form == Form::json) return put_text(modes_json(model->structure, *found), o.output);
  return put_page(modes_page(model->structure, *found, model->units), model->structure.title(), *form, o.output);
}

namespace {

Run add_modes_options(CLI::App& app) {
  const auto options = std::make_shared<ModesCommand>();
  ModesCommand& o = *options;
  add_model_options(app, o.model);
  app.add_option("--vibration", o.vibration,
                 "Compute this number of natural frequencies; as the model asks, or 6, if not given")
      ->check(between(0, 1000))
      ->type_name("N");
  app.add_option(
         "--buckling", o.buckling,
         "Compute critical load factors of these load cases or combinations; as the model asks, or of all assessed ones, if not given")
      ->type_name("CASE")
      ->delimiter(',')
      ->allow_extra_args(false);
  app.add_option("--under", o.under, "Compute frequencies with the axial forces of this load case or combination")
      ->type_name("CASE");
  add_output_options(app, o.output);
  return run_with(options, modes);
}

}  // namespace

extern const Command modes_command{
    .name = "modes",
    .group = "Solve",
    .description = "Print natural frequencies and critical load factors",
    .details =
        "Each frequency is printed with its effective modal mass, each critical load factor with the member that buckles, and members in compression with their critical force and effective length.",
    .add_options = add_modes_options};

}  // namespace corvex::cli
