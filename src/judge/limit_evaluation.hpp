// Context for the evaluation of every kind of limit.
#pragma once

#include <fmt/format.h>

#include "corvex/limits.hpp"
#include "corvex/modes.hpp"
#include "corvex/stop.hpp"
#include "judge/limit_kinds.hpp"

namespace corvex::judging {

// Less by more than rounding: of cases that are equal the first is named.
inline bool is_less(double a, double b) {
  constexpr double rounding = 1e-9;
  return a < b * (1 - rounding);
}
inline Verdict::State met_if(bool met) {
  return met ? Verdict::State::met : Verdict::State::exceeded;
}

// The limits of one solution, and what was found so far.
struct LimitChecks {
  const Solution& solution;
  const Limits& limits;
  std::size_t index = 0;  // of the limit that is evaluated
  LimitCheck found{};
  Problems problems{};

  void fail(std::string text, std::string key) {
    problems.push_back({std::move(text), {Subject::Kind::limit, "", index}, std::move(key)});
  }
};

// The base of the evaluation of one kind.
class LimitEvaluation {
 protected:
  LimitEvaluation(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases)
      : checks_(checks), solution_(checks.solution), s_(checks.solution.structure()), l_(limit), cases_(cases) {}

  void fail(std::string text, std::string key) { checks_.fail(std::move(text), std::move(key)); }
  // The members that the limit names; all if it names none.
  template <class Do>
  void each_member(const Do& what) {
    stop_point();
    for (const MemberRef& m : l_.on) what(*s_.find(m));
    if (!l_.on.empty()) return;
    for (std::size_t i = 0; i < s_.members().size(); ++i) what(MemberId{i});
  }
  // The places of a member that the limit is about: everywhere if empty. Nothing, and a problem, where a place is not
  // on it; a member of several that passes through none of the points is left out.
  std::optional<std::vector<Length>> places_on(MemberId id);
  void add(Verdict verdict);
  // A verdict that could not be found, with the reason.
  void not_known(const Problems& why);
  // "out-of-plane buckling: 'post', … is not restrained; say `bracing`".
  std::string words_of(const std::vector<UncoveredMember>& all) const;

  LimitChecks& checks_;
  const Solution& solution_;
  const Structure& s_;
  const Limit& l_;
  const std::vector<std::size_t>& cases_;
};

}  // namespace corvex::judging
