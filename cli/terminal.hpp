// What the terminal can do: asked only where output goes to one. NO_COLOR is kept.
#pragma once

#include <cstddef>
#include <string>

namespace corvex::cli {

// Columns of the terminal that standard output goes to; 0 where it is none.
std::size_t terminal_width();
bool terminal_has_colour();

// Words on standard error, in colour where that is a terminal.
std::string mark_error(const std::string& words);
std::string mark_warning(const std::string& words);

}  // namespace corvex::cli
