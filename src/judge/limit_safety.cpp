// Limits of safety: anywhere on a member, or at places.
#include <algorithm>

#include "corvex/number.hpp"
#include "judge/limit_checker.hpp"
#include "structure/words.hpp"

namespace corvex::judging {

void LimitChecker::safety(const Limit& l, MemberId id, const std::vector<std::size_t>& cases) {
  const auto places = places_on(l, id);
  if (!places) return;
  Verdict v{.on = s_[id].name, .state = Verdict::State::met};
  for (const std::size_t c : cases) {
    const MemberResult m = solution_[c][id];
    const auto stress = worst_of(m, *places);
    if (v.load_case.empty()) v.load_case = solution_[c].name();
    if (!stress || !m.strength()) {
      v.value.reset();
      v.state = Verdict::State::not_checked;
      v.load_case = solution_[c].name();
      v.note = !stress ? "the stress of this section is not known in full" : "its material has no yield strength";
      break;
    }
    const auto value = m.safety_against(stress->value);
    if (!value || (v.value && !is_less(*value, v.value->si))) continue;
    v.value = Quantity(*value, dimension::number);
    v.load_case = solution_[c].name();
    v.at = stress->at;
    v.state = met_if(*value >= l.required.si());
    v.note = m.leaves_out_warping() ? "without the stress of restrained warping, which is not computed" : "";
  }
  tell(l, std::move(v));
}

std::optional<std::vector<Length>> LimitChecker::places_on(const Limit& l, MemberId id) {
  std::vector<Length> places;
  const Member& m = s_[id];
  const double length = s_.length_of(m);
  if (l.place) {
    const double at = l.place->is_share ? l.place->value * length : l.place->value;
    constexpr double rounding = 1e-9;
    if (!(at >= -rounding * length && at <= length * (1 + rounding))) {
      fail(fmt::format("{} is not on member '{}', which is {} long", length_words(s_, at), m.name,
                       length_words(s_, length)),
           "at");
      return {};
    }
    places.push_back(Length::si(std::clamp(at, 0.0, length)));
  }
  for (const PointId p : l.at)
    for (std::size_t k = 0; k < m.through.size(); ++k)
      if (m.through[k] == p) places.push_back(Length::si(k + 1 == m.through.size() ? length : s_.place_of(m, k)));
  if (!l.at.empty() && places.empty()) {
    if (l.on.size() == 1) fail(fmt::format("member '{}' goes through none of these points", m.name), "at");
    return {};
  }
  return places;
}

std::optional<StressExtreme> LimitChecker::worst_of(const MemberResult& m, const std::vector<Length>& places) {
  if (places.empty()) return m.von_mises();
  std::optional<StressExtreme> worst;
  for (const Length at : places)
    for (const Side side : {Side::before, Side::after}) {
      const auto one = m.von_mises_at(at, side);
      if (!one) return {};
      if (!worst || one->value.si() > worst->value.si()) worst = one, worst->at = at;
    }
  return worst;
}

}  // namespace corvex::judging
