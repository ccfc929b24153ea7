#include <array>
#include <utility>

#include "corvex/formula.hpp"

namespace corvex {
namespace {

struct Unit {
  std::string_view symbol;
  double si;
  Dimension dimension;
  bool prefixed;
};

// Exact definitions: the inch, foot and pound of 1959, standard gravity of 1901.
constexpr double inch_si = 0.0254, pound_si = 0.45359237, gravity_si = 9.80665, lbf_si = pound_si * gravity_si;
constexpr double psi_si = lbf_si / (inch_si * inch_si);

const std::array units_known = {
    Unit{"m", 1, dimension::length, true},
    Unit{"g", 1e-3, dimension::mass, true},
    Unit{"N", 1, dimension::force, true},
    Unit{"Pa", 1, dimension::stress, true},
    Unit{"rad", 1, dimension::angle, true},
    Unit{"s", 1, Dimension::of(0, 0, 1), true},
    Unit{"Hz", 1, Dimension::of(0, 0, -1), true},
    // Revolutions a minute, and moments as they are often written.
    Unit{"rpm", 1.0 / 60, Dimension::of(0, 0, -1), false},
    Unit{"Nm", 1, dimension::moment, true},
    Unit{"Nmm", 1e-3, dimension::moment, true},
    Unit{"K", 1, dimension::temperature, false},
    Unit{"tonne", 1000, dimension::mass, false},
    Unit{"in", inch_si, dimension::length, false},
    Unit{"ft", 0.3048, dimension::length, false},
    Unit{"lb", pound_si, dimension::mass, false},
    Unit{"lbf", lbf_si, dimension::force, false},
    Unit{"kip", 1000 * lbf_si, dimension::force, false},
    Unit{"psi", psi_si, dimension::stress, false},
    Unit{"ksi", 1000 * psi_si, dimension::stress, false},
    Unit{"kgf", gravity_si, dimension::force, false},
    Unit{"deg", 0.017453292519943295, dimension::angle, false},
    Unit{"°", 0.017453292519943295, dimension::angle, false},
    // Temperatures are differences here.
    Unit{"degC", 1, dimension::temperature, false},
    Unit{"°C", 1, dimension::temperature, false},
    Unit{"degF", 5.0 / 9.0, dimension::temperature, false},
    Unit{"°F", 5.0 / 9.0, dimension::temperature, false},
    Unit{"%", 0.01, dimension::number, false},
};

// Both code points of the micro sign are in use.
constexpr std::array<std::pair<std::string_view, double>, 10> prefixes = {{{"n", 1e-9},
                                                                           {"u", 1e-6},
                                                                           {"µ", 1e-6},
                                                                           {"μ", 1e-6},
                                                                           {"m", 1e-3},
                                                                           {"c", 1e-2},
                                                                           {"d", 1e-1},
                                                                           {"k", 1e3},
                                                                           {"M", 1e6},
                                                                           {"G", 1e9}}};

}  // namespace

std::optional<Quantity> unit(std::string_view symbol) {
  for (const Unit& u : units_known)
    if (u.symbol == symbol) return Quantity(u.si, u.dimension);
  for (const auto& [prefix, factor] : prefixes) {
    if (!symbol.starts_with(prefix)) continue;
    const std::string_view rest = symbol.substr(prefix.size());
    for (const Unit& u : units_known) {
      if (!u.prefixed || u.symbol != rest) continue;
      // kg is exact; 1e3 * 1e-3 is 1 too, and Mg 1000: the product of powers of ten below 2^53 rounds once.
      return Quantity(factor * u.si, u.dimension);
    }
  }
  return std::nullopt;
}

}  // namespace corvex
