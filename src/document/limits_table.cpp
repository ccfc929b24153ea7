#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "document/number.hpp"
#include "format/verdicts.hpp"

namespace corvex::document {
namespace {

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

std::string title_of(const LimitCheck& check) {
  using State = Verdict::State;
  if (check.all_met()) return fmt::format("Limits: all {} met", check.verdicts.size());
  const std::size_t exceeded = check.count(State::exceeded), unknown = check.count(State::not_checked);
  const std::string of = fmt::format(" of {}", check.verdicts.size());
  if (unknown == 0) return fmt::format("Limits: {}{} EXCEEDED", exceeded, of);
  if (exceeded == 0) return fmt::format("Limits: {}{} NOT CHECKED", unknown, of);
  return fmt::format("Limits: {}{} EXCEEDED, {} NOT CHECKED", exceeded, of, unknown);
}

// "'rail' between 'B' and 'C'", "the structure".
std::string subject_in_words(const Verdict& v) {
  if (v.between) return fmt::format("'{}' between '{}' and '{}'", v.on, v.between->first, v.between->second);
  return v.on == "the structure" ? v.on : "'" + v.on + "'";
}

}  // namespace

std::string verdict_in_words(const Verdict& v, const ModelUnits& u) {
  constexpr int digits = 4;
  const std::string name = format::unit_of(v, u).text, unit = name.empty() ? "" : " " + name;
  const std::string of =
      fmt::format("{} of {}{}", v.what, subject_in_words(v), v.load_case.empty() ? "" : " in '" + v.load_case + "'");
  if (v.state == Verdict::State::not_checked) return fmt::format("limit not checked: {}: {}", of, v.note);
  return fmt::format("limit exceeded: {}: {}{}, {} {}{}{}", of, format::value(v.value ? v.value->si : 0, v, u, digits),
                     unit, format::relation(v), format::required(v, u, digits), unit,
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
    Cell verdict = alike > 1 ? fmt::format("met, the worst of {}", alike) : std::string(format::verdict(v->state));
    verdict.tone = v->state == Verdict::State::met ? Tone::good : Tone::bad;
    const auto cell = [&](double value) -> Cell { return {value, format::value(value, *v, units, digits)}; };
    t.row({v->what, format::subject(*v), v->load_case, v->value ? cell(v->value->si) : unknown(),
           format::relation_sign(*v), Cell{v->required.si, format::required(*v, units, digits)},
           format::unit_of(*v, units).text, verdict});
    if (!v->note.empty()) t.say_beneath((v->state == Verdict::State::met ? "" : "! ") + v->note);
  }
  return t;
}

Table utilisation_table(const LimitCheck& check, const ModelUnits& units, int digits) {
  Table t{.name = "utilisation", .title = "Utilisation"};
  t.columns = {words_column("limit", true),       words_column("of", true),  words_column("case"),
               number_column("computed"),         number_column("required"), words_column("unit"),
               number_column("utilisation", "%"), words_column("place"),     words_column("verdict")};
  t.columns[6].most_digits = 3;
  std::vector<Shown> order = worst_first(check);
  std::stable_sort(order.begin(), order.end(), [](const Shown& a, const Shown& b) {
    const auto rank = [](const Shown& s) { return s.verdict->state == Verdict::State::met; };
    if (rank(a) != rank(b)) return rank(a) < rank(b);
    return utilisation(*a.verdict) > utilisation(*b.verdict) * (1 + 1e-9);
  });
  for (const Shown& one : order) {
    const Verdict& v = *one.verdict;
    const std::string unit = format::unit_of(v, units).text;
    const double use = utilisation(v);
    Cell verdict = std::string(format::verdict(v.state));
    verdict.tone = v.state == Verdict::State::met ? Tone::good : Tone::bad;
    const std::string place = v.at ? short_number(v.at->si() / units.length.si, 5) + " " + units.length.text : "";
    t.row({v.what, format::subject(v), v.load_case,
           v.value ? Cell{v.value->si, format::value(v.value->si, v, units, digits)} : unknown(),
           Cell{v.required.si, format::relation_sign(v) + std::string(" ") + format::required(v, units, digits)}, unit,
           v.state != Verdict::State::not_checked && use > 0 ? Cell(100 * use) : unknown(), place, verdict});
    if (v.state == Verdict::State::not_checked && !v.note.empty()) t.say_beneath("! " + v.note);
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
    const NamedUnit unit = format::unit_of(v, units);
    t.row({v.what, v.on, v.between ? v.between->first : "", v.between ? v.between->second : "", v.load_case,
           v.value ? Cell(v.value->si / unit.si) : Cell(), Cell(v.required.si / unit.si), unit.text,
           format::verdict(v.state), v.at ? Cell(v.at->si() / units.length.si) : Cell(), v.note});
  }
  return t;
}

}  // namespace corvex::document
