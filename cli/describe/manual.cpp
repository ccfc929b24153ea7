// The manual page, as roff with the macros of man(7).
#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>
#include <utility>

#include "describe/described.hpp"
#include "output.hpp"

namespace corvex::cli {
namespace {

// Minus signs that can be copied, and no line that begins as a request.
std::string roff(const std::string& text) {
  std::string all;
  for (const char c : text) {
    if (c == '\\')
      all += "\\e";
    else if (c == '-')
      all += "\\-";
    else
      all += c;
  }
  if (!all.empty() && (all.front() == '.' || all.front() == '\'')) all = "\\&" + all;
  return all;
}

using Key = std::pair<std::string, std::string>;  // an option and its description

// The options of groups that several commands have, each with its most frequent description.
std::set<Key> shared_options(const std::vector<DescribedCommand>& all) {
  std::map<std::string, std::map<std::string, int>> counts;
  for (const DescribedCommand& d : all)
    for (const CLI::Option* o : d.options)
      if (o->get_group() != "Options" || o->check_lname("help")) ++counts[option_line(*o)][o->get_description()];
  std::set<Key> shared;
  for (const auto& [line, descriptions] : counts) {
    const auto most = std::max_element(descriptions.begin(), descriptions.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    shared.emplace(line, most->first);
  }
  return shared;
}

Key key(const CLI::Option& o) {
  return {option_line(o), o.get_description()};
}

std::string item(const CLI::Option& o) {
  return fmt::format(".TP\n.B {}\n{}.\n", roff(option_line(o)), roff(o.get_description()));
}

std::string synopsis(const DescribedCommand& d) {
  std::string text = fmt::format(".B corvex {}\n", d.command->name);
  for (const CLI::Option* p : d.positionals) {
    const std::string name = roff(p->get_name(true)) + (p->get_items_expected_max() > 1 ? "\\ .\\|.\\|." : "");
    text += p->get_required() ? fmt::format(".I {}\n", name) : fmt::format(".RI [ {} ]\n", name);
  }
  if (d.options.size() > 1) text += ".RI [ options ]\n";
  return text;
}

std::string section(const DescribedCommand& d, const std::set<Key>& shared) {
  std::string text =
      fmt::format(".SS {}\n{}.\n{}\n", d.command->name, roff(d.command->description), roff(d.command->details));
  for (const CLI::Option* p : d.positionals)
    text += fmt::format(".TP\n.I {}\n{}.\n", roff(p->get_name(true)), roff(p->get_description()));
  for (const CLI::Option* o : d.options)
    if (!shared.contains(key(*o))) text += item(*o);
  return text;
}

}  // namespace

std::string manual_page(const std::string& text) {
  std::string lines, sections, options;
  const std::vector<DescribedCommand> all = described_commands();
  const std::set<Key> shared = shared_options(all);
  for (const DescribedCommand& d : all) {
    lines += (lines.empty() ? "" : ".br\n") + synopsis(d);
    sections += section(d, shared);
  }
  std::set<Key> seen;
  for (const char* group : {groups::input, groups::output, groups::limits, "Options"})
    for (const DescribedCommand& d : all)
      for (const CLI::Option* o : d.options)
        if (o->get_group() == group && shared.contains(key(*o)) && seen.insert(key(*o)).second) options += item(*o);
  return replaced(replaced(replaced(text, "@SYNOPSIS@\n", lines), "@COMMANDS@\n", sections), "@OPTIONS@\n", options);
}

}  // namespace corvex::cli
