// Structures side by side.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "document/number.hpp"
#include "format/verdicts.hpp"

namespace corvex::document {
namespace {

class Comparisons {
 public:
  Comparisons(const ModelUnits& units, const std::vector<Compared>& all, const std::vector<ShownFigure>& show)
      : units_(units), all_(all), show_(show) {}

  Table figures() const {
    Table t{.name = "comparison", .title = "Largest values side by side"};
    t.columns = {words_column("variant", true)};
    add_columns(t, "mass", units_.mass);
    add_columns(t, "displacement", units_.deflection);
    add_columns(t, "stress", units_.stress);
    t.columns.push_back(number_column("safety factor"));
    const bool limits =
        std::any_of(all_.begin(), all_.end(), [](const Compared& c) { return c.limits_met().has_value(); });
    const bool hand =
        std::any_of(all_.begin(), all_.end(), [](const Compared& c) { return c.hand_agrees().has_value(); });
    if (limits) t.columns.push_back(words_column("limits"));
    if (hand) t.columns.push_back(words_column("hand"));
    const bool warned = std::any_of(all_.begin(), all_.end(), [](const Compared& c) { return !c.warnings().empty(); });
    if (warned) t.columns.push_back(number_column("warnings"));
    const Compared& first = all_.front();
    for (const Compared& c : all_) {
      std::vector<Cell> cells{c.name};
      const bool is_first = &c == &first;
      const auto add = [&](const std::optional<Quantity>& value, const std::optional<Quantity>& other,
                           const NamedUnit& unit) {
        cells.push_back(value ? Cell(value->si / unit.si) : unknown());
        cells.push_back(is_first ? Cell() : change(value, other));
      };
      add(mass_of(c), mass_of(first), units_.mass);
      add(value_of(c.displacement), value_of(first.displacement), units_.deflection);
      add(value_of(c.stress), value_of(first.stress), units_.stress);
      cells.push_back(c.safety ? Cell(c.safety->value.si) : unknown());
      if (limits) cells.push_back(limits_cell(c));
      if (hand) cells.push_back(hand_cell(c));
      const Problems warnings = c.warnings();
      if (warned && c.refused.empty()) {
        Cell count(static_cast<double>(warnings.size()), std::to_string(warnings.size()));
        if (!warnings.empty()) count.tone = Tone::bad;
        cells.push_back(std::move(count));
      } else if (warned) {
        cells.emplace_back();
      }
      t.row(std::move(cells));
      constexpr std::size_t most = 3;
      for (std::size_t i = 0; i < std::min(most, warnings.size()); ++i)
        t.say_beneath(fmt::format("! {}: {} [{}]", c.name, warnings[i].text, warnings[i].finding));
      if (warnings.size() > most) t.say_beneath(fmt::format("! {}: and {} more", c.name, warnings.size() - most));
      if (!c.refused.empty()) t.say_beneath("cannot be solved: " + c.refused.front().text);
    }
    return t;
  }

  // Of each candidate where its worst figures are.
  Table places() const {
    Table t{.name = "comparison-places", .title = "Places of the largest values"};
    Column variant = words_column("variant", true);
    variant.grouped = true;
    t.columns = {variant,
                 words_column("figure"),
                 number_column("value"),
                 words_column("unit"),
                 words_column("on"),
                 number_column("at", units_.length.text),
                 words_column("case")};
    t.columns[2].unit_of_row = true;
    for (const Compared& c : all_)
      for (const auto& [name, worst, unit] : {std::tuple("displacement", &c.displacement, &units_.deflection),
                                              {"deflection", &c.sag, &units_.deflection},
                                              {"stress", &c.stress, &units_.stress},
                                              {"reaction", &c.reaction, &units_.force}})
        if (const std::optional<Worst>& w = *worst)
          t.row({c.name, name, w->value.si / unit->si, unit->text, w->on,
                 w->at ? Cell(w->at->si() / units_.length.si) : Cell(), w->load_case});
    return t;
  }

