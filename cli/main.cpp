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
#include <optional>
#include <system_error>

#include "command.hpp"
#include "corvex/formula.hpp"
#include "faults.hpp"
#include "memory.hpp"
#include "output.hpp"
#include "time_limit.hpp"
#include "version.hpp"

namespace {

namespace cli = corvex::cli;
using cli::refuse;

std::vector<std::string> command_names() {
  std::vector<std::string> names;
  for (const cli::Command* c : cli::commands()) names.emplace_back(c->name);
  return names;
}

// A word where a command should stand that is none.
std::string wrong_command(int argc, char** argv) {
  if (argc < 2) return "a verb was expected, as corvex solve MODEL (see corvex --help)";
  const std::string word = argv[1];
  if (word.starts_with("-") || cli::find_command(word)) return {};
  // The design names them; "not built yet" is another answer than "unknown".
  const std::vector<std::string> names = command_names();
  if (word == "convert" || word == "check")
    return fmt::format("'{}' is not built yet; there are: {}", word, fmt::join(names, ", "));
  std::string text = corvex::did_you_mean(word, names);
  if (text.empty()) text = fmt::format("; there are: {}", fmt::join(names, ", "));
  return fmt::format("there is no verb '{}'{}", word, text);
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

struct Bounds {
  std::string memory, time;
};

void add_bounds(CLI::App& app, Bounds& bounds) {
  app.add_option("--max-memory", bounds.memory,
                 "take no more memory than this, as \"2 GB\"; three quarters of what is free if not given")
      ->type_name("SIZE");
  app.add_option("--max-time", bounds.time, "take no longer than this, as \"90 s\" or \"10 min\"; an hour if not given")
      ->type_name("TIME");
}

int run_within(const cli::Command& command, const cli::Run& run, const Bounds& bounds) {
  const std::uint64_t bytes = cli::bytes_of(bounds.memory);
  if (!bounds.memory.empty() && bytes == 0)
    return refuse(fmt::format("--max-memory: '{}' is no size; write it as \"2 GB\" or \"500 MB\"", bounds.memory));
  std::optional<double> seconds;
  if (!bounds.time.empty()) seconds = cli::seconds_of(bounds.time);
  if (seconds && *seconds == 0)
    return refuse(fmt::format("--max-time: '{}' is no time; write it as \"90 s\", \"10 min\" or \"2 h\"", bounds.time));
  cli::bound_memory(bytes);
  if (!command.keeps_time) cli::bound_time(seconds.value_or(cli::usual_seconds));
  return run(seconds);
}

int run(int argc, char** argv) {
  if (const std::string why = wrong_command(argc, argv); !why.empty()) return refuse(why);
  CLI::App app("Corvex verifies frames, machine structures and trusses: stresses, deflections, reactions, diagrams.",
               "corvex");
  app.set_version_flag("--version", "corvex " CORVEX_VERSION);
  app.get_formatter()->label("SUBCOMMAND", "VERB");
  app.require_subcommand(1);
  app.footer(
      "Exit status: 0 done, all limits met and all hand values agree; 1 done, but a limit is exceeded or not checked, a hand value differs, a search found nothing, inspect found an error or a warning that was not accepted, or a compared model or a run of a sweep could not be solved; 2 the model or the call is wrong, and "
      "nothing was written.");
  const cli::Command* called = argc > 1 ? cli::find_command(argv[1]) : nullptr;
  cli::Run run_called;
  Bounds bounds;
  for (const cli::Command* c : cli::commands()) {
    CLI::App* sub = app.add_subcommand(c->name, c->description)->group("Verbs");
    // Only the options of the command that is called are needed.
    if (c != called) continue;
    run_called = c->add_options(*sub);
    if (c->reads_models) add_bounds(*sub, bounds);
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
  return called ? run_within(*called, run_called, bounds) : refuse("a verb was expected, as corvex solve MODEL");
}

// What a model can cause is told as a problem; what is left is this.
int guarded(int argc, char** argv) {
  try {
    return run(argc, argv);
  } catch (const std::bad_alloc&) {
    std::fputs(cli::no_memory.data(), stderr);
  } catch (const std::system_error& e) {
    // No thread could be begun: there is no room for its stack.
    if (e.code() == std::errc::resource_unavailable_try_again)
      std::fputs(cli::no_memory.data(), stderr);
    else
      cli::say("corvex: error: {}\n", std::string(e.what()));
  } catch (const std::exception& e) {
    cli::say("corvex: error: a fault of the program, not of the model: {}\n", std::string(e.what()));
  }
  return cli::refused;
}

}  // namespace

int main(int argc, char** argv) {
  // Beyond the largest size that a file may have, writing fails and the reason is told.
  std::signal(SIGXFSZ, SIG_IGN);
  cli::report_faults();
  cli::keep_a_reserve();
  return cli::with_enough_stack([&] { return guarded(argc, argv); });
}
