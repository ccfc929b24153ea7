// The program: arguments in, text out; no engineering.
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cstdio>
#include <exception>
#include <new>

#include "catalogue.hpp"
#include "corvex/file.hpp"
#include "corvex/formula.hpp"
#include "demo.hpp"
#include "hand_text.hpp"
#include "new.hpp"
#include "output.hpp"
#include "selection.hpp"
#include "solve_text.hpp"
#include "trace.hpp"
#include "version.hpp"

namespace {

constexpr int done = 0, not_kept = 1, refused = 2;

using corvex::cli::refuse;

struct SolveOptions {
  std::string model, output;
  corvex::cli::Wanted wanted{};
  bool json = false;
  int stations = 0, digits = 4;
};

int solve(const SolveOptions& o, bool hand_only) {
  const auto model = corvex::read_model(o.model);
  if (!model) return refuse(model.error());
  if (hand_only && model->hand.expect.empty())
    return refuse("the model has nothing to verify: write what you worked out under hand: expect:");
  const corvex::Solution solution = corvex::solve(model->structure);
  if (!solution.ok()) return refuse(model->located(solution.problems()));
  const auto hand = corvex::verify(solution, model->hand);
  if (!hand) return refuse(model->located(hand.error()));
  const auto limits = corvex::check_limits(solution, hand_only ? corvex::Limits{} : model->limits);
  if (!limits) return refuse(model->located(limits.error()));
  if (o.json || hand_only)
    for (const corvex::Problem& p : model->notes) fmt::print(stderr, "{}\n", describe(p));
  if (o.json || hand_only)
    for (const corvex::Problems* notes : {&solution.notes(), &limits->notes})
      for (const corvex::Problem& p : model->located(*notes)) fmt::print(stderr, "{}\n", describe(p));
  const auto shown = corvex::cli::select(solution, o.wanted);
  if (!shown) return refuse(shown.error());
  const corvex::JsonOptions json{.stations = o.stations, .hand = *hand, .limits = *limits, .units = model->units};
  std::string text;
  if (o.json)
    text = hand_only ? corvex::verification_json(solution, json) : corvex::results_json(solution, json);
  else
    text = hand_only ? solution.structure().title() + "\n\n" + corvex::cli::hand_text(*hand, model->units, o.digits)
                     : corvex::cli::solve_text(*model, solution, *hand, *limits, *shown, o.digits);
  if (const std::string why = corvex::cli::write(o.output, text); !why.empty()) return refuse(why);
  return hand->all_kept() && limits->all_kept() ? done : not_kept;
}

// Verbs that the design names; "not built yet" is another answer than "unknown".
const std::vector<std::string> built = {"new", "solve", "trace", "verify", "catalogue", "demo"};
const std::vector<std::string> planned = {"inspect", "derive", "compare", "choose", "draw", "report", "convert"};

// A word where a verb should stand that is none.
std::string wrong_verb(int argc, char** argv) {
  if (argc < 2) return "a verb was expected, as corvex solve MODEL (see corvex --help)";
  if (argv[1][0] == '-') return {};
  const std::string verb = argv[1];
  if (std::find(built.begin(), built.end(), verb) != built.end()) return {};
  if (std::find(planned.begin(), planned.end(), verb) != planned.end())
    return fmt::format("'{}' is not built yet; there are: {}", verb, fmt::join(built, ", "));
  std::string text = corvex::did_you_mean(verb, built);
  if (text.empty()) text = fmt::format("; there are: {}", fmt::join(built, ", "));
  return fmt::format("there is no verb '{}'{}", verb, text);
}

void add_catalogue(CLI::App& verb, corvex::cli::CatalogueOptions& o) {
  verb.add_option(
          "WHAT", o.what,
          "designations (\"IPE 200\") or materials (S355) to print with all figures; or a model file, and names of "
          "its sections")
      ->type_name("")
      ->expected(0, 1000);
  verb.add_option("--series", o.series, "list only these series: SHS, IPE, …")
      ->type_name("NAME")
      ->delimiter(',')
      ->allow_extra_args(false);
  for (const std::string& figure : corvex::cli::searched_figures()) {
    verb.add_option("--min-" + figure, o.bounds["min-" + figure], "at least this: a quantity, as \"200 cm^4\"")
        ->type_name("Q");
    verb.add_option("--max-" + figure, o.bounds["max-" + figure], "at most this")->type_name("Q");
  }
  verb.add_option("--sort", o.sort,
                  "least first: " + fmt::format("{}", fmt::join(corvex::cli::searched_figures(), ", ")))
      ->type_name("FIGURE");
  verb.add_option("--material", o.material, "for the mass per metre; steel if not given")->type_name("NAME");
  verb.add_flag("--json", o.json, "as JSON, in SI units at full precision");
  verb.add_option("--format", o.format, "table, json or csv")
      ->check(CLI::IsMember({"table", "json", "csv"}))
      ->type_name("KIND")
      ->capture_default_str();
  verb.add_option("--digits", o.digits, "significant digits in the tables")
      ->check(CLI::Range(1, 15))
      ->type_name("N")
      ->capture_default_str();
  verb.add_option("-o,--output", o.output, "write to this file instead of standard output")->type_name("FILE");
}

int run(int argc, char** argv) {
  if (const std::string why = wrong_verb(argc, argv); !why.empty()) return refuse(why);

  CLI::App app("Corvex verifies frames, machine structures and trusses: stresses, deflections, reactions, diagrams.",
               "corvex");
  app.set_version_flag("--version", "corvex " CORVEX_VERSION);
  app.get_formatter()->label("SUBCOMMAND", "VERB");
  app.require_subcommand(1);
  app.footer(
      "Exit status: 0 done and all kept; 1 done, but a limit or a hand calculation is not kept, or a search found nothing; 2 the model or the call is wrong, and "
      "nothing was written.");

  corvex::cli::NewOptions no;
  CLI::App* new_verb = app.add_subcommand("new", "a small commented model to start from");
  new_verb->add_option("--kind", no.kind, fmt::format("one of: {}", fmt::join(corvex::cli::starter_kinds(), ", ")))
      ->type_name("KIND")
      ->capture_default_str();
  new_verb->add_option("-o,--output", no.output, "write to this file, which must not be there yet")->type_name("FILE");

  SolveOptions so;
  CLI::App* solve_verb = app.add_subcommand(
      "solve", "reactions, movements, inner forces with their extremes, stresses, safety, the hand calculation");
  CLI::App* verify_verb = app.add_subcommand(
      "verify", "the hand calculation beside the computed values: formula, numbers, deviation, verdict");
  for (CLI::App* verb : {solve_verb, verify_verb}) {
    verb->add_option("MODEL", so.model, "model file (YAML or JSON); - is standard input")->required();
    CLI::Option* json = verb->add_flag("--json", so.json, "everything as JSON, in SI units at full precision");
    if (verb == solve_verb) {
      for (const auto& [name, names, what] :
           {std::tuple("--case", &so.wanted.cases, "show only these load cases or combinations"),
            {"--member", &so.wanted.members, "show only these members, or families of members"},
            {"--point", &so.wanted.points, "show only these points, or families of points"}})
        verb->add_option(name, *names, what)
            ->type_name("NAME")
            ->delimiter(',')
            ->allow_extra_args(false)
            ->excludes(json);
      verb->add_option("--stations", so.stations,
                       "with --json: that many evenly spaced stations a member, ends included")
          ->needs(json)
          ->check(CLI::Range(2, 100000))
          ->type_name("N");
    }
    verb->add_option("--digits", so.digits, "significant digits in the tables")
        ->check(CLI::Range(1, 15))
        ->type_name("N")
        ->capture_default_str();
    verb->add_option("-o,--output", so.output, "write to this file instead of standard output")->type_name("FILE");
  }

  corvex::cli::TraceOptions to;
  CLI::App* trace_verb = app.add_subcommand("trace", "every quantity of one member, from place to place");
  trace_verb->add_option("MODEL", to.model, "model file (YAML or JSON); - is standard input")->required();
  trace_verb->add_option("MEMBER", to.member, "the member")->required();
  trace_verb
      ->add_option("--at", to.at, "at these places: lengths from the start, shares as '50 %', or points of the member")
      ->type_name("PLACE")
      ->delimiter(',')
      ->allow_extra_args(false);
  trace_verb->add_option("--steps", to.steps, "at that many places evenly from end to end")
      ->check(CLI::Range(2, 100000))
      ->type_name("N");
  trace_verb->add_option("--case", to.load_case, "one load case or combination; all that `solve` shows if not given")
      ->type_name("NAME");
  trace_verb->add_flag("--json", to.json, "as JSON, in SI units at full precision; of one case");
  trace_verb->add_option("--digits", to.digits, "significant digits in the tables")
      ->check(CLI::Range(1, 15))
      ->type_name("N")
      ->capture_default_str();
  trace_verb->add_option("-o,--output", to.output, "write to this file instead of standard output")->type_name("FILE");

  corvex::cli::CatalogueOptions co;
  CLI::App* catalogue_verb =
      app.add_subcommand("catalogue", "profiles and materials that are built in, and the sections of a model");
  add_catalogue(*catalogue_verb, co);

  std::string folder;
  CLI::App* demo_verb =
      app.add_subcommand("demo", "the example models of an orchard's cider works with their results, into a folder");
  demo_verb->add_option("DIR", folder, "the folder; made if it is not there")->required();

  for (CLI::App* verb : {new_verb, solve_verb, trace_verb, verify_verb, catalogue_verb, demo_verb})
    verb->group("Verbs");

  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& e) {
    if (e.get_exit_code() == 0) return app.exit(e);
    return refuse(std::string(e.what()) + " (see corvex --help)");
  }
  if (*new_verb) return corvex::cli::begin_model(no);
  if (*solve_verb || *verify_verb) return solve(so, verify_verb->parsed());
  if (*trace_verb) return corvex::cli::trace(to);
  if (*catalogue_verb) return corvex::cli::catalogue(co);
  return corvex::cli::demo(folder);
}

}  // namespace

int main(int argc, char** argv) {
  // What a model can cause is told as a problem; what is left is this.
  try {
    return run(argc, argv);
  } catch (const std::bad_alloc&) {
    std::fputs("corvex: error: there is not enough memory for this\n", stderr);
  } catch (const std::exception& e) {
    std::fputs("corvex: error: a fault of the program, not of the model: ", stderr);
    std::fputs(e.what(), stderr);
    std::fputs("\n", stderr);
  }
  return refused;
}
