// The runs of a sweep.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "document/number.hpp"
#include "format/verdicts.hpp"

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

// The table of a sweep, column by column and run by run.
class SweepTable {
 public:
  SweepTable(const ModelUnits& units, const Sweep& sweep, const std::vector<SweepRun>& runs)
      : units_(units), sweep_(sweep), runs_(runs) {
    for (std::size_t i = 0; i < sweep.show.size(); ++i) most_.push_back(largest(runs, i));
    limits_ = std::any_of(runs.begin(), runs.end(), [](const SweepRun& r) { return r.limits_met.has_value(); });
    warned_ = std::any_of(runs.begin(), runs.end(), [](const SweepRun& r) { return !r.warnings.empty(); });
  }

  Table operator()() {
    Table t{.name = "sweep", .title = fmt::format("Sweep '{}': {}", sweep_.name, count(runs_.size(), "run"))};
    add_columns(t);
    for (const SweepRun& r : runs_) {
      std::vector<Cell> cells;
      add_values(r, cells);
      add_figures(r, cells);
      if (limits_) add_limits(r, cells);
      if (warned_)
        cells.push_back(r.refused.empty()
                            ? Cell(static_cast<double>(r.warnings.size()), std::to_string(r.warnings.size()))
                            : Cell());
      t.row(std::move(cells));
      if (!r.refused.empty()) t.say_beneath("cannot be solved: " + r.refused.front().text);
    }
    say_warnings(t);
    return t;
  }

 private:
  void add_columns(Table& t) const {
    for (const Varied& v : sweep_.vary) {
      t.columns.push_back(v.is_number() ? number_column(v.name, unit_of(v, units_).text) : words_column(v.name));
      t.columns.back().label = true;
    }
    for (std::size_t i = 0; i < sweep_.show.size(); ++i)
      t.columns.push_back(
          number_column(words(sweep_.show[i]), most_[i] ? shown_in(most_[i]->dimension, units_).text : std::string()));
    if (limits_) {
      t.columns.push_back(words_column("limits"));
      t.columns.push_back(words_column("exceeded most"));
    }
    if (warned_) t.columns.push_back(number_column("warnings"));
  }

  void add_values(const SweepRun& r, std::vector<Cell>& cells) const {
    for (std::size_t i = 0; i < sweep_.vary.size(); ++i) {
      const SweptValue& v = sweep_.vary[i].values[r.picks[i]];
      if (!sweep_.vary[i].is_number()) {
        cells.emplace_back(v.words);
        continue;
      }
      const double value = v.quantity->si / unit_of(sweep_.vary[i], units_).si;
      cells.emplace_back(value);
      cells.back().words = short_number(value, 6);
    }
  }

  void add_figures(const SweepRun& r, std::vector<Cell>& cells) const {
    for (std::size_t i = 0; i < sweep_.show.size(); ++i) {
      const auto value = i < r.shown.size() ? r.shown[i] : std::nullopt;
      if (!value)
        cells.push_back(unknown());
      else
        cells.emplace_back(
            std::abs(value->si) <= noise * most_[i]->si ? 0 : value->si / shown_in(value->dimension, units_).si);
    }
  }

  void add_limits(const SweepRun& r, std::vector<Cell>& cells) const {
    const bool unknown_only = r.exceeded && r.exceeded->state == Verdict::State::not_checked;
    Cell verdict("");
    if (r.limits_met)
      verdict = format::verdict(*r.limits_met  ? Verdict::State::met
                                : unknown_only ? Verdict::State::not_checked
                                               : Verdict::State::exceeded);
    verdict.tone = r.limits_met.value_or(true) ? Tone::good : Tone::bad;
    cells.push_back(std::move(verdict));
    // "safety of rail in full: 1.2, at least 1.5"
    const std::string told = r.exceeded ? verdict_in_words(*r.exceeded, units_) : "";
    cells.emplace_back(told.substr(std::min(told.size(), told.find(": ") + 2)));
  }

  // The same warning of many runs once, with its number of runs and the words of the first.
  void say_warnings(Table& t) const {
    struct Kind {
      std::string finding, first;
      std::size_t count = 0;
    };
    std::vector<Kind> kinds;
    for (const SweepRun& r : runs_)
      for (const Problem& p : r.warnings) {
        auto known = std::find_if(kinds.begin(), kinds.end(), [&](const Kind& k) { return k.finding == p.finding; });
        if (known == kinds.end()) known = kinds.insert(kinds.end(), {p.finding, p.text});
        ++known->count;
      }
    for (const Kind& k : kinds) t.say_beneath(fmt::format("! {} times, first: {} [{}]", k.count, k.first, k.finding));
  }

  const ModelUnits& units_;
  const Sweep& sweep_;
  const std::vector<SweepRun>& runs_;
  std::vector<std::optional<Quantity>> most_;
  bool limits_ = false, warned_ = false;
};

}  // namespace

Page sweep_page(const std::string& title, const ModelUnits& units, const Sweep& sweep,
                const std::vector<SweepRun>& runs) {
  Page page{Heading{title}};
  page.emplace_back(SweepTable(units, sweep, runs)());
  return page;
}

}  // namespace corvex::document
