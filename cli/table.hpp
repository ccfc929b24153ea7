// Tables for people: columns aligned at the decimal point, rounding noise as 0.
#pragma once

#include <string>
#include <utility>
#include <vector>

namespace corvex::cli {

// `digits` significant digits, never in powers of ten where a person would not write them: "2.560",
// "0.002778",
// "-12350". Zero is "0".
std::string number(double value, int digits);
// The same without the zeros at its end, for places: "900", "1.2".
std::string short_number(double value, int digits);

// Columns that a terminal needs to show the text.
std::size_t width(const std::string& text);

class Table {
 public:
  enum class Align { left, decimal };
  struct Column {
    std::string head, unit;
    Align align = Align::decimal;
  };

  explicit Table(std::vector<Column> columns) : columns_(std::move(columns)) {}
  void row(std::vector<std::string> cells) { rows_.push_back(std::move(cells)); }
  // A line of words beneath the last row.
  void beneath(std::string words) { beneath_.emplace_back(rows_.size() - 1, std::move(words)); }
  std::string text(const std::string& indent = "  ") const;

 private:
  // A column without heading and without cells takes no room.
  bool vacant(std::size_t column) const;

  std::vector<Column> columns_;
  std::vector<std::vector<std::string>> rows_;
  std::vector<std::pair<std::size_t, std::string>> beneath_;
};

}  // namespace corvex::cli
