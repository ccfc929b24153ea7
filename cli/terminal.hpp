// What the terminal can do: asked only where output goes to one. NO_COLOR is kept.
#pragma once

#include <cstddef>
#include <string>

namespace corvex::cli {

// Columns of the terminal that standard output goes to; where it is none, of a page.
std::size_t terminal_width();
// Columns of a page: those of COLUMNS in the environment, 0 for as many as it takes; 100 where it is not set.
std::size_t page_width();
bool terminal_has_colour();

// Words on standard error, in colour where that is a terminal.
std::string mark_error(const std::string& words);
std::string mark_warning(const std::string& words);

}  // namespace corvex::cli
