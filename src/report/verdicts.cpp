// Chapters of the assessment: summary, findings, limits, hand calculation, variants, accuracy.
#include <fmt/format.h>

#include <algorithm>

#include "corvex/number.hpp"
#include "report/book.hpp"

namespace corvex::reporting {
namespace {

// "Limits: all 4 met" is the heading of a table, and a line of the summary.
Line verdict_line(const std::string& title, bool good) {
  const std::size_t colon = title.find(": ");
  return {title.substr(0, colon), title.substr(colon + 2), good ? Tone::good : Tone::bad};
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
    words.lines.push_back({"Limits", "none", Tone::plain});
  if (!source.hand.comparisons.empty())
    words.lines.push_back(
        verdict_line(hand_formulas(source.hand, u, source.options.digits).table.title, source.hand.all_agree()));
  else
    words.lines.push_back({"Hand calculation", "none", Tone::plain});
  words.lines.push_back({"Findings", document::findings_in_words(source.findings),
                         asks_for_attention(source.findings) ? Tone::warning : Tone::good});
  words.lines.push_back(
      {"Structure", fmt::format("{}, {} points, {} members, {}", s.is_plane() ? "plane" : "in space", s.points().size(),
                                s.members().size(),
                                s.mass() ? number(s.mass()->si() / u.mass.si, source.options.digits) + " " + u.mass.text
                                         : "mass not known (a material has no density)")});
  chapter.items.emplace_back(std::move(words));
  if (!source.limits.verdicts.empty())
    chapter.items.emplace_back(document::utilisation_table(source.limits, u, source.options.digits));
  for (Words& w : document::summaries_of(u, source.solution, source.solution.assessed(), source.options.all,
                                         source.options.digits))
    chapter.items.emplace_back(std::move(w));
  add_signs(chapter, source);
}

void add_findings(Chapter& chapter, const Source& source) {
  if (source.findings.empty()) {
    chapter.items.emplace_back(Words{{{"", "No findings."}}});
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

void add_hand(Chapter& chapter, const Source& source) {
  HandFormulas all = hand_formulas(source.hand, source.model.units, source.options.digits);
  chapter.items.emplace_back(std::move(all.table));
  if (!all.values.empty()) chapter.items.emplace_back(Heading{"Values used", 2});
  for (Worked& w : all.values) chapter.items.emplace_back(std::move(w));
  if (!all.worked.empty()) chapter.items.emplace_back(Heading{"Calculated by hand", 2});
  for (Worked& w : all.worked) chapter.items.emplace_back(std::move(w));
}

// The places of the largest values take one row for each value of each variant.
bool lists_places(const Table& t) {
  return t.name == "comparison-places";
}

void add_variants(Chapter& chapter, const Source& source) {
  document::Page page = document::comparison_page("", source.model.units, source.options.variants, source.model.show,
                                                  source.options.digits);
  for (auto& item : page) {
    if (auto* t = std::get_if<Table>(&item);
        t && t->use != document::For::data && (source.options.all || !lists_places(*t)))
      chapter.items.emplace_back(std::move(*t));
    if (auto* w = std::get_if<Words>(&item)) chapter.items.emplace_back(std::move(*w));
  }
}

std::string theory_in_words(const AnalysisOptions& analysis) {
  const char* const shear =
      analysis.shear ? " Shear deformation is included." : " Shear deformation is not included, as set in the model.";
  switch (analysis.order) {
    case Order::first:
      return "Linear elastic, first order: equilibrium is formulated for the undeformed structure, displacements are small." +
             std::string(shear);
    case Order::second:
      return "Linear elastic, second order (" + document::analysis_words(analysis) +
             "): equilibrium is formulated for the displaced structure with small rotations; each case and combination "
             "is solved by itself. The effect of axial forces on bending is included in members and in the frame; "
             "lateral torsional buckling is not." +
             shear;
    case Order::large: break;
  }
  return "Linear elastic, " + document::analysis_words(analysis) +
         ": equilibrium is formulated for the displaced structure with rotations of any magnitude; each case and "
         "combination is solved by itself." +
         shear;
}

// Whether buckling is part of the calculation, and where.
std::string stability_in_words(const Source& source) {
  const auto& verdicts = source.limits.verdicts;
  const bool limit =
      std::any_of(verdicts.begin(), verdicts.end(), [](const Verdict& v) { return v.kind == Limit::Kind::buckling; });
  const bool modes = !source.model.modes.buckling.empty();
  if (!limit && !modes)
    return "The stresses do not include buckling. A critical load factor below 10 is reported as a finding.";
  return std::string("The stresses do not include buckling at first order. Critical load factors are in the ") +
         (modes ? "chapter on buckling and vibration" : "limits") + (modes && limit ? " and in the limits." : ".");
}

void add_accuracy(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  chapter.items.emplace_back(Words{
      {{"Theory", theory_in_words(s.analysis())},
       {"Stability", stability_in_words(source)},
       {"Members",
        "Results are exact between the joints for the loads of the model (beam theory of Euler and Bernoulli, or "
        "Timoshenko): no mesh has to be refined, and extreme values are found analytically, not by sampling."},
       {"Stresses",
        "Formulas of bending, shear and torsion (Saint-Venant) at points around the section; shear stress from the exact "
        "field of the section. Local stress at joints, welds and holes, and warping normal stress are not included."}}});
  Table t{.name = "accuracy", .title = "Equilibrium and reliable digits of each case"};
  t.columns = {document::words_column("case", true), document::number_column("equilibrium error"),
               document::number_column("reliable digits")};
  t.columns[1].most_digits = 2;
  for (std::size_t i = 0; i < source.solution.size(); ++i) {
    const CaseResult c = source.solution[i];
    t.row({c.name(), document::Cell(c.balance().error, fmt::format("{:.1e}", c.balance().error)),
           document::Cell(static_cast<double>(c.digits()), std::to_string(c.digits()))});
  }
  t.after =
      "Equilibrium error: relative imbalance of loads and reactions. Reliable digits: estimated number of correct "
      "decimal digits of the displacements, from the residual of the equations and from rounding.";
  chapter.items.emplace_back(std::move(t));
}

}  // namespace corvex::reporting
