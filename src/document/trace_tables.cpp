#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "corvex/figures.hpp"
#include "document/case_figures.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

// Those that the structure and the member can have.
std::vector<MemberFigure> figures(const Structure& s, const Member& m) {
  std::vector<MemberFigure> there;
  for (const MemberFigure& f : member_figures())
    if (f.exists_in(s, m.name)) there.push_back(f);
  return there;
}

const NamedUnit& unit_of(const MemberFigure& f, const ModelUnits& u) {
  const NamedUnit* units[] = {&u.force, &u.moment, &u.deflection, &u.angle};
  return *units[static_cast<std::size_t>(f.kind)];
}

const char* part_of(const MemberFigure& f) {
  using Kind = MemberFigure::Kind;
  return f.kind == Kind::force ? "forces" : f.kind == Kind::moment ? "moments" : "displacements";
}

// Rounding error relative to the largest figure of its kind is zero.
struct Largest {
  double of_kind[4] = {0, 0, 0, 0}, stress = 0;

  double& operator[](const MemberFigure& f) { return of_kind[static_cast<std::size_t>(f.kind)]; }
  void take(const MemberFigure& f, double value) { (*this)[f] = std::max((*this)[f], std::abs(value)); }
  void take(const std::optional<StressExtreme>& s) {
    if (s) stress = std::max(stress, std::abs(s->value.si()));
  }
};

// "before" and "after" where a place is listed twice.
std::string side_of(const std::vector<TracePlace>& places, std::size_t i) {
  const Length at = places[i].at;
  const bool twice = (i > 0 && places[i - 1].at == at) || (i + 1 < places.size() && places[i + 1].at == at);
  return !twice ? "" : places[i].side == Side::before ? "before" : "after";
}

std::string extremes_words(const TracePlace& p, const std::vector<MemberFigure>& shown) {
  std::vector<std::string> words;
  for (const MemberFigure& f : shown)
    for (const auto& [figure, which] : p.extremes)
      if (figure == f.name)
        words.push_back(which == "zero" ? f.symbol + std::string(" = 0") : fmt::format("{} {}", which, f.symbol));
  if (p.is_extreme_of("sag")) words.emplace_back("largest deflection");
  return fmt::format("{}", fmt::join(words, ", "));
}

// At a place, and on which of its sides.
std::vector<Column> place_columns(const ModelUnits& u) {
  Column at = place_column(u.length.text, "at"), side = words_column("", true);
  at.label = true;
  at.tied = false;
  side.data_head = "side";
  return {at, side};
}

// Tension is never less than none, compression never more.
Cell stress_cell(const std::optional<StressExtreme>& s, double sign, const NamedUnit& unit, double size) {
  if (!s) return unknown();
  return s->value.si() * sign > 0 ? clean(s->value.si(), unit, size) : 0;
}

}  // namespace

Table trace_table(const Structure& s, const MemberResult& m, const std::vector<TracePlace>& places, const ModelUnits& u,
                  const std::string& load_case) {
  const std::vector<MemberFigure> shown = figures(s, m.member());
  Table t{.name = "trace", .load_case = load_case, .columns = place_columns(u)};
  for (const MemberFigure& f : shown) t.columns.push_back(number_column(f.symbol, unit_of(f, u).text));
  Column extremes = words_column("");
  extremes.data_head = "extremes";
  t.columns.insert(t.columns.end(),
                   {number_column("tension", u.stress.text), number_column("compression", u.stress.text),
                    number_column("shear", u.stress.text), number_column("von Mises", u.stress.text), extremes});
  Largest largest;
  std::vector<SectionState> states;
  for (const TracePlace& p : places) {
    states.push_back(m.at(p.at, p.side));
    for (const MemberFigure& f : shown) largest.take(f, f.at(states.back()).si);
  }
  largest.take(m.max_stress());
  largest.take(m.min_stress());
  largest.take(m.von_mises());
  for (std::size_t i = 0; i < places.size(); ++i) {
    const TracePlace& p = places[i];
    std::vector<Cell> cells{place_cell(s, m.member(), p.at, u.length), side_of(places, i)};
    for (const MemberFigure& f : shown) cells.push_back(clean(f.at(states[i]).si, unit_of(f, u), largest[f]));
    cells.push_back(stress_cell(m.max_stress_at(p.at, p.side), 1, u.stress, largest.stress));
    cells.push_back(stress_cell(m.min_stress_at(p.at, p.side), -1, u.stress, largest.stress));
    const auto shear = m.max_shear_stress_at(p.at, p.side);
    cells.push_back(shear ? Cell(clean(shear->value.si(), u.stress, largest.stress)) : unknown());
    const auto mises = m.von_mises_at(p.at, p.side);
    cells.push_back(mises ? Cell(clean(mises->value.si(), u.stress, largest.stress)) : unknown());
    cells.emplace_back(extremes_words(p, shown));
    t.row(std::move(cells));
  }
  return t;
}

