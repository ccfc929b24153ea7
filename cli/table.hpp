// Tables as data: what a cell is worth, and what a person reads for it. One description serves the terminal, Markdown,
// CSV and spreadsheets.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace corvex::cli {

enum class Tone { plain, head, good, warning, bad };
// Data is for other programs: what repeats something, or only guides the eye, is for people.
enum class For { all, people, data };

// Words; a number; or a number with words: what is shown instead of it ("1/300"), or the point at a place ("900 B").
struct Cell {
  std::string words{};
  std::optional<double> value{};  // in the unit of the column, or of the row; rounding noise is 0
  Tone tone = Tone::plain;

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
  std::string data_head{};   // its name in data, where the heading does not stand for itself
  bool unit_of_row = false;  // numbers in the unit of their row
  bool label = false;        // repeated where a table is broken into parts that fit a narrow terminal
  bool tied = false;         // stays with the column before it
  bool grouped = false;      // shown once for rows in a row that share it
  int most_digits = 15;
};

Column words_column(std::string head, bool label = false);
Column number_column(std::string head, std::string unit = {}, std::string data_head = {});
// A place along a member, told with the number before it.
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

// What a person reads in a cell.
std::string shown(const Column& column, const Cell& cell, int digits);

// A table for other programs: numbers as numbers, the unit in the heading.
struct DataTable {
  std::string name;
  std::vector<std::string> heads;
  std::vector<std::vector<Cell>> rows;  // words or a value
};

}  // namespace corvex::cli
