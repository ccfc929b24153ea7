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

std::string subject(const Verdict& v) {
  return v.between ? fmt::format("{} {}-{}", v.on, v.between->first, v.between->second) : v.on;
}

}  // namespace

std::string limits_text(const LimitCheck& check, const ModelUnits& units, int digits) {
  using Align = Table::Align;
  static constexpr const char* kinds[] = {"safety", "sag", "movement"};
  std::vector<const Verdict*> order;
  for (const Verdict& v : check.verdicts) order.push_back(&v);
  std::stable_partition(order.begin(), order.end(), [](const Verdict* v) { return !v->kept; });
  Table t({{"limit", "", Align::left},
           {"of", "", Align::left},
           {"case", "", Align::left},
           {"value", ""},
           {"", "", Align::left},
           {"required", ""},
           {"unit", "", Align::left},
           {"", "", Align::left}});
  for (const Verdict* v : order) {
    const bool least = v->kind == Limit::Kind::safety;
    t.row({kinds[static_cast<std::size_t>(v->kind)], subject(*v), v->load_case,
           v->value ? shown(*v->value, *v, units, digits) : "–", least ? "≥" : "≤",
           shown(v->required, *v, units, digits), v->kind == Limit::Kind::movement ? units.deflection.text : "",
           v->kept ? "kept" : "NOT KEPT"});
    if (!v->note.empty()) t.beneath("! " + v->note);
  }
  const std::size_t all = check.verdicts.size(), kept = check.kept_count();
  const std::string tally =
      kept == all ? fmt::format("all {} kept", all) : fmt::format("{} of {} NOT KEPT", all - kept, all);
  return fmt::format("Limits: {}\n{}", tally, t.text());
}

}  // namespace corvex::cli
