#include "limits_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "table.hpp"

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

std::string subject(const Verdict& v) {
  return v.between ? fmt::format("{} {}-{}", v.on, v.between->first, v.between->second) : v.on;
}

}  // namespace

std::string limits_text(const LimitCheck& check, const ModelUnits& units, int digits) {
  using Align = Table::Align;
  static constexpr const char* kinds[] = {"safety", "sag", "movement"};
  const std::vector<Shown> order = worst_first(check);
  Table t({{"limit", "", Align::left},
           {"of", "", Align::left},
           {"case", "", Align::left},
           {"value", ""},
           {"", "", Align::left},
           {"required", ""},
           {"unit", "", Align::left},
           {"", "", Align::left}});
  for (const auto& [v, alike] : order) {
    const bool least = v->kind == Limit::Kind::safety;
    const std::string kept = alike > 1 ? fmt::format("kept, the worst of {}", alike) : "kept";
    t.row({kinds[static_cast<std::size_t>(v->kind)], subject(*v), v->load_case,
           v->value ? shown(*v->value, *v, units, digits) : "–", least ? "≥" : "≤",
           shown(v->required, *v, units, digits), v->kind == Limit::Kind::movement ? units.deflection.text : "",
           v->kept ? kept : "NOT KEPT"});
    if (!v->note.empty()) t.beneath("! " + v->note);
  }
  const std::size_t all = check.verdicts.size(), kept = check.kept_count();
  const std::string tally =
      kept == all ? fmt::format("all {} kept", all) : fmt::format("{} of {} NOT KEPT", all - kept, all);
  return fmt::format("Limits: {}\n{}", tally, t.text());
}

}  // namespace corvex::cli
