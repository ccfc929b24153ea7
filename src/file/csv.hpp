// Tables as comma-separated values (RFC 4180): the first line names the columns. Where the first line has semicolons
// and no commas, these separate (as spreadsheets of countries with decimal commas write).
//
// No Debian library reports the position of a cell, and errors are hard to find without line and column.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/problem.hpp"

namespace corvex::file {

struct Cell {
  std::string text;                    // without quotes and blanks around it
  std::uint32_t line = 0, column = 0;  // from 1; columns in characters
};

struct Table {
  std::vector<Cell> header;
  std::vector<std::vector<Cell>> rows;  // empty lines left out
};

Expected<Table, Problems> read_table(std::string_view text, const std::string& file);

}  // namespace corvex::file
