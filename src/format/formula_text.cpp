// Formulas of hand values and lines of derivations with their numbers put in.
#include "corvex/formula_text.hpp"

#include <cmath>

#include "corvex/number.hpp"

namespace corvex {
namespace {

// "12 kN", "1.2e-05 /K": a reciprocal unit divides its number, so that the text can be read again.
std::string value_with_unit(double si, const NamedUnit& unit, int digits) {
  const std::string value = short_number(si / unit.si, digits);
  if (unit.text.empty()) return value;
  return value + " " + (unit.text.front() == '1' ? unit.text.substr(1) : unit.text);
}

NamedUnit unit_of(const Quantity& q, const ModelUnits& units) {
  constexpr double small = 0.01;  // m
  if (q.dimension == dimension::length && std::abs(q.si) < small && q.si != 0) return units.deflection;
  return unit_for(q.dimension, units);
}

}  // namespace

std::string numbers_put_in(const WorkedFormula& formula, const ModelUnits& units, int digits) {
  return with_numbers(formula,
                      [&](const Quantity& q) { return value_with_unit(q.si, unit_for(q.dimension, units), digits); });
}

std::string derived_value(const Quantity& q, const ModelUnits& units, int digits) {
  const NamedUnit unit = unit_of(q, units);
  return value_with_unit(q.si, unit, digits);
}

std::string derived_text(const WorkedFormula& line, const ModelUnits& units, int digits) {
  return with_numbers(line, [&](const Quantity& q) { return derived_value(q, units, digits); });
}

}  // namespace corvex
