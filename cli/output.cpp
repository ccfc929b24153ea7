#include "output.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <charconv>
#include <cstdio>
#include <filesystem>
#include <fstream>

#include "corvex/formula.hpp"
#include "corvex/writing.hpp"
#include "faults.hpp"
#include "terminal.hpp"

namespace corvex::cli {
namespace {

namespace fs = std::filesystem;

// Discards standard error for its lifetime: the library for spreadsheets prints its failures there, which the caller
// reports in its own words. A crash is still reported.
class ErrorsDiscarded {
 public:
  ErrorsDiscarded() : kept_(dup(STDERR_FILENO)), nowhere_(open("/dev/null", O_WRONLY | O_CLOEXEC)) {
    std::fflush(stderr);
    if (kept_ < 0 || nowhere_ < 0) return;
    crash_descriptor = kept_;
    dup2(nowhere_, STDERR_FILENO);
  }
  ~ErrorsDiscarded() {
    std::fflush(stderr);
    if (kept_ >= 0 && nowhere_ >= 0) {
      dup2(kept_, STDERR_FILENO);
      crash_descriptor = STDERR_FILENO;
    }
    if (kept_ >= 0) close(kept_);
    if (nowhere_ >= 0) close(nowhere_);
  }
  ErrorsDiscarded(const ErrorsDiscarded&) = delete;
  ErrorsDiscarded& operator=(const ErrorsDiscarded&) = delete;

