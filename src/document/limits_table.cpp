#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

// A share of a length as engineers say it: 1/300.
std::string one_over(double share) {
  if (!(share > 0)) return "0";
  return share < 1 ? fmt::format("1/{}", short_number(1 / share, 4)) : short_number(share, 4);
}

std::string unit_of(const Verdict& v, const ModelUnits& u) {
  const Dimension& d = v.required.dimension;
  return d == dimension::length ? u.deflection.text : unit_for(d, u).text;
}

std::string shown(double value, const Verdict& v, const ModelUnits& u, int digits) {
  const Dimension& d = v.required.dimension;
  if (d == dimension::length) return number(value / u.deflection.si, digits);
  if (v.kind == Limit::Kind::sag || v.kind == Limit::Kind::drift) return one_over(value);
  if (v.kind == Limit::Kind::safety) return number(value, std::min(digits, 3));
  return short_number(value / unit_for(d, u).si, digits);
}

std::string required_words(const Verdict& v, const ModelUnits& u, int digits) {
  if (!v.band_end) return shown(v.required.si, v, u, digits);
  return fmt::format("{} to {}", shown(v.required.si, v, u, digits), shown(v.band_end->si, v, u, digits));
}
const char* relation(const Verdict& v) {
  return v.band_end ? "not in" : v.at_least ? "≥" : "≤";
}

// A verdict, and how many of the same limit are met by more.
struct Shown {
  const Verdict* verdict;
  std::size_t alike = 1;
};

// All that are not met, then of each limit the worst that is met.
std::vector<Shown> worst_first(const LimitCheck& check) {
  std::vector<Shown> failed, met;
  for (const Verdict& v : check.verdicts) {
    if (v.state != Verdict::State::met) {
      failed.push_back({&v});
    } else if (met.empty() || met.back().verdict->limit != v.limit) {
      met.push_back({&v});
    } else {
      ++met.back().alike;
      if (utilisation(v) > utilisation(*met.back().verdict) * (1 + 1e-9)) met.back().verdict = &v;
    }
  }
  failed.insert(failed.end(), met.begin(), met.end());
  return failed;
}

std::string verdict_words(const Verdict& v) {
  static constexpr const char* words[] = {"met", "EXCEEDED", "NOT CHECKED"};
  return words[static_cast<std::size_t>(v.state)];
}

std::string title_of(const LimitCheck& check) {
  using State = Verdict::State;
  if (check.all_met()) return fmt::format("Limits: all {} met", check.verdicts.size());
  const std::size_t exceeded = check.count(State::exceeded), unknown = check.count(State::not_checked);
  const std::string of = fmt::format(" of {}", check.verdicts.size());
  if (unknown == 0) return fmt::format("Limits: {}{} EXCEEDED", exceeded, of);
  if (exceeded == 0) return fmt::format("Limits: {}{} NOT CHECKED", unknown, of);
  return fmt::format("Limits: {}{} EXCEEDED, {} NOT CHECKED", exceeded, of, unknown);
}

std::string subject(const Verdict& v) {
  return v.between ? fmt::format("{} {}-{}", v.on, v.between->first, v.between->second) : v.on;
}

}  // namespace

std::string verdict_in_words(const Verdict& v, const ModelUnits& u) {
  constexpr int digits = 4;
  const std::string name = unit_of(v, u), unit = name.empty() ? "" : " " + name;
  const std::string of = fmt::format("{} of {}{}", v.what, subject(v), v.load_case.empty() ? "" : " in " + v.load_case);
  if (v.state == Verdict::State::not_checked) return fmt::format("limit not checked: {}: {}", of, v.note);
  return fmt::format("limit exceeded: {}: {}{}, {} {}{}{}", of, shown(v.value ? v.value->si : 0, v, u, digits), unit,
                     v.band_end   ? "not in"
                     : v.at_least ? "at least"
                                  : "at most",
                     required_words(v, u, digits), unit,
                     v.kind == Limit::Kind::buckling && !v.note.empty() ? "; " + v.note : "");
}

Table limits_table(const LimitCheck& check, const ModelUnits& units, int digits, bool all) {
  Table t{.name = "limits", .title = title_of(check), .use = For::people};
  t.columns = {words_column("limit", true), words_column("of", true), words_column("case"),
               number_column("value"),      words_column(""),         number_column("required"),
               words_column("unit"),        words_column("")};
  for (const std::size_t k : {4, 5, 6}) t.columns[k].tied = true;
  std::vector<Shown> order = worst_first(check);
  if (all) {
    order.clear();
    for (const Verdict& v : check.verdicts) order.push_back({&v});
  }
  for (const auto& one : order) {
    const Verdict* const v = one.verdict;
    const std::size_t alike = one.alike;
    Cell verdict = alike > 1 ? fmt::format("met, the worst of {}", alike) : verdict_words(*v);
    verdict.tone = v->state == Verdict::State::met ? Tone::good : Tone::bad;
    const auto cell = [&](double value) -> Cell { return {value, shown(value, *v, units, digits)}; };
    t.row({v->what, subject(*v), v->load_case, v->value ? cell(v->value->si) : unknown(), relation(*v),
           Cell{v->required.si, required_words(*v, units, digits)}, unit_of(*v, units), verdict});
    if (!v->note.empty()) t.say_beneath((v->state == Verdict::State::met ? "" : "! ") + v->note);
  }
  return t;
}

Table limits_data(const LimitCheck& check, const ModelUnits& units) {
  Table t{.name = "limits", .use = For::data};
  t.columns = {words_column("limit"),     words_column("of"),
               words_column("from"),      words_column("to"),
               words_column("case"),      number_column("value"),
               number_column("required"), words_column("unit"),
               words_column("verdict"),   number_column("at", units.length.text),
               words_column("note")};
  for (const Verdict& v : check.verdicts) {
    const double unit =
        v.required.dimension == dimension::length ? units.deflection.si : unit_for(v.required.dimension, units).si;
    t.row({v.what, v.on, v.between ? v.between->first : "", v.between ? v.between->second : "", v.load_case,
           v.value ? Cell(v.value->si / unit) : Cell(), Cell(v.required.si / unit), unit_of(v, units), verdict_words(v),
           v.at ? Cell(v.at->si() / units.length.si) : Cell(), v.note});
  }
  return t;
}

}  // namespace corvex::document
