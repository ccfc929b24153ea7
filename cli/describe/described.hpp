// The commands with their options, as the manual page and the completion of the shell describe them.
#pragma once

#include <CLI/CLI.hpp>
#include <memory>
#include <string>
#include <vector>

#include "arguments.hpp"

namespace corvex::cli {

struct DescribedCommand {
  const Command* command;
  std::shared_ptr<CLI::App> app;
  // Those that are listed in the help.
  std::vector<CLI::Option*> options{}, positionals{};
};
std::vector<DescribedCommand> described_commands();

// "-o, --output FILE"
std::string option_line(const CLI::Option& option);

// The manual page (roff) from its template: @SYNOPSIS@, @COMMANDS@ and @OPTIONS@ are replaced.
std::string manual_page(const std::string& text);
// The completion of bash from its template: @COMMANDS@, @OPTIONS@ and @VALUES@ are replaced.
std::string bash_completion(const std::string& text);

// Every `what` in the text replaced.
std::string replaced(std::string text, const std::string& what, const std::string& by);

}  // namespace corvex::cli
