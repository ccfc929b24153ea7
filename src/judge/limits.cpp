#include "corvex/limits.hpp"

#include <algorithm>
#include <cmath>

#include "hand/work_out.hpp"
#include "judge/limit_evaluation.hpp"
#include "structure/words.hpp"

namespace corvex {
namespace judging {

namespace {

// Checks every limit of a solution against the structure, and has it evaluated.
class LimitChecker {
 public:
  LimitChecker(const Solution& solution, const Limits& limits)
      : checks_{.solution = solution, .limits = limits}, s_(solution.structure()) {}

  Expected<LimitCheck, Problems> run();

 private:
  void fail(std::string text, std::string key) { checks_.fail(std::move(text), std::move(key)); }
  // Zero needs no unit.
  static bool free_of_unit(const Limit& l) { return l.kind == Limit::Kind::figure && l.required.si() == 0; }
  void check(const Limit& l);
  bool is_sound(const Limit& l);
  // Two limits of one figure that no value meets.
  void contradiction(const Limit& l);
  // A figure of a mode leaves out what the limit of that kind covers.
  void refuse_figure(const Figure& f);
  static const char* key_of(const Limit& l);
  void check_dimension(const Limit& l);
  std::vector<std::size_t> cases_of(const Limit& l);

  LimitChecks checks_;
  const Structure& s_;
};

Expected<LimitCheck, Problems> LimitChecker::run() {
  for (std::size_t i = 0; i < checks_.limits.size(); ++i) {
    checks_.index = i;
    check(checks_.limits[i]);
    contradiction(checks_.limits[i]);
  }
  if (!checks_.problems.empty()) return checks_.problems;
  return std::move(checks_.found);
}

void LimitChecker::check(const Limit& l) {
  if (static_cast<std::size_t>(l.kind) >= limit_kinds().size()) return fail("no limit has this kind", "kind");
  const std::vector<std::size_t> cases = cases_of(l);
  if (is_sound(l) && checks_.problems.empty()) kind_of(l.kind).evaluate(checks_, l, cases);
}

// Preconditions of the evaluation. A problem of another limit does not end the check of this one.
bool LimitChecker::is_sound(const Limit& l) {
  const auto refused = [&](std::string text, std::string key) {
    fail(std::move(text), std::move(key));
    return false;
  };
  const bool free_sign = l.kind == Limit::Kind::figure;
  if (!std::isfinite(l.required.si()) || (!free_sign && !(l.required.si() > 0) && !l.band_end))
    fail("a limit must be greater than zero", key_of(l));
  check_dimension(l);
  for (const MemberRef& m : l.on)
    if (!s_.find(m)) return refused("the member does not belong to this structure", "on");
  for (const PointId p : l.at)
    if (!s_.has(p)) return refused("the point does not belong to this structure", "at");
  if (l.kind == Limit::Kind::movement && l.at.empty()) fail("a limit of movement names points", "at");
  if (l.kind == Limit::Kind::movement && l.part > Part::z) fail("a part of a movement is x, y, z or size", "part");
  if (l.kind == Limit::Kind::figure && !l.figure) return refused("a limit of a figure names it", "most");
  if (l.kind == Limit::Kind::figure) refuse_figure(*l.figure);
  return true;
}

void LimitChecker::contradiction(const Limit& l) {
  if (l.kind != Limit::Kind::figure || !l.figure) return;
  for (std::size_t i = 0; i < checks_.index; ++i) {
    const Limit& o = checks_.limits[i];
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

void LimitChecker::refuse_figure(const Figure& f) {
  if (f.kind == Figure::Kind::buckling)
    fail("load factors have their own limit, for example {buckling: 3}", "buckling");
  if (f.kind == Figure::Kind::frequency)
    fail("frequencies have their own limit, for example {frequency: 12 Hz}", "frequency");
}

const char* LimitChecker::key_of(const Limit& l) {
  if (l.kind == Limit::Kind::figure) return l.at_least ? "least" : "most";
  const char* key = kind_of(l.kind).key;
  return key ? key : "most";
}

void LimitChecker::check_dimension(const Limit& l) {
  const Dimension& d = l.required.quantity().dimension;
  std::vector<Dimension> wanted = kind_of(l.kind).dimensions;
  if (wanted.empty()) wanted.push_back(l.figure ? hand::dimension_of(*l.figure) : dimension::number);
  if (std::find(wanted.begin(), wanted.end(), d) == wanted.end() && !(free_of_unit(l) && d.none()))
    fail(fmt::format("this limit is {}; {} was expected", name(d), name(wanted.front())), key_of(l));
}

std::vector<std::size_t> LimitChecker::cases_of(const Limit& l) {
  if (l.cases.empty()) return checks_.solution.assessed();
  std::vector<std::size_t> cases;
  for (const std::string& name : l.cases) {
    std::size_t i = 0;
    while (i < checks_.solution.size() && checks_.solution[i].name() != name) ++i;
    if (i == checks_.solution.size())
      fail(fmt::format("there is no load case or combination '{}'", name), "case");
    else
      for (std::size_t k = 0; k < checks_.solution.size(); ++k)
        // With the other directions of an imperfection.
        if (checks_.solution.base_of(k) == i) cases.push_back(k);
  }
  return cases;
}

}  // namespace
}  // namespace judging

std::size_t LimitCheck::count(Verdict::State state) const {
  return static_cast<std::size_t>(
      std::count_if(verdicts.begin(), verdicts.end(), [&](const Verdict& v) { return v.state == state; }));
}

const char* words(Limit::Kind kind) {
  return judging::kind_of(kind).words;
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
  return judging::LimitChecker(solution, limits).run();
}

}  // namespace corvex
