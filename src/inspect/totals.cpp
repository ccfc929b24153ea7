// The resultant of each load case.
#include "corvex/acting.hpp"
#include "corvex/findings.hpp"
#include "structure/checks.hpp"

namespace corvex {
namespace {

struct Resultant {
  Vector force, moment;

  void add(const Vector& at, const Vector& f, const Vector& m = {}) {
    force += f;
    moment += cross(at, f) + m;
  }
};

class Adder {
 public:
  Adder(const Structure& s, Resultant& sum) : s_(s), sum_(sum) {}

  void operator()(const PointLoad& l) const {
    const PointLoad a = acting(s_, l);
    sum_.add(s_[a.at].position, a.force, a.moment);
  }
  void operator()(const MemberLoad& l) const {
    const MemberLoad a = acting(s_, l);
    sum_.add(place(s_[a.on], a.at), a.force, a.moment);
  }
  void operator()(const LineLoad& l) const { add(acting(s_, l)); }
  void operator()(const SpreadLoad& l) const {
    for (const ActingLine& a : acting(s_, l)) add(a);
  }
  void operator()(const GravityLoad& l) const {
    for (const ActingLine& a : acting(s_, l)) add(a);
    for (const PointMass& m : s_.point_masses()) sum_.add(s_[m.at].position + m.arm, l.acceleration * m.mass);
  }
  // Heat, lack of fit and settlements have no resultant.
  template <class Other>
  void operator()(const Other&) const {}

 private:
  Vector place(const Member& m, double at) const {
    const Vector start = s_.axis_start(m), way = s_.axis_end(m) - start;
    return start + way * (at / length(way));
  }
  // A trapezium is a constant part and a triangle, whose resultant lies at two thirds.
  void add(const ActingLine& a) const {
    const Member& m = s_[a.on];
    const double L = a.to - a.from;
    sum_.add(place(m, a.from + L / 2), a.first * L, (a.first_moment + a.last_moment) * (L / 2));
    sum_.add(place(m, a.from + L * 2 / 3), (a.last - a.first) * (L / 2));
  }

  const Structure& s_;
  Resultant& sum_;
};

}  // namespace

std::vector<LoadTotal> load_totals(const Structure& s) {
  if (!errors_of(s).empty()) return {};
  std::vector<LoadTotal> all;
  for (const LoadCase& c : s.load_cases()) {
    Resultant sum;
    double sizes = 0;
    for (const Load& load : c.loads()) {
      Resultant own;
      std::visit(Adder(s, own), load);
      sizes += length(own.force);
      sum.force += own.force, sum.moment += own.moment;
    }
    // What rounding leaves of loads that cancel is no force.
    const double noise = 1e-12 * sizes;
    for (double* v : {&sum.force.x, &sum.force.y, &sum.force.z})
      if (std::abs(*v) <= noise) *v = 0;
    LoadTotal t{.load_case = c.name(),
                .loads = c.loads().size(),
                .force = {ForceSize::si(sum.force.x), ForceSize::si(sum.force.y), ForceSize::si(sum.force.z)},
                .moment = {MomentSize::si(sum.moment.x), MomentSize::si(sum.moment.y), MomentSize::si(sum.moment.z)},
                .through = {}};
    if (const double square = dot(sum.force, sum.force); square > 0) t.through = cross(sum.force, sum.moment) / square;
    all.push_back(std::move(t));
  }
  return all;
}

}  // namespace corvex
