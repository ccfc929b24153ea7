// Capabilities of the terminal: examined only if output goes to one. NO_COLOR is observed.
#pragma once

#include <fmt/format.h>

#include <cstddef>
#include <string>

namespace corvex::cli {

// Columns of the terminal that standard output goes to; where it is none, of a page.
std::size_t terminal_width();
// Columns of a page: those of COLUMNS in the environment, 0 for as many as it takes; 100 where it is not set.
std::size_t page_width();
bool terminal_has_colour();

// Words of the program's own on standard error, in colour where that is a terminal.
struct Marked {
  std::string text;
};
Marked mark_error(const std::string& words);
Marked mark_warning(const std::string& words);

}  // namespace corvex::cli

template <>
struct fmt::formatter<corvex::cli::Marked> : fmt::formatter<std::string> {
  auto format(const corvex::cli::Marked& words, fmt::format_context& to) const {
    return fmt::format_to(to.out(), "{}", words.text);
  }
};
