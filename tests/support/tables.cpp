#include "support/tables.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <corvex/formula.hpp>
#include <cstdio>
#include <fstream>
#include <pugixml.hpp>
#include <sstream>

namespace corvex::test {
namespace {

// "Fx [kN]" apart; m² and such in the words of formulas.
void take_head(ReadTable& t, std::string head) {
  double si = 1;
  if (const std::size_t at = head.rfind(" ["); at != std::string::npos && head.back() == ']') {
    std::string unit = head.substr(at + 2, head.size() - at - 3);
    for (std::size_t i; (i = unit.find("·")) != std::string::npos;) unit.replace(i, 2, "*");
    const auto value = evaluate(unit, Scope());
    INFO(head);
    REQUIRE(value.ok());
    si = value->quantity.si;
    head.erase(at);
  }
  t.heads.push_back(head);
  t.units.push_back(si);
}

std::string trimmed(const std::string& s) {
  const std::size_t from = s.find_first_not_of(' ');
  return from == std::string::npos ? "" : s.substr(from, s.find_last_not_of(' ') - from + 1);
}

// The cells between bars, what was escaped as it was meant.
std::vector<std::string> between_bars(const std::string& line) {
  std::vector<std::string> cells;
  std::string cell;
  for (std::size_t i = 1; i < line.size(); ++i) {
    if (line[i] == '\\' && i + 1 < line.size())
      cell += line[++i];
    else if (line[i] == '|')
      cells.push_back(trimmed(cell)), cell.clear();
    else
      cell += line[i];
  }
  return cells;
}

std::string unzipped(const std::filesystem::path& path, const std::string& member) {
  const std::string command = "unzip -p '" + path.string() + "' " + member;
  FILE* pipe = popen(command.c_str(), "r");
  std::string text;
  char part[4096];
  for (std::size_t n; (n = std::fread(part, 1, sizeof part, pipe)) > 0;) text.append(part, n);
  REQUIRE(pclose(pipe) == 0);
  return text;
}

}  // namespace

bool ReadTable::has(const std::string& head) const {
  return std::find(heads.begin(), heads.end(), head) != heads.end();
}

const std::string& ReadTable::cell(std::size_t row, const std::string& head) const {
  INFO(name << ": " << head);
  REQUIRE(has(head));
  return rows.at(row).at(static_cast<std::size_t>(std::find(heads.begin(), heads.end(), head) - heads.begin()));
}

double ReadTable::si(std::size_t row, const std::string& head) const {
  const std::string& text = cell(row, head);
  INFO(name << ", " << head << ": '" << text << "'");
  std::size_t used = 0;
  const double value = std::stod(text, &used);
  REQUIRE(used == text.size());
  return value * units[static_cast<std::size_t>(std::find(heads.begin(), heads.end(), head) - heads.begin())];
}

ReadTable read_csv(const std::string& name, const std::string& text) {
  ReadTable t{.name = name};
  std::vector<std::vector<std::string>> all(1, {""});
  bool quoted = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (quoted && c == '"' && i + 1 < text.size() && text[i + 1] == '"')
      all.back().back() += text[++i];
    else if (c == '"')
      quoted = !quoted;
    else if (!quoted && c == ',')
      all.back().emplace_back();
    else if (!quoted && c == '\r')
      continue;
    else if (!quoted && c == '\n')
      all.push_back({""});
    else
      all.back().back() += c;
  }
  CHECK_FALSE(quoted);
  all.pop_back();
  for (const std::string& head : all.front()) take_head(t, head);
  for (std::size_t i = 1; i < all.size(); ++i) {
    INFO(name << ", line " << i + 1);
    REQUIRE(all[i].size() == t.heads.size());
    t.rows.push_back(all[i]);
  }
  return t;
}

std::vector<ReadTable> read_csv_folder(const std::filesystem::path& folder) {
  std::vector<ReadTable> all;
  for (const auto& entry : std::filesystem::directory_iterator(folder)) {
    std::ifstream in(entry.path(), std::ios::binary);
    std::stringstream text;
    text << in.rdbuf();
    all.push_back(read_csv(entry.path().stem().string(), text.str()));
  }
  std::sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.name < b.name; });
  return all;
}

std::vector<ReadTable> read_markdown(const std::string& text, const std::string& part) {
  std::istringstream in(text);
  std::vector<ReadTable> all;
  std::string heading;
  bool inside = part.empty(), table = false;
  for (std::string line; std::getline(in, line);) {
    if (line.starts_with("## ")) inside = trimmed(line.substr(3)) == part;
    if (line.starts_with("### ")) heading = trimmed(line.substr(4));
    const bool row = line.starts_with("|");
    if (!inside || !row) {
      table = false;
      continue;
    }
    const auto cells = between_bars(line);
    if (!table) {
      all.push_back({.name = heading});
      for (const std::string& cell : cells) take_head(all.back(), cell);
      std::getline(in, line);  // the rule beneath
      REQUIRE(line.find_first_not_of("|-: ") == std::string::npos);
    } else {
      all.back().rows.push_back(cells);
    }
    table = true;
  }
  return all;
}

std::vector<ReadTable> read_spreadsheet(const std::filesystem::path& path) {
  pugi::xml_document book, strings;
  REQUIRE(book.load_string(unzipped(path, "xl/workbook.xml").c_str()));
  REQUIRE(strings.load_string(unzipped(path, "xl/sharedStrings.xml").c_str()));
  std::vector<std::string> shared;
  for (const auto& si : strings.child("sst").children("si")) shared.emplace_back(si.child_value("t"));
  std::vector<ReadTable> all;
  for (const auto& sheet : book.child("workbook").child("sheets").children("sheet")) {
    ReadTable t{.name = sheet.attribute("name").value()};
    pugi::xml_document xml;
    REQUIRE(xml.load_string(unzipped(path, "xl/worksheets/sheet" + std::to_string(all.size() + 1) + ".xml").c_str()));
    for (const auto& row : xml.child("worksheet").child("sheetData").children("row")) {
      std::vector<std::string> cells(t.heads.size());
      for (const auto& c : row.children("c")) {
        const std::string text = c.child_value("v");
        const bool is_text = std::string(c.attribute("t").value()) == "s";
        const std::string value = is_text ? shared.at(std::stoul(text)) : text;
        std::size_t column = 0;  // "AB12"
        for (const char* at = c.attribute("r").value(); *at >= 'A'; ++at)
          column = column * 26 + static_cast<std::size_t>(*at - 'A' + 1);
        if (t.rows.empty() && row == xml.child("worksheet").child("sheetData").first_child())
          take_head(t, value);
        else
          cells.at(column - 1) = value;
      }
      if (!cells.empty()) t.rows.push_back(cells);
    }
    all.push_back(std::move(t));
  }
  return all;
}

}  // namespace corvex::test
