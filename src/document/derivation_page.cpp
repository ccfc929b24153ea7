// A derivation as a page: a line or two for each step.
#include <fmt/format.h>

#include <cmath>

#include "corvex/document.hpp"
#include "corvex/formula_text.hpp"
#include "corvex/number.hpp"

namespace corvex::document {
namespace {

class PageWriter {
 public:
  PageWriter(Page& page, const ModelUnits& units, int digits, bool brief)
      : page_(page), units_(units), digits_(digits), brief_(brief) {}

  void operator()(const WorkedFormula& sentence) {
    say_nothing();
    if (words_.lines.empty() || !brief_) flush();
    words_.lines.push_back({"", text(sentence)});
  }
  void operator()(const DerivationStep& s) {
    if (says_nothing_else_acts(s)) {
      nothing_ += (nothing_.empty() ? "" : ", ") + s.unknown + " = 0" + (s.remark.empty() ? "" : " (" + s.remark + ")");
      return;
    }
    say_nothing();
    const std::string because = text(s.because), formula = text(s.formula);
    const std::string result = s.result ? derived_value(*s.result, units_, digits_) : "";
    const std::string remark = s.remark.empty() ? "" : "   (" + s.remark + ")";
    const std::string name = s.unknown.empty() ? "" : s.unknown + " = ";
    if (brief_) {
      if (!s.unknown.empty()) line("  " + name + (s.result ? result : formula) + remark);
      return;
    }
    const std::string lead = because.empty() ? "  " : "  " + because + ": ";
    std::string worked = name + formula;
    // A number alone is its own result.
    if (s.result && formula != result) worked += (formula.empty() ? "" : " = ") + result;
    if (s.equation.text.empty()) return line(lead + worked + remark);
    line(lead + text(s.equation));
    line("      " + worked + remark);
  }
  void operator()(const DerivationSystem& s) {
    say_nothing();
    flush();
    if (!brief_) {
      line("  " + text(s.because) + ":");
      for (const DerivationSystem::Equation& e : s.equations)
        line("      " + (e.because.text.empty() ? "" : text(e.because) + ": ") + text(e.left) + " = 0");
    }
    std::string solution;
    for (const auto& [name, value] : s.solution)
      solution += (solution.empty() ? "" : ", ") + name + " = " + derived_value(value, units_, digits_);
    line("  solution: " + solution);
  }
  void operator()(const DerivationTable& t) {
    say_nothing();
    flush();
    page_.emplace_back(derived_table(t, units_, digits_));
  }
  void operator()(const FreeBody& b) {
    say_nothing();
    if (brief_) return;
    flush();
    std::string name = b.name;
    name.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(name.front())));
    words_.lines.push_back({"", name, Tone::head});
  }

  void chapter(const DerivationChapter& c) {
    page_.emplace_back(Heading{c.title, 2});
    const std::size_t begun = page_.size();
    for (const DerivationChapter::Item& item : c.items) std::visit(*this, item);
    say_nothing();
    flush();
    // A chapter of which the brief form shows nothing.
    if (page_.size() == begun) page_.pop_back();
  }

 private:
  static bool says_nothing_else_acts(const DerivationStep& s) {
    return !s.unknown.empty() && !s.equation.text.empty() && s.formula.text.empty();
  }
  std::string text(const WorkedFormula& line) const { return derived_text(line, units_, digits_); }
  void line(std::string text) { words_.lines.push_back({"", std::move(text)}); }
  // Forces that stand alone in an equation, one after another, in one line.
  void say_nothing() {
    if (!nothing_.empty()) line((brief_ ? "  " : "  zero by inspection: ") + nothing_);
    nothing_.clear();
  }
  void flush() {
    if (!words_.lines.empty()) page_.emplace_back(std::move(words_));
    words_ = {};
  }

  Page& page_;
  const ModelUnits& units_;
  int digits_;
  bool brief_;
  Words words_{};
  std::string nothing_{};
};

}  // namespace

Table derived_table(const DerivationTable& t, const ModelUnits& units, int digits) {
  Table table{.name = t.name, .title = t.title};
  std::vector<NamedUnit> of;
  for (const DerivationTable::Column& c : t.columns) {
    of.push_back(c.dimension ? unit_for(*c.dimension, units) : NamedUnit{});
    table.columns.push_back(c.dimension ? number_column(c.head, of.back().text)
                                        : words_column(c.head, table.columns.empty()));
  }
  for (const auto& row : t.rows) {
    std::vector<Cell> cells;
    for (std::size_t i = 0; i < row.size(); ++i) {
      if (!row[i].value) {
        cells.emplace_back(row[i].words.empty() ? derived_text(row[i].formula, units, digits) : row[i].words);
        continue;
      }
      const double value = *row[i].value / of[i].si;
      cells.emplace_back(value == 0 ? 0 : value, short_number(value == 0 ? 0 : value, digits));
    }
    table.row(std::move(cells));
  }
  if (!t.rule.empty()) {
    std::string rule = t.rule;
    for (std::size_t at = 0; (at = rule.find('*', at)) != std::string::npos;) rule.replace(at, 1, "·");
    table.after = t.columns.back().head + " = " + rule;
  }
  return table;
}

namespace {

// Of relative differences: what both calculations leave by rounding.
bool is_rounding(double difference) {
  return std::abs(difference) < 1e-12;
}

}  // namespace

Table both_ways_table(const std::vector<BothWays>& both, const ModelUnits& units) {
  Table t{.name = "both ways", .title = "Derived values compared with those of the stiffness method"};
  t.columns = {words_column("figure", true), number_column("derived"), number_column("solved"), words_column("unit"),
               number_column("difference", "", "difference")};
  double most = 0;
  for (const BothWays& b : both) {
    const NamedUnit unit =
        b.derived.dimension == dimension::length ? units.deflection : unit_for(b.derived.dimension, units);
    most = std::max(most, std::abs(b.difference));
    t.row({b.what, Cell(b.derived.si / unit.si), Cell(b.solved.si / unit.si), unit.text,
           Cell(b.difference, is_rounding(b.difference) ? "0" : fmt::format("{:.0e}", b.difference))});
  }
  t.after = "Differences are relative to the largest value of the same kind; the largest difference is " +
            (is_rounding(most) ? std::string("below 1e-12.") : fmt::format("{:.0e}.", most));
  return t;
}

Page derivation_page(const Derivation& d, const std::vector<BothWays>& both, const ModelUnits& units, int digits,
                     bool brief) {
  Page page{Heading{d.title},
            Words{{{"", d.members.empty() ? "Check of the joints in '" + d.load_case + "'"
                                          : "Derivation of '" + d.load_case + "', by statics and virtual work"}}}};
  PageWriter writer(page, units, digits, brief);
  for (const DerivationChapter& c : d.chapters) writer.chapter(c);
  if (both.empty()) return page;
  page.emplace_back(Heading{"Comparison", 2});
  page.emplace_back(both_ways_table(both, units));
  return page;
}

}  // namespace corvex::document
