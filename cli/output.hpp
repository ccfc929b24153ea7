// Where results go, and in which form.
#pragma once

#include <fmt/format.h>

#include <cstdio>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>

#include "corvex/document.hpp"
#include "corvex/expected.hpp"
#include "corvex/file.hpp"
#include "corvex/printable.hpp"
#include "terminal.hpp"

namespace CLI {
class App;
class Validator;
}  // namespace CLI

namespace corvex::cli {

// The program prints the pages of the library.
using namespace document;

// Exit statuses; 0 means that all is well.
inline constexpr int limit_not_met = 1, refused = 2;

// To a file, whole or not at all (corvex/writing.hpp); "" or "-" is standard output. Empty if that was done, else the
// reason.
std::string write(const std::string& path, const std::string& content);

// On standard error; if that cannot be written, the error is ignored.
void say_text(const std::string& text);
// Values may come from a foreign file or its name: control characters are written out, so that a terminal does not
// execute them.
template <class Value>
auto shown_safely(const Value& value) {
  if constexpr (std::is_convertible_v<const Value&, std::string_view>)
    return made_printable(value);
  else
    return value;
}
template <class... Values>
void say(fmt::format_string<decltype(shown_safely(std::declval<const Values&>()))...> text, const Values&... values) {
  say_text(fmt::format(text, shown_safely(values)...));
}

// Reports why nothing was written, and returns the exit status for that.
int refuse(const std::string& why);
int refuse(const Problems& problems);
// A note to the user.
void tell(const Problem& problem);
// The same as text, with its line end.
std::string described(const Problem& problem);
// Reasons for exit status 1.
void tell_failure(const std::string& what);
// Why a command must not write to this path, where it reads these files; empty where it may.
std::string overwrites(const std::string& output, const std::vector<std::string>& read);

// The model of a verb, and what is changed in it for this call.
struct ModelOptions {
  std::string path{}, variant{};
  std::vector<std::string> set{};  // NAME=VALUE, /POINTER=VALUE
  std::vector<std::string> table_folders{};
};
// `with_path`: the model itself too.
void add_model_options(CLI::App& verb, ModelOptions& options, bool with_path = true);
// --set and --tables-from alone.
void add_change_options(CLI::App& verb, ModelOptions& options);
// The changes they request. Refuses a request that is not a change.
Expected<Overrides, std::string> overrides_of(const ModelOptions& options);

struct OutputOptions {
  std::string format{};  // table, markdown, csv, json; by the end of `output` where it is empty
  std::string output{}, csv_folder{}, table{}, units{};
  bool json = false;
  int digits = 0;                   // 4 for people and all of them for other programs, if not given
  std::vector<std::string> read{};  // files that the command has read and must not overwrite
};
// The groups of options in the help. What a command shows has the usual group.
namespace groups {
inline constexpr const char *input = "Input", *output = "Output", *limits = "Limits";
}  // namespace groups
// An earlier name of an option is answered with the present one.
void refuse_renamed(CLI::App& command, const std::string& earlier, const std::string& present);
// How the options of this program ask for what a shortened table leaves out.
inline Requests requests() {
  return {.all = "--all", .load_case = "--case NAME", .member = "--member NAME", .point = "--point NAME"};
}
// Checks of options, with messages in the words of the rest: one of a few words, a whole number in a range.
CLI::Validator one_of(std::vector<std::string> words);
CLI::Validator between(int least, int most);
// A number above 0, at most this.
CLI::Validator positive(double most);
// Not empty.
CLI::Validator some_name();
// Of commands that print no tables but pictures, documents and pages.
void add_print_options(CLI::App& verb, std::string& units, int& digits);
// Options for the form of the output; `of_results`: also those for many tables in units of one's own.
void add_output_options(CLI::App& verb, OutputOptions& options, bool of_results = true);

enum class Form { table, markdown, csv, json, spreadsheet };
// Refuses what contradicts itself.
Expected<Form, std::string> form_of(const OutputOptions& options);
// The units for print that are asked for, else those of the model. An empty answer means success, else the reason.
std::string choose_units(const std::string& list, ModelUnits& units);
// For the terminal, or the file, that it goes to.
Style style_of(const OutputOptions& options);
// In every form except JSON. The exit status: 0 or that of a refusal.
int put_page(const Page& page, const std::string& title, Form form, const OutputOptions& options);
int put_text(const std::string& text, const OutputOptions& options);

}  // namespace corvex::cli
