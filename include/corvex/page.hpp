// Corvex: pages of headings, words and tables, and the forms in which they are written. (Target corvex::documents.)
//
// A table keeps its numbers as numbers, in the units that its columns name; one description serves the terminal,
// Markdown, CSV and spreadsheets. Pages are values and may be read from several threads.
//
//     corvex::document::Table t{.name = "legs", .columns = {corvex::document::words_column("leg"),
//                                                           corvex::document::number_column("N", "kN")}};
//     t.row({"left", -4.5});
//     fmt::print("{}\n", corvex::document::data_tables({t})[0].heads[1]);   // N [kN]
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <variant>
#include <vector>

#pragma GCC visibility push(default)

namespace corvex::document {

enum class Tone { plain, head, good, warning, bad };
// Data is for other programs: what repeats something, or only guides the eye, is for people.
enum class For { all, people, data };

// Words; a number; or a number with words: what is shown instead of it ("1/300"), or the point at a place ("900 B").
struct Cell {
  std::string words{};
  std::optional<double> value{};  // in the unit of the column, or of the row; rounding noise is 0
  Tone tone = Tone::plain;
  bool data_only = false;  // repeats the cell next to it; left empty in tables for people

  Cell() = default;
  Cell(std::string text) : words(std::move(text)) {}
  Cell(const char* text) : words(text) {}
  Cell(double number, std::string text = {}) : words(std::move(text)), value(number) {}
};
// There would be a number, and it is not known.
inline Cell unknown() {
  return "–";
}

struct Column {
  enum class Kind { words, number, place };

  std::string head{}, unit{};
  Kind kind = Kind::number;
  For use = For::all;
  std::string data_head{};   // name of the column in data files if it differs from the heading
  bool unit_of_row = false;  // numbers in the unit of their row
  bool label = false;        // repeated where a table is broken into parts that fit a narrow terminal
  bool tied = false;         // stays with the column before it
  bool grouped = false;      // shown once for rows in a row that share it
  int most_digits = 15;
  // The largest size in a column whose numbers are added up: all have as many decimals as it, so that the sum as
  // printed is that of the numbers as printed. 0: each number has its own.
  double largest_of_sum = 0;
};

Column words_column(std::string head, bool label = false);
Column number_column(std::string head, std::string unit = {}, std::string data_head = {});
// A place along a member: the name of a point, printed after the number.
Column place_column(std::string unit, std::string data_head);

struct Row {
  std::vector<Cell> cells{};
  For use = For::all;
  // In data, rows of different kinds of unit are tables of their own: "forces", "moments".
  std::string part{}, unit{};
};

struct Table {
  std::string name;         // that of its file: "reactions"
  std::string title{};      // its heading for people
  std::string load_case{};  // where there is one table for each
  std::vector<Column> columns{};
  std::vector<Row> rows{};
  For use = For::all;
  std::vector<std::pair<std::size_t, std::string>> beneath{};  // words under a row
  std::string after{};                                         // words under the table

  void row(std::vector<Cell> cells) { rows.push_back({std::move(cells)}); }
  // A line of words beneath the last row.
  void say_beneath(std::string words) { beneath.emplace_back(rows.size() - 1, std::move(words)); }
};

// Text of a cell as displayed.
std::string shown(const Column& column, const Cell& cell, int digits);

// A table for other programs: numbers as numbers, the unit in the heading.
struct DataTable {
  std::string name;
  std::vector<std::string> heads;
  std::vector<std::vector<Cell>> rows;  // words or a value
};

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

}  // namespace corvex::document

#pragma GCC visibility pop
