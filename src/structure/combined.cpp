#include "structure/combined.hpp"

#include <utility>

namespace corvex {
namespace {

// Forces scale, and so do changes of temperature and of length, and movements.
struct Scaled {
  double factor;

  Load operator()(PointLoad l) const { return scaled(l, l.force, l.moment); }
  Load operator()(MemberLoad l) const { return scaled(l, l.force, l.moment); }
  Load operator()(LineLoad l) const { return scaled(l, l.first, l.last); }
  Load operator()(SpreadLoad l) const { return scaled(l, l.force); }
  Load operator()(HeatLoad l) const { return scaled(l, l.plus, l.minus); }
  Load operator()(ShortenLoad l) const { return scaled(l, l.by); }
  Load operator()(SettleLoad l) const { return scaled(l, l.move, l.turn); }
  Load operator()(GravityLoad l) const { return scaled(l, l.acceleration); }

 private:
  template <class L, class... Parts>
  Load scaled(L& load, Parts&... parts) const {
    ((parts = parts * factor), ...);
    return std::move(load);
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
