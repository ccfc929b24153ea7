#include "report.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <filesystem>
#include <memory>

#include "command.hpp"
#include "corvex/compare.hpp"
#include "corvex/document.hpp"
#include "corvex/report.hpp"
#include "corvex/writing.hpp"
#include "findings.hpp"
#include "pictures.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

// "variant heavy, wall=4 mm": what is not as the file says.
std::string changes_of(const ModelOptions& model) {
  std::vector<std::string> changes;
  if (!model.variant.empty()) changes.push_back("variant " + model.variant);
  changes.insert(changes.end(), model.set.begin(), model.set.end());
  return fmt::format("{}", fmt::join(changes, ", "));
}

// Of Markdown the pictures first: the text that names them stands only where they are.
std::string written(const std::string& path, const Report& report) {
  if (report.pictures.empty()) return write(path, report.text);
  FileWriter writer;
  const std::filesystem::path folder = std::filesystem::path(path).parent_path();
  for (const auto& [name, bytes] : report.pictures)
    if (std::string why = writer.stage((folder / name).string(), bytes); !why.empty()) return why;
  if (std::string why = writer.stage(path, report.text); !why.empty()) return why;
  return writer.commit();
}

// Whether the hand calculation is about a variant too: it has one of its own, or changes values only and not the
// structure and its loads.
bool hand_applies(const ModelDocument& document, const std::string& variant) {
  const std::vector<std::string> keys = document.changed_keys(variant);
  const auto has = [&](const char* key) { return std::find(keys.begin(), keys.end(), key) != keys.end(); };
  if (has("hand")) return true;
  return !(has("points") || has("members") || has("supports") || has("loads") || has("combinations") ||
           has("analysis") || has("tables"));
}

}  // namespace

std::vector<Compared> compared_variants(const ModelDocument& document, const Model& model, const Overrides& overrides) {
  const std::vector<std::string> variants = document.variants();
  if (variants.empty() || !overrides.variant.empty()) return {};
  std::vector<Candidate> all{{.name = "original",
                              .structure = model.structure,
                              .limits = model.limits,
                              .hand = model.hand,
                              .acceptances = model.acceptances}};
  for (const std::string& name : variants) {
    Overrides with = overrides;
    with.variant = name;
    const auto built = build(document, with);
    all.push_back(built ? Candidate{.name = name,
                                    .structure = built->structure,
                                    .limits = built->limits,
                                    .hand = hand_applies(document, name) ? built->hand : HandCalculation{},
                                    .acceptances = built->acceptances}
                        : Candidate{.name = name, .structure = Structure::plane(name), .refused = built.error()});
  }
  return compare(all, model.show);
}

int report(const ReportCommand& o) {
  const auto format = report_format(o.output);
  if (!format)
    return refuse(o.output.empty()
                      ? std::string("give an output file: -o FILE, a name that ends with .html, .pdf or .md")
                      : fmt::format("'{}': a report ends with .html, .pdf or .md", o.output));
  Progress progress;
  OutputOptions reading;
  reading.output = o.output;
  reading.units = o.units;
  std::optional<ModelDocument> document;
  const auto solved = read_and_solve(o.model, reading, progress, &document);
  if (!solved) return refused;
  const Model& model = solved->model;
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  ReportOptions options{.parts = o.parts,
                        .digits = o.digits,
                        .all = o.all,
                        .cases = o.cases,
                        .changes = changes_of(o.model),
                        .name = std::filesystem::path(o.output).stem().string()};
  const bool with_variants = o.parts.empty() || std::find(o.parts.begin(), o.parts.end(), "variants") != o.parts.end();
  if (with_variants) {
    progress.doing("solving the variants");
    options.variants = compared_variants(*document, model, *overrides_of(o.model));
  }
  progress.doing("evaluating limits and the hand calculation");
  const Evaluation evaluation = evaluate(model, solved->solution);
  if (!evaluation.ok()) return refuse(evaluation.problems());
  progress.doing("writing the report");
  const auto made = reported(model, evaluation, options, *format);
  if (!made) return refuse(made.error().text);
  for (const auto& [name, bytes] : made->pictures) {
    const std::string path = (std::filesystem::path(o.output).parent_path() / name).string();
    if (const std::string why = overwrites(path, reading.read); !why.empty()) return refuse(why);
  }
  if (const std::string why = written(o.output, *made); !why.empty()) return refuse(why);
  progress.done();
  tell_briefly(evaluation.findings, o.model.path);
  if (evaluation.passes()) return 0;
  tell_failures(evaluation.limits, evaluation.hand, model.units);
  return limit_not_met;
}

namespace {

Run add_report_options(CLI::App& app) {
  const auto options = std::make_shared<ReportCommand>();
  ReportCommand& o = *options;
  add_model_options(app, o.model);
  std::vector<std::string> parts;
  for (const ReportPart& part : report_parts) parts.emplace_back(part.name);
  app.add_option("--parts", o.parts, fmt::format("Write these chapters only: {}", fmt::join(parts, ", ")))
      ->check(one_of(parts))
      ->type_name("PART")
      ->delimiter(',')
      ->allow_extra_args(false);
  app.add_option("--case", o.cases, "Write the results of these load cases or combinations only")
      ->type_name("CASE")
      ->delimiter(',')
      ->allow_extra_args(false);
  app.add_flag("--all", o.all, "Write all cases and complete tables");
  add_print_options(app, o.units, o.digits);
  app.add_option("-o,--output", o.output,
                 "Write to this file, which ends with .html, .pdf or .md (with pictures next to it)")
      ->type_name("FILE")
      ->check(some_name())
      ->group(groups::output);
  return run_with(options, report);
}

}  // namespace

extern const Command report_command{
    .name = "report",
    .group = "Hand over",
    .description = "Write the calculation as a document",
    .details =
        "The document contains a summary of verdicts, the model with pictures and bill of materials, materials and sections, supports, loads, findings, results, limits, the hand calculation typeset, variants, and the accuracy. The file ends with .html (one file, no network needed), .pdf (A4, with contents and page numbers) or .md (with pictures next to it). Its title block is given under \"document\" in the model.",
    .add_options = add_report_options};

}  // namespace corvex::cli
