#include "table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace corvex::cli {

std::string number(double value, int digits) {
  if (!std::isfinite(value)) return "–";
  if (value == 0) return "0";
  // The exponent after rounding: 9.9996 has one digit more than it seems.
  const std::string rounded = fmt::format("{:.{}e}", value, digits - 1);
  const int exponent = std::stoi(rounded.substr(rounded.find('e') + 1));
  if (exponent < -6 || exponent > 9) return rounded;
  if (exponent >= digits) {
    const double unit = std::pow(10.0, exponent - digits + 1);
    return fmt::format("{:.0f}", std::round(value / unit) * unit);
  }
  return fmt::format("{:.{}f}", value, digits - 1 - exponent);
}

std::string short_number(double value, int digits) {
  std::string text = number(value, digits);
  if (text.find('.') == std::string::npos || text.find('e') != std::string::npos) return text;
  text.erase(text.find_last_not_of('0') + 1);
  if (text.back() == '.') text.pop_back();
  return text;
}

std::size_t width(const std::string& text) {
  return static_cast<std::size_t>(
      std::count_if(text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

namespace {

// What stands before the decimal point, and from it on.
std::size_t before_point(const std::string& cell) {
  const std::size_t end = cell.find_first_of(".e ");
  return width(cell.substr(0, end));
}

std::string padded(std::size_t n) {
  return std::string(n, ' ');
}

}  // namespace

bool Table::vacant(std::size_t c) const {
  return columns_[c].head.empty() && columns_[c].unit.empty() &&
         std::all_of(rows_.begin(), rows_.end(), [&](const auto& row) { return c >= row.size() || row[c].empty(); });
}

std::string Table::text(const std::string& indent) const {
  std::vector<std::string> lines(rows_.size() + 2, indent);
  for (std::size_t c = 0; c < columns_.size(); ++c) {
    const Column& column = columns_[c];
    if (vacant(c)) continue;
    if (c > 0)
      for (std::string& line : lines) line += "  ";
    const bool decimal = column.align == Align::decimal;
    std::size_t left = 0, right = 0;
    for (const auto& row : rows_) {
      if (c >= row.size()) continue;
      const std::size_t before = decimal ? before_point(row[c]) : width(row[c]);
      left = std::max(left, before);
      right = std::max(right, width(row[c]) - before);
    }
    const std::size_t head = std::max(width(column.head), width(column.unit));
    const std::size_t all = std::max(left + right, head);
    // Numbers stand to the right under a wide heading.
    if (decimal) left = all - right;
    const auto place_head = [&](const std::string& h) {
      return decimal ? padded(all - width(h)) + h : h + padded(all - width(h));
    };
    lines[0] += place_head(column.head);
    lines[1] += place_head(column.unit);
    for (std::size_t r = 0; r < rows_.size(); ++r) {
      const std::string cell = c < rows_[r].size() ? rows_[r][c] : "";
      const std::size_t lead = decimal ? left - before_point(cell) : 0;
      lines[r + 2] += padded(lead) + cell + padded(all - lead - width(cell));
    }
  }
  std::string text;
  auto words = beneath_.begin();
  for (std::size_t i = 0; i < lines.size(); ++i) {
    std::string& line = lines[i];
    line.erase(line.find_last_not_of(' ') + 1);
    if (line.empty() && i == 1) continue;  // no column has a unit
    text += line + "\n";
    for (; words != beneath_.end() && words->first + 2 == i; ++words) text += indent + "    " + words->second + "\n";
  }
  return text;
}

}  // namespace corvex::cli
