#include "structure/combined.hpp"

#include <stdexcept>

#include "structure/load_parts.hpp"

namespace corvex {
LoadCase combined(const Structure& structure, const Combination& combination) {
  LoadCase sum(combination.name, structure.up_direction());
  for (const Combination::Term& t : combination.terms)
    for (const Load& l : structure.load_cases()[t.load_case].loads()) sum.add(scaled(l, t.factor));
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
  for (const Load& l : loads.loads()) only.add(scaled(l, factor));
  return s;
}

Structure at_first_order(Structure structure) {
  structure.analysis().order = Order::first;
  structure.analysis().imperfection.reset();
  return structure;
}

}  // namespace corvex
