// The program: arguments in, text out; no engineering.
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <csignal>
#include <cstdio>
#include <exception>
#include <iostream>
#include <new>
#include <system_error>

#include "catalogue.hpp"
#include "choose.hpp"
#include "compare.hpp"
#include "corvex/formula.hpp"
#include "corvex/report.hpp"
#include "demo.hpp"
#include "derive.hpp"
#include "draw.hpp"
#include "faults.hpp"
#include "inspect.hpp"
#include "memory.hpp"
#include "modes.hpp"
#include "new.hpp"
#include "output.hpp"
#include "report.hpp"
#include "solve.hpp"
#include "sweep.hpp"
#include "time_limit.hpp"
#include "trace.hpp"
#include "version.hpp"
#include "view.hpp"

namespace {

using corvex::cli::refuse;

// Verbs that the design names; "not built yet" is another answer than "unknown".
const std::vector<std::string> built = {"new",  "inspect", "solve", "trace",     "verify",
                                        "draw", "compare", "sweep", "choose",    "report",
                                        "view", "derive",  "modes", "catalogue", "demo"};
const std::vector<std::string> planned = {"convert", "check"};

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

// What is wrong with the options of a call: an option that the verb does not have, with the nearest that it has.
std::string in_our_words(const CLI::ParseError& e, CLI::App& app, int argc, char** argv) {
  // After an error no verb counts as parsed: the one that was called is looked up by its name.
  const CLI::App* verb = nullptr;
  for (const CLI::App* one : app.get_subcommands([](const CLI::App*) { return true; }))
    if (argc > 1 && one->get_name() == argv[1]) verb = one;
  if (e.get_exit_code() != static_cast<int>(CLI::ExitCodes::ExtrasError) || !verb) return e.what();
  std::vector<std::string> known;
  for (const CLI::Option* option : verb->get_options()) {
    for (const std::string& name : option->get_lnames()) known.push_back("--" + name);
    for (const std::string& name : option->get_snames()) known.push_back("-" + name);
  }
  for (int i = 2; i < argc; ++i) {
    const std::string word = argv[i], option = word.substr(0, word.find('='));
    if (option.size() < 2 || option[0] != '-' || std::find(known.begin(), known.end(), option) != known.end()) continue;
    return fmt::format("'{}' is not an option of {}{}", option, verb->get_name(), corvex::did_you_mean(option, known));
  }
  return e.what();
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
  corvex::cli::add_model_options(verb, o.model, false);
  corvex::cli::add_output_options(verb, o.output, false);
}

void add_solve(CLI::App& verb, corvex::cli::SolveOptions& o) {
  for (const auto& [name, names, what] :
       {std::tuple("--case", &o.wanted.cases, "show only these load cases or combinations; envelope is that of all"),
        {"--member", &o.wanted.members, "show only these members, or families of members"},
        {"--point", &o.wanted.points, "show only these points, or families of points"}})
    verb.add_option(name, *names, what)->type_name("NAME")->delimiter(',')->allow_extra_args(false);
  verb.add_flag("--all", o.wanted.all,
                "whole tables of every case, in the order of the model; else what governs first");
  verb.add_flag("--model", o.wanted.model,
                "the model as it was read: members, local axes, supports, sums of loads, parts");
  verb.add_flag("--ends", o.wanted.ends, "the forces that each member end gives to its joint");
  verb.add_flag("--faces", o.wanted.faces, "normal stress along each face of the section");
  verb.add_option("--places", o.places, "with JSON: that many evenly spaced places a member, ends included")
      ->check(corvex::cli::between(2, 100000))
      ->type_name("N");
  // An earlier name, answered with the present one.
  verb.add_option_function<std::string>("--stations",
                                        [](const std::string&) -> void {
                                          throw CLI::ParseError("--stations: the option is called --places now",
                                                                corvex::cli::refused);
                                        })
      ->group("");
}

void add_trace(CLI::App& verb, corvex::cli::TraceOptions& o) {
  corvex::cli::add_model_options(verb, o.model);
  verb.add_option("MEMBER", o.member, "the member")->required();
  verb.add_option("--at", o.at,
                  "at these places: lengths from the start, shares as '50 %', or points of the member; if not "
                  "given, where a figure is largest, least or zero, and where loads act")
      ->type_name("PLACE")
      ->delimiter(',')
      ->allow_extra_args(false);
  verb.add_option("--steps", o.steps, "at that many places evenly from end to end")
      ->check(corvex::cli::between(2, 100000))
      ->type_name("N");
  verb.add_option("--case", o.load_case,
                  "one load case or combination, or envelope; all that `solve` shows and their envelope if not given")
      ->type_name("NAME");
  corvex::cli::add_output_options(verb, o.output);
}

// Of verbs that print no tables but pictures, documents and pages.
void add_print_options(CLI::App& verb, std::string& units, int& digits) {
  verb.add_option("--units", units, "figures in these units, as \"mm, N\"")->type_name("UNITS");
  verb.add_option("--digits", digits, "significant digits")
      ->check(corvex::cli::between(1, 15))
      ->type_name("N")
      ->capture_default_str();
}

void add_report(CLI::App& verb, corvex::cli::ReportCommand& o) {
  corvex::cli::add_model_options(verb, o.model);
  std::vector<std::string> parts;
  for (const corvex::ReportPart& part : corvex::report_parts) parts.emplace_back(part.name);
  verb.add_option("--parts", o.parts, fmt::format("only these chapters: {}", fmt::join(parts, ", ")))
      ->check(corvex::cli::one_of(parts))
      ->type_name("PART")
      ->delimiter(',')
      ->allow_extra_args(false);
  verb.add_flag("--all", o.all, "every case, and whole tables, also where there are many");
  add_print_options(verb, o.units, o.digits);
  verb.add_option("-o,--output", o.output,
                  "the file: its name ends with .html, .pdf or .md (with its pictures beside it)")
      ->type_name("FILE")
      ->check(corvex::cli::some_name());
}

void add_derive(CLI::App& verb, corvex::cli::DeriveCommand& o) {
  corvex::cli::add_model_options(verb, o.model);
  verb.add_option("--case", o.load_case, "the load case or combination; the one that governs if not given")
      ->type_name("NAME");
  for (const auto& [name, names, what] :
       {std::tuple("--member", &o.members, "internal forces and stress of these members only, or families of members"),
        {"--point", &o.points, "the displacement of these points; of the place that moves most if not given"}})
    verb.add_option(name, *names, what)->type_name("NAME")->delimiter(',')->allow_extra_args(false);
  verb.add_flag("--brief", o.brief, "the result of each step only");
  corvex::cli::add_output_options(verb, o.output, false);
  verb.get_option("--output")
      ->description("write to this file: typeset with sketches if it ends with .html or .pdf, else text, .md or .json");
}

void add_draw(CLI::App& verb, corvex::cli::DrawOptions& o) {
  corvex::cli::add_model_options(verb, o.model);
  verb.add_option("--what", o.what, fmt::format("one of: {}", fmt::join(corvex::cli::pictures(), ", ")))
      ->check(corvex::cli::one_of(corvex::cli::pictures()))
      ->type_name("PICTURE")
      ->capture_default_str();
  verb.add_option("--case", o.load_case, "load case, combination or envelope; the one that governs if not given")
      ->type_name("NAME");
  verb.add_option("--view", o.view, "front, side, top or space (from a corner)")
      ->check(corvex::cli::one_of(corvex::cli::views()))
      ->type_name("VIEW");
  verb.add_option("--only", o.only, "only these members, or families of members; a sheet is of one")
      ->type_name("NAME")
      ->delimiter(',')
      ->allow_extra_args(false);
  verb.add_option("--variants", o.variants,
                  "these variants, or all, upon the model as it stands: deformed shapes, N, V, M or T")
      ->type_name("NAME")
      ->delimiter(',')
      ->allow_extra_args(false);
  verb.add_flag("--side-by-side", o.side_by_side, "the variants beside each other at one scale, in any picture");
  CLI::Option* scale = verb.add_option("--scale", o.scale, "displacements so many times as large")
                           ->check(corvex::cli::positive(1e9))
                           ->type_name("TIMES");
  verb.add_flag("--true-scale", o.true_scale, "displacements as large as they are")->excludes(scale);
  verb.add_option("--size", o.size,
                  "width and height in pixels, as 1280x800; or a3, a4, a5: a sheet of paper on its side")
      ->type_name("WxH");
  verb.add_option("--moment-side", o.moment_side, "bending moments on the side of tension, or of compression")
      ->check(corvex::cli::one_of({"tension", "compression"}))
      ->type_name("SIDE")
      ->capture_default_str();
  verb.add_flag("--dark", o.dark, "on a dark page");
  verb.add_flag("--dimensions", o.dimensions, "with the distances between the points");
  verb.add_flag("--real-width", o.real_width, "members as wide as their sections are high");
  verb.add_flag("--animate", o.animate, "the shape moving: SVG, or GIF");
  verb.add_option("--mode", o.mode, "of vibration and buckling: which one; the first if not given")
      ->check(corvex::cli::between(1, 1000))
      ->type_name("N");
  add_print_options(verb, o.units, o.digits);
  verb.add_option("-o,--output", o.output,
                  "the file: its name ends with .svg, .png or .pdf; SVG on standard output if not given")
      ->type_name("FILE")
      ->check(corvex::cli::some_name());
}

int run(int argc, char** argv) {
  if (const std::string why = wrong_verb(argc, argv); !why.empty()) return refuse(why);

  CLI::App app("Corvex verifies frames, machine structures and trusses: stresses, deflections, reactions, diagrams.",
               "corvex");
  app.set_version_flag("--version", "corvex " CORVEX_VERSION);
  app.get_formatter()->label("SUBCOMMAND", "VERB");
  app.require_subcommand(1);
  app.footer(
      "Exit status: 0 done, all limits met and all hand values agree; 1 done, but a limit is exceeded or not checked, a hand value differs, a search found nothing, inspect found an error or a warning that was not accepted, or a compared model or a run of a sweep could not be solved; 2 the model or the call is wrong, and "
      "nothing was written.");

  corvex::cli::NewOptions no;
  CLI::App* new_verb = app.add_subcommand("new", "a small commented model to start from");
  new_verb->add_option("--kind", no.kind, fmt::format("one of: {}", fmt::join(corvex::starter_kinds(), ", ")))
      ->type_name("KIND")
      ->capture_default_str();
  new_verb->add_option("-o,--output", no.output, "write to this file, which must not be there yet")
      ->type_name("FILE")
      ->check(corvex::cli::some_name());

  corvex::cli::SolveOptions so;
  CLI::App* solve_verb = app.add_subcommand(
      "solve", "reactions, displacements, internal forces with their extremes, stresses, safety, the hand calculation");
  CLI::App* verify_verb = app.add_subcommand(
      "verify", "the hand calculation beside the computed values: formula, numbers, deviation, verdict");
  verify_verb->add_option("--case", so.wanted.cases, "only the values of these load cases or combinations")
      ->type_name("NAME")
      ->delimiter(',')
      ->allow_extra_args(false);
  for (CLI::App* verb : {solve_verb, verify_verb}) {
    verb->add_flag("--record", so.record, "with the version of the program, the model file and the date of the run");
    corvex::cli::add_model_options(*verb, so.model);
    corvex::cli::add_output_options(*verb, so.output);
  }
  add_solve(*solve_verb, so);

  corvex::cli::InspectOptions in;
  CLI::App* inspect_verb =
      app.add_subcommand("inspect", "what is probably a mistake, with a remedy, and the model as it was read");
  corvex::cli::add_model_options(*inspect_verb, in.model);
  corvex::cli::add_output_options(*inspect_verb, in.output);

  corvex::cli::TraceOptions to;
  CLI::App* trace_verb = app.add_subcommand("trace", "every quantity of one member, from place to place");
  add_trace(*trace_verb, to);

  corvex::cli::DrawOptions dr;
  CLI::App* draw_verb = app.add_subcommand(
      "draw", "a picture of the structure, its loads, deformed shape, diagrams or stresses: SVG, PNG or PDF");
  add_draw(*draw_verb, dr);

  corvex::cli::CompareOptions cp;
  CLI::App* compare_verb = app.add_subcommand(
      "compare", "variants of a model, or several models, side by side, with the change against the first");
  compare_verb->add_option("MODEL", cp.models, "model files; of a single one all its variants")
      ->required()
      ->check(corvex::cli::some_name());
  for (const auto& [name, values, what, type] :
       {std::tuple("--variants", &cp.variants, "only these variants", "NAME"),
        {"--show", &cp.show, "a figure to show besides, in the words of a hand value: 'moment: rail, take: max'",
         "FIGURE"}})
    compare_verb->add_option(name, *values, what)->type_name(type)->allow_extra_args(false);
  compare_verb->get_option("--variants")->delimiter(',');
  corvex::cli::add_change_options(*compare_verb, cp.model);
  corvex::cli::add_output_options(*compare_verb, cp.output);

  corvex::cli::SweepCommand sw;
  CLI::App* sweep_verb =
      app.add_subcommand("sweep", "figures against what is varied: a table, or a plot with the limits as lines");
  corvex::cli::add_model_options(*sweep_verb, sw.model);
  sweep_verb->add_option("SWEEP", sw.name, "the name of the sweep in the model; may be left out where there is one");
  sweep_verb->add_flag("--dark", sw.dark, "a plot on a dark page");
  sweep_verb->add_option("--size", sw.size, "width and height of a plot in pixels, as 1280x800; or a3, a4, a5")
      ->type_name("WxH");
  corvex::cli::add_output_options(*sweep_verb, sw.output);
  sweep_verb->get_option("--output")
      ->description("write to this file: a plot if it ends with .svg, .png or .pdf, a spreadsheet if with .xlsx");

  corvex::cli::ChooseOptions cs;
  CLI::App* choose_verb = app.add_subcommand(
      "choose", "the lightest listed sections with which every limit is met, of those that the model names");
  corvex::cli::add_model_options(*choose_verb, cs.model);
  choose_verb->add_option("--runners-up", cs.runners_up, "so many of the next best too")
      ->check(corvex::cli::between(0, 100))
      ->type_name("N")
      ->capture_default_str();
  corvex::cli::add_output_options(*choose_verb, cs.output);
  choose_verb->get_option("--output")->description("write the model with the lightest choice to this file");

  corvex::cli::ReportCommand re;
  CLI::App* report_verb = app.add_subcommand(
      "report",
      "the calculation as a document: model, loads, results, limits, hand calculation; HTML, PDF or Markdown");
  add_report(*report_verb, re);

  corvex::cli::DeriveCommand de;
  CLI::App* derive_verb = app.add_subcommand(
      "derive", "the hand calculation written step by step, by statics and virtual work, beside the solution");
  add_derive(*derive_verb, de);

  corvex::cli::ModesCommand mo;
  CLI::App* modes_verb =
      app.add_subcommand("modes", "natural frequencies, and load factors of buckling with what buckles");
  corvex::cli::add_model_options(*modes_verb, mo.model);
  modes_verb
      ->add_option("--vibration", mo.vibration,
                   "so many natural frequencies; as many as the model asks for, or 6, if not given")
      ->check(corvex::cli::between(0, 1000))
      ->type_name("N");
  modes_verb
      ->add_option("--buckling", mo.buckling,
                   "load factors of these load cases or combinations; all that are judged if neither the model nor the "
                   "call names any")
      ->type_name("NAME")
      ->delimiter(',')
      ->allow_extra_args(false);
  modes_verb->add_option("--under", mo.under, "frequencies with the axial forces of this load case or combination")
      ->type_name("NAME");
  corvex::cli::add_output_options(*modes_verb, mo.output);

  corvex::cli::ViewCommand vi;
  CLI::App* view_verb = app.add_subcommand(
      "view",
      "a page to look at the model: turned, with the values at the pointer; it follows the file as it is saved");
  corvex::cli::add_model_options(*view_verb, vi.model);
  view_verb->add_option("--port", vi.port, "of this machine, where the page is served; a free one if not given")
      ->check(corvex::cli::between(1, 65535))
      ->type_name("PORT");
  add_print_options(*view_verb, vi.units, vi.digits);
  view_verb->add_option("-o,--output", vi.output, "write the page as one file of HTML instead of serving it")
      ->type_name("FILE")
      ->check(corvex::cli::some_name());

  corvex::cli::CatalogueOptions co;
  CLI::App* catalogue_verb =
      app.add_subcommand("catalogue", "profiles and materials that are built in, and the sections of a model");
  add_catalogue(*catalogue_verb, co);

  std::string folder;
  CLI::App* demo_verb =
      app.add_subcommand("demo", "the example models of an orchard's cider works with their results, into a folder");
  demo_verb->add_option("DIR", folder, "the folder; made if it is not there")->required();

  for (CLI::App* verb :
       {new_verb, inspect_verb, solve_verb, trace_verb, verify_verb, draw_verb, compare_verb, sweep_verb, choose_verb,
        derive_verb, modes_verb, report_verb, view_verb, catalogue_verb, demo_verb})
    verb->group("Verbs");

  std::string memory, time;
  for (CLI::App* verb : {inspect_verb, solve_verb, trace_verb, verify_verb, draw_verb, compare_verb, sweep_verb,
                         choose_verb, derive_verb, modes_verb, report_verb, view_verb, catalogue_verb}) {
    verb->add_option("--max-memory", memory,
                     "take no more memory than this, as \"2 GB\"; three quarters of what is free if not given")
        ->type_name("SIZE");
    verb->add_option("--max-time", time, "take no longer than this, as \"90 s\" or \"10 min\"; an hour if not given")
        ->type_name("TIME");
  }

  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& e) {
    if (e.get_exit_code() == 0) {
      const int status = app.exit(e);
      return std::cout.flush() ? status : refuse("standard output cannot be written");
    }
    return refuse(in_our_words(e, app, argc, argv) + " (see corvex --help)");
  }
  const std::uint64_t bytes = corvex::cli::bytes_of(memory);
  if (!memory.empty() && bytes == 0)
    return refuse(fmt::format("--max-memory: '{}' is no size; write it as \"2 GB\" or \"500 MB\"", memory));
  // A page is served until it is ended.
  const bool serves = view_verb->parsed() && vi.output.empty();
  const double seconds = !time.empty() ? corvex::cli::seconds_of(time) : serves ? -1 : 3600;
  if (seconds == 0)
    return refuse(fmt::format("--max-time: '{}' is no time; write it as \"90 s\", \"10 min\" or \"2 h\"", time));
  corvex::cli::bound_memory(bytes);
  if (serves)
    vi.seconds = seconds;
  else
    corvex::cli::bound_time(seconds);
  if (*new_verb) return corvex::cli::begin_model(no);
  if (*solve_verb || *verify_verb) return corvex::cli::solve(so, verify_verb->parsed());
  if (*inspect_verb) return corvex::cli::inspect(in);
  if (*trace_verb) return corvex::cli::trace(to);
  if (*choose_verb) return corvex::cli::choose(cs);
  if (*sweep_verb) return corvex::cli::sweep(sw);
  if (*compare_verb) return corvex::cli::compare(cp);
  if (*view_verb) return corvex::cli::view(vi);
  if (*modes_verb) return corvex::cli::modes(mo);
  if (*derive_verb) return corvex::cli::derive(de);
  if (*report_verb) return corvex::cli::report(re);
  if (*draw_verb) return corvex::cli::draw(dr);
  if (*catalogue_verb) return corvex::cli::catalogue(co);
  return corvex::cli::demo(folder);
}

// What a model can cause is told as a problem; what is left is this.
int guarded(int argc, char** argv) {
  try {
    return run(argc, argv);
  } catch (const std::bad_alloc&) {
    std::fputs(corvex::cli::no_memory.data(), stderr);
  } catch (const std::system_error& e) {
    // No thread could be begun: there is no room for its stack.
    if (e.code() == std::errc::resource_unavailable_try_again)
      std::fputs(corvex::cli::no_memory.data(), stderr);
    else
      corvex::cli::say("corvex: error: {}\n", std::string(e.what()));
  } catch (const std::exception& e) {
    corvex::cli::say("corvex: error: a fault of the program, not of the model: {}\n", std::string(e.what()));
  }
  return corvex::cli::refused;
}

}  // namespace

int main(int argc, char** argv) {
  // Beyond the largest size that a file may have, writing fails and the reason is told.
  std::signal(SIGXFSZ, SIG_IGN);
  corvex::cli::report_faults();
  corvex::cli::keep_a_reserve();
  return corvex::cli::with_enough_stack([&] { return guarded(argc, argv); });
}
