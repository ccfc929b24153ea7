#include "describe/described.hpp"

#include <fmt/format.h>

namespace corvex::cli {

std::vector<DescribedCommand> described_commands() {
  static Limits limits;
  // Their options write into what these hold.
  static std::vector<Run> runs;
  std::vector<DescribedCommand> all;
  for (const Command* c : commands()) {
    DescribedCommand d{.command = c, .app = std::make_shared<CLI::App>(c->description, c->name)};
    runs.push_back(add_all_options(*c, *d.app, limits));
    for (CLI::Option* o : d.app->get_options([](CLI::Option*) { return true; })) {
      if (o->get_group().empty()) continue;
      (o->nonpositional() ? d.options : d.positionals).push_back(o);
    }
    all.push_back(std::move(d));
  }
  return all;
}

std::string option_line(const CLI::Option& option) {
  std::string line;
  for (const std::string& name : option.get_snames()) line += fmt::format("-{}, ", name);
  for (const std::string& name : option.get_lnames()) line += fmt::format("--{}", name);
  if (option.get_items_expected_max() != 0) line += " " + option.get_type_name();
  return line;
}

std::string replaced(std::string text, const std::string& what, const std::string& by) {
  for (std::size_t at = text.find(what); at != std::string::npos; at = text.find(what, at + by.size()))
    text.replace(at, what.size(), by);
  return text;
}

}  // namespace corvex::cli
