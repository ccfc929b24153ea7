#include "limits_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "number.hpp"

namespace corvex::cli {
namespace {

// A share of a length as engineers say it: 1/300.
std::string one_over(double share) {
  return share > 0 ? fmt::format("1/{}", short_number(1 / share, 4)) : "0";
}

std::string shown(double value, const Verdict& v, const ModelUnits& u, int digits) {
  if (v.kind == Limit::Kind::safety) return number(value, std::min(digits, 3));
  return v.kind == Limit::Kind::sag ? one_over(value) : number(value / u.deflection.si, digits);
}

// A verdict, and how many like it are kept by more.
struct Shown {
  const Verdict* verdict;
  std::size_t alike = 1;
};

// How near a verdict is to its limit: from 1 on it is not kept.
double use(const Verdict& v) {
  if (!v.value) return 0;
  return v.kind == Limit::Kind::safety ? v.required / *v.value : *v.value / v.required;
}

// All that are not kept, then of each limit the worst that is kept.
std::vector<Shown> worst_first(const LimitCheck& check) {
  std::vector<Shown> failed, kept;
  for (const Verdict& v : check.verdicts) {
    if (!v.kept) {
      failed.push_back({&v});
    } else if (kept.empty() || kept.back().verdict->limit != v.limit) {
      kept.push_back({&v});
    } else {
      ++kept.back().alike;
      if (use(v) > use(*kept.back().verdict) * (1 + 1e-9)) kept.back().verdict = &v;
    }
  }
  failed.insert(failed.end(), kept.begin(), kept.end());
  return failed;
}

const char* name(Limit::Kind kind) {
  static constexpr const char* kinds[] = {"safety", "sag", "movement"};
  return kinds[static_cast<std::size_t>(kind)];
}

std::string subject(const Verdict& v) {
  return v.between ? fmt::format("{} {}-{}", v.on, v.between->first, v.between->second) : v.on;
}

}  // namespace

Table limits_table(const LimitCheck& check, const ModelUnits& units, int digits, bool all) {
  const std::size_t count = check.verdicts.size(), kept = check.kept_count();
  Table t{.name = "limits",
          .title = kept == count ? fmt::format("Limits: all {} kept", count)
                                 : fmt::format("Limits: {} of {} NOT KEPT", count - kept, count),
          .use = For::people};
  t.columns = {words_column("limit", true), words_column("of", true), words_column("case"),
               number_column("value"),      words_column(""),         number_column("required"),
               words_column("unit"),        words_column("")};
  for (const std::size_t k : {4, 5, 6}) t.columns[k].tied = true;
  std::vector<Shown> order = worst_first(check);
  if (all) {
    order.clear();
    for (const Verdict& v : check.verdicts) order.push_back({&v});
  }
  for (const auto& [v, alike] : order) {
    const bool least = v->kind == Limit::Kind::safety;
    const std::string words = !v->kept ? "NOT KEPT" : alike > 1 ? fmt::format("kept, the worst of {}", alike) : "kept";
    Cell verdict = words;
    verdict.tone = v->kept ? Tone::good : Tone::bad;
    const auto cell = [&](double value) -> Cell { return {value, shown(value, *v, units, digits)}; };
    t.row({name(v->kind), subject(*v), v->load_case, v->value ? cell(*v->value) : unknown(), least ? "≥" : "≤",
           cell(v->required), v->kind == Limit::Kind::movement ? units.deflection.text : "", verdict});
    if (!v->note.empty()) t.say_beneath((v->kind == Limit::Kind::sag ? "" : "! ") + v->note);
  }
  return t;
}

Table limits_data(const LimitCheck& check, const ModelUnits& units) {
  Table t{.name = "limits", .use = For::data};
  t.columns = {words_column("limit"),     words_column("of"),
               words_column("from"),      words_column("to"),
               words_column("case"),      number_column("value"),
               number_column("required"), words_column("unit"),
               words_column("kept"),      number_column("at", units.length.text),
               words_column("note")};
  for (const Verdict& v : check.verdicts) {
    const bool moves = v.kind == Limit::Kind::movement;
    const auto cell = [&](double value) { return Cell(moves ? value / units.deflection.si : value); };
    t.row({name(v.kind), v.on, v.between ? v.between->first : "", v.between ? v.between->second : "", v.load_case,
           v.value ? cell(*v.value) : Cell(), cell(v.required), moves ? units.deflection.text : "",
           v.kept ? "yes" : "no", v.at ? Cell(v.at->si() / units.length.si) : Cell(), v.note});
  }
  return t;
}

}  // namespace corvex::cli
