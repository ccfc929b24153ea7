#include "corvex/limits.hpp"

#include <algorithm>
#include <cmath>

#include "hand/work_out.hpp"
#include "judge/limit_checker.hpp"
#include "structure/words.hpp"

namespace corvex {
namespace judging {

Expected<LimitCheck, Problems> LimitChecker::run() {
  for (index_ = 0; index_ < limits_.size(); ++index_) {
    check(limits_[index_]);
    contradiction(limits_[index_]);
  }
  if (!problems_.empty()) return problems_;
  return std::move(check_);
}

void LimitChecker::check(const Limit& l) {
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

void LimitChecker::contradiction(const Limit& l) {
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

void LimitChecker::refuse_figure(const Figure& f) {
  if (f.kind == Figure::Kind::buckling) fail("load factors have a limit of their own, as {buckling: 3}", "buckling");
  if (f.kind == Figure::Kind::frequency)
    fail("frequencies have a limit of their own, as {frequency: 12 Hz}", "frequency");
}

const char* LimitChecker::key_of(const Limit& l) {
  if (l.kind == Limit::Kind::figure) return l.at_least ? "least" : "most";
  return l.kind == Limit::Kind::range ? "most" : words(l.kind);
}

void LimitChecker::check_dimension(const Limit& l) {
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

std::vector<std::size_t> LimitChecker::cases_of(const Limit& l) {
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

void LimitChecker::tell(const Limit& l, Verdict v) {
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

}  // namespace judging

std::size_t LimitCheck::count(Verdict::State state) const {
  return static_cast<std::size_t>(
      std::count_if(verdicts.begin(), verdicts.end(), [&](const Verdict& v) { return v.state == state; }));
}

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
  return judging::LimitChecker(solution, limits).run();
}

}  // namespace corvex
