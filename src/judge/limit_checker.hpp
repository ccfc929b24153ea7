// Checks the limits of a solution one by one. Each kind of limit is in a source of its own.
#pragma once

#include <fmt/format.h>

#include "corvex/limits.hpp"
#include "corvex/modes.hpp"
#include "corvex/stop.hpp"

namespace corvex::judging {

// Less by more than rounding: of cases that are equal the first is named.
inline bool is_less(double a, double b) {
  constexpr double rounding = 1e-9;
  return a < b * (1 - rounding);
}
inline Verdict::State met_if(bool met) {
  return met ? Verdict::State::met : Verdict::State::exceeded;
}

class LimitChecker {
 public:
  LimitChecker(const Solution& solution, const Limits& limits)
      : solution_(solution), s_(solution.structure()), limits_(limits) {}

  Expected<LimitCheck, Problems> run();

 private:
  // All kinds.
  void fail(std::string text, std::string key) {
    problems_.push_back({std::move(text), {Subject::Kind::limit, "", index_}, std::move(key)});
  }
  // Zero needs no unit.
  static bool free_of_unit(const Limit& l) { return l.kind == Limit::Kind::figure && l.required.si() == 0; }
  template <class Do>
  void each_member(const Limit& l, const Do& what) {
    stop_point();
    for (const MemberRef& m : l.on) what(*s_.find(m));
    if (!l.on.empty()) return;
    for (std::size_t i = 0; i < s_.members().size(); ++i) what(MemberId{i});
  }
  void check(const Limit& l);
  // Two limits of one figure that no value meets.
  void contradiction(const Limit& l);
  // A figure of a mode leaves out what the limit of that kind covers.
  void refuse_figure(const Figure& f);
  static const char* key_of(const Limit& l);
  void check_dimension(const Limit& l);
  std::vector<std::size_t> cases_of(const Limit& l);
  void tell(const Limit& l, Verdict v);

  // Safety.
  // Without any stress every safety is met. What is not known in one case is not known of all.
  void safety(const Limit& l, MemberId id, const std::vector<std::size_t>& cases);
  // Where a limit looks at a member: everywhere if empty. Nothing, and a problem, where a place is not on it; a member
  // of several that goes through none of the points is left out.
  std::optional<std::vector<Length>> places_on(const Limit& l, MemberId id);
  static std::optional<StressExtreme> worst_of(const MemberResult& m, const std::vector<Length>& places);

  // Sag, drift, movement.
  // The worst reading of the worst case.
  void sag(const Limit& l, const std::vector<std::size_t>& cases);
  void drift(const Limit& l, MemberId id, const std::vector<std::size_t>& cases);
  static Stretch largest(const std::vector<Stretch>& all);
  template <class Governing>
  void of_readings(const Limit& l, MemberId id, const std::vector<std::size_t>& cases, const Governing& governing);
  void sag_between(const Limit& l, const std::vector<std::size_t>& cases);
  void stretch(const Limit& l, MemberId id, std::size_t begin, std::size_t end, const std::vector<std::size_t>& cases);
  void movement(const Limit& l, PointId p, const std::vector<std::size_t>& cases);

  // Buckling.
  // Everything that stability takes, in each case: bending of the structure by its linear load factor, torsional and
  // lateral buckling of members by estimates, snap-through by large displacements. The limit is met where all of it was
  // examined and stays above the required factor.
  void buckling(const Limit& l, const std::vector<std::size_t>& cases);
  void snap_through(const std::vector<CaseBuckling>& all, double required, Verdict& v, std::string& uncovered,
                    std::string& uncovered_case);
  Solution solution_of_first_order() const;
  // "out-of-plane buckling: 'post', … is not restrained; say `bracing`".
  std::string words_of(const std::vector<UncoveredMember>& all) const;

  // Frequency.
  void frequency(const Limit& l, const std::vector<std::size_t>& cases);
  void not_known(const Limit& l, const Problems& why);
  // No natural frequency from one to the other.
  void frequency_band(const Limit& l, const std::vector<std::size_t>& cases);

  // Any figure.
  // Of each case the value; the worst counts.
  void figure(const Limit& l, const std::vector<std::size_t>& cases);

  // Range of stress.
  // Of one section: the largest change of its normal stress from one case to the other.
  void range(const Limit& l);
  // Normal stress is linear over the section, so that its change is largest at a corner of the outline.
  std::optional<double> stress_change(const MemberResult& a, const MemberResult& b, MemberId id, Length at,
                                      Side side) const;

  const Solution& solution_;
  const Structure& s_;
  const Limits& limits_;
  std::size_t index_ = 0;
  LimitCheck check_;
  Problems problems_;
};

}  // namespace corvex::judging