namespace {

Table envelope_columns(const ModelUnits& u) {
  Table t{.name = "trace-envelope", .columns = place_columns(u)};
  t.columns[0].grouped = t.columns[1].grouped = true;
  Column figure = words_column("", true), unit = words_column("unit", true), extremes = words_column("");
  figure.data_head = "figure";
  unit.use = For::people;
  extremes.data_head = "extreme";
  t.columns.insert(t.columns.end(), {figure, unit});
  for (const std::string which : {"max", "min"}) {
    Column in = words_column("case");
    in.data_head = which + " case";
    in.tied = true;
    t.columns.insert(t.columns.end(), {number_column(which), in});
    t.columns[t.columns.size() - 2].unit_of_row = true;
  }
  t.columns.push_back(extremes);
  return t;
}

// The rows of stress at one place.
void add_stress_rows(Table& t, const Cell& at, const std::string& side, const SectionEnvelope& e, const NamedUnit& unit,
                     double largest) {
  const Cell high = stress_cell(e.max_stress.stress, 1, unit, largest);
  const Cell low = stress_cell(e.min_stress.stress, -1, unit, largest);
  const auto governing = [](const Cell& cell, const GoverningStress& s) {
    return cell.value.value_or(0) == 0 ? "" : s.load_case;
  };
  t.rows.push_back(
      {.cells = {at, side, "stress", unit.text, high, governing(high, e.max_stress), low, governing(low, e.min_stress)},
       .part = "stress",
       .unit = unit.text});
  const auto& mises = e.von_mises.stress;
  const Cell worst = mises ? Cell(clean(mises->value.si(), unit, largest)) : unknown();
  t.rows.push_back({.cells = {at, side, "von Mises", unit.text, worst, governing(worst, e.von_mises)},
                    .part = "stress",
                    .unit = unit.text});
}

}  // namespace

Table trace_envelope_table(const Solution& solution, MemberId member, const std::vector<TracePlace>& places,
                           const ModelUnits& u) {
  const Structure& s = solution.structure();
  const Member& m = s[member];
  std::vector<MemberFigure> shown = figures(s, m);
  std::erase_if(shown, [](const MemberFigure& f) { return !f.envelope_at; });
  Table t = envelope_columns(u);
  Largest largest;
  std::vector<SectionEnvelope> all;
  for (const TracePlace& p : places) {
    const SectionEnvelope& e = all.emplace_back(envelope_at(solution, member, p.at, p.side));
    for (const MemberFigure& f : shown)
      for (const GoverningExtreme* one : {&(e.*f.envelope_at).max, &(e.*f.envelope_at).min})
        largest.take(f, one->value.si);
    largest.take(e.max_stress.stress);
    largest.take(e.min_stress.stress);
    largest.take(e.von_mises.stress);
  }
  for (std::size_t i = 0; i < places.size(); ++i) {
    const TracePlace& p = places[i];
    const Cell at = place_cell(s, m, p.at, u.length);
    const std::string side = side_of(places, i);
    for (const MemberFigure& f : shown) {
      const Range& r = all[i].*f.envelope_at;
      const NamedUnit& in = unit_of(f, u);
      std::string words;
      for (const auto& [key, which] : p.extremes)
        if (key == f.name) words += (words.empty() ? "" : ", ") + which + " of the member";
      const double high = clean(r.max.value.si, in, largest[f]), low = clean(r.min.value.si, in, largest[f]);
      const bool nothing = high == 0 && low == 0;
      t.rows.push_back({.cells = {at, side, f.symbol, in.text, high, nothing ? "" : r.max.load_case, low,
                                  nothing ? "" : r.min.load_case, words},
                        .part = part_of(f),
                        .unit = in.text});
    }
    add_stress_rows(t, at, side, all[i], u.stress, largest.stress);
  }
  return t;
}

}  // namespace corvex::document
