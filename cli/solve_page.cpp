#include "solve_page.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "corvex/envelope.hpp"
#include "hand_table.hpp"
#include "limits_table.hpp"
#include "number.hpp"
#include "result_tables.hpp"

namespace corvex::cli {
namespace {

std::string count(std::size_t n, const char* what) {
  return fmt::format("{} {}{}", n, what, n == 1 ? "" : "s");
}

Words signs(const Structure& s) {
  return {
      {{"",
        "Signs: N + is tension. M + has tension on the member's -y side (below, where its y points up); V = dM/dx."},
       {"",
        "Places count from the member's first point. Reactions act on the structure; their sum and the loads cancel."},
       {"",
        "Sag is measured between supports and members that carry; of an overhang it is the movement of its tip against "
        "its root."},
       {"", fmt::format("Movements go along the global axes, turns are {}.",
                        s.is_plane() ? "counter-clockwise" : "right-handed about them")}}};
}

void add_case(Page& page, const CaseFigures& c, const Selection& shown, bool all_tables) {
  const auto& supports = c.structure().supports();
  const bool some_support = std::any_of(supports.begin(), supports.end(),
                                        [&](const PointSupport& p) { return shown.points[p.at.index]; });
  if (shown.some_points && (shown.whole || some_support)) page.emplace_back(reactions_table(c, shown));
  if (shown.some_points && shown.whole) page.emplace_back(balance_table(c));
  if (shown.some_points && all_tables) page.emplace_back(movements_table(c, shown));
  if (!shown.some_members || !all_tables) return;
  page.emplace_back(inner_forces_table(c, shown));
  page.emplace_back(stress_table(c, shown));
}

void add_envelope(Page& page, const EnvelopeTables& e, const Selection& shown) {
  if (shown.some_members) page.emplace_back(e.inner_forces()), page.emplace_back(e.stresses());
  if (shown.some_points) page.emplace_back(e.movements()), page.emplace_back(e.reactions());
}

// A material loaded beyond its strength deserves a word also where no limit asks for safety.
Problems beyond_strength(const Solution& solution, const Limits& limits) {
  Problems warnings;
  for (const Limit& l : limits)
    if (l.kind == Limit::Kind::safety) return warnings;
  for (const std::size_t c : solution.judged()) {
    const CaseResult result = solution[c];
    for (std::size_t i = 0; i < solution.structure().members().size(); ++i) {
      const MemberResult m = result[MemberId{i}];
      const auto safety = m.safety();
      if (!safety || *safety >= 1) continue;
      warnings.push_back(
          {fmt::format("in case '{}' the stress in '{}' is beyond the strength of its material: safety {}",
                       result.name(), m.member().name, number(*safety, 3)),
           {Subject::Kind::member, m.member().name},
           {},
           {},
           Problem::Severity::warning});
      break;  // one a case; the tables have the others
    }
  }
  return warnings;
}

}  // namespace

Problems findings_of(const Model& model, const Solution& solution, const LimitCheck& limits, bool with_stress) {
  Problems findings;
  const Problems warnings = with_stress ? beyond_strength(solution, model.limits) : Problems();
  for (const Problems* some : {&model.notes, &solution.notes(), &limits.notes, &warnings})
    for (Problem& p : model.located(*some)) findings.push_back(std::move(p));
  return findings;
}

void add_head(Page& page, const Model& model, const Structure& s, int digits) {
  const NamedUnit& mass = model.units.mass;
  const std::string mass_words = s.mass() ? fmt::format("{} {}", number(s.mass()->si() / mass.si, digits), mass.text)
                                          : "mass not known (a material has no density)";
  page.emplace_back(Heading{s.title()});
  Words words{{{"", fmt::format("{}, {}, {}, {}", s.is_plane() ? "plane" : "space", count(s.points().size(), "point"),
                                count(s.members().size(), "member"), mass_words)}}};
  page.emplace_back(std::move(words));
  Table t{.name = "model", .use = For::data};
  t.columns = {words_column("title"), words_column("kind"), number_column("points"), number_column("members"),
               number_column("mass", mass.text)};
  t.row({s.title(), s.is_plane() ? "plane" : "space", static_cast<double>(s.points().size()),
         static_cast<double>(s.members().size()), s.mass() ? Cell(s.mass()->si() / mass.si) : unknown()});
  page.emplace_back(std::move(t));
}

Page solve_page(const Model& model, const Solution& solution, const Verification& hand, const LimitCheck& limits,
                const Selection& shown, const Style& style) {
  const Structure& s = solution.structure();
  Page page;
  add_head(page, model, s, style.digits);

  std::vector<CaseFigures> cases;
  for (const std::size_t i : shown.cases) cases.emplace_back(model, solution, i);
  Words summary;
  Table figures{.name = "cases", .columns = summary_columns(model.units), .use = For::data};
  for (const CaseFigures& c : cases) {
    summary.lines.push_back(c.summary(style.digits));
    figures.row(c.summary_row());
  }
  page.emplace_back(std::move(summary));
  page.emplace_back(std::move(figures));

  const bool whole = shown.whole;
  if (whole && !limits.verdicts.empty()) {
    page.emplace_back(limits_table(limits, model.units, style.digits, shown.all));
    page.emplace_back(limits_data(limits, model.units));
  }
  // The envelope is of all that is judged: beside a choice of cases it would be read as theirs.
  const bool enveloped = shown.cases.size() > 1 && shown.cases == solution.judged();
  if (enveloped) {
    page.emplace_back(Heading{
        fmt::format("envelope of {}",
                    count(cases.size(), solution.structure().combinations().empty() ? "load case" : "combination")),
        2});
    add_envelope(page, EnvelopeTables(model, solution, shown), shown);
  }
  const bool all_tables = !enveloped || shown.all || !whole;
  for (const CaseFigures& c : cases) {
    page.emplace_back(Heading{c.result().name(), 2});
    add_case(page, c, shown, all_tables);
  }
  if (!all_tables)
    page.emplace_back(Words{{{"", "All tables of one of them: --case NAME; of each of them, and whole: --all."}}});
  page.emplace_back(signs(s));
  if (whole && !hand.comparisons.empty()) add_hand(page, hand, model.units, style.width);
  return page;
}

}  // namespace corvex::cli
