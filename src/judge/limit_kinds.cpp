#include "judge/limit_kinds.hpp"

namespace corvex::judging {

// Each is in the source of its name: limit_safety.cpp and so on.
using Cases = std::vector<std::size_t>;
void check_safety(LimitChecks& checks, const Limit& limit, const Cases& cases);
void check_sag(LimitChecks& checks, const Limit& limit, const Cases& cases);
void check_movement(LimitChecks& checks, const Limit& limit, const Cases& cases);
void check_buckling(LimitChecks& checks, const Limit& limit, const Cases& cases);
void check_frequency(LimitChecks& checks, const Limit& limit, const Cases& cases);
void check_drift(LimitChecks& checks, const Limit& limit, const Cases& cases);
void check_figure(LimitChecks& checks, const Limit& limit, const Cases& cases);
void check_range(LimitChecks& checks, const Limit& limit, const Cases& cases);

const std::vector<LimitKind>& limit_kinds() {
  using Kind = Limit::Kind;
  using Written = LimitKind::Written;
  const Dimension number = dimension::number, length = dimension::length;
  static const std::vector<LimitKind> all = {
      {Kind::safety,
       "safety factor",
       "safety",
       {"on", "at", "case"},
       {number},
       true,
       Written::three_digits,
       check_safety},
      {Kind::sag, "deflection", "sag", {"on", "between", "case"}, {number, length}, false, Written::share, check_sag},
      {Kind::movement,
       "displacement",
       "movement",
       {"at", "part", "case"},
       {length},
       false,
       Written::number,
       check_movement},
      {Kind::buckling,
       "critical load factor",
       "buckling",
       {"on", "case"},
       {number},
       true,
       Written::number,
       check_buckling},
      {Kind::frequency,
       "frequency",
       "frequency",
       {"outside", "case"},
       {Frequency::dimension()},
       true,
       Written::number,
       check_frequency},
      {Kind::drift, "drift", "drift", {"on", "case"}, {number, length}, false, Written::share, check_drift},
      {Kind::figure, "figure", nullptr, {}, {}, false, Written::number, check_figure},
      {Kind::range, "stress range", nullptr, {}, {dimension::stress}, false, Written::number, check_range}};
  return all;
}

const LimitKind& kind_of(Limit::Kind kind) {
  return limit_kinds().at(static_cast<std::size_t>(kind));
}

}  // namespace corvex::judging
