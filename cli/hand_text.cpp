#include "hand_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "table.hpp"

namespace corvex::cli {
namespace {

NamedUnit shown_in(const Comparison& c, const ModelUnits& units) {
  // A length that is compared is a movement.
  return c.hand.dimension == dimension::length ? units.deflection : unit_for(c.hand.dimension, units);
}

// "0.12 %", or in the unit of the figure where the allowed difference is a quantity.
std::string difference(double value, const Comparison& c, const NamedUnit& unit) {
  constexpr double noise = 1e-9;
  const double size = c.absolute ? std::max(std::abs(c.hand.si), c.within) : 1;
  if (!(std::abs(value) >= noise * size)) return std::isnan(value) ? "–" : c.absolute ? "0" : "0 %";
  return c.absolute ? number(value / unit.si, 2) + " " + unit.text : short_number(value * 100, 3) + " %";
}

// The next place from `at` where a formula may be broken: before a plus or minus outside of brackets, or before a
// remark, so that no number is parted from its unit; in what goes on for long without one, at any space.
std::size_t next_break(const std::string& words, std::size_t at, std::size_t widest) {
  int depth = 0;
  std::size_t end = at + 1;
  for (; end < words.size(); ++end) {
    const auto here = [&](const char* sign) { return words.compare(end, std::string(sign).size(), sign) == 0; };
    if (depth == 0 && (here(" + ") || here(" - ") || here(" = ") || here("   ("))) break;
    depth += words[end] == '(' ? 1 : words[end] == ')' ? -1 : 0;
  }
  return end - at > widest ? std::min(words.find(' ', at + 1), words.size()) : end;
}

// Broken into lines that fit a page, the further ones set in.
std::vector<std::string> broken(const std::string& words, std::size_t widest) {
  std::vector<std::string> lines(1);
  for (std::size_t at = 0; at < words.size();) {
    const std::size_t end = next_break(words, at, widest);
    const std::string part = words.substr(at, end - at);
    if (at > 0 && width(lines.back()) + width(part) > widest)
      lines.push_back("    " + part.substr(part.find_first_not_of(' ')));
    else
      lines.back() += part;
    at = end;
  }
  return lines;
}

// "P/2 + q*L/2 = 3.2 kN/2 + 0.8 kN/m*2.4 m/2", on two lines where it is long.
std::vector<std::string> worked_lines(const WorkedFormula& f, const ModelUnits& units, const std::string& result,
                                      const std::string& note) {
  constexpr std::size_t page = 104;
  const std::string numbers = f.uses.empty() ? "" : " = " + numbers_put_in(f, units);
  std::string line = f.text + numbers + (numbers == result ? "" : result) + note;
  if (width(line) <= page) return {line};
  std::vector<std::string> lines = broken(f.text + note, page);
  for (std::string& l : broken((numbers + result).substr(1), page)) lines.push_back(std::move(l));
  return lines;
}

}  // namespace

std::string hand_text(const Verification& hand, const ModelUnits& units, int digits) {
  using Align = Table::Align;
  Table t({{"figure", "", Align::left},
           {"case", "", Align::left},
           {"hand", ""},
           {"computed", ""},
           {"unit", "", Align::left},
           {"deviation", ""},
           {"allowed", ""},
           {"", "", Align::left}});
  std::size_t kept = 0;
  for (const Comparison& c : hand.comparisons) {
    const NamedUnit unit = shown_in(c, units);
    const double size = std::max(std::abs(c.hand.si), c.absolute ? c.within : 0);
    // Below this share of its neighbour a figure is rounding noise.
    const auto shown = [&](double si) { return std::abs(si) < 1e-9 * size ? "0" : number(si / unit.si, digits); };
    t.row({c.what, c.load_case, shown(c.hand.si), shown(c.computed.si), unit.text, difference(c.deviation, c, unit),
           difference(c.within, c, unit), c.kept ? "kept" : "NOT KEPT"});
    kept += c.kept;
    const std::string note = c.note.empty() ? "" : "(" + c.note + ")";
    if (c.formula.text.empty() && !note.empty()) t.beneath(note);
    if (!c.formula.text.empty())
      for (std::string& line : worked_lines(c.formula, units, "", note.empty() ? "" : "   " + note))
        t.beneath(std::move(line));
    if (!c.remark.empty()) t.beneath("! " + c.remark);
  }
  const std::size_t all = hand.comparisons.size();
  const std::string tally =
      kept == all ? fmt::format("all {} kept", kept) : fmt::format("{} of {} NOT KEPT", all - kept, all);
  std::string values;
  for (const WorkedValue& v : hand.values) {
    if (v.formula.uses.empty()) continue;  // a number stands in the formulas as it is
    const NamedUnit unit = unit_for(v.value.dimension, units);
    const std::string result =
        " = " + short_number(v.value.si / unit.si, 5) + (unit.text.empty() ? "" : " " + unit.text);
    values += "  " + v.name + " = ";
    for (const std::string& line : worked_lines(v.formula, units, result, ""))
      values += (values.back() == '\n' ? "      " : "") + line + "\n";
  }
  if (!values.empty()) values = "\nwith\n" + values;
  return fmt::format("Hand calculation: {}\n{}{}", tally, t.text(), values);
}

}  // namespace corvex::cli
