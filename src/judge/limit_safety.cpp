// Limits of safety: anywhere on a member, or at places.
#include <algorithm>

#include "corvex/number.hpp"
#include "judge/limit_evaluation.hpp"
#include "structure/words.hpp"

namespace corvex::judging {
namespace {

class Safety : public LimitEvaluation {
 public:
  Safety(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases)
      : LimitEvaluation(checks, limit, cases) {}
  void run() {
    each_member([&](MemberId id) { check(id); });
  }

 private:
  // Without any stress every safety is met. What is not known in one case is not known of all.
  void check(MemberId id);
  static std::optional<StressExtreme> worst_of(const MemberResult& m, const std::vector<Length>& places);
};

void Safety::check(MemberId id) {
  const auto places = places_on(id);
  if (!places) return;
  Verdict v{.on = s_[id].name, .state = Verdict::State::met};
  for (const std::size_t c : cases_) {
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
    v.state = met_if(*value >= l_.required.si());
    v.note = m.leaves_out_warping() ? "without warping normal stress, which is not computed" : "";
  }
  add(std::move(v));
}

std::optional<StressExtreme> Safety::worst_of(const MemberResult& m, const std::vector<Length>& places) {
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

}  // namespace

void check_safety(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases) {
  Safety(checks, limit, cases).run();
}

}  // namespace corvex::judging
