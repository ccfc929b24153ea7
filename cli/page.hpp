// What the program has to say, in order, and the forms in which it can say it.
#pragma once

#include <string>
#include <variant>
#include <vector>

#include "table.hpp"

namespace corvex::cli {

struct Heading {
  std::string text;
  int level = 1;  // 1 the title, 2 a part
};
struct Line {
  std::string label{};  // "product", aligned with those of its neighbours
  std::string text{};
  Tone tone = Tone::plain;
};
struct Words {
  std::vector<Line> lines;
};
using Page = std::vector<std::variant<Heading, Words, Table>>;

struct Style {
  int digits = 4;
  std::size_t width = 0;  // columns of the terminal; 0 is as many as it takes
  bool colour = false;
};

// Columns aligned at the decimal point. A table that is too wide is broken into parts below each other.
std::string page_text(const Page& page, const Style& style);
// Words broken into lines of at most this width, the further ones set in.
std::vector<std::string> wrapped(const std::string& text, std::size_t width, const std::string& indent);

std::string page_markdown(const Page& page, int digits);

// The tables for other programs: those of all load cases in one, with the case in the first column.
std::vector<DataTable> data_tables(const Page& page);
// RFC 4180; numbers at full precision, or with as many digits as asked for.
std::string csv(const DataTable& table, int digits = 0);

// One sheet a table; numbers are numbers and show so many digits. An empty answer means success, else the reason.
std::string write_spreadsheet(const std::string& path, const std::string& title, const std::vector<DataTable>& tables,
                              int digits);

}  // namespace corvex::cli
