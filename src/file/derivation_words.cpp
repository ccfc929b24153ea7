// Lines of a derivation with their numbers put in.
#include <fmt/format.h>

#include <cmath>

#include "corvex/file.hpp"
#include "corvex/number.hpp"

namespace corvex {
namespace {

NamedUnit unit_of(const Quantity& q, const ModelUnits& units) {
  constexpr double small = 0.01;  // m
  if (q.dimension == dimension::length && std::abs(q.si) < small && q.si != 0) return units.deflection;
  return unit_for(q.dimension, units);
}

}  // namespace

std::string derived_value(const Quantity& q, const ModelUnits& units, int digits) {
  const NamedUnit unit = unit_of(q, units);
  const std::string value = short_number(q.si / unit.si, digits);
  // What only divides ("1/K") follows its number as it is.
  if (unit.text.empty()) return value;
  return fmt::format("{} {}", value, unit.text.front() == '1' ? unit.text.substr(1) : unit.text);
}

std::string derived_text(const WorkedFormula& line, const ModelUnits& units, int digits) {
  return with_numbers(line, [&](const Quantity& q) { return derived_value(q, units, digits); });
}

}  // namespace corvex
