#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/page.hpp"
#include "document/number.hpp"

namespace corvex::document {

std::string count(std::size_t n, const char* what) {
  return fmt::format("{} {}{}", n, what, n == 1 ? "" : "s");
}

Column words_column(std::string head, bool label) {
  Column c{.head = std::move(head), .kind = Column::Kind::words};
  c.label = label;
  return c;
}

Column number_column(std::string head, std::string unit, std::string data_head) {
  return {.head = std::move(head), .unit = std::move(unit), .data_head = std::move(data_head)};
}

Column place_column(std::string unit, std::string data_head) {
  Column c{.head = "at", .unit = std::move(unit), .kind = Column::Kind::place, .data_head = std::move(data_head)};
  c.tied = true;
  return c;
}

namespace {

// With as many decimals as `largest` has at this number of significant digits; at least none.
std::string with_decimals_of(double largest, double value, int digits) {
  const int before = static_cast<int>(std::floor(std::log10(largest))) + 1;
  const int decimals = std::max(digits - before, 0);
  if (value == 0) return "0";
  const int significant = static_cast<int>(std::floor(std::log10(std::abs(value)))) + 1 + decimals;
  if (significant >= least_digits) return number(value, std::min(significant, most_digits));
  // Half a unit of the last decimal counts as one.
  const double unit = std::pow(10, -decimals);
  return std::abs(value) >= unit / 2 ? number(std::copysign(unit, value), 1) : fmt::format("{:.{}f}", 0.0, decimals);
}

}  // namespace

std::string shown(const Column& column, const Cell& cell, int digits) {
  if (cell.data_only) return {};
  if (!cell.value) return cell.words;
  if (column.kind == Column::Kind::place)
    return short_number(*cell.value, digits) + (cell.words.empty() ? "" : " " + cell.words);
  if (!cell.words.empty()) return cell.words;
  const int wanted = std::min(digits, column.most_digits);
  return column.largest_of_sum > 0 ? with_decimals_of(column.largest_of_sum, *cell.value, wanted)
                                   : number(*cell.value, wanted);
}

void add_up(Table& table, std::size_t from) {
  for (std::size_t k = from; k < table.columns.size(); ++k)
    for (const Row& row : table.rows)
      if (k < row.cells.size() && row.cells[k].value)
        table.columns[k].largest_of_sum = std::max(table.columns[k].largest_of_sum, std::abs(*row.cells[k].value));
}

Table for_people(const Table& table) {
  Table t = table;
  t.rows.clear();
  t.beneath.clear();
  if (table.use == For::data) return t;
  std::size_t next = 0;
  for (std::size_t i = 0; i < table.rows.size(); ++i) {
    if (table.rows[i].use == For::data) continue;
    t.rows.push_back(table.rows[i]);
    // They are in the order of the rows.
    for (; next < table.beneath.size() && table.beneath[next].first <= i; ++next)
      if (table.beneath[next].first == i) t.say_beneath(table.beneath[next].second);
  }
  return t;
}

}  // namespace corvex::document
