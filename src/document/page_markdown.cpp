// Pages as Markdown that is readable as plain text.
#include <fmt/format.h>

#include <algorithm>

#include "corvex/page.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

// A bar would end the cell; what Markdown takes for marks is meant as it is.
std::string escaped(const std::string& text) {
  std::string out;
  for (const char c : text) {
    if (std::string_view("|*_`\\<[&~").find(c) != std::string_view::npos) out += '\\';
    out += c;
  }
  return out;
}

std::string heading_of(const Column& c) {
  return escaped(c.head) + (c.unit.empty() ? "" : (c.head.empty() ? "" : " ") + ("\\[" + c.unit + "]"));
}

std::string table_text(const Table& t, int digits) {
  std::vector<std::vector<std::string>> lines(t.rows.size() + 2);
  for (std::size_t c = 0; c < t.columns.size(); ++c) {
    const Column& column = t.columns[c];
    if (column.use == For::data) continue;
    const bool left = column.kind == Column::Kind::words;
    std::vector<std::string> cells{heading_of(column)};
    for (const Row& row : t.rows)
      cells.push_back(c < row.cells.size() ? escaped(shown(column, row.cells[c], digits)) : "");
    if (std::all_of(cells.begin(), cells.end(), [](const std::string& s) { return s.empty(); })) continue;
    std::size_t widest = 3;
    for (const std::string& cell : cells) widest = std::max(widest, width(cell));
    cells.insert(cells.begin() + 1, std::string(widest - 1, '-') + (left ? "-" : ":"));
    for (std::size_t i = 0; i < cells.size(); ++i) {
      const std::string fill(widest - width(cells[i]), ' ');
      lines[i].push_back(left ? cells[i] + fill : fill + cells[i]);
    }
  }
  std::string text = t.title.empty() ? "" : "### " + escaped(t.title) + "\n\n";
  for (const auto& line : lines) {
    text += "|";
    for (const std::string& cell : line) text += " " + cell + " |";
    text += "\n";
  }
  for (std::size_t i = 0; i < t.beneath.size(); ++i) {
    const auto& [row, words] = t.beneath[i];
    if (i == 0) text += "\n";
    const std::string said = words.substr(std::min(words.find_first_not_of(' '), words.size()));
    const bool further = i > 0 && t.beneath[i - 1].first == row;
    text += further ? "  " + escaped(said) + "\n"
                    : fmt::format("- {}: {}\n", escaped(t.rows[row].cells.front().words), escaped(said));
  }
  if (!t.after.empty()) text += "\n" + escaped(t.after) + "\n";
  return text;
}

std::string words_text(const Words& words) {
  std::string text;
  for (const Line& line : words.lines)
    text += line.label.empty() ? escaped(line.text) + "  \n"
                               : fmt::format("- **{}**: {}\n", escaped(line.label), escaped(line.text));
  return text;
}

}  // namespace

std::string page_markdown(const Page& page, int digits) {
  std::string text;
  for (const auto& item : page) {
    std::string part;
    if (const auto* h = std::get_if<Heading>(&item))
      part = std::string(static_cast<std::size_t>(h->level), '#') + " " + escaped(h->text) + "\n";
    else if (const auto* w = std::get_if<Words>(&item))
      part = words_text(*w);
    else if (const Table t = for_people(std::get<Table>(item)); !t.rows.empty())
      part = table_text(t, digits);
    if (!part.empty()) text += (text.empty() ? "" : "\n") + part;
  }
  return text;
}

}  // namespace corvex::document
