// Limits of the change of stress between two cases.
#include <algorithm>
#include <cmath>

#include "judge/limit_evaluation.hpp"

namespace corvex::judging {
namespace {

class Range : public LimitEvaluation {
 public:
  Range(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases)
      : LimitEvaluation(checks, limit, cases) {}
  void run();

 private:
  // Normal stress is linear over the section, so that its change is largest at a corner of the outline.
  std::optional<double> stress_change(const MemberResult& a, const MemberResult& b, MemberId id, Length at,
                                      Side side) const;
};

void Range::run() {
  const auto case_named = [&](const std::string& name) -> std::optional<CaseResult> {
    for (std::size_t i = 0; i < solution_.size(); ++i)
      if (solution_[i].name() == name) return solution_[i];
    fail(fmt::format("there is no load case or combination '{}'", name), "between");
    return {};
  };
  const auto from = case_named(l_.range_of.first), to = case_named(l_.range_of.second);
  if (l_.on.size() != 1) fail("a stress range is of one member", "range");
  if (!l_.place && l_.at.empty()) fail("a stress range is at a place of the member", "at");
  if (!from || !to || !checks_.problems.empty()) return;
  const MemberId id = *s_.find(l_.on.front());
  const auto places = places_on(id);
  if (!places) return;
  const MemberResult a = (*from)[id], b = (*to)[id];
  Verdict v{.on = s_[id].name, .what = "stress range"};
  v.load_case = fmt::format("{} to {}", l_.range_of.first, l_.range_of.second);
  double most = 0;
  bool known = true;
  for (const Length at : *places)
    for (const Side side : {Side::before, Side::after}) {
      const auto change = stress_change(a, b, id, at, side);
      known = known && change;
      if (change && *change > most) most = *change, v.at = at;
    }
  if (known) {
    v.value = Quantity(most, dimension::stress);
    v.state = met_if(most <= l_.required.si());
  } else {
    v.note = "the normal stress of this section is not known";
  }
  add(std::move(v));
}

std::optional<double> Range::stress_change(const MemberResult& a, const MemberResult& b, MemberId id, Length at,
                                           Side side) const {
  const StressMap& map = s_.section_of(s_[id]).stress_map();
  if (s_[id].kind == MemberKind::link) {
    const double area = s_.section_of(s_[id]).area().si();
    return std::abs(a.axial().at(at, side).si() - b.axial().at(at, side).si()) / area;
  }
  double most = 0;
  if (map.points.empty()) return {};
  for (const StressPoint& p : map.points) {
    const auto one = a.normal_stress_at(at, Length::si(p.y), Length::si(p.z), side),
               other = b.normal_stress_at(at, Length::si(p.y), Length::si(p.z), side);
    if (!one || !other) return {};
    most = std::max(most, std::abs(one->si() - other->si()));
  }
  return most;
}

}  // namespace

void check_range(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases) {
  Range(checks, limit, cases).run();
}

}  // namespace corvex::judging
