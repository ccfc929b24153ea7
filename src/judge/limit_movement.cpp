// Limits of the movement of points.
#include <cmath>

#include "judge/limit_evaluation.hpp"

namespace corvex::judging {
namespace {

class MovementLimit : public LimitEvaluation {
 public:
  MovementLimit(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases)
      : LimitEvaluation(checks, limit, cases) {}
  void run() {
    for (const PointId p : l_.at) check(p);
  }

 private:
  void check(PointId p);
};

void MovementLimit::check(PointId p) {
  Verdict v{.on = s_[p].name};
  for (const std::size_t c : cases_) {
    const Displacement d = solution_[c].displacement(p);
    const double parts[] = {std::hypot(d.x.si(), d.y.si(), d.z.si()), std::abs(d.x.si()), std::abs(d.y.si()),
                            std::abs(d.z.si())};
    const double value = parts[static_cast<std::size_t>(l_.part)];
    if (v.value && !is_less(v.value->si, value)) continue;
    v.value = Quantity(value, dimension::length);
    v.load_case = solution_[c].name();
  }
  if (v.value) v.state = met_if(v.value->si <= l_.required.si());
  add(std::move(v));
}

}  // namespace

void check_movement(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases) {
  MovementLimit(checks, limit, cases).run();
}

}  // namespace corvex::judging
