#include "report/rows.hpp"

#include <algorithm>

namespace corvex::reporting {

using document::Column;
using document::For;

std::size_t before_point(const std::string& number) {
  std::size_t i = 0;
  const auto is_number = [](char c) { return (c >= '0' && c <= '9') || c == '-' || c == '+'; };
  while (i < number.size() && is_number(number[i])) ++i;
  return i;
}

ReadTable read(const document::Table& table, int digits) {
  ReadTable out{.title = table.title, .after = table.after};
  std::vector<std::size_t> kept;
  for (std::size_t c = 0; c < table.columns.size(); ++c) {
    const Column& column = table.columns[c];
    if (column.use == For::data) continue;
    const bool filled = std::any_of(table.rows.begin(), table.rows.end(), [&](const auto& row) {
      return row.use != For::data && c < row.cells.size() && !shown(column, row.cells[c], digits).empty();
    });
    if (!filled) continue;
    kept.push_back(c);
    out.columns.push_back(
        {column.head, column.unit, column.kind == Column::Kind::words, column.label || kept.size() == 1});
  }
  std::vector<std::string> last(kept.size());
  std::size_t next = 0;
  for (std::size_t r = 0; r < table.rows.size(); ++r) {
    ReadRow row;
    const bool people = table.rows[r].use != For::data;
    for (std::size_t k = 0; k < kept.size() && people; ++k) {
      const std::size_t c = kept[k];
      if (c >= table.rows[r].cells.size()) {
        row.cells.emplace_back();
        continue;
      }
      const auto& cell = table.rows[r].cells[c];
      std::string words = shown(table.columns[c], cell, digits);
      // Shown once for rows in a row that share it.
      const bool again = table.columns[c].grouped && !out.rows.empty() && words == last[k];
      last[k] = words;
      row.cells.push_back({again ? std::string() : std::move(words), cell.tone});
    }
    for (; next < table.beneath.size() && table.beneath[next].first <= r; ++next)
      if (table.beneath[next].first == r && people) row.beneath.push_back(table.beneath[next].second);
    if (people) out.rows.push_back(std::move(row));
  }
  return out;
}

}  // namespace corvex::reporting
