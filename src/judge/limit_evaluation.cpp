#include "judge/limit_evaluation.hpp"

#include <algorithm>

#include "structure/words.hpp"

namespace corvex::judging {

std::optional<std::vector<Length>> LimitEvaluation::places_on(MemberId id) {
  std::vector<Length> places;
  const Member& m = s_[id];
  const double length = s_.length_of(m);
  if (l_.place) {
    const double at = l_.place->is_share ? l_.place->value * length : l_.place->value;
    constexpr double rounding = 1e-9;
    if (!(at >= -rounding * length && at <= length * (1 + rounding))) {
      fail(fmt::format("{} is not on member '{}', which is {} long", length_words(s_, at), m.name,
                       length_words(s_, length)),
           "at");
      return {};
    }
    places.push_back(Length::si(std::clamp(at, 0.0, length)));
  }
  for (const PointId p : l_.at)
    for (std::size_t k = 0; k < m.through.size(); ++k)
      if (m.through[k] == p) places.push_back(Length::si(k + 1 == m.through.size() ? length : s_.place_of(m, k)));
  if (!l_.at.empty() && places.empty()) {
    if (l_.on.size() == 1) fail(fmt::format("member '{}' has none of these points", m.name), "at");
    return {};
  }
  return places;
}

void LimitEvaluation::add(Verdict v) {
  const LimitKind& kind = kind_of(l_.kind);
  v.limit = checks_.index;
  v.kind = l_.kind;
  v.required = l_.required.quantity();
  v.band_end = l_.band_end;
  v.at_least = (kind.at_least && !l_.band_end) || (l_.kind == Limit::Kind::figure && l_.at_least);
  if (v.what.empty()) v.what = kind.words;
  checks_.found.verdicts.push_back(std::move(v));
}

void LimitEvaluation::not_known(const Problems& why) {
  add({.on = "the structure", .state = Verdict::State::not_checked, .note = why.front().text});
}

std::string LimitEvaluation::words_of(const std::vector<UncoveredMember>& all) const {
  std::string more = all.size() > 1 ? fmt::format(" (and {} more)", all.size() - 1) : "";
  return fmt::format("'{}'{}: {}; {}", s_[all.front().member].name, more, all.front().reason, all.front().remedy);
}

}  // namespace corvex::judging
