#include "derive.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <memory>

#include "command.hpp"
#include "corvex/document.hpp"
#include "corvex/envelope.hpp"
#include "corvex/export.hpp"
#include "corvex/report.hpp"
#include "pictures.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

// Digits that let a reader follow each line.
constexpr int usual_digits = 5;

// Of a case by its name; of the one that governs if it is not named. Else the reason.
Expected<std::size_t, std::string> case_named(const Solution& solution, const std::string& name) {
  if (name.empty()) return governing_case(solution);
  if (name == "envelope") return std::string("an envelope is of several cases: name one with --case");
  const auto shown = select(solution, {.cases = {name}});
  if (!shown) return shown.error();
  return shown->cases.front();
}

// Members and points by their names, families included.
Expected<DeriveOptions, std::string> chosen(const Solution& solution, const DeriveCommand& o) {
  const auto known = select(solution, {.members = o.members, .points = o.points});
  if (!known) return known.error();
  DeriveOptions options;
  const Structure& s = solution.structure();
  for (const std::string& name : o.members)
    for (const MemberId id : s.find_members(name)) options.members.push_back(id);
  for (const std::string& name : o.points)
    for (const PointId id : s.find_points(name)) options.points.push_back(id);
  return options;
}

}  // namespace

int derive(DeriveCommand o) {
  if (o.output.digits == 0) o.output.digits = usual_digits;
  const auto document = report_format(o.output.output);
  const bool typeset = document == ReportFormat::html || document == ReportFormat::pdf;
  OutputOptions output = o.output;
  // Typeset output is not a page of text.
  if (typeset) output.output.clear();
  const auto form = form_of(output);
  if (!form) return refuse(form.error());
  if (*form == Form::csv || *form == Form::spreadsheet)
    return refuse(std::string("a derivation is text: a table, markdown, JSON, HTML or PDF"));
  Progress progress;
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  const auto solved = read_and_solve(o.model, o.output, progress);
  if (!solved) return refused;
  const auto& [model, solution] = *solved;
  const auto load_case = case_named(solution, o.load_case);
  if (!load_case) return refuse(load_case.error());
  const auto options = chosen(solution, o);
  if (!options) return refuse(options.error());
  progress.doing("deriving");
  const auto derived = corvex::derive(solution, *load_case, *options);
  if (!derived) return refuse(model.located({derived.error()}));
  const std::vector<BothWays> both = both_ways(*derived, solution);
  if (typeset) {
    const auto made =
        derivation_written(model, *derived, both, {.digits = o.output.digits, .brief = o.brief}, *document);
    if (!made) return refuse(made.error().text);
    if (const std::string why = overwrites(o.output.output, o.output.read); !why.empty()) return refuse(why);
    if (const std::string why = write(o.output.output, *made); !why.empty()) return refuse(why);
    progress.done();
    return 0;
  }
  if (*form == Form::json) {
    const std::string json = derivation_json(*derived, both, model.units, o.output.digits);
    progress.done();
    return put_text(json, o.output);
  }
  const Page page = derivation_page(*derived, both, model.units, o.output.digits, o.brief);
  progress.done();
  return put_page(page, model.structure.title(), *form, o.output);
}

namespace {

Run add_derive_options(CLI::App& app) {
  const auto options = std::make_shared<DeriveCommand>();
  DeriveCommand& o = *options;
  add_model_options(app, o.model);
  app.add_option("--case", o.load_case, "Derive this load case or combination; the governing one if not given")
      ->type_name("CASE");
  for (const auto& [name, names, type, what] :
       {std::tuple("--member", &o.members, "MEMBER",
                   "Derive internal forces and stresses of these members or families only"),
        {"--point", &o.points, "POINT",
         "Derive the displacement of these points; of the largest displacement if not given"}})
    app.add_option(name, *names, what)->type_name(type)->delimiter(',')->allow_extra_args(false);
  app.add_flag("--brief", o.brief, "Print the result of each step only");
  add_output_options(app, o.output, false);
  app.get_option("--output")
      ->description("Write to this file: typeset with sketches if it ends with .html or .pdf, else text, .md or .json");
  return run_with(options, derive);
}

}  // namespace

extern const Command derive_command{
    .name = "derive",
    .group = "Check",
    .description = "Print the hand calculation of one load case, step by step",
    .details =
        "Equilibrium and virtual work alone are used: static indeterminacy, reactions, joints, sections, the force method for up to 12 redundants, N, V and M along the members, a displacement, the stress at the worst place. The results of both ways are compared at the end. The file may end with .md or .json, or with .html or .pdf for a typeset document with sketches.",
    .add_options = add_derive_options};

}  // namespace corvex::cli
