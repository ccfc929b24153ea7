#include "corvex/limits.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "corvex/modes.hpp"
#include "corvex/number.hpp"
#include "corvex/stop.hpp"
#include "hand/work_out.hpp"
#include "stability/snap.hpp"
#include "structure/words.hpp"

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
    for (index_ = 0; index_ < limits_.size(); ++index_) {
      check(limits_[index_]);
      contradiction(limits_[index_]);
    }
    if (!problems_.empty()) return problems_;
    return std::move(check_);
  }

 private:
  void fail(std::string text, std::string key) {
    problems_.push_back({std::move(text), {Subject::Kind::limit, "", index_}, std::move(key)});
  }

  void check(const Limit& l) {
    const std::vector<std::size_t> cases = cases_of(l);
    const bool free_sign = l.kind == Limit::Kind::figure;
    if (!std::isfinite(l.required.si()) || (!free_sign && !(l.required.si() > 0) && !l.band_end))
      fail("a limit is greater than zero", key_of(l));
    check_dimension(l);
    for (const MemberRef& m : l.on)
      if (!s_.find(m)) return fail("the member is not one of this structure", "on");
    for (const PointId p : l.at)
      if (!s_.has(p)) return fail("the point is not one of this structure", "at");
    if (l.kind == Limit::Kind::movement && l.at.empty()) fail("a limit of movement names points", "at");
    if (l.kind == Limit::Kind::movement && l.part > Part::z) fail("a part of a movement is x, y, z or size", "part");
    if (l.kind == Limit::Kind::figure && !l.figure) return fail("a limit of a figure names it", "most");
    if (l.kind == Limit::Kind::figure) refuse_figure(*l.figure);
    if (!problems_.empty()) return;
    switch (l.kind) {
      case Limit::Kind::safety: return each_member(l, [&](MemberId m) { safety(l, m, cases); });
      case Limit::Kind::sag: return sag(l, cases);
      case Limit::Kind::drift: return each_member(l, [&](MemberId m) { drift(l, m, cases); });
      case Limit::Kind::movement:
        for (const PointId p : l.at) movement(l, p, cases);
        return;
      case Limit::Kind::buckling: return buckling(l, cases);
      case Limit::Kind::frequency: return l.band_end ? frequency_band(l, cases) : frequency(l, cases);
      case Limit::Kind::figure: return figure(l, cases);
      case Limit::Kind::range: return range(l);
    }
  }

  // Two limits of one figure that no value meets.
  void contradiction(const Limit& l) {
    if (l.kind != Limit::Kind::figure || !l.figure) return;
    for (std::size_t i = 0; i < index_; ++i) {
      const Limit& o = limits_[i];
      if (o.kind != Limit::Kind::figure || !o.figure || o.at_least == l.at_least || o.cases != l.cases) continue;
      if (hand::words(*o.figure) != hand::words(*l.figure)) continue;
      const Limit &least = l.at_least ? l : o, &most = l.at_least ? o : l;
      const auto asked = [&](const Limit& one) {
        return with_unit(one.required.si(), one.required.quantity().dimension, s_.print_units(), 4);
      };
      if (least.required.si() > most.required.si())
        fail(fmt::format("contradicts limit {}: no value of '{}' is at least {} and at most {}", i + 1,
                         hand::words(*l.figure), asked(least), asked(most)),
             key_of(l));
    }
  }

  // A figure of a mode leaves out what the limit of that kind covers.
  void refuse_figure(const Figure& f) {
    if (f.kind == Figure::Kind::buckling) fail("load factors have a limit of their own, as {buckling: 3}", "buckling");
    if (f.kind == Figure::Kind::frequency)
      fail("frequencies have a limit of their own, as {frequency: 12 Hz}", "frequency");
  }

  static const char* key_of(const Limit& l) {
    if (l.kind == Limit::Kind::figure) return l.at_least ? "least" : "most";
    return l.kind == Limit::Kind::range ? "most" : words(l.kind);
  }

  void check_dimension(const Limit& l) {
    const Dimension& d = l.required.quantity().dimension;
    const bool by_length = l.kind == Limit::Kind::sag || l.kind == Limit::Kind::drift;
    Dimension wanted = dimension::number;
    if (l.kind == Limit::Kind::movement || (by_length && d == dimension::length)) wanted = dimension::length;
    if (l.kind == Limit::Kind::frequency) wanted = Frequency::dimension();
    if (l.kind == Limit::Kind::range) wanted = dimension::stress;
    if (l.kind == Limit::Kind::figure && l.figure) wanted = hand::dimension_of(*l.figure);
    if (!(d == wanted) && !(free_of_unit(l) && d.none()))
      fail(fmt::format("this limit is {}; {} was expected", name(d), name(wanted)), key_of(l));
  }
  // Zero needs no unit.
  static bool free_of_unit(const Limit& l) { return l.kind == Limit::Kind::figure && l.required.si() == 0; }

  std::vector<std::size_t> cases_of(const Limit& l) {
    if (l.cases.empty()) return solution_.judged();
    std::vector<std::size_t> cases;
    for (const std::string& name : l.cases) {
      std::size_t i = 0;
      while (i < solution_.size() && solution_[i].name() != name) ++i;
      if (i == solution_.size())
        fail(fmt::format("there is no load case or combination '{}'", name), "case");
      else
        for (std::size_t k = 0; k < solution_.size(); ++k)
          // With the other directions of an imperfection.
          if (solution_.base_of(k) == i) cases.push_back(k);
    }
    return cases;
  }

  template <class Do>
  void each_member(const Limit& l, const Do& what) {
    stop_point();
    for (const MemberRef& m : l.on) what(*s_.find(m));
    if (!l.on.empty()) return;
    for (std::size_t i = 0; i < s_.members().size(); ++i) what(MemberId{i});
  }

  void tell(const Limit& l, Verdict v) {
    v.limit = index_;
    v.kind = l.kind;
    v.required = l.required.quantity();
    v.band_end = l.band_end;
    const bool least = l.kind == Limit::Kind::safety || l.kind == Limit::Kind::buckling ||
                       (l.kind == Limit::Kind::frequency && !l.band_end);
    v.at_least = least || (l.kind == Limit::Kind::figure && l.at_least);
    if (v.what.empty()) v.what = words(l.kind);
    check_.verdicts.push_back(std::move(v));
  }

  // Everything that stability takes, in each case: bending of the structure by its linear load factor, torsional and
  // lateral buckling of members by estimates, snap-through by large displacements. The limit is met where all of it was
  // examined and stays above the required factor.
  void buckling(const Limit& l, const std::vector<std::size_t>& cases) {
    Verdict v{.on = "the structure", .state = Verdict::State::met};
    if (!l.on.empty()) {
      v.state = Verdict::State::not_checked;
      v.note = "load factors are those of the structure: leave out 'on'";
      return tell(l, std::move(v));
    }
    ModesOptions options;
    for (const std::size_t c : cases)
      if (solution_.base_of(c) == c) options.buckling.emplace_back(solution_[c].name(), 1);
    const auto found = modes(solution_, options);
    if (!found) return not_known(l, found.error());
    const double required = l.required.si();
    std::string uncovered, uncovered_case;
    for (const CaseBuckling& one : found->buckling) {
      if (v.load_case.empty()) v.load_case = one.load_case;
      if (!one.estimates.not_checked.empty() && uncovered.empty()) {
        uncovered = words_of(one.estimates.not_checked);
        uncovered_case = one.load_case;
      }
      const auto lowest = one.lowest();
      if (!lowest || (v.value && !is_less(*lowest, v.value->si))) continue;
      v.value = Quantity(*lowest, dimension::number);
      v.load_case = one.load_case;
      v.state = met_if(*lowest >= required);
      v.note = one.governing(s_);
      if (one.if_all_acted)
        v.note += fmt::format("; {} if the untensioned members acted too", short_number(*one.if_all_acted, 4));
    }
    // What is exceeded needs no further look.
    if (v.state == Verdict::State::met) snap_through(found->buckling, required, v, uncovered, uncovered_case);
    if (v.state == Verdict::State::met && !uncovered.empty()) {
      v.state = Verdict::State::not_checked;
      v.load_case = uncovered_case;
      // A factor that leaves a part out is no value of this limit.
      v.note = uncovered;
      if (v.value) v.note += fmt::format("; what is covered: {}", short_number(v.value->si, 4));
      v.value.reset();
    }
    tell(l, std::move(v));
  }

  void snap_through(const std::vector<CaseBuckling>& all, double required, Verdict& v, std::string& uncovered,
                    std::string& uncovered_case) {
    const auto first_order = solution_of_first_order();
    for (const CaseBuckling& one : all) {
      if (one.modes.empty()) continue;
      const auto large =
          stability::stable_with_large_displacements(first_order, one.load_case, required, one.modes.front().factor);
      if (large.examined && large.stable && one.load_case == v.load_case && large.computed)
        v.note += fmt::format("{}stable with large displacements at {} times the loads", v.note.empty() ? "" : "; ",
                              short_number(required, 4));
      if (!large.examined) {
        if (uncovered.empty()) uncovered = large.reason, uncovered_case = one.load_case;
        continue;
      }
      if (large.stable) continue;
      v.state = Verdict::State::exceeded;
      v.value = Quantity(large.reached * required, dimension::number);
      v.load_case = one.load_case;
      v.note = "snap-through or buckling with large displacements";
      return;
    }
  }

  Solution solution_of_first_order() const {
    if (s_.analysis().order == Order::first) return solution_;
    Structure first = s_;
    first.analysis().order = Order::first;
    first.analysis().imperfection.reset();
    return solve(first);
  }

  // "out-of-plane buckling: 'post', … is not restrained; say `bracing`".
  std::string words_of(const std::vector<UncoveredMember>& all) const {
    std::string more = all.size() > 1 ? fmt::format(" (and {} more)", all.size() - 1) : "";
    return fmt::format("'{}'{}: {}; {}", s_[all.front().member].name, more, all.front().reason, all.front().remedy);
  }

  void frequency(const Limit& l, const std::vector<std::size_t>& cases) {
    ModesOptions options{.vibration = 1};
    if (!l.cases.empty()) options.under = solution_[cases.front()].name();
    const auto found = modes(solution_, options);
    if (!found) return not_known(l, found.error());
    if (found->vibration.empty()) return not_known(l, {{"no mass vibrates"}});
    Frequency f = found->vibration.front().frequency;
    Verdict v{.on = "the structure"};
    const OutOfPlaneVibration& out = found->out_of_plane;
    if (out.lowest && out.lowest->si() < f.si()) {
      f = *out.lowest;
      v.note = fmt::format("out-of-plane vibration of '{}' between its restraints (estimated)", s_[*out.member].name);
    }
    if (found->if_all_acted)
      v.note = fmt::format("without the untensioned members; {} Hz if they acted too",
                           short_number(found->if_all_acted->si(), 4));
    v.value = Quantity(f);
    v.state = met_if(f.si() >= l.required.si());
    if (v.state == Verdict::State::met && !out.not_checked.empty()) {
      v.state = Verdict::State::not_checked;
      v.note = fmt::format("{}; what is covered: {} Hz", words_of(out.not_checked), short_number(f.si(), 4));
      v.value.reset();
    }
    if (!options.under.empty()) v.load_case = options.under;
    tell(l, std::move(v));
  }

  void not_known(const Limit& l, const Problems& why) {
    tell(l, {.on = "the structure", .state = Verdict::State::not_checked, .note = why.front().text});
  }

  // Without any stress every safety is met. What is not known in one case is not known of all.
  void safety(const Limit& l, MemberId id, const std::vector<std::size_t>& cases) {
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

  // Where a limit looks at a member: everywhere if empty. Nothing, and a problem, where a place is not on it; a member
  // of several that goes through none of the points is left out.
  std::optional<std::vector<Length>> places_on(const Limit& l, MemberId id) {
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

  static std::optional<StressExtreme> worst_of(const MemberResult& m, const std::vector<Length>& places) {
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

  // The worst reading of the worst case.
  void sag(const Limit& l, const std::vector<std::size_t>& cases) {
    if (l.between) return sag_between(l, cases);
    each_member(l, [&](MemberId id) {
      of_readings(l, id, cases, [](const MemberResult& m, bool by_length) {
        return by_length ? largest(m.stretches()) : m.governing_stretch();
      });
    });
  }
  void drift(const Limit& l, MemberId id, const std::vector<std::size_t>& cases) {
    of_readings(l, id, cases, [](const MemberResult& m, bool) { return m.drift(); });
  }

  static Stretch largest(const std::vector<Stretch>& all) {
    return *std::max_element(all.begin(), all.end(), [](const Stretch& a, const Stretch& b) {
      constexpr double alike = 1e-9;
      return a.sag.value.si * (1 + alike) < b.sag.value.si;
    });
  }

  template <class Governing>
  void of_readings(const Limit& l, MemberId id, const std::vector<std::size_t>& cases, const Governing& governing) {
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

  // Of each case the value; the worst counts.
  void figure(const Limit& l, const std::vector<std::size_t>& cases) {
    Figure f = *l.figure;
    // Without a part of the diagram named: the largest by size against a most, the least against a least.
    if (f.take == Take::extreme && !f.at) f.take = l.at_least ? Take::min : Take::size;
    HandCalculation asked;
    asked.expect.push_back({.figure = f, .is = Quantity(1, hand::dimension_of(f)), .within = 1.0});
    asked.expect.back().within = Quantity(1, hand::dimension_of(f));
    const bool of_case = hand::is_of_case(f.kind);
    if (of_case && !cases.empty()) asked.expect.back().load_case = solution_[cases.front()].name();
    const auto worked = hand::work_out(s_, asked);
    if (!worked) {
      for (const Problem& p : worked.error()) fail(p.text, p.key);
      return;
    }
    Verdict v{.on = f.of.empty() ? "the structure" : f.of, .what = hand::words(*l.figure)};
    const std::vector<std::size_t> looked = of_case ? cases : std::vector<std::size_t>{0};
    for (const std::size_t c : looked) {
      const auto value = hand::computed(solution_, c, f, worked->expectations.front().target, 0);
      if (!value) {
        v.value.reset();
        v.load_case = of_case ? solution_[c].name() : "";
        v.note = "this figure is not known";
        break;
      }
      if (v.value && !(l.at_least ? value->si < v.value->si : value->si > v.value->si)) continue;
      v.value = *value;
      v.load_case = of_case ? solution_[c].name() : "";
    }
    if (v.value) v.state = met_if(l.at_least ? v.value->si >= l.required.si() : v.value->si <= l.required.si());
    tell(l, std::move(v));
  }

  // Of one section: the largest change of its normal stress from one case to the other.
  void range(const Limit& l) {
    const auto case_named = [&](const std::string& name) -> std::optional<CaseResult> {
      for (std::size_t i = 0; i < solution_.size(); ++i)
        if (solution_[i].name() == name) return solution_[i];
      fail(fmt::format("there is no load case or combination '{}'", name), "between");
      return {};
    };
    const auto from = case_named(l.range_of.first), to = case_named(l.range_of.second);
    if (l.on.size() != 1) fail("a stress range is of one member", "range");
    if (!l.place && l.at.empty()) fail("a stress range is at a place of the member", "at");
    if (!from || !to || !problems_.empty()) return;
    const MemberId id = *s_.find(l.on.front());
    const auto places = places_on(l, id);
    if (!places) return;
    const MemberResult a = (*from)[id], b = (*to)[id];
    Verdict v{.on = s_[id].name, .what = "stress range"};
    v.load_case = fmt::format("{} to {}", l.range_of.first, l.range_of.second);
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
      v.state = met_if(most <= l.required.si());
    } else {
      v.note = "the normal stress of this section is not known";
    }
    tell(l, std::move(v));
  }

  // Normal stress is linear over the section, so that its change is largest at a corner of the outline.
  std::optional<double> stress_change(const MemberResult& a, const MemberResult& b, MemberId id, Length at,
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

  // No natural frequency from one to the other.
  void frequency_band(const Limit& l, const std::vector<std::size_t>& cases) {
    const double low = l.required.si(), high = l.band_end->si;
    if (!(low >= 0) || !(high > low) || !std::isfinite(high))
      return fail("a band of frequencies goes from a lower to a higher one", "frequency");
    ModesOptions options{.vibration = 4};
    if (!l.cases.empty()) options.under = solution_[cases.front()].name();
    Verdict v{.on = "the structure", .what = "frequency", .state = Verdict::State::met};
    std::optional<Modes> found;
    constexpr std::size_t most_modes = 1000;
    for (;;) {
      auto some = modes(solution_, options);
      if (!some) return not_known(l, some.error());
      found = std::move(some.value());
      if (found->vibration.empty()) return not_known(l, {{"no mass vibrates"}});
      if (found->vibration.back().frequency.si() > high || found->vibration.size() < options.vibration) break;
      if (options.vibration >= most_modes)
        return not_known(
            l, {{fmt::format("there are more than {} natural frequencies below the band's end", most_modes)}});
      options.vibration *= 4;
    }
    // The one within the band, else the nearest to it.
    double nearest = std::numeric_limits<double>::infinity();
    for (const VibrationMode& m : found->vibration) {
      const double f = m.frequency.si(), off = f < low ? low - f : f > high ? f - high : 0;
      if (off < nearest) nearest = off, v.value = Quantity(m.frequency);
    }
    v.state = met_if(nearest > 0);
    if (v.state == Verdict::State::met && (!found->out_of_plane.not_checked.empty() || found->out_of_plane.lowest)) {
      // Of members between their restraints only the lowest frequency is known.
      const OutOfPlaneVibration& out = found->out_of_plane;
      if (!out.not_checked.empty() || out.lowest->si() <= high) {
        v.state = Verdict::State::not_checked;
        v.note = out.not_checked.empty()
                     ? "out-of-plane vibration has frequencies below the band's end; describe the structure in space"
                     : words_of(out.not_checked);
        v.value.reset();
      }
    }
    if (!options.under.empty()) v.load_case = options.under;
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

const char* words(Limit::Kind kind) {
  static constexpr const char* all[] = {"safety",    "sag",   "movement", "buckling",
                                        "frequency", "drift", "figure",   "stress range"};
  return all[static_cast<std::size_t>(kind)];
}

double utilisation(const Verdict& v) {
  if (!v.value) return 0;
  if (v.band_end) return v.state == Verdict::State::exceeded ? 2 : 0.5;
  const double required = v.required.si, value = v.value->si;
  const bool exceeded = v.at_least ? value < required : value > required;
  // A ratio of figures of one sign; else only whether it is exceeded.
  if (!(required > 0) || !(value > 0)) return exceeded ? 2 : 0;
  return v.at_least ? required / value : value / required;
}

Expected<LimitCheck, Problems> check_limits(const Solution& solution, const Limits& limits) {
  if (!solution.ok()) return solution.problems();
  return Checker(solution, limits).run();
}

}  // namespace corvex
