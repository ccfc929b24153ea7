// Limits of sag, drift and movement.
#include <algorithm>
#include <cmath>

#include "judge/limit_checker.hpp"

namespace corvex::judging {

void LimitChecker::sag(const Limit& l, const std::vector<std::size_t>& cases) {
  if (l.between) return sag_between(l, cases);
  each_member(l, [&](MemberId id) {
    of_readings(l, id, cases, [](const MemberResult& m, bool by_length) {
      return by_length ? largest(m.stretches()) : m.governing_stretch();
    });
  });
}

void LimitChecker::drift(const Limit& l, MemberId id, const std::vector<std::size_t>& cases) {
  of_readings(l, id, cases, [](const MemberResult& m, bool) { return m.drift(); });
}

Stretch LimitChecker::largest(const std::vector<Stretch>& all) {
  return *std::max_element(all.begin(), all.end(), [](const Stretch& a, const Stretch& b) {
    constexpr double alike = 1e-9;
    return a.sag.value.si * (1 + alike) < b.sag.value.si;
  });
}

template <class Governing>
void LimitChecker::of_readings(const Limit& l, MemberId id, const std::vector<std::size_t>& cases,
                               const Governing& governing) {
  const Member& m = s_[id];
  const bool by_length = l.required.quantity().dimension == dimension::length;
  Verdict v{.on = m.name};
  for (const std::size_t c : cases) {
    const Stretch s = governing(solution_[c][id], by_length);
    const double value = by_length ? s.sag.value.si : s.ratio();
    if (v.value && !is_less(v.value->si, value)) continue;
    v.between = std::pair(s_[m.through[s.first]].name, s_[m.through[s.last]].name);
    v.value = Quantity(value, l.required.quantity().dimension);
    v.load_case = solution_[c].name();
    v.at = s.sag.at;
    v.note = l.kind == Limit::Kind::drift              ? ""
             : s.reading == Stretch::Reading::overhang ? "overhang"
             : s.reading == Stretch::Reading::ends     ? "difference of the ends"
                                                       : "";
  }
  if (v.value) v.state = met_if(v.value->si <= l.required.si());
  tell(l, std::move(v));
}

void LimitChecker::sag_between(const Limit& l, const std::vector<std::size_t>& cases) {
  const PointId a = l.between->first, b = l.between->second;
  bool found = false;
  each_member(l, [&](MemberId id) {
    const auto& through = s_[id].through;
    auto first = std::find(through.begin(), through.end(), a), last = std::find(through.begin(), through.end(), b);
    if (first == through.end() || last == through.end() || first == last) return;
    if (last < first) std::swap(first, last);
    found = true;
    stretch(l, id, static_cast<std::size_t>(first - through.begin()), static_cast<std::size_t>(last - through.begin()),
            cases);
  });
  if (!found) fail(fmt::format("no member goes through both {} and {}", s_[a].name, s_[b].name), "between");
}

void LimitChecker::stretch(const Limit& l, MemberId id, std::size_t begin, std::size_t end,
                           const std::vector<std::size_t>& cases) {
  const Member& m = s_[id];
  const double from = s_.place_of(m, begin), to = s_.place_of(m, end);
  Verdict v{.on = m.name, .between = std::pair(s_[m.through[begin]].name, s_[m.through[end]].name)};
  const bool by_length = l.required.quantity().dimension == dimension::length;
  for (const std::size_t c : cases) {
    const Extreme e = solution_[c][id].sag_between(Length::si(from), Length::si(to));
    const double value = by_length ? e.value.si : e.value.si / (to - from);
    if (v.value && !is_less(v.value->si, value)) continue;
    v.value = Quantity(value, l.required.quantity().dimension);
    v.load_case = solution_[c].name();
    v.at = e.at;
  }
  if (v.value) v.state = met_if(v.value->si <= l.required.si());
  tell(l, std::move(v));
}

void LimitChecker::movement(const Limit& l, PointId p, const std::vector<std::size_t>& cases) {
  Verdict v{.on = s_[p].name};
  for (const std::size_t c : cases) {
    const Displacement d = solution_[c].displacement(p);
    const double parts[] = {std::hypot(d.x.si(), d.y.si(), d.z.si()), std::abs(d.x.si()), std::abs(d.y.si()),
                            std::abs(d.z.si())};
    const double value = parts[static_cast<std::size_t>(l.part)];
    if (v.value && !is_less(v.value->si, value)) continue;
    v.value = Quantity(value, dimension::length);
    v.load_case = solution_[c].name();
  }
  if (v.value) v.state = met_if(v.value->si <= l.required.si());
  tell(l, std::move(v));
}

}  // namespace corvex::judging
