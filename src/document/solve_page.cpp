#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>

#include "corvex/document.hpp"
#include "corvex/envelope.hpp"
#include "corvex/number.hpp"
#include "document/number.hpp"
#include "document/result_tables.hpp"
#include "document/table_notes.hpp"

namespace corvex::document {
namespace {

// Number of cases that are listed; the rest is counted.
constexpr std::size_t short_cases = 8;

}  // namespace

namespace {

void add_case(Page& page, const CaseFigures& c, const Selection& shown, bool all_tables) {
  const auto& supports = c.structure().supports();
  const bool some_support =
      std::any_of(supports.begin(), supports.end(), [&](const PointSupport& p) { return shown.points[p.at.index]; });
  if (shown.some_points && (shown.whole || some_support)) page.emplace_back(reactions_table(c, shown));
  if (shown.some_points && shown.whole) page.emplace_back(balance_table(c));
  if (shown.some_points && all_tables) page.emplace_back(movements_table(c, shown));
  if (shown.whole && all_tables && !c.result().steps().empty()) page.emplace_back(steps_table(c));
  if (!shown.some_members || !all_tables) return;
  page.emplace_back(bars_table(c, shown));
  page.emplace_back(inner_forces_table(c, shown));
  page.emplace_back(stress_table(c, shown));
  if (shown.faces) page.emplace_back(faces_table(c, shown));
  if (shown.ends) page.emplace_back(ends_table(c, shown));
}

// With an envelope, reactions case by case; the other tables where all is asked for, or some members or points.
void add_cases(Page& page, const std::vector<CaseFigures>& cases, const Selection& shown, bool enveloped) {
  const bool all_tables = !enveloped || shown.all || !shown.whole || shown.ends || shown.faces;
  if (!all_tables) {
    // With more cases the envelope shows the extremes.
    if (shown.some_points && cases.size() <= short_cases) page.emplace_back(reactions_by_case(cases, shown));
    if (!shown.requests.load_case.empty())
      page.emplace_back(Words{{{"", fmt::format("All tables of one case: {}; complete tables of all cases: {}.",
                                                shown.requests.load_case, shown.requests.all)}}});
    return;
  }
  for (const CaseFigures& c : cases) {
    const std::string& direction = c.result().direction();
    page.emplace_back(Heading{c.result().name() + (direction.empty() ? "" : ", " + direction + " governs"), 2});
    add_case(page, c, shown, all_tables);
  }
}

void add_envelope(Page& page, const EnvelopeTables& e, const Selection& shown, bool reactions_by_case) {
  if (shown.some_members) page.emplace_back(e.inner_forces()), page.emplace_back(e.stresses());
  if (shown.some_points) page.emplace_back(e.movements()), page.emplace_back(e.reactions());
  if (reactions_by_case) std::get<Table>(page.back()).use = For::data;
}

}  // namespace

Inspection inspection_of(const Model& model) {
  Inspection inspection = inspect(model.structure, model.limits);
  inspection.findings.insert(inspection.findings.end(), model.notes.begin(), model.notes.end());
  accept(inspection.findings, model.acceptances, false);
  inspection.findings = model.located(std::move(inspection.findings));
  std::stable_sort(inspection.findings.begin(), inspection.findings.end(), [](const Problem& a, const Problem& b) {
    return std::pair(a.is_accepted(), a.severity) < std::pair(b.is_accepted(), b.severity);
  });
  return inspection;
}

std::string analysis_words(const AnalysisOptions& a) {
  if (a.order == Order::first) return {};
  std::string words = a.order == Order::second ? "second order" : "large displacements";
  if (!a.imperfection) return words;
  const auto share = [](const char* what, double v) {
    if (v == 0) return std::string();
    const double per = 1 / v;
    const bool whole = std::abs(per - std::round(per)) < 1e-9 * per;
    return whole ? fmt::format(", {} 1/{:.0f}", what, per) : fmt::format(", {} {}", what, short_number(v, 4));
  };
  const std::string sizes = share("sway", a.imperfection->sway) + share("bow", a.imperfection->bow);
  if (!a.imperfection->toward) return words + sizes + " in each direction";
  const Vector& v = *a.imperfection->toward;
  const char* sign = v.x + v.y + v.z < 0 ? "-" : "";
  return words + sizes + fmt::format(" toward {}{}", sign, v.x != 0 ? "x" : v.y != 0 ? "y" : "z");
}

void add_head(Page& page, const ModelUnits& units, const Structure& s, int digits) {
  const NamedUnit& mass = units.mass;
  const std::string mass_words = s.mass() ? fmt::format("{} {}", number(s.mass()->si() / mass.si, digits), mass.text)
                                          : "mass not known (a material has no density)";
  page.emplace_back(Heading{s.title()});
  Words words{{{"", fmt::format("{}, {}, {}, {}", s.is_plane() ? "plane" : "space", count(s.points().size(), "point"),
                                count(s.members().size(), "member"), mass_words)}}};
  if (const std::string order = analysis_words(s.analysis()); !order.empty()) words.lines.front().text += "; " + order;
  page.emplace_back(std::move(words));
  Table t{.name = "model", .use = For::data};
  t.columns = {words_column("title"), words_column("kind"), number_column("points"), number_column("members"),
               number_column("mass", mass.text)};
  t.row({s.title(), s.is_plane() ? "plane" : "space", static_cast<double>(s.points().size()),
         static_cast<double>(s.members().size()), s.mass() ? Cell(s.mass()->si() / mass.si) : unknown()});
  page.emplace_back(std::move(t));
}

namespace {

// The governing values of several cases, in one line.
Words governing(const std::vector<CaseFigures>& cases, int digits) {
  const auto more = [](double a, double b) { return a > b * (1 + noise); };
  const CaseFigures *worst = &cases.front(), *most = worst;
  for (const CaseFigures& c : cases) {
    if (more(c.use().first, worst->use().first) ||
        (!more(worst->use().first, c.use().first) && more(c.use().second, worst->use().second)))
      worst = &c;
    if (more(c.largest_displacement(), most->largest_displacement())) most = &c;
  }
  const std::string stress = worst->governing_words(digits);
  Line line{"governing", stress.empty() ? "no stress" : stress + " in '" + worst->result().name() + "'"};
  line.text += fmt::format("; {} in '{}'", most->movement_words(digits), most->result().name());
  if (worst->use().first > 1) line.tone = Tone::bad;
  return {{line}};
}

// Cases in the order of how near they are to a limit; those of one use stay in the order of the model.
std::vector<const CaseFigures*> nearest_limit_first(const std::vector<CaseFigures>& cases) {
  std::vector<const CaseFigures*> order;
  for (const CaseFigures& c : cases) order.push_back(&c);
  std::stable_sort(order.begin(), order.end(), [](const CaseFigures* a, const CaseFigures* b) {
    const auto x = a->use(), y = b->use();
    if (std::abs(x.first - y.first) > noise * std::max(x.first, y.first)) return x.first > y.first;
    return x.second > y.second * (1 + noise);
  });
  return order;
}

Words summaries(const std::vector<CaseFigures>& cases, bool all, const Requests& requests, int digits) {
  Words summary;
  std::vector<const CaseFigures*> order = nearest_limit_first(cases);
  std::size_t left_out = 0;
  if (!all && order.size() > short_cases) {
    // Imbalance and few reliable digits are reported whatever the utilisation.
    const auto wrong = [&](const CaseFigures* c) { return c->summary(digits).tone != Tone::plain; };
    std::vector<const CaseFigures*> kept(order.begin(), order.begin() + short_cases);
    std::copy_if(order.begin() + short_cases, order.end(), std::back_inserter(kept), wrong);
    left_out = order.size() - kept.size();
    order = kept;
  }
  for (const CaseFigures* c : order) summary.lines.push_back(c->summary(digits));
  if (left_out > 0) {
    std::string text = fmt::format("and {} with lower utilisation", count(left_out, "case"));
    if (!requests.all.empty()) text += ": " + requests.all;
    summary.lines.push_back({"", std::move(text)});
  }
  return summary;
}

}  // namespace

Page solve_page(const ModelUnits& units, const Evaluation& evaluation, const Selection& shown, const Style& style) {
  const auto& [solution, limits, hand] = std::tie(evaluation.solution, evaluation.limits, evaluation.hand);
  const Structure& s = solution.structure();
  Page page;
  add_head(page, units, s, style.digits);

  if (shown.model) add_model(page, units, solution.structure());
  std::vector<CaseFigures> cases;
  for (const std::size_t i : shown.cases) cases.emplace_back(units, solution, i);
  Table figures{.name = "cases", .columns = summary_columns(units), .use = For::data};
  for (const CaseFigures& c : cases) figures.row(c.summary_row());
  if (cases.size() > 1) page.emplace_back(governing(cases, style.digits));
  if (!shown.only_envelope) page.emplace_back(summaries(cases, shown.all, shown.requests, style.digits));
  page.emplace_back(std::move(figures));

  const bool whole = shown.whole;
  if (whole && !limits.verdicts.empty()) {
    page.emplace_back(limits_table(limits, units, style.digits, shown.all));
    page.emplace_back(limits_data(limits, units));
  }
  // The envelope covers all assessed cases: with a selection of cases it would be misread as theirs.
  const bool enveloped = (shown.cases.size() > 1 || shown.only_envelope) && shown.cases == solution.assessed();
  if (enveloped) {
    page.emplace_back(Heading{
        fmt::format("envelope of {}",
                    count(cases.size(), solution.structure().combinations().empty() ? "load case" : "combination")),
        2});
    const bool by_case = shown.some_points && !shown.only_envelope && cases.size() <= short_cases;
    add_envelope(page, EnvelopeTables(units, solution, shown), shown, by_case);
  }
  if (!shown.only_envelope) add_cases(page, cases, shown, enveloped);
  add_table_notes(page, s);
  if (whole && !hand.comparisons.empty()) add_hand(page, hand, units, style.width);
  return page;
}

std::vector<Words> summaries_of(const ModelUnits& units, const Solution& solution, const std::vector<std::size_t>& of,
                                bool all, int digits) {
  std::vector<CaseFigures> cases;
  for (const std::size_t i : of) cases.emplace_back(units, solution, i);
  std::vector<Words> words;
  if (cases.size() > 1) words.push_back(governing(cases, digits));
  if (!cases.empty()) words.push_back(summaries(cases, all, {}, digits));
  return words;
}

namespace {

std::vector<Table> tables_of(Page page) {
  std::vector<Table> tables;
  for (auto& item : page)
    if (Table* t = std::get_if<Table>(&item); t && t->use != For::data && !t->rows.empty())
      tables.push_back(std::move(*t));
  return tables;
}

}  // namespace

std::vector<Table> tables_of_case(const ModelUnits& units, const Solution& solution, std::size_t index,
                                  const Selection& selection) {
  Page page;
  add_case(page, CaseFigures(units, solution, index), selection, true);
  add_table_notes(page, solution.structure());
  return tables_of(std::move(page));
}

std::vector<Table> tables_of_envelope(const ModelUnits& units, const Solution& solution, const Selection& selection) {
  Page page;
  add_envelope(page, EnvelopeTables(units, solution, selection), selection, false);
  add_table_notes(page, solution.structure());
  return tables_of(std::move(page));
}

Page results_page(const Evaluation& evaluation, const ModelUnits& units, bool all) {
  return solve_page(units, evaluation, *select(evaluation.solution, {.all = all}), {});
}

}  // namespace corvex::document