  // A row a figure, a column a candidate, with the change against the first.
  Table shown() const {
    Table t{.name = "comparison-shown", .title = "Figures shown"};
    t.columns = {words_column("figure", true), words_column("unit")};
    for (std::size_t k = 0; k < all_.size(); ++k) {
      t.columns.push_back(number_column(all_[k].name));
      if (k == 0) continue;
      t.columns.push_back(number_column("change", "%", all_[k].name + " change"));
      t.columns.back().tied = true;
    }
    for (std::size_t i = 0; i < show_.size(); ++i) {
      std::optional<Quantity> any;
      for (const Compared& c : all_)
        if (i < c.shown.size() && c.shown[i] && !any) any = c.shown[i];
      const NamedUnit unit = any ? shown_in(*any) : NamedUnit{"", 1};
      std::vector<Cell> cells{words(show_[i]), unit.text};
      const auto value = [&](const Compared& c) { return i < c.shown.size() ? c.shown[i] : std::nullopt; };
      double size = 0;
      for (const Compared& c : all_)
        if (const auto v = value(c)) size = std::max(size, std::abs(v->si));
      for (std::size_t k = 0; k < all_.size(); ++k) {
        auto v = value(all_[k]), first = value(all_.front());
        for (auto* q : {&v, &first})
          if (*q && std::abs((*q)->si) <= noise * size) (*q)->si = 0;
        cells.push_back(v ? Cell(v->si / unit.si) : unknown());
        if (k > 0) cells.push_back(change(v, first));
      }
      t.row(std::move(cells));
    }
    return t;
  }

 private:
  static std::optional<Quantity> mass_of(const Compared& c) {
    return c.mass ? std::optional(Quantity(*c.mass)) : std::nullopt;
  }
  static std::optional<Quantity> value_of(const std::optional<Worst>& w) {
    return w ? std::optional(w->value) : std::nullopt;
  }
  NamedUnit shown_in(const Quantity& q) const {
    return q.dimension == dimension::length ? units_.deflection : unit_for(q.dimension, units_);
  }

  void add_columns(Table& t, const char* head, const NamedUnit& unit) const {
    t.columns.push_back(number_column(head, unit.text));
    t.columns.push_back(number_column("change", "%", std::string(head) + " change"));
    t.columns.back().tied = true;
  }
  // In percent of the first; nothing where there is nothing to compare with.
  static Cell change(const std::optional<Quantity>& value, const std::optional<Quantity>& first) {
    if (!value || !first || first->si == 0) return {};
    const double percent = (value->si / first->si - 1) * 100, rounded = std::abs(percent) < 1e-7 ? 0 : percent;
    return {rounded, fmt::format("{:+.1f}", rounded + 0.0)};
  }

  static Cell limits_cell(const Compared& c) {
    const auto met = c.limits_met();
    if (!met) return "";
    const bool exceeded = c.limits.count(Verdict::State::exceeded) > 0;
    Cell cell(format::verdict(*met       ? Verdict::State::met
                              : exceeded ? Verdict::State::exceeded
                                         : Verdict::State::not_checked));
    cell.tone = *met ? Tone::good : Tone::bad;
    return cell;
  }
  static Cell hand_cell(const Compared& c) {
    const auto agrees = c.hand_agrees();
    if (!agrees) return "";
    Cell cell(format::agreement(*agrees));
    cell.tone = *agrees ? Tone::good : Tone::bad;
    return cell;
  }

  const ModelUnits& units_;
  const std::vector<Compared>& all_;
  const std::vector<ShownFigure>& show_;
};

}  // namespace

Page comparison_page(const std::string& title, const ModelUnits& units, const std::vector<Compared>& all,
                     const std::vector<ShownFigure>& show, int) {
  Page page{Heading{title}};
  if (all.empty()) return page;
  const Comparisons c(units, all, show);
  page.emplace_back(c.figures());
  if (!show.empty()) page.emplace_back(c.shown());
  page.emplace_back(c.places());
  page.emplace_back(Words{
      {{"",
        "Changes are relative to the first. Stress is the largest von Mises stress, safety factor the strength over it."}}});
  return page;
}

}  // namespace corvex::document
