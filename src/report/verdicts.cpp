// The chapters that judge: summary, findings, limits, hand calculation, variants, accuracy.
#include <fmt/format.h>

#include <algorithm>

#include "corvex/number.hpp"
#include "corvex/version.hpp"
#include "report/book.hpp"

namespace corvex::reporting {
namespace {

// "Limits: all 4 met" is the heading of a table, and a line of the summary.
Line verdict_line(const std::string& title, bool good) {
  const std::size_t colon = title.find(": ");
  return {title.substr(0, colon), title.substr(colon + 2), good ? Tone::good : Tone::bad};
}

Table hand_table(const Source& source) {
  document::Page page;
  document::add_hand(page, source.hand, source.model.units, 0);
  Table t = std::get<Table>(page.front());
  t.beneath.clear();
  return t;
}

}  // namespace

void add_summary(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  const ModelUnits& u = source.model.units;
  Words words;
  if (!source.limits.verdicts.empty())
    words.lines.push_back(verdict_line(document::limits_table(source.limits, u, source.options.digits, false).title,
                                       source.limits.all_met()));
  else
    words.lines.push_back({"Limits", "the model has none", Tone::plain});
  if (!source.hand.comparisons.empty())
    words.lines.push_back(verdict_line(hand_table(source).title, source.hand.all_agree()));
  else
    words.lines.push_back({"Hand calculation", "the model has none", Tone::plain});
  words.lines.push_back({"Findings", document::findings_in_words(source.findings),
                         asks_for_attention(source.findings) ? Tone::warning : Tone::good});
  words.lines.push_back(
      {"Structure", fmt::format("{}, {} points, {} members, {}", s.is_plane() ? "plane" : "in space", s.points().size(),
                                s.members().size(),
                                s.mass() ? number(s.mass()->si() / u.mass.si, source.options.digits) + " " + u.mass.text
                                         : "mass not known (a material has no density)")});
  chapter.items.emplace_back(std::move(words));
  for (Words& w :
       document::summaries_of(u, source.solution, source.solution.judged(), source.options.all, source.options.digits))
    chapter.items.emplace_back(std::move(w));
}

void add_findings(Chapter& chapter, const Source& source) {
  if (source.findings.empty()) {
    chapter.items.emplace_back(Words{{{"", "Nothing was found: no likely mistake, nothing that is worth knowing."}}});
    return;
  }
  Table t = document::findings_table(source.findings);
  t.title = document::findings_in_words(source.findings);
  chapter.items.emplace_back(std::move(t));
}

void add_limits(Chapter& chapter, const Source& source) {
  constexpr std::size_t most = 100;
  const bool all = source.options.all || source.limits.verdicts.size() <= most;
  chapter.items.emplace_back(document::limits_table(source.limits, source.model.units, source.options.digits, all));
}

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

void add_hand(Chapter& chapter, const Source& source) {
  const ModelUnits& units = source.model.units;
  const Table t = hand_table(source);
  chapter.items.emplace_back(t);
  bool heading = false;
  for (const WorkedValue& v : source.hand.values) {
    if (v.formula.uses.empty()) continue;  // a number stands in the formulas as it is
    if (!heading) chapter.items.emplace_back(Heading{"Values used", 2});
    heading = true;
    Worked w = worked(v.name, v.formula, units, labelled(units, v.value));
    chapter.items.emplace_back(std::move(w));
  }
  heading = false;
  for (std::size_t i = 0; i < source.hand.comparisons.size(); ++i) {
    const Comparison& c = source.hand.comparisons[i];
    if (c.formula.text.empty()) continue;
    if (!heading) chapter.items.emplace_back(Heading{"Worked out by hand", 2});
    heading = true;
    const auto cell = [&](std::size_t k) {
      return document::shown(t.columns[k], t.rows[i].cells[k], source.options.digits);
    };
    const std::string unit = cell(4).empty() ? "" : " " + cell(4);
    Worked w = worked("", c.formula, units, cell(2) + unit);
    w.what = c.what + (c.load_case.empty() ? "" : " in " + c.load_case);
    w.verdict = fmt::format("computed {}{}, deviation {}, allowed {}: {}", cell(3), unit, cell(6), cell(7), cell(5));
    w.tone = c.agrees ? Tone::good : Tone::bad;
    if (!c.note.empty()) w.remarks.push_back(c.note);
    if (!c.remark.empty()) w.remarks.push_back(c.remark);
    chapter.items.emplace_back(std::move(w));
  }
}

void add_variants(Chapter& chapter, const Source& source) {
  document::Page page = document::comparison_page("", source.model.units, source.options.variants, source.model.show,
                                                  source.options.digits);
  for (auto& item : page) {
    if (auto* t = std::get_if<Table>(&item); t && t->use != document::For::data)
      chapter.items.emplace_back(std::move(*t));
    if (auto* w = std::get_if<Words>(&item)) chapter.items.emplace_back(std::move(*w));
  }
}

void add_accuracy(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  std::string deformation = s.analysis().shear ? "Deformation by shear forces is counted."
                                               : "Deformation by shear forces is left out, as the model asks for.";
  chapter.items.emplace_back(
      Words{{{"Theory",
              "Linear elastic, small displacements: equilibrium is that of the undeformed structure. Buckling and "
              "second-order effects are not part of these figures. " +
                  deformation},
             {"Members",
              "Members are exact between their joints for the loads that act on them (beam theory after Euler and "
              "Bernoulli, or Timoshenko): there are no elements to be refined, and extremes are roots, not samples."},
             {"Stresses",
              "By the formulas of bending, shear and torsion after Saint-Venant at points around the section, "
              "shear stress from the exact field of the section. Stress where members are joined, at welds and "
              "holes, and stress of restrained warping are not part of them."}}});
  Table t{.name = "accuracy", .title = "Equilibrium and digits of each case"};
  t.columns = {document::words_column("case", true), document::number_column("error of equilibrium"),
               document::number_column("digits that stand")};
  t.columns[1].most_digits = 2;
  for (std::size_t i = 0; i < source.solution.size(); ++i) {
    const CaseResult c = source.solution[i];
    t.row({c.name(), document::Cell(c.balance().error, fmt::format("{:.1e}", c.balance().error)),
           document::Cell(static_cast<double>(c.digits()), std::to_string(c.digits()))});
  }
  t.after =
      "Error of equilibrium: what loads and reactions lack to cancel, as a share of them. Digits that stand: how many "
      "decimal digits of the displacements are sure, estimated from what the equations still lack and from rounding.";
  chapter.items.emplace_back(std::move(t));
  chapter.items.emplace_back(document::sign_rules(s));
  chapter.items.emplace_back(Words{{{"Program", std::string("Corvex ") + CORVEX_VERSION}}});
}

}  // namespace corvex::reporting
