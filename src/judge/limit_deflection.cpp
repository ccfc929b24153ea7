// Limits of sag and drift.
#include <algorithm>
#include <cmath>

#include "judge/limit_evaluation.hpp"

namespace corvex::judging {
namespace {

class Deflection : public LimitEvaluation {
 public:
  Deflection(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases)
      : LimitEvaluation(checks, limit, cases) {}
  void sag();
  void drift();

 private:
  static Stretch largest(const std::vector<Stretch>& all);
  // The worst reading of the worst case.
  template <class Governing>
  void of_readings(MemberId id, const Governing& governing);
  void sag_between();
  void stretch(MemberId id, std::size_t begin, std::size_t end);
};

void Deflection::sag() {
  if (l_.between) return sag_between();
  each_member([&](MemberId id) {
    of_readings(id, [](const MemberResult& m, bool by_length) {
      return by_length ? largest(m.stretches()) : m.governing_stretch();
    });
  });
}

void Deflection::drift() {
  each_member([&](MemberId id) { of_readings(id, [](const MemberResult& m, bool) { return m.drift(); }); });
}

Stretch Deflection::largest(const std::vector<Stretch>& all) {
  return *std::max_element(all.begin(), all.end(), [](const Stretch& a, const Stretch& b) {
    constexpr double alike = 1e-9;
    return a.sag.value.si * (1 + alike) < b.sag.value.si;
  });
}

template <class Governing>
void Deflection::of_readings(MemberId id, const Governing& governing) {
  const Member& m = s_[id];
  const bool by_length = l_.required.quantity().dimension == dimension::length;
  Verdict v{.on = m.name};
  for (const std::size_t c : cases_) {
    const Stretch s = governing(solution_[c][id], by_length);
    const double value = by_length ? s.sag.value.si : s.ratio();
    if (v.value && !is_less(v.value->si, value)) continue;
    v.between = std::pair(s_[m.through[s.first]].name, s_[m.through[s.last]].name);
    v.value = Quantity(value, l_.required.quantity().dimension);
    v.load_case = solution_[c].name();
    v.at = s.sag.at;
    v.note = l_.kind == Limit::Kind::drift             ? ""
             : s.reading == Stretch::Reading::overhang ? "overhang"
             : s.reading == Stretch::Reading::ends     ? "difference of the ends"
                                                       : "";
  }
  if (v.value) v.state = met_if(v.value->si <= l_.required.si());
  add(std::move(v));
}

void Deflection::sag_between() {
  const PointId a = l_.between->first, b = l_.between->second;
  bool found = false;
  each_member([&](MemberId id) {
    const auto& through = s_[id].through;
    auto first = std::find(through.begin(), through.end(), a), last = std::find(through.begin(), through.end(), b);
    if (first == through.end() || last == through.end() || first == last) return;
    if (last < first) std::swap(first, last);
    found = true;
    stretch(id, static_cast<std::size_t>(first - through.begin()), static_cast<std::size_t>(last - through.begin()));
  });
  if (!found) fail(fmt::format("no member has both points '{}' and '{}'", s_[a].name, s_[b].name), "between");
}

void Deflection::stretch(MemberId id, std::size_t begin, std::size_t end) {
  const Member& m = s_[id];
  const double from = s_.place_of(m, begin), to = s_.place_of(m, end);
  Verdict v{.on = m.name, .between = std::pair(s_[m.through[begin]].name, s_[m.through[end]].name)};
  const bool by_length = l_.required.quantity().dimension == dimension::length;
  for (const std::size_t c : cases_) {
    const Extreme e = solution_[c][id].sag_between(Length::si(from), Length::si(to));
    const double value = by_length ? e.value.si : e.value.si / (to - from);
    if (v.value && !is_less(v.value->si, value)) continue;
    v.value = Quantity(value, l_.required.quantity().dimension);
    v.load_case = solution_[c].name();
    v.at = e.at;
  }
  if (v.value) v.state = met_if(v.value->si <= l_.required.si());
  add(std::move(v));
}

}  // namespace

void check_sag(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases) {
  Deflection(checks, limit, cases).sag();
}

void check_drift(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases) {
  Deflection(checks, limit, cases).drift();
}

}  // namespace corvex::judging
