#include "inspect.hpp"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <memory>

#include "command.hpp"
#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "progress.hpp"
#include "solved.hpp"

namespace corvex::cli {

int inspect(InspectOptions o) {
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  Progress progress;
  const auto model = read(o.model, o.output, progress);
  if (!model) return refused;
  progress.doing("inspecting " + o.model.path);
  const Inspection inspection = inspection_of(*model);
  progress.done();
  // An unsound description is refused by every command.
  Problems faults = inspection.findings;
  std::erase_if(faults, [](const Problem& p) { return !p.finding.empty() || p.severity != Problem::Severity::error; });
  if (!faults.empty()) return refuse(faults);
  const Style style = style_of(o.output);
  const int status = *form == Form::json
                         ? put_text(findings_json(model->structure, inspection), o.output)
                         : put_page(inspection_page(model->units, model->structure, inspection, style.digits),
                                    model->structure.title(), *form, o.output);
  if (status != 0) return status;
  return asks_for_attention(inspection.findings) ? limit_not_met : 0;
}

namespace {

Run add_inspect_options(CLI::App& app) {
  const auto options = std::make_shared<InspectOptions>();
  InspectOptions& o = *options;
  add_model_options(app, o.model);
  add_output_options(app, o.output);
  return run_with(options, inspect);
}

}  // namespace

extern const Command inspect_command{
    .name = "inspect",
    .group = "Describe",
    .description = "Report likely mistakes in a model, and show the model as it was read",
    .details =
        "Likely mistakes are points that touch a member without being joined to it, feet without a support, loads that are given twice, gravity that points sideways, values in another unit. Each is reported with its line and a remedy. The model as it was read follows: degree of static indeterminacy, members with their local axes, supports, sums of the loads with their lines of action, bill of materials. A finding that is intended is accepted in the model, with the reason.",
    .add_options = add_inspect_options};

}  // namespace corvex::cli
