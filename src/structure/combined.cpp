#include "structure/combined.hpp"

#include <stdexcept>
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

LoadCase case_loads(const Structure& s, std::string_view name) {
  for (const LoadCase& c : s.load_cases())
    if (c.name() == name) return c;
  for (const Combination& c : s.combinations())
    if (c.name == name) return combined(s, c);
  throw std::out_of_range("corvex: there is no load case or combination '" + std::string(name) + "'");
}

Structure with_single_case(const Structure& structure, std::string_view name, double factor) {
  const LoadCase loads = case_loads(structure, name);
  Structure s = structure;
  while (!s.combinations().empty()) s.remove_combination(std::string(s.combinations().back().name));
  while (!s.load_cases().empty()) s.remove_load_case(std::string(s.load_cases().back().name()));
  LoadsOf only = s.load_case(name);
  for (const Load& l : loads.loads()) only.add(std::visit(Scaled{factor}, l));
  return s;
}

}  // namespace corvex
