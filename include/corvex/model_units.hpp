// Corvex: units for print: those that a model names, the usual ones for the rest.
//
//     const corvex::ModelUnits units{.length = {"mm", 1e-3}};
//     const corvex::NamedUnit unit = corvex::unit_for(corvex::dimension::moment, units);
//     fmt::print("{} {}\n", corvex::short_number(1920 / unit.si, 4), unit.text);   // 1.92 kN·m
//
// Threads: every function may be called from several threads at once.
#pragma once

#include <string>
#include <string_view>

#include "corvex/dimension.hpp"
#include "corvex/expected.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// A unit for numbers without one, and for print.
struct NamedUnit {
  std::string text;  // as printed: "kN·m"
  double si = 1;     // its value in SI units
};

// Units of a model for print: those that it names, the usual ones for the rest.
struct ModelUnits {
  NamedUnit length{"m", 1}, force{"kN", 1e3}, moment{"kN·m", 1e3}, line{"kN/m", 1e3}, stress{"MPa", 1e6},
      deflection{"mm", 1e-3}, angle{"mrad", 1e-3}, mass{"kg", 1};
  // Of areas, moduli and second moments.
  NamedUnit section{"cm", 1e-2};
};

// SI units for every dimension: "N·m", "N/m", "m⁴".
const ModelUnits& si_units();

// The same by a list, for one print: "mm, N" or "m, kN, deflection: um". The dimension of a unit shows what it is for;
// one of length is for places, other kinds are named as in the file. What is not listed stays as `of_model` has it,
// but moments and line loads follow the force, and all changes between metric units and inches. Else the reason.
// (Target corvex::files.)
Expected<ModelUnits, std::string> units_for_print(std::string_view list, const ModelUnits& of_model);

// The unit of a dimension among the model's: "kN/m", "cm⁴"; where the model's do not make it up, SI base units.
NamedUnit unit_for(const Dimension& dimension, const ModelUnits& units);
// "1500 mm", "1.92 kN·m": a value in SI units, in the unit of its dimension, with so many significant digits (1 to 15).
std::string with_unit(double si, const Dimension& dimension, const ModelUnits& units, int digits = 6);

}  // namespace corvex

#pragma GCC visibility pop
