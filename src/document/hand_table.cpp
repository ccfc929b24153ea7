#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "corvex/formula_text.hpp"
#include "document/number.hpp"
#include "format/verdicts.hpp"

namespace corvex::document {
namespace {

NamedUnit shown_in(const Comparison& c, const ModelUnits& units) {
  // A length that is compared is a movement.
  return c.hand.dimension == dimension::length ? units.deflection : unit_for(c.hand.dimension, units);
}

// "0.12 %", or in the unit of the figure where the allowed difference is a quantity.
std::string difference(double value, const Comparison& c, const NamedUnit& unit) {
  const double size = c.absolute ? std::max(std::abs(c.hand.si), c.within) : 1;
  if (!(std::abs(value) >= noise * size)) return std::isnan(value) ? "–" : c.absolute ? "0" : "0 %";
  return c.absolute ? number(value / unit.si, 2) + " " + unit.text : short_number(value * 100, 3) + " %";
}

// The next place from `at` where a formula may be broken: before a plus or minus outside of brackets, or before a
// remark, so that no number is parted from its unit; in what goes on for long without one, at any space.
std::size_t next_break(const std::string& words, std::size_t at, std::size_t widest) {
  int depth = 0;
  std::size_t end = at + 1;
  // A part that is wider than this is broken at a space in any case.
  const std::size_t last = std::min(words.size(), at + widest + 1);
  for (; end < last; ++end) {
    const auto here = [&](std::string_view sign) { return words.compare(end, sign.size(), sign) == 0; };
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
                                      const std::string& note, std::size_t page) {
  const std::string numbers = f.uses.empty() ? "" : " = " + numbers_put_in(f, units);
  std::string line = f.text + numbers + (numbers == result ? "" : result) + note;
  if (width(line) <= page) return {line};
  std::vector<std::string> lines = broken(f.text + note, page);
  for (std::string& l : broken((numbers + result).substr(1), page)) lines.push_back(std::move(l));
  return lines;
}

constexpr std::size_t set_in = 6;  // of what stands beneath a row

std::size_t page_for(std::size_t terminal) {
  constexpr std::size_t usual = 104, least = 24;
  return terminal == 0 ? usual : std::max(terminal, least + set_in) - set_in;
}

Table table_of(const Verification& hand, const ModelUnits& units, std::size_t page) {
  const std::size_t all = hand.comparisons.size();
  const auto agree = static_cast<std::size_t>(
      std::count_if(hand.comparisons.begin(), hand.comparisons.end(), [](const Comparison& c) { return c.agrees; }));
  Table t{.name = "hand",
          .title = agree == all ? fmt::format("Hand calculation: all {} values agree", agree)
                                : fmt::format("Hand calculation: {} of {} values DIFFER", all - agree, all)};
  t.columns = {words_column("figure", true), words_column("case"),     number_column("hand"),
               number_column("computed"),    words_column("unit"),     words_column(""),
               number_column("deviation"),   number_column("allowed"), words_column("deviation in"),
               words_column("formula"),      words_column("numbers"),  words_column("note"),
               words_column("remark")};
  for (const std::size_t k : {2, 3, 4, 5, 7}) t.columns[k].tied = true;
  t.columns[5].data_head = "verdict";
  for (const std::size_t k : {8, 9, 10, 11, 12}) t.columns[k].use = For::data;
  for (const Comparison& c : hand.comparisons) {
    const NamedUnit unit = shown_in(c, units);
    const double size = std::max(std::abs(c.hand.si), c.absolute ? c.within : 0);
    const auto value = [&](double si) { return std::abs(si) < noise * size ? 0 : si / unit.si; };
    const auto share = [&](double v) {
      return std::isnan(v) ? Cell(difference(v, c, unit))
                           : Cell(c.absolute ? v / unit.si : v * 100, difference(v, c, unit));
    };
    Cell verdict = format::agreement(c.agrees);
    verdict.tone = c.agrees ? Tone::good : Tone::bad;
    const bool worked = !c.formula.text.empty();
    t.row({c.what, c.load_case, value(c.hand.si), value(c.computed.si), unit.text, verdict, share(c.deviation),
           share(c.within), c.absolute ? unit.text : "%", c.formula.text,
           worked ? numbers_put_in(c.formula, units) : "", c.note, c.remark});
    const std::string note = c.note.empty() ? "" : "(" + c.note + ")";
    if (!worked && !note.empty()) t.say_beneath(note);
    if (worked)
      for (std::string& line : worked_lines(c.formula, units, "", note.empty() ? "" : "   " + note, page))
        t.say_beneath(std::move(line));
    if (!c.remark.empty()) t.say_beneath("! " + c.remark);
  }
  return t;
}

}  // namespace

std::string comparison_in_words(const Comparison& c, const ModelUnits& units) {
  constexpr int digits = 4;
  const NamedUnit unit = shown_in(c, units);
  return fmt::format("hand value differs: {}{}: {} {} by hand, {} {} computed", c.what,
                     c.load_case.empty() ? "" : " in '" + c.load_case + "'", number(c.hand.si / unit.si, digits),
                     unit.text, number(c.computed.si / unit.si, digits), unit.text);
}

void add_hand(Page& page, const Verification& hand, const ModelUnits& units, std::size_t terminal) {
  const std::size_t room = page_for(terminal);
  page.emplace_back(table_of(hand, units, room));
  Words values;
  for (const WorkedValue& v : hand.values) {
    if (v.formula.uses.empty()) continue;  // a number appears in the formulas unchanged
    const NamedUnit unit = unit_for(v.value.dimension, units);
    const std::string result =
        " = " + short_number(v.value.si / unit.si, 5) + (unit.text.empty() ? "" : " " + unit.text);
    bool first = true;
    for (const std::string& line : worked_lines(v.formula, units, result, "", room)) {
      values.lines.push_back({"", first ? "  " + v.name + " = " + line : "      " + line});
      first = false;
    }
  }
  if (values.lines.empty()) return;
  values.lines.insert(values.lines.begin(), {"", "with"});
  page.emplace_back(std::move(values));
}

}  // namespace corvex::document
