// The runs of a sweep.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

NamedUnit unit_of(const Varied& v, const ModelUnits& units) {
  if (!v.unit.empty()) return {v.unit, v.unit_si};
  return unit_for(v.values.front().quantity->dimension, units);
}

NamedUnit shown_in(const Dimension& d, const ModelUnits& units) {
  return d == dimension::length ? units.deflection : unit_for(d, units);
}

// The largest of one figure in all runs; nothing where no run has it.
std::optional<Quantity> largest(const std::vector<SweepRun>& runs, std::size_t figure) {
  std::optional<Quantity> most;
  for (const SweepRun& r : runs)
    if (figure < r.shown.size() && r.shown[figure])
      if (const Quantity& q = *r.shown[figure]; !most || std::abs(q.si) > most->si)
        most = {std::abs(q.si), q.dimension};
  return most;
}

}  // namespace

Page sweep_page(const std::string& title, const ModelUnits& units, const Sweep& sweep,
                const std::vector<SweepRun>& runs) {
  Page page{Heading{title}};
  Table t{.name = "sweep", .title = fmt::format("Sweep '{}': {}", sweep.name, count(runs.size(), "run"))};
  for (const Varied& v : sweep.vary) {
    t.columns.push_back(v.is_number() ? number_column(v.name, unit_of(v, units).text) : words_column(v.name));
    t.columns.back().label = true;
  }
  std::vector<std::optional<Quantity>> most;
  for (std::size_t i = 0; i < sweep.show.size(); ++i) {
    most.push_back(largest(runs, i));
    t.columns.push_back(
        number_column(words(sweep.show[i]), most[i] ? shown_in(most[i]->dimension, units).text : std::string()));
  }
  const bool limits = std::any_of(runs.begin(), runs.end(), [](const SweepRun& r) { return r.limits_met.has_value(); });
  if (limits) {
    t.columns.push_back(words_column("limits"));
    t.columns.push_back(words_column("exceeded most"));
  }
  const bool warned = std::any_of(runs.begin(), runs.end(), [](const SweepRun& r) { return !r.warnings.empty(); });
  if (warned) t.columns.push_back(number_column("warnings"));
  // The same warning of many runs once, with its number of runs.
  std::vector<std::pair<std::string, std::size_t>> kinds;
  for (const SweepRun& r : runs) {
    std::vector<Cell> cells;
    for (std::size_t i = 0; i < sweep.vary.size(); ++i) {
      const SweptValue& v = sweep.vary[i].values[r.picks[i]];
      if (!sweep.vary[i].is_number()) {
        cells.emplace_back(v.words);
        continue;
      }
      const double value = v.quantity->si / unit_of(sweep.vary[i], units).si;
      cells.emplace_back(value);
      cells.back().words = short_number(value, 6);
    }
    for (std::size_t i = 0; i < sweep.show.size(); ++i) {
      const auto value = i < r.shown.size() ? r.shown[i] : std::nullopt;
      if (!value)
        cells.push_back(unknown());
      else
        cells.emplace_back(
            std::abs(value->si) <= noise * most[i]->si ? 0 : value->si / shown_in(value->dimension, units).si);
    }
    if (limits) {
      const bool unknown_only = r.exceeded && r.exceeded->state == Verdict::State::not_checked;
      Cell verdict(!r.limits_met ? "" : *r.limits_met ? "met" : unknown_only ? "NOT CHECKED" : "NOT MET");
      verdict.tone = r.limits_met.value_or(true) ? Tone::good : Tone::bad;
      cells.push_back(std::move(verdict));
      // "safety of rail in full: 1.2, at least 1.5"
      const std::string told = r.exceeded ? verdict_in_words(*r.exceeded, units) : "";
      cells.emplace_back(told.substr(std::min(told.size(), told.find(": ") + 2)));
    }
    if (warned) {
      cells.push_back(
          r.refused.empty() ? Cell(static_cast<double>(r.warnings.size()), std::to_string(r.warnings.size())) : Cell());
      for (const Problem& p : r.warnings) {
        const auto known =
            std::find_if(kinds.begin(), kinds.end(), [&](const auto& k) { return k.first == p.finding; });
        if (known == kinds.end())
          kinds.emplace_back(p.finding, 1);
        else
          ++known->second;
      }
    }
    t.row(std::move(cells));
    if (!r.refused.empty()) t.say_beneath("cannot be solved: " + r.refused.front().text);
  }
  for (const auto& kind : kinds) {
    const std::string& finding = kind.first;
    const std::size_t count = kind.second;
    const auto of_kind = [&](const SweepRun& r) {
      return std::find_if(r.warnings.begin(), r.warnings.end(), [&](const Problem& p) { return p.finding == finding; });
    };
    const auto first =
        std::find_if(runs.begin(), runs.end(), [&](const SweepRun& r) { return of_kind(r) != r.warnings.end(); });
    t.say_beneath(fmt::format("! {} times, first: {} [{}]", count, of_kind(*first)->text, finding));
  }
  page.emplace_back(std::move(t));
  return page;
}

}  // namespace corvex::document
