// A command of the program: its name, its options, and what runs it.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string_view>
#include <vector>

namespace CLI {
class App;
}  // namespace CLI

namespace corvex::cli {

// Runs a command after its options were read; the time that --max-time allows is given to it. The exit status.
using Run = std::function<int(std::optional<double> seconds)>;

struct Command {
  const char* name;
  const char* group;        // of the help
  const char* description;  // begins with a verb, without a full stop
  const char* details;      // for the manual: plain text
  // Adds the options; they are kept as long as the answer.
  Run (*add_options)(CLI::App& app);
  // Whether it reads models: then it takes --max-memory and --max-time.
  bool reads_models = true;
  // Whether the command itself sees to the time that it may take.
  bool keeps_time = false;
};

// In the order of the help.
const std::vector<const Command*>& commands();
// Null if there is none of this name.
const Command* find_command(std::string_view name);

// For a command whose options are one struct, read by one function.
template <class Options, class Function>
Run run_with(std::shared_ptr<Options> options, Function function) {
  return [options = std::move(options), function](std::optional<double>) { return function(*options); };
}

}  // namespace corvex::cli
