#include "arguments.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <iostream>
#include <optional>
#include <vector>

#include "corvex/formula.hpp"
#include "memory.hpp"
#include "output.hpp"
#include "time_limit.hpp"
#include "version.hpp"

namespace corvex::cli {
namespace {

std::vector<std::string> command_names() {
  std::vector<std::string> names;
  for (const Command* c : commands()) names.emplace_back(c->name);
  return names;
}

// The reason why the first argument is not a command; empty if it is one.
std::string wrong_command(int argc, char** argv) {
  if (argc < 2) return "a command was expected, for example corvex solve MODEL (see corvex --help)";
  const std::string word = argv[1];
  if (word.starts_with("-") || find_command(word)) return {};
  // Planned commands are known, but do not exist yet.
  const std::vector<std::string> names = command_names();
  if (word == "convert" || word == "check")
    return fmt::format("'{}' is not implemented; there are: {}", word, fmt::join(names, ", "));
  std::string text = corvex::did_you_mean(word, names);
  if (text.empty()) text = fmt::format("; there are: {}", fmt::join(names, ", "));
  return fmt::format("there is no command '{}'{}", word, text);
}

// Error in the options of a call: an option that the command does not have, with the nearest valid one.
std::string in_our_words(const CLI::ParseError& e, CLI::App& app, int argc, char** argv) {
  // After an error no command counts as parsed: the one that was called is found by its name.
  const CLI::App* command = nullptr;
  for (const CLI::App* one : app.get_subcommands([](const CLI::App*) { return true; }))
    if (argc > 1 && one->get_name() == argv[1]) command = one;
  if (e.get_exit_code() != static_cast<int>(CLI::ExitCodes::ExtrasError) || !command) return e.what();
  std::vector<std::string> known;
  for (const CLI::Option* option : command->get_options()) {
    // Without a group: an earlier name.
    if (option->get_group().empty()) continue;
    for (const std::string& name : option->get_lnames()) known.push_back("--" + name);
    for (const std::string& name : option->get_snames()) known.push_back("-" + name);
  }
  for (int i = 2; i < argc; ++i) {
    const std::string word = argv[i], option = word.substr(0, word.find('='));
    if (option.size() < 2 || option[0] != '-' || std::find(known.begin(), known.end(), option) != known.end()) continue;
    return fmt::format("'{}' is not an option of {}{}", option, command->get_name(),
                       corvex::did_you_mean(option, known));
  }
  return e.what();
}

void add_limits(CLI::App& app, Limits& limits) {
  app.add_option("--max-memory", limits.memory,
                 "Use no more memory than this, for example \"2 GB\"; three quarters of the free memory if not given")
      ->type_name("SIZE")
      ->group(groups::limits);
  app.add_option("--max-time", limits.time,
                 "Run no longer than this, for example \"90 s\" or \"10 min\"; an hour if not given")
      ->type_name("TIME")
      ->group(groups::limits);
}

int run_within(const Command& command, const Run& run, const Limits& limits) {
  const std::uint64_t bytes = bytes_of(limits.memory);
  if (!limits.memory.empty() && bytes == 0)
    return refuse(fmt::format("--max-memory: '{}' is not a size; write it as \"2 GB\" or \"500 MB\"", limits.memory));
  std::optional<double> seconds;
  if (!limits.time.empty()) seconds = seconds_of(limits.time);
  if (seconds && *seconds == 0)
    return refuse(
        fmt::format("--max-time: '{}' is not a time; write it as \"90 s\", \"10 min\" or \"2 h\"", limits.time));
  bound_memory(bytes);
  if (!command.keeps_time) bound_time(seconds.value_or(usual_seconds));
  return run(seconds);
}

}  // namespace

Run add_all_options(const Command& command, CLI::App& app, Limits& limits) {
  Run run = command.add_options(app);
  if (command.reads_models) add_limits(app, limits);
  return run;
}

int run_arguments(int argc, char** argv) {
  if (const std::string why = wrong_command(argc, argv); !why.empty()) return refuse(why);
  CLI::App app("Corvex verifies frames, machine structures and trusses: stresses, deflections, reactions, diagrams.",
               "corvex");
  app.set_version_flag("--version", "corvex " CORVEX_VERSION);
  app.get_formatter()->label("SUBCOMMAND", "COMMAND");
  app.require_subcommand(1);
  app.footer(
      "Exit status:\n"
      "  0  done, all limits met and all hand values agree\n"
      "  1  done, but a limit is exceeded or not checked, a hand value differs, a search found nothing,\n"
      "     inspect found an error or a warning that was not accepted, or a compared model or a run of a\n"
      "     sweep could not be solved\n"
      "  2  the model or the call is wrong, and nothing was written");
  const Command* called = argc > 1 ? find_command(argv[1]) : nullptr;
  Run run_called;
  Limits limits;
  for (const Command* c : commands()) {
    CLI::App* sub = app.add_subcommand(c->name, c->description)->group(c->group);
    // The options of the others are not needed.
    if (c == called) run_called = add_all_options(*c, *sub, limits);
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
  return called ? run_within(*called, run_called, limits)
                : refuse("a command was expected, for example corvex solve MODEL");
}

}  // namespace corvex::cli
