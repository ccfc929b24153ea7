#include "corvex/limits.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

#include "corvex/modes.hpp"

namespace corvex {

std::size_t LimitCheck::count(Verdict::State state) const {
  return static_cast<std::size_t>(
      std::count_if(verdicts.begin(), verdicts.end(), [&](const Verdict& v) { return v.state == state; }));
}

namespace {

// Less by more than rounding: of cases that are equal the first is named.
bool is_less(double a, double b) {
  constexpr double rounding = 1e-9;
  return a < b * (1 - rounding);
}

Verdict::State met_if(bool met) {
  return met ? Verdict::State::met : Verdict::State::exceeded;
}

class Checker {
 public:
  Checker(const Solution& solution, const Limits& limits)
      : solution_(solution), s_(solution.structure()), limits_(limits) {}

  Expected<LimitCheck, Problems> run() {
    for (index_ = 0; index_ < limits_.size(); ++index_) check(limits_[index_]);
    if (!problems_.empty()) return problems_;
    return std::move(check_);
  }

 private:
  void fail(std::string text, std::string key) {
    problems_.push_back({std::move(text), {Subject::Kind::limit, "", index_}, std::move(key)});
  }

  void check(const Limit& l) {
    const std::vector<std::size_t> cases = cases_of(l);
    if (!std::isfinite(l.required.si()) || !(l.required.si() > 0)) fail("a limit is greater than zero", key_of(l.kind));
    if (const Dimension& d = l.required.quantity().dimension; !(d == dimension_of(l.kind)))
      fail(fmt::format("this limit is {}; {} was expected", name(d), name(dimension_of(l.kind))), key_of(l.kind));
    for (const MemberRef& m : l.on)
      if (!s_.find(m)) return fail("the member is not one of this structure", "on");
    for (const PointId p : l.at)
      if (!s_.has(p)) return fail("the point is not one of this structure", "at");
    if (l.kind == Limit::Kind::movement && l.at.empty()) fail("a limit of movement names points", "at");
    if (!problems_.empty()) return;
    switch (l.kind) {
      case Limit::Kind::safety: return each_member(l, [&](MemberId m) { safety(l, m, cases); });
      case Limit::Kind::sag: return sag(l, cases);
      case Limit::Kind::movement:
        for (const PointId p : l.at) movement(l, p, cases);
        return;
      case Limit::Kind::buckling: return buckling(l, cases);
      case Limit::Kind::frequency: return frequency(l);
    }
  }

  static const char* key_of(Limit::Kind kind) {
    static constexpr const char* keys[] = {"safety", "sag", "movement", "buckling", "frequency"};
    return keys[static_cast<std::size_t>(kind)];
  }

  static Dimension dimension_of(Limit::Kind kind) {
    if (kind == Limit::Kind::movement) return dimension::length;
    return kind == Limit::Kind::frequency ? Dimension::of(0, 0, -1) : dimension::number;
  }

  std::vector<std::size_t> cases_of(const Limit& l) {
    if (l.cases.empty()) return solution_.judged();
    std::vector<std::size_t> cases;
    for (const std::string& name : l.cases) {
      std::size_t i = 0;
      while (i < solution_.size() && solution_[i].name() != name) ++i;
      if (i == solution_.size())
        fail(fmt::format("there is no load case or combination '{}'", name), "case");
      else
        cases.push_back(i);
    }
    return cases;
  }

  template <class Do>
  void each_member(const Limit& l, const Do& what) {
    for (const MemberRef& m : l.on) what(*s_.find(m));
    if (!l.on.empty()) return;
    for (std::size_t i = 0; i < s_.members().size(); ++i) what(MemberId{i});
  }

  void tell(const Limit& l, Verdict v) {
    v.limit = index_;
    v.kind = l.kind;
    v.required = l.required.quantity();
    check_.verdicts.push_back(std::move(v));
  }

  // The least load factor of the cases; where nothing is pressed there is none, and the limit is met.
  void buckling(const Limit& l, const std::vector<std::size_t>& cases) {
    Verdict v{.on = "the structure", .state = Verdict::State::met};
    if (!l.on.empty()) {
      v.state = Verdict::State::not_checked;
      v.note = "load factors are those of the structure: leave out 'on'";
      return tell(l, std::move(v));
    }
    ModesOptions options;
    for (const std::size_t c : cases) options.buckling.emplace_back(solution_[c].name(), 1);
    const auto found = modes(solution_, options);
    if (!found) return not_known(l, found.error());
    for (const CaseBuckling& one : found->buckling) {
      if (v.load_case.empty()) v.load_case = one.load_case;
      if (one.modes.empty() || (v.value && !is_less(one.modes.front().factor, v.value->si))) continue;
      v.value = Quantity(one.modes.front().factor, dimension::number);
      v.load_case = one.load_case;
      v.state = met_if(v.value->si >= l.required.si());
    }
    tell(l, std::move(v));
  }

