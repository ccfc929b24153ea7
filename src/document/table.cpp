#include <fmt/format.h>

#include <algorithm>

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

std::string shown(const Column& column, const Cell& cell, int digits) {
  if (cell.data_only) return {};
  if (!cell.value) return cell.words;
  if (column.kind == Column::Kind::place)
    return short_number(*cell.value, digits) + (cell.words.empty() ? "" : " " + cell.words);
  return cell.words.empty() ? number(*cell.value, std::min(digits, column.most_digits)) : cell.words;
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
    // They stand in the order of the rows.
    for (; next < table.beneath.size() && table.beneath[next].first <= i; ++next)
      if (table.beneath[next].first == i) t.say_beneath(table.beneath[next].second);
  }
  return t;
}

}  // namespace corvex::document
