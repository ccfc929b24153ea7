#include "structure/combined.hpp"

namespace corvex {
namespace {

// Forces scale, and so do changes of temperature and of length, and movements.
struct Scaled {
  double factor;

  Load operator()(PointLoad l) const { return both(l, l.force, l.moment); }
  Load operator()(MemberLoad l) const { return both(l, l.force, l.moment); }
  Load operator()(LineLoad l) const { return both(l, l.first, l.last); }
  Load operator()(SpreadLoad l) const { return both(l, l.force, l.force, false); }
  Load operator()(HeatLoad l) const { return both(l, l.plus, l.minus); }
  Load operator()(ShortenLoad l) const { return both(l, l.by, l.by, false); }
  Load operator()(SettleLoad l) const { return both(l, l.move, l.turn); }
  Load operator()(GravityLoad l) const { return both(l, l.acceleration, l.acceleration, false); }

 private:
  template <class L, class Part>
  Load both(L& load, Part& first, Part& second, bool two = true) const {
    first = first * factor;
    if (two) second = second * factor;
    return load;
  }
};

}  // namespace

LoadCase combined(const Structure& structure, const Combination& combination) {
  LoadCase sum(combination.name, structure.up_direction());
  for (const Combination::Term& t : combination.terms)
    for (const Load& l : structure.load_cases()[t.load_case].loads()) sum.add(std::visit(Scaled{t.factor}, l));
  return sum;
}

}  // namespace corvex
