// A sweep as JSON: SI units, full precision; null where something is not known.
#include <cmath>

#include "corvex/export.hpp"
#include "file/findings_json.hpp"
#include "file/json.hpp"

namespace corvex {

std::string sweep_json(const Sweep& sweep, const std::vector<SweepRun>& runs) {
  using file::Json;
  const auto number = [](const std::optional<Quantity>& q) {
    return q && std::isfinite(q->si) ? Json(q->si + 0.0) : Json(nullptr);
  };
  Json j = {{"format", "corvex-sweep"}, {"version", 1}, {"sweep", sweep.name}};
  Json& all = j["runs"] = Json::array();
  for (const SweepRun& run : runs) {
    Json one;
    Json& values = one["values"] = Json::object();
    for (std::size_t i = 0; i < sweep.vary.size(); ++i) {
      const SweptValue& v = sweep.vary[i].values[run.picks[i]];
      file::add(values, sweep.vary[i].name, v.quantity ? number(v.quantity) : Json(v.words));
    }
    Json& shown = one["shown"] = Json::object();
    for (std::size_t i = 0; i < sweep.show.size(); ++i)
      shown[words(sweep.show[i])] = i < run.shown.size() ? number(run.shown[i]) : Json(nullptr);
    one["limits_met"] = run.limits_met ? Json(*run.limits_met) : Json(nullptr);
    one["warnings"] = file::findings_list(run.warnings);
    one["refused"] = run.refused.empty() ? Json(nullptr) : Json(run.refused.front().text);
    all.push_back(std::move(one));
  }
  return file::json_text(j);
}

}  // namespace corvex
