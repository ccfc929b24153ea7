// A comparison as JSON: SI units, full precision; null where something is not known.
#include <cmath>

#include "corvex/export.hpp"
#include "file/findings_json.hpp"
#include "file/json.hpp"

namespace corvex {
namespace {

using file::Json;

Json number(const std::optional<Quantity>& q) {
  return q && std::isfinite(q->si) ? Json(q->si + 0.0) : Json(nullptr);
}

Json worst_json(const std::optional<Worst>& w) {
  if (!w) return nullptr;
  Json j = {{"value", number(w->value)}};
  j["at"] = w->at ? Json(w->at->si()) : Json(nullptr);
  j["on"] = w->on;
  j["case"] = w->load_case;
  return j;
}

Json verdict(const std::optional<bool>& b) {
  return b ? Json(*b) : Json(nullptr);
}

}  // namespace

std::string comparison_json(const std::vector<Compared>& all, const std::vector<ShownFigure>& show) {
  Json j = {{"format", "corvex-comparison"}, {"version", 1}};
  Json& variants = j["variants"] = Json::object();
  for (const Compared& c : all) {
    Json one;
    one["mass"] = c.mass ? Json(c.mass->si()) : Json(nullptr);
    for (const auto& [key, worst] : {std::pair("displacement", &c.displacement),
                                     {"reaction", &c.reaction},
                                     {"sag", &c.sag},
                                     {"stress", &c.stress},
                                     {"safety", &c.safety}})
      one[key] = worst_json(*worst);
    one["limits_met"] = verdict(c.limits_met());
    one["hand_agrees"] = verdict(c.hand_agrees());
    Json& shown = one["shown"] = Json::object();
    for (std::size_t i = 0; i < show.size(); ++i)
      shown[words(show[i])] = i < c.shown.size() ? number(c.shown[i]) : Json(nullptr);
    one["warnings"] = file::findings_list(c.warnings());
    one["refused"] = c.refused.empty() ? Json(nullptr) : Json(c.refused.front().text);
    file::add(variants, c.name, std::move(one));
  }
  return file::json_text(j);
}

}  // namespace corvex
