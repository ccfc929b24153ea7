#include <fmt/format.h>

#include <cmath>

#include "corvex/model_units.hpp"
#include "corvex/number.hpp"

namespace corvex {
namespace {

NamedUnit raised(const NamedUnit& unit, int power) {
  static const char* powers[] = {"", "", "²", "³", "⁴", "⁵", "⁶", "⁷", "⁸"};
  if (power < 1 || power > 8) return {unit.text + "^" + std::to_string(power), std::pow(unit.si, power)};
  return {unit.text + powers[power], std::pow(unit.si, power)};
}

// Products with forces use metres, whatever the unit of length; in models in inches or feet that unit.
NamedUnit lever(const ModelUnits& u) {
  return u.length.text == "in" || u.length.text == "ft" ? u.length : NamedUnit{"m", 1};
}

}  // namespace

NamedUnit unit_for(const Dimension& d, const ModelUnits& u) {
  const auto& [length, mass, time, temperature, angle] = d.exponent;
  const bool whole = length == std::round(length);
  if (d.none()) return {"", 1};
  if (d == dimension::angle) return u.angle;
  if (d == dimension::length) return u.length;
  if (d == dimension::stress) return u.stress;
  if (d == dimension::mass) return u.mass;
  if (d == Dimension::of(0, 0, -1)) return {"Hz", 1};
  if (d == dimension::moment) return u.moment;
  if (d == dimension::line_force) return u.line;
  if (mass == 0 && time == 0 && temperature == 0 && angle == 0 && whole && length >= 2 && length <= 8)
    return raised(u.section, static_cast<int>(length));
  if (mass == 1 && time == -2 && temperature == 0 && angle == 0 && whole) {
    const int levers = static_cast<int>(length) - 1;
    if (levers == 0) return u.force;
    const NamedUnit l = raised(lever(u), std::abs(levers));
    return levers > 0 ? NamedUnit{u.force.text + "·" + l.text, u.force.si * l.si}
                      : NamedUnit{u.force.text + "/" + l.text, u.force.si / l.si};
  }
  // Flexibility: the reciprocal of a stiffness.
  if (mass == -1 && time == 2 && temperature == 0 && angle == 0 && whole) {
    const int levers = static_cast<int>(length) + 1;
    if (levers == 0) return {"1/" + u.force.text, 1 / u.force.si};
    const NamedUnit l = raised(u.length, std::abs(levers));
    return levers > 0 ? NamedUnit{l.text + "/" + u.force.text, l.si / u.force.si}
                      : NamedUnit{"1/(" + u.force.text + "·" + l.text + ")", 1 / (u.force.si * l.si)};
  }
  // Written so that it can be read again.
  static const char* base[] = {"m", "kg", "s", "K", "rad"};
  std::string text;
  const auto add = [&](std::size_t i, double e) {
    text += base[i];
    if (e != 1) text += e == std::round(e) ? fmt::format("^{}", static_cast<int>(e)) : fmt::format("^({})", e);
  };
  for (std::size_t i = 0; i < d.exponent.size(); ++i)
    if (d.exponent[i] > 0) text += text.empty() ? "" : "·", add(i, d.exponent[i]);
  if (text.empty()) text = "1";
  for (std::size_t i = 0; i < d.exponent.size(); ++i)
    if (d.exponent[i] < 0) text += "/", add(i, -d.exponent[i]);
  return {text, 1};
}

const ModelUnits& si_units() {
  static const ModelUnits units{.length = {"m", 1},
                                .force = {"N", 1},
                                .moment = {"N·m", 1},
                                .line = {"N/m", 1},
                                .stress = {"Pa", 1},
                                .deflection = {"m", 1},
                                .angle = {"rad", 1},
                                .mass = {"kg", 1},
                                .section = {"m", 1}};
  return units;
}

std::string with_unit(double si, const Dimension& dimension, const ModelUnits& units, int digits) {
  const NamedUnit unit = unit_for(dimension, units);
  return short_number(si / unit.si, digits) + (unit.text.empty() ? "" : " " + unit.text);
}

}  // namespace corvex
