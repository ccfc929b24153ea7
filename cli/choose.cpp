#include "choose.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <atomic>
#include <csignal>
#include <memory>

#include "command.hpp"
#include "corvex/choose.hpp"
#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "progress.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

std::atomic<bool> interrupted{false};

void interrupt(int) {
  interrupted = true;
}

// The model with the lightest sections instead of its own.
Expected<std::string, Problems> with_choice(const ModelDocument& document, const ModelOptions& options,
                                            const SectionChoice& choice, const std::vector<ChoiceGroup>& groups) {
  auto overrides = overrides_of(options);
  for (std::size_t g = 0; g < groups.size(); ++g) {
    std::string pointer = "/sections/";
    for (const char c : groups[g].section) pointer += c == '~' ? "~0" : c == '/' ? "~1" : std::string(1, c);
    overrides.value().set.emplace_back(pointer, choice.found.front().designations[g]);
  }
  return changed_text(document, *overrides);
}

}  // namespace

int choose(ChooseOptions o) {
  const std::string target = o.output.output;
  o.output.output.clear();
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  Progress progress;
  OutputOptions reading = o.output;
  reading.output = target;
  std::optional<ModelDocument> document;
  const auto model = read(o.model, reading, progress, &document);
  if (!model) return refused;
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  if (model->choose.empty())
    return refuse(
        std::string("the model has nothing to choose: write the sections and their series under choose:, as "
                    "choose: {leg: {from: SHS}}"));
  std::signal(SIGINT, interrupt);
  Choosing wanted{.groups = model->choose, .limits = model->limits};
  wanted.runners_up = static_cast<std::size_t>(o.runners_up);
  wanted.stop = [] { return interrupted.load(); };
  wanted.progress = [&](std::size_t tried) { progress.doing(fmt::format("{} choices tried", tried)); };
  progress.doing("choosing sections");
  const auto choice = corvex::choose(model->structure, wanted);
  std::signal(SIGINT, SIG_DFL);
  if (!choice) return refuse(model->located(choice.error()));
  progress.done();
  if (!target.empty() && !choice->found.empty()) {
    const auto text = with_choice(*document, o.model, *choice, model->choose);
    if (!text) return cli::refuse(text.error());
    if (const std::string why = write(target, *text); !why.empty()) return cli::refuse(why);
  }
  const int status = *form == Form::json
                         ? put_text(choice_json(*choice, model->choose), o.output)
                         : put_page(choice_page(model->structure.title(), model->units, *choice, model->choose),
                                    model->structure.title(), *form, o.output);
  if (status != 0) return status;
  return choice->found.empty() ? limit_not_met : 0;
}

namespace {

Run add_choose_options(CLI::App& app) {
  const auto options = std::make_shared<ChooseOptions>();
  ChooseOptions& o = *options;
  add_model_options(app, o.model);
  app.add_option("--runners-up", o.runners_up, "Print this number of further candidates")
      ->check(between(0, 100))
      ->type_name("N")
      ->capture_default_str();
  add_output_options(app, o.output);
  app.get_option("--output")->description("Write the model with the lightest choice to this file");
  return run_with(options, choose);
}

}  // namespace

extern const Command choose_command{
    .name = "choose",
    .group = "Vary",
    .description = "Find the lightest listed sections that meet all limits",
    .details =
        "The groups of candidates are given under \"choose\" in the model. Sections are tried in the order of mass, so that the lightest choice is proven. The output file is the model with the choice.",
    .add_options = add_choose_options};

}  // namespace corvex::cli
