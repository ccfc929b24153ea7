#include <algorithm>

#include "command.hpp"

namespace corvex::cli {

// Each is defined at the end of the file of its name.
extern const Command new_command, inspect_command, solve_command, trace_command, modes_command, verify_command,
    derive_command, compare_command, sweep_command, choose_command, draw_command, view_command, report_command,
    catalogue_command, demo_command;

const std::vector<const Command*>& commands() {
  static const std::vector<const Command*> all = {
      &new_command,    &inspect_command, &solve_command,   &trace_command,     &modes_command,
      &verify_command, &derive_command,  &compare_command, &sweep_command,     &choose_command,
      &draw_command,   &view_command,    &report_command,  &catalogue_command, &demo_command};
  return all;
}

const Command* find_command(std::string_view name) {
  const auto it = std::find_if(commands().begin(), commands().end(), [&](const Command* c) { return c->name == name; });
  return it == commands().end() ? nullptr : *it;
}

}  // namespace corvex::cli
