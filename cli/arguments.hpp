// The arguments of the program, parsed by the table of commands.
#pragma once

#include <string>

#include "command.hpp"

namespace corvex::cli {

// Runs the command that the arguments name. The exit status.
int run_arguments(int argc, char** argv);

// Adds the options of a command, with those that limit memory and time where it reads models.
struct Limits {
  std::string memory{}, time{};
};
Run add_all_options(const Command& command, CLI::App& app, Limits& limits);

}  // namespace corvex::cli
