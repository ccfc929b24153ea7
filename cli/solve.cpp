#include "solve.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <ctime>
#include <memory>

#include "command.hpp"
#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "corvex/file.hpp"
#include "corvex/number.hpp"
#include "corvex/version.hpp"
#include "findings.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

// Origin of a result: never by default, since the same input gives the same bytes.
std::string record_of(const ModelOptions& model) {
  const std::time_t now = std::time(nullptr);
  std::tm local{};
  localtime_r(&now, &local);
  char date[32];
  std::strftime(date, sizeof date, "%Y-%m-%d %H:%M", &local);
  std::string what = model.path == "-" ? "standard input" : model.path;
  if (!model.variant.empty()) what += ", variant " + model.variant;
  for (const std::string& set : model.set) what += ", " + set;
  return fmt::format("corvex {}, {}, {}", CORVEX_VERSION, made_printable(what), date);
}

Page verify_page(const Model& model, const Verification& hand, const Style& style) {
  Page page{Heading{model.structure.title()}};
  add_hand(page, hand, model.units, style.width);
  return page;
}

// Output for other programs is complete.
Choice whole_for_programs(Choice wanted, Form form, const OutputOptions& output) {
  wanted.requests = requests();
  wanted.all = wanted.all || !output.csv_folder.empty() || (form != Form::table && form != Form::markdown);
  return wanted;
}

bool selects_tables(const document::Choice& w) {
  return w.all || w.model || w.ends || w.faces || !w.cases.empty() || !w.members.empty() || !w.points.empty();
}

}  // namespace

int solve(SolveOptions o, bool hand_only) {
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  const bool json = *form == Form::json;
  if (o.places > 0 && !json) return refuse("--places is for JSON: add --json");
  if (json && selects_tables(o.wanted))
    return refuse(
        "JSON holds every case, member and point: leave out --case, --member, --point, --all, --model, --ends, "
        "--faces");
  Progress progress;
  // The line of progress makes room for what is said.
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  auto solved = read_and_solve(o.model, o.output, progress);
  if (!solved) return refused;
  const auto& [model, solution] = *solved;
  if (hand_only && model.hand.expect.empty())
    return refuse(std::string("the model has nothing to verify: write hand values under hand: expect:"));
  progress.doing("evaluating limits and the hand calculation");
  EvaluationOptions options = evaluation_options(model);
  if (hand_only) options.limits = {};
  Evaluation evaluation = evaluate(model, solution, options);
  if (!evaluation.ok()) return refuse(evaluation.problems());
  const auto shown = select(solution, whole_for_programs(o.wanted, *form, o.output));
  if (!shown) return refuse(shown.error());
  // Hand values of other cases are not shown; those that differ are reported anyway.
  Evaluation of_cases = evaluation;
  if (const auto& cases = o.wanted.cases; !cases.empty() && cases != std::vector<std::string>{"envelope"}) {
    std::erase_if(of_cases.hand.comparisons, [&](const Comparison& c) {
      return std::find(cases.begin(), cases.end(), c.load_case) == cases.end();
    });
    if (hand_only && of_cases.hand.comparisons.empty())
      return refuse(std::string("no hand value belongs to this case"));
  }

  progress.doing("computing forces and stresses");
  std::string json_text;
  Page page;
  if (json) {
    const JsonOptions in{
        .places = o.places, .units = model.units, .record = o.record ? record_of(o.model) : std::string()};
    json_text = hand_only ? verification_json(evaluation, in) : results_json(evaluation, in);
  } else if (hand_only) {
    page = verify_page(model, of_cases.hand, style_of(o.output));
  } else {
    page = solve_page(model.units, of_cases, *shown, style_of(o.output));
  }
  if (o.record && !json) page.insert(page.begin() + 1, Words{{{"", record_of(o.model)}}});
  progress.done();

  tell_briefly(evaluation.findings, o.model.path);
  const int status = json ? put_text(json_text, o.output) : put_page(page, model.structure.title(), *form, o.output);
  if (status != 0) return status;
  if (evaluation.passes()) return 0;
  tell_failures(evaluation.limits, evaluation.hand, model.units);
  return limit_not_met;
}

namespace {

void add_shared_options(CLI::App& app, SolveOptions& o) {
  app.add_flag("--record", o.record, "Print the version of the program, the model file and the date");
  add_model_options(app, o.model);
  add_output_options(app, o.output);
}

Run add_solve_options(CLI::App& app) {
  const auto options = std::make_shared<SolveOptions>();
  SolveOptions& o = *options;
  add_shared_options(app, o);
  for (const auto& [name, names, type, what] :
       {std::tuple("--case", &o.wanted.cases, "CASE",
                   "Show these load cases or combinations only; \"envelope\" is that of all"),
        {"--member", &o.wanted.members, "MEMBER", "Show these members or families of members only"},
        {"--point", &o.wanted.points, "POINT", "Show these points or families of points only"}})
    app.add_option(name, *names, what)->type_name(type)->delimiter(',')->allow_extra_args(false);
  app.add_flag("--all", o.wanted.all, "Print complete tables of all cases, in the order of the model");
  app.add_flag("--model", o.wanted.model,
               "Print the model as it was read: members, local axes, supports, sums of loads, bill of materials");
  app.add_flag("--ends", o.wanted.ends, "Print the forces of each member end on its joint, in global axes");
  app.add_flag("--faces", o.wanted.faces, "Print the normal stress on each face of the section");
  app.add_option("--places", o.places,
                 "Print results at this number of evenly spaced places of each member, with --json")
      ->check(between(2, 100000))
      ->type_name("N");
  refuse_renamed(app, "--stations", "--places");
  return run_with(options, [](const SolveOptions& given) { return solve(given, false); });
}

Run add_verify_options(CLI::App& app) {
  const auto options = std::make_shared<SolveOptions>();
  SolveOptions& o = *options;
  app.add_option("--case", o.wanted.cases, "Compare the values of these load cases or combinations only")
      ->type_name("CASE")
      ->delimiter(',')
      ->allow_extra_args(false);
  add_shared_options(app, o);
  return run_with(options, [](const SolveOptions& given) { return solve(given, true); });
}

}  // namespace

extern const Command solve_command{
    .name = "solve",
    .group = "Solve",
    .description = "Print reactions, displacements, internal forces, stresses, safety factors and limits",
    .details =
        "Reactions are checked against the loads. Extremes of N, V, M and T are printed with their places, and each limit with its verdict; the hand calculation of the model follows. Tables are short, with the governing values first. If several cases are assessed, their envelope replaces them, with the case that governs each extreme.",
    .add_options = add_solve_options};
extern const Command verify_command{
    .name = "verify",
    .group = "Check",
    .description = "Compare the hand calculation of the model with the computed values",
    .details =
        "Each formula is printed as written and with its numbers put in, with the hand value, the computed value, the deviation, and whether they agree.",
    .add_options = add_verify_options};

}  // namespace corvex::cli
