// The completion of bash: commands, options, and the values of options.
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <map>
#include <set>

#include "corvex/catalogue.hpp"
#include "corvex/material.hpp"
#include "describe/described.hpp"

namespace corvex::cli {
namespace {

std::string words(const std::string& list) {
  return fmt::format("mapfile -t COMPREPLY < <(compgen -W \"{}\" -- \"$word\") && return", list);
}

std::string series() {
  std::vector<std::string> all;
  for (const ProfileSeries& s : profile_series()) all.push_back(s.name);
  return fmt::format("{}", fmt::join(all, " "));
}

// Names with a blank would be two words of the list.
std::string materials_without_blanks() {
  std::vector<std::string> all;
  for (const std::string& name : material_names())
    if (name.find(' ') == std::string::npos) all.push_back(name);
  return fmt::format("{}", fmt::join(all, " "));
}

constexpr const char* tables =
    "model cases limits reactions balance displacements internal-forces internal-moments stress hand sweep comparison "
    "choices";

// By the kind of value, which the help shows: names in the model file, words, folders, files.
std::string by_type(const std::string& type) {
  if (type == "CASE") return "_corvex_names \"loads combinations\" \"envelope\" && return";
  if (type == "MEMBER") return "_corvex_names \"members\" && return";
  if (type == "POINT") return "_corvex_names \"points\" && return";
  if (type == "VARIANT") return "_corvex_names \"variants\" && return";
  if (type == "SERIES") return words(series());
  if (type == "MATERIAL") return words(materials_without_blanks());
  if (type == "TABLE") return words(tables);
  if (type == "DIR") return "mapfile -t COMPREPLY < <(compgen -d -- \"$word\") && return";
  if (type == "FILE") return "mapfile -t COMPREPLY < <(compgen -f -- \"$word\") && return";
  return "return";
}

// The words of `one_of` are the name of its check.
std::string value(CLI::Option& option) {
  CLI::Validator* check = nullptr;
  try {
    check = option.get_validator(0);
  } catch (const CLI::OptionNotFound&) {
  }
  return check && !check->get_name().empty() ? words(check->get_name()) : by_type(option.get_type_name());
}

std::string names(const CLI::Option& option, const char* between) {
  std::vector<std::string> all;
  for (const std::string& name : option.get_snames()) all.push_back("-" + name);
  for (const std::string& name : option.get_lnames()) all.push_back("--" + name);
  return fmt::format("{}", fmt::join(all, between));
}

}  // namespace

std::string bash_completion(const std::string& text) {
  std::string command_names, options, values;
  std::set<std::string> seen;
  for (const DescribedCommand& d : described_commands()) {
    command_names += fmt::format("{} ", d.command->name);
    std::vector<std::string> own;
    for (CLI::Option* o : d.options) {
      for (const std::string& name : o->get_lnames()) own.push_back("--" + name);
      if (o->get_items_expected_max() == 0) continue;
      const std::string line = fmt::format("    {}) {} ;;\n", names(*o, " | "), value(*o));
      if (seen.insert(line).second) values += line;
    }
    options += fmt::format("    {}) options=\"{}\" ;;\n", d.command->name, fmt::join(own, " "));
  }
  return replaced(replaced(replaced(text, "@COMMANDS@", command_names), "@OPTIONS@\n", options), "@VALUES@\n", values);
}

}  // namespace corvex::cli