  void frequency(const Limit& l) {
    const auto found = modes(solution_, {.vibration = 1});
    if (!found) return not_known(l, found.error());
    if (found->vibration.empty()) return not_known(l, {{"nothing swings"}});
    const Frequency f = found->vibration.front().frequency;
    tell(l, {.on = "the structure", .value = Quantity(f), .state = met_if(f.si() >= l.required.si())});
  }

  void not_known(const Limit& l, const Problems& why) {
    tell(l, {.on = "the structure", .state = Verdict::State::not_checked, .note = why.front().text});
  }

  // Without any stress every safety is met. What is not known in one case is not known of all.
  void safety(const Limit& l, MemberId id, const std::vector<std::size_t>& cases) {
    Verdict v{.on = s_[id].name, .state = Verdict::State::met};
    for (const std::size_t c : cases) {
      const MemberResult m = solution_[c][id];
      const auto stress = m.von_mises();
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

  // Each stretch that some case has, judged by the worst of the cases that have it.
  void sag(const Limit& l, const std::vector<std::size_t>& cases) {
    if (l.between) return sag_between(l, cases);
    each_member(l, [&](MemberId id) {
      const Member& m = s_[id];
      std::map<std::tuple<std::size_t, std::size_t, bool>, Verdict> found;
      for (const std::size_t c : cases)
        for (const Stretch& s : solution_[c][id].stretches()) {
          const auto [place, fresh] = found.try_emplace({s.first, s.last, s.overhang});
          Verdict& v = place->second;
          const double value = s.sag.value.si / (s.to - s.from).si();
          if (!fresh && !is_less(v.value->si, value)) continue;
          v = {.on = m.name, .between = std::pair(s_[m.through[s.first]].name, s_[m.through[s.last]].name)};
          v.value = Quantity(value, dimension::number);
          v.load_case = solution_[c].name();
          v.at = s.sag.at;
          v.note = held_words(m, s);
        }
      for (auto& [key, v] : found) {
        v.state = met_if(v.value->si <= l.required.si());
        tell(l, std::move(v));
      }
    });
  }

  // "overhang; B held by the support", "held by left post and by the support".
  std::string held_words(const Member& m, const Stretch& s) const {
    const auto at = [&](std::size_t k, const std::string& by) {
      return fmt::format("{} held by {}", s_[m.through[k]].name, by == "support" ? "its support" : by);
    };
    if (s.overhang)
      return "overhang, its end against " + at(s.held_first.empty() ? s.last : s.first, s.held_first + s.held_last);
    std::string words;
    if (!s.held_first.empty() && s.held_first != "support") words = at(s.first, s.held_first);
    if (!s.held_last.empty() && s.held_last != "support")
      words += (words.empty() ? "" : ", ") + at(s.last, s.held_last);
    return words;
  }

  void sag_between(const Limit& l, const std::vector<std::size_t>& cases) {
    const PointId a = l.between->first, b = l.between->second;
    bool found = false;
    each_member(l, [&](MemberId id) {
      const auto& through = s_[id].through;
      auto first = std::find(through.begin(), through.end(), a), last = std::find(through.begin(), through.end(), b);
      if (first == through.end() || last == through.end() || first == last) return;
      if (last < first) std::swap(first, last);
      found = true;
      stretch(l, id, static_cast<std::size_t>(first - through.begin()),
              static_cast<std::size_t>(last - through.begin()), cases);
    });
    if (!found) fail(fmt::format("no member goes through both {} and {}", s_[a].name, s_[b].name), "between");
  }

  void stretch(const Limit& l, MemberId id, std::size_t begin, std::size_t end, const std::vector<std::size_t>& cases) {
    const Member& m = s_[id];
    const double from = s_.place_of(m, begin), to = s_.place_of(m, end);
    Verdict v{.on = m.name, .between = std::pair(s_[m.through[begin]].name, s_[m.through[end]].name)};
    for (const std::size_t c : cases) {
      const Extreme e = solution_[c][id].sag_between(Length::si(from), Length::si(to));
      const double value = e.value.si / (to - from);
      if (v.value && !is_less(v.value->si, value)) continue;
      v.value = Quantity(value, dimension::number);
      v.load_case = solution_[c].name();
      v.at = e.at;
    }
    if (v.value) v.state = met_if(v.value->si <= l.required.si());
    tell(l, std::move(v));
  }

  void movement(const Limit& l, PointId p, const std::vector<std::size_t>& cases) {
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

  const Solution& solution_;
  const Structure& s_;
  const Limits& limits_;
  std::size_t index_ = 0;
  LimitCheck check_;
  Problems problems_;
};

}  // namespace

Expected<LimitCheck, Problems> check_limits(const Solution& solution, const Limits& limits) {
  return Checker(solution, limits).run();
}

}  // namespace corvex
