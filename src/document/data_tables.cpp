// Pages for other programs: tables alone, and CSV.
#include <fmt/format.h>

#include <algorithm>

#include "corvex/page.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

std::string with_unit(const std::string& head, const std::string& unit) {
  return unit.empty() ? head : fmt::format("{} [{}]", head, unit);
}

// Where the rows of a table go, by their kind.
DataTable& target(std::vector<DataTable>& all, const std::string& name, std::vector<std::string> heads) {
  for (DataTable& t : all)
    if (t.name == name && t.heads == heads) return t;
  return all.emplace_back(DataTable{name, std::move(heads), {}});
}

std::vector<std::string> heads_of(const Table& t, const Row& row) {
  std::vector<std::string> heads;
  if (!t.load_case.empty()) heads.emplace_back("case");
  for (const Column& c : t.columns) {
    if (c.use == For::people) continue;
    const std::string& head = c.data_head.empty() ? c.head : c.data_head;
    heads.push_back(with_unit(head, c.unit_of_row ? row.unit : c.unit));
    if (c.kind == Column::Kind::place) heads.push_back(head + " point");
  }
  return heads;
}

std::vector<Cell> cells_of(const Table& t, const Row& row) {
  std::vector<Cell> cells;
  if (!t.load_case.empty()) cells.emplace_back(t.load_case);
  for (std::size_t c = 0; c < t.columns.size(); ++c) {
    const Column& column = t.columns[c];
    if (column.use == For::people) continue;
    const Cell cell = c < row.cells.size() ? row.cells[c] : Cell();
    const Cell value = cell.value ? Cell(*cell.value) : Cell();
    cells.push_back(column.kind == Column::Kind::words ? Cell(cell.words) : value);
    if (column.kind == Column::Kind::place) cells.push_back(cell.words);
  }
  return cells;
}

// A spreadsheet takes a text that begins like this for a formula and evaluates it; behind an apostrophe it is a text.
bool looks_like_a_formula(const std::string& text) {
  return !text.empty() && std::string_view("=+-@").find(text.front()) != std::string_view::npos;
}

std::string quoted(const std::string& words) {
  const std::string text = looks_like_a_formula(words) ? "'" + words : words;
  if (text.find_first_of(",\"\n\r") == std::string::npos) return text;
  std::string out = "\"";
  for (const char c : text) out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + "\"";
}

}  // namespace

std::vector<DataTable> data_tables(const Page& page) {
  std::vector<DataTable> all;
  for (const auto& item : page) {
    const auto* t = std::get_if<Table>(&item);
    if (!t || t->use == For::people) continue;
    for (const Row& row : t->rows) {
      if (row.use == For::people) continue;
      const std::string name = row.part.empty() ? t->name : t->name + "-" + row.part;
      target(all, name, heads_of(*t, row)).rows.push_back(cells_of(*t, row));
    }
  }
  return all;
}

std::string csv(const DataTable& table, int digits) {
  std::string text;
  const auto line = [&](const auto& cells, const auto& written) {
    for (std::size_t i = 0; i < cells.size(); ++i) text += (i > 0 ? "," : "") + written(cells[i]);
    text += "\r\n";
  };
  line(table.heads, quoted);
  for (const auto& row : table.rows)
    line(row, [&](const Cell& c) {
      if (!c.value) return quoted(c.words);
      return digits > 0 ? number(*c.value, digits) : short_number(*c.value, most_digits);
    });
  return text;
}

}  // namespace corvex::document
