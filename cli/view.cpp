#include "view.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <atomic>
#include <chrono>
#include <csignal>
#include <cstdlib>
#include <memory>

#include "announcer.hpp"
#include "command.hpp"
#include "corvex/view.hpp"
#include "findings.hpp"
#include "pictures.hpp"
#include "rights.hpp"
#include "solved.hpp"
#include "time_limit.hpp"

namespace corvex::cli {
namespace {

std::atomic<bool> ends{false};

void end(int) {
  ends = true;
}

// The original model and its variants; those that cannot be solved are reported and left out.
std::vector<Viewed> with_variants(const ModelDocument& document, const Overrides& overrides, Model model,
                                  Solution solution) {
  Evaluation evaluation = evaluate(model, std::move(solution));
  std::vector<Viewed> all{{overrides.variant, std::move(model), std::move(evaluation)}};
  if (!overrides.variant.empty()) return all;
  for (const std::string& name : document.variants()) {
    Overrides with = overrides;
    with.variant = name;
    auto built = build(document, with);
    if (!built) {
      for (const Problem& p : built.error()) tell(p);
      continue;
    }
    Evaluation own = evaluate(*built);
    if (own.solution.ok())
      all.push_back({name, std::move(built.value()), std::move(own)});
    else
      for (const Problem& p : built->located(own.solution.problems())) tell(p);
  }
  return all;
}

int to_file(const ViewCommand& o) {
  if (!o.output.ends_with(".html")) return refuse(fmt::format("'{}': a page ends with .html", o.output));
  Progress progress;
  OutputOptions reading;
  reading.output = o.output;
  reading.units = o.units;
  std::optional<ModelDocument> document;
  auto solved = read_and_solve(o.model, reading, progress, &document);
  if (!solved) return refused;
  progress.doing("writing the page");
  const std::vector<Viewed> all =
      with_variants(*document, *overrides_of(o.model), std::move(solved->model), std::move(solved->solution));
  const auto page = viewed(all, o.digits);
  progress.done();
  if (!page) return refuse(page.error().text);
  const std::string why = write(o.output, *page);
  return why.empty() ? 0 : refuse(why);
}

}  // namespace

int view(const ViewCommand& o) {
  if (!o.output.empty()) return to_file(o);
  if (o.model.path == "-")
    return refuse(std::string("standard input cannot be followed: name a file, or -o page.html"));
  const auto overrides = overrides_of(o.model);
  if (!overrides) return refuse(overrides.error());
  // Errors at the start are reported as by every command; later the page shows them.
  if (const auto document = read_document(o.model.path, FileKind::regular); !document) return refuse(document.error());
  if (!o.units.empty())
    if (const auto units = units_for_print(o.units, {}); !units) return refuse(units.error());
  std::signal(SIGINT, end);
  std::signal(SIGTERM, end);
  std::signal(SIGHUP, end);
  // A closed standard error must not end the program.
  std::signal(SIGPIPE, SIG_IGN);
  give_up_writing();
  int status = 0;
  {
    const auto announcer = std::make_shared<Announcer>();
    const auto begun = std::chrono::steady_clock::now();
    const auto is_over = [&] {
      return o.seconds >= 0 && std::chrono::steady_clock::now() - begun > std::chrono::duration<double>(o.seconds);
    };
    const auto done = served(
        {.path = o.model.path,
         .overrides = *overrides,
         .units = o.units,
         .port = o.port,
         .digits = o.digits,
         .ready =
             [&](const std::string& address) {
               announcer->on_output(address + "\n");
               announcer->on_error(fmt::format("Open it in a browser. It follows {} as it is saved; Ctrl-C ends it.\n",
                                               made_printable(o.model.path)));
             },
         .read =
             [announcer](const Problems& problems) {
               constexpr std::size_t most = 25;
               std::string text;
               for (std::size_t i = 0; i < problems.size() && i < most; ++i) text += described(problems[i]);
               if (problems.size() > most) text += fmt::format("and {} more\n", problems.size() - most);
               if (!text.empty()) announcer->on_error(std::move(text));
             },
         .stop = [&] { return ends.load() || is_over(); }});
    if (!done) announcer->on_error(fmt::format("{} {}\n", mark_error("corvex: error:"), done.error().text));
    status = done ? 0 : refused;
  }
  // Threads that still solve, or write to a stopped terminal, must not delay the end.
  std::_Exit(status);
}

namespace {

Run add_view_options(CLI::App& app) {
  const auto options = std::make_shared<ViewCommand>();
  ViewCommand& o = *options;
  add_model_options(app, o.model);
  app.add_option("--port", o.port, "Serve the page at this port; a free one if not given")
      ->check(between(1, 65535))
      ->type_name("PORT");
  add_print_options(app, o.units, o.digits);
  app.add_option("-o,--output", o.output, "Write the page as one HTML file instead of serving it")
      ->type_name("FILE")
      ->check(some_name())
      ->group(groups::output);
  return [options](std::optional<double> seconds) {
    // A page is served until it is ended.
    if (options->output.empty())
      options->seconds = seconds.value_or(-1);
    else
      bound_time(seconds.value_or(usual_seconds));
    return view(*options);
  };
}

}  // namespace

extern const Command view_command{
    .name = "view",
    .group = "Look",
    .description = "Show the model on an interactive page in a browser",
    .details =
        "The page shows the structure with its loads, deformed shape, diagrams and stresses, and the value of every quantity at the pointer. It is served on 127.0.0.1 at an address that is printed, and is updated whenever the file is saved, until Ctrl-C is pressed. With an output file the page is written as one file that needs no network.",
    .add_options = add_view_options,
    .keeps_time = true};

}  // namespace corvex::cli