 private:
  int kept_, nowhere_;
};

bool ends_with(const std::string& text, std::string_view end) {
  return text.size() > end.size() && text.compare(text.size() - end.size(), end.size(), end) == 0;
}

// CSV of one table, or of all, each under its name.
// An empty answer means success.
std::string csv_text(const std::vector<DataTable>& tables, const OutputOptions& o, std::string& text) {
  std::vector<std::string> names;
  for (const DataTable& t : tables) {
    names.push_back(t.name);
    if (!o.table.empty() && t.name != o.table) continue;
    if (o.table.empty()) text += (text.empty() ? "" : "\r\n") + t.name + "\r\n";
    text += csv(t, o.digits);
  }
  if (!text.empty()) return {};
  return fmt::format("there is no table '{}'{}; there are: {}", o.table, did_you_mean(o.table, names),
                     fmt::join(names, ", "));
}

int write_csv_files(const std::vector<DataTable>& tables, const OutputOptions& o) {
  std::error_code error;
  fs::create_directories(o.csv_folder, error);
  if (error) return refuse(fmt::format("the folder '{}' cannot be made: {}", o.csv_folder, error.message()));
  std::vector<std::string> names;
  FileWriter files;
  for (const DataTable& t : tables) {
    const fs::path path = fs::path(o.csv_folder) / (t.name + ".csv");
    if (const std::string why = overwrites(path.string(), o.read); !why.empty()) return refuse(why);
    if (const std::string why = files.stage(path.string(), csv(t, o.digits)); !why.empty()) return refuse(why);
    names.push_back(t.name);
  }
  if (const std::string why = files.commit(); !why.empty()) return refuse(why);
  say("{} tables as CSV in {}: {}\n", names.size(), o.csv_folder, fmt::join(names, ", "));
  return 0;
}

// Text under the name of another kind of file would be opened by the wrong program. An empty answer means that the
// ending is one of ours, or that there is none, or that --format says what is meant.
std::string wrong_ending(const OutputOptions& o) {
  if (o.output.empty() || o.output == "-") return {};
  const std::string end = fs::path(o.output).extension().string();
  static const std::vector<std::string> ours = {".txt", ".md", ".csv", ".json", ".xlsx"};
  if (end.empty() || std::find(ours.begin(), ours.end(), end) != ours.end()) return {};
  static const std::vector<std::string> others = {".pdf", ".html", ".htm", ".doc", ".docx", ".xls", ".odt",
                                                  ".ods", ".png",  ".svg", ".gif", ".yaml", ".yml"};
  std::string lower = end;
  for (char& c : lower) c = static_cast<char>(c >= 'A' && c <= 'Z' ? c - 'A' + 'a' : c);
  const bool another = std::find(others.begin(), others.end(), lower) != others.end() || lower != end;
  if (!o.format.empty() && !another) return {};
  const std::string near = std::find(ours.begin(), ours.end(), lower) != ours.end() ? lower : nearest(end, ours);
  return fmt::format("'{}' cannot be written: a file ends with {}{}", o.output, fmt::join(ours, ", "),
                     near.empty() ? "" : fmt::format("; did you mean '{}'?", near));
}

}  // namespace

std::string write(const std::string& path, const std::string& content) {
  if (!path.empty() && path != "-") return write_file(path, content);
  const bool done =
      std::fwrite(content.data(), 1, content.size(), stdout) == content.size() && std::fflush(stdout) == 0;
  return done ? "" : "standard output cannot be written";
}

int refuse(const std::string& why) {
  say("{} {}\n", mark_error("corvex: error:"), why);
  return refused;
}

int refuse(const Problems& problems) {
  constexpr std::size_t most = 25;
  for (std::size_t i = 0; i < problems.size() && i < most; ++i) tell(problems[i]);
  if (problems.size() > most) say("and {} more\n", problems.size() - most);
  return refused;
}

void say_text(const std::string& text) {
  std::fputs(text.c_str(), stderr);
}

std::string described(const Problem& problem) {
  std::string text = made_printable(describe(problem));
  for (const char* word : {"error:", "warning:"})
    if (const std::size_t at = text.find(word); at != std::string::npos) {
      const std::size_t size = std::string_view(word).size();
      text.replace(at, size, (word[0] == 'e' ? mark_error(word) : mark_warning(word)).text);
      break;
    }
  return text + "\n";
}

void tell(const Problem& problem) {
  say_text(described(problem));
}

void tell_failure(const std::string& what) {
  say("{} {}\n", mark_error("corvex:"), what);
}

std::string overwrites(const std::string& output, const std::vector<std::string>& read) {
  std::error_code error;
  for (const std::string& path : read)
    if (!output.empty() && output != "-" && fs::equivalent(output, path, error) && !error)
      return fmt::format("-o '{}' would overwrite '{}', which this command reads", output, path);
  return {};
}

void refuse_renamed(CLI::App& command, const std::string& earlier, const std::string& present) {
  command
      .add_option_function<std::string>(
          earlier,
          [earlier, present](const std::string&) -> void {
            throw CLI::ParseError(fmt::format("{}: the option is called {} now", earlier, present), refused);
          })
      ->group("");
}

CLI::Validator one_of(std::vector<std::string> words) {
  // The name carries the words to the completion of the shell.
  std::string name = fmt::format("{}", fmt::join(words, " "));
  return {[words = std::move(words)](const std::string& given) {
            if (std::find(words.begin(), words.end(), given) != words.end()) return std::string();
            std::string hint = did_you_mean(given, words);
            if (hint.empty()) hint = fmt::format("; valid values: {}", fmt::join(words, ", "));
            return fmt::format("'{}' is not a valid value{}", given, hint);
          },
          "", std::move(name)};
}

CLI::Validator between(int least, int most) {
  return {[least, most](const std::string& given) {
            int n = 0;
            const auto [end, error] = std::from_chars(given.data(), given.data() + given.size(), n);
            const bool whole = error == std::errc() && end == given.data() + given.size();
            return whole && n >= least && n <= most
                       ? std::string()
                       : fmt::format("'{}' is not an integer between {} and {}", given, least, most);
          },
          ""};
}

CLI::Validator positive(double most) {
  return {[most](const std::string& given) {
            double number = 0;
            const auto [end, error] = std::from_chars(given.data(), given.data() + given.size(), number);
            const bool whole = error == std::errc() && end == given.data() + given.size();
            return whole && number > 0 && number <= most
                       ? std::string()
                       : fmt::format("'{}': a number above 0 and at most {:g} was expected", given, most);
          },
          ""};
}

CLI::Validator some_name() {
  return {[](const std::string& given) {
            return given.empty() ? std::string("a name was expected, but it is empty") : std::string();
          },
          ""};
}

void add_model_options(CLI::App& verb, ModelOptions& o, bool with_path) {
  if (with_path)
    verb.add_option("MODEL", o.path, "Model file (YAML or JSON); - is standard input")->required()->check(some_name());
  verb.add_option("--variant", o.variant, "Use this variant of the model")->type_name("VARIANT")->group(groups::input);
  add_change_options(verb, o);
}

void add_change_options(CLI::App& verb, ModelOptions& o) {
  verb.add_option("--set", o.set,
                  "Change a value for this call: of a parameter, wall='5 mm', or by JSON Pointer, "
                  "/sections/leg='SHS 80x80x4'")
      ->type_name("NAME=VALUE")
      ->allow_extra_args(false)
      ->group(groups::input);
  verb.add_option("--tables-from", o.table_folders, "Look for the CSV tables of the model in this folder too")
      ->type_name("DIR")
      ->allow_extra_args(false)
      ->group(groups::input);
}

Expected<Overrides, std::string> overrides_of(const ModelOptions& o) {
  Overrides overrides{.variant = o.variant,
                      .table_folders = o.table_folders,
                      .names = {.set = "--set", .show = "--show", .table_folders = "--tables-from"}};
  for (const std::string& one : o.set) {
    const std::size_t equals = one.find('=');
    if (equals == std::string::npos || equals == 0)
      return fmt::format(
          "--set '{}': a name and a value were expected, for example wall='5 mm' or /sections/leg='SHS 80x80x4'", one);
    const std::string what = one.substr(0, equals), value = one.substr(equals + 1);
    if (what.front() == '/')
      overrides.set.emplace_back(what, value);
    else
      overrides.parameters[what] = value;
  }
  return overrides;
}

void add_print_options(CLI::App& verb, std::string& units, int& digits) {
  verb.add_option("--units", units, "Print in these units, for example \"mm, N\"")
      ->type_name("UNITS")
      ->group(groups::output);
  verb.add_option("--digits", digits, "Print this number of significant digits")
      ->check(between(1, 15))
      ->type_name("N")
      ->group(groups::output)
      ->capture_default_str();
}

void add_output_options(CLI::App& verb, OutputOptions& o, bool of_results) {
  CLI::Option* json =
      verb.add_flag("--json", o.json, "Print JSON in SI units at full precision")->group(groups::output);
  verb.add_option("--format", o.format,
                  "Select the format: table, markdown, csv or json; by the end of the file name if not given")
      ->check(one_of({"table", "markdown", "csv", "json"}))
      ->type_name("KIND")
      ->excludes(json)
      ->group(groups::output);
  if (of_results) {
    verb.add_option("--csv", o.csv_folder, "Write every table as a CSV file to this folder")
        ->type_name("DIR")
        ->excludes(json)
        ->group(groups::output);
    verb.add_option("--table", o.table, "Print this table only, with --format csv")
        ->type_name("TABLE")
        ->group(groups::output);
  }
  verb.add_option("--units", o.units, "Print in these units, for example \"mm, N\" or \"m, kN, deflection: um\"")
      ->type_name("UNITS")
      ->group(groups::output);
  verb.add_option("--digits", o.digits, "Print this number of significant digits; 4 if not given, all in CSV")
      ->check(between(1, 15))
      ->type_name("N")
      ->group(groups::output);
  verb.add_option("-o,--output", o.output,
                  "Write to this file instead of standard output; a spreadsheet if it ends with .xlsx")
      ->type_name("FILE")
      ->check(some_name())
      ->group(groups::output);
}

Expected<Form, std::string> form_of(const OutputOptions& o) {
  const bool sheet = ends_with(o.output, ".xlsx");
  Form form = Form::table;
  if (o.json || o.format == "json")
    form = Form::json;
  else if (o.format == "markdown")
    form = Form::markdown;
  else if (o.format == "csv")
    form = Form::csv;
  else if (o.format.empty() && sheet)
    form = Form::spreadsheet;
  else if (o.format.empty())
    for (const auto& [end, by_end] : {std::pair{".md", Form::markdown}, {".csv", Form::csv}, {".json", Form::json}})
      if (ends_with(o.output, end)) form = by_end;
  if (const std::string why = wrong_ending(o); !why.empty()) return why;
  if (sheet && form != Form::spreadsheet)
    return std::string("a file that ends with .xlsx is a spreadsheet, and --format is something else");
  if (!o.table.empty() && form != Form::csv) return std::string("--table chooses a table of CSV: add --format csv");
  if (!o.csv_folder.empty() && (!o.output.empty() || !o.format.empty()))
    return std::string("--csv DIR writes files of its own: give it without -o and --format");
  if (!o.units.empty() && form == Form::json) return std::string("JSON is in SI units: --units is for tables");
  return form;
}

std::string choose_units(const std::string& list, ModelUnits& units) {
  if (list.empty()) return {};
  auto chosen = units_for_print(list, units);
  if (!chosen) return "--units: " + chosen.error();
  units = std::move(chosen.value());
  return {};
}

Style style_of(const OutputOptions& o) {
  Style style;
  if (o.digits > 0) style.digits = o.digits;
  const bool to_file = !o.output.empty() && o.output != "-";
  style.width = to_file ? page_width() : terminal_width();
  if (to_file) return style;
  style.colour = terminal_has_colour();
  return style;
}

int put_page(const Page& page, const std::string& title, Form form, const OutputOptions& o) {
  if (!o.csv_folder.empty()) return write_csv_files(data_tables(page), o);
  const Style style = style_of(o);
  if (form == Form::spreadsheet) {
    const auto tables = data_tables(page);
    std::string why;
    {
      const ErrorsDiscarded discarded;
      why = write_spreadsheet(o.output, title, tables, style.digits);
    }
    return why.empty() ? 0 : refuse(why);
  }
  if (form == Form::markdown) return put_text(page_markdown(page, style.digits), o);
  if (form != Form::csv) return put_text(page_text(page, style), o);
  std::string text;
  const std::string why = csv_text(data_tables(page), o, text);
  return why.empty() ? put_text(text, o) : refuse(why);
}

int put_text(const std::string& text, const OutputOptions& o) {
  const std::string why = write(o.output, text);
  return why.empty() ? 0 : refuse(why);
}

}  // namespace corvex::cli
