// The hand calculation as equations, for the report and for the page.
#include <fmt/format.h>

#include "corvex/formula_text.hpp"
#include "corvex/number.hpp"
#include "report/book.hpp"

namespace corvex::reporting {
namespace {

std::string labelled(const ModelUnits& units, const Quantity& value) {
  const NamedUnit unit = unit_for(value.dimension, units);
  return short_number(value.si / unit.si, 5) + (unit.text.empty() ? "" : " " + unit.text);
}

// left = formula = numbers = result, without what says the same twice.
Worked worked(const std::string& left, const WorkedFormula& f, const ModelUnits& units, const std::string& result) {
  Worked w;
  std::vector<std::string> sides{f.text};
  if (!f.uses.empty()) sides.push_back(numbers_put_in(f, units));
  if (sides.back() != result) sides.push_back(result);
  // A bare number is its own result, with the unit.
  if (sides.size() == 2 && f.text.find_first_not_of("0123456789.-") == std::string::npos) sides.erase(sides.begin());
  std::vector<Math> math;
  if (!left.empty()) math.push_back(typeset(left));
  for (const std::string& side : sides) {
    math.push_back(typeset(side));
    w.formula += (w.formula.empty() ? "" : " = ") + side;
  }
  if (!left.empty()) w.formula = left + " = " + w.formula;
  w.math = equation(std::move(math));
  return w;
}

}  // namespace

HandFormulas hand_formulas(const Verification& hand, const ModelUnits& units, int digits) {
  document::Page page;
  document::add_hand(page, hand, units, 0);
  HandFormulas all{.table = std::get<Table>(page.front())};
  // The formulas stand beneath its rows, in words.
  all.table.beneath.clear();
  for (const WorkedValue& v : hand.values)
    // A number appears in the formulas unchanged.
    if (!v.formula.uses.empty()) all.values.push_back(worked(v.name, v.formula, units, labelled(units, v.value)));
  for (std::size_t i = 0; i < hand.comparisons.size(); ++i) {
    const Comparison& c = hand.comparisons[i];
    if (c.formula.text.empty()) continue;
    const auto cell = [&](std::size_t k) {
      return document::shown(all.table.columns[k], all.table.rows[i].cells[k], digits);
    };
    const std::string unit = cell(4).empty() ? "" : " " + cell(4);
    Worked w = worked("", c.formula, units, cell(2) + unit);
    w.what = c.what + (c.load_case.empty() ? "" : " in '" + c.load_case + "'");
    w.verdict = fmt::format("computed {}{}, deviation {}, allowed {}: {}", cell(3), unit, cell(6), cell(7), cell(5));
    w.tone = c.agrees ? Tone::good : Tone::bad;
    if (!c.note.empty()) w.remarks.push_back(c.note);
    if (!c.remark.empty()) w.remarks.push_back(c.remark);
    all.worked.push_back(std::move(w));
  }
  return all;
}

}  // namespace corvex::reporting
