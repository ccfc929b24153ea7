#include "terminal.hpp"

#include <fmt/color.h>
#include <sys/ioctl.h>
#include <unistd.h>

#include <charconv>
#include <cstdlib>
#include <string_view>

namespace corvex::cli {
namespace {

bool has_colour(int stream) {
  const char *no = std::getenv("NO_COLOR"), *kind = std::getenv("TERM");
  return isatty(stream) && (!no || !*no) && kind && *kind && std::string_view(kind) != "dumb";
}

}  // namespace

std::size_t terminal_width() {
  winsize size{};
  if (isatty(STDOUT_FILENO) && ioctl(STDOUT_FILENO, TIOCGWINSZ, &size) == 0 && size.ws_col > 0) return size.ws_col;
  return page_width();
}

std::size_t page_width() {
  constexpr std::size_t usual = 100;
  const char* columns = std::getenv("COLUMNS");
  std::size_t width = 0;
  if (!columns || std::from_chars(columns, columns + std::string_view(columns).size(), width).ec != std::errc())
    return usual;
  return width;
}

bool terminal_has_colour() {
  return has_colour(STDOUT_FILENO);
}

Marked mark_error(const std::string& words) {
  if (!has_colour(STDERR_FILENO)) return {words};
  return {fmt::format(fmt::emphasis::bold | fmt::fg(fmt::terminal_color::red), "{}", words)};
}

Marked mark_warning(const std::string& words) {
  if (!has_colour(STDERR_FILENO)) return {words};
  return {fmt::format(fmt::fg(fmt::terminal_color::magenta), "{}", words)};
}

}  // namespace corvex::cli
