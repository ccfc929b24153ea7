#include "corvex/number.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>

namespace corvex {

std::string number(double value, int digits) {
  if (!std::isfinite(value)) return "–";
  if (value == 0) return "0";
  // A tie that rounding has moved by its last digits is a tie still: 1312.5 and 1312.499999999999 print alike.
  constexpr double rounding = 4e-13;
  value *= 1 + rounding;
  // The exponent after rounding: 9.9996 has one digit more than it seems.
  const std::string rounded = fmt::format("{:.{}e}", value, digits - 1);
  int exponent = 0;
  const char* sign = rounded.data() + rounded.find('e') + 1;
  std::from_chars(*sign == '+' ? sign + 1 : sign, rounded.data() + rounded.size(), exponent);
  if (exponent < -4 || exponent > 9) return rounded;
  if (exponent >= digits) {
    const double unit = std::pow(10.0, exponent - digits + 1);
    return fmt::format("{:.0f}", std::round(value / unit) * unit);
  }
  return fmt::format("{:.{}f}", value, digits - 1 - exponent);
}

std::string short_number(double value, int digits) {
  std::string text = number(value, digits);
  if (text.find('.') == std::string::npos || text.find('e') != std::string::npos) return text;
  text.erase(text.find_last_not_of('0') + 1);
  if (text.back() == '.') text.pop_back();
  return text;
}

std::string to_text(const Quantity& q, int digits) {
  std::string unit;
  const Dimension& d = q.dimension;
  static const std::pair<Dimension, const char*> usual[] = {{dimension::force, "N"},
                                                            {dimension::moment, "N·m"},
                                                            {dimension::line_force, "N/m"},
                                                            {dimension::stress, "Pa"},
                                                            {dimension::density, "kg/m³"},
                                                            {dimension::area, "m²"},
                                                            {dimension::section_modulus, "m³"},
                                                            {dimension::second_moment, "m⁴"},
                                                            {dimension::acceleration, "m/s²"},
                                                            {dimension::number, ""}};
  const auto known = std::find_if(std::begin(usual), std::end(usual), [&](const auto& u) { return u.first == d; });
  unit = known != std::end(usual) ? known->second : base_units(d);
  return short_number(q.si, digits) + (unit.empty() ? "" : " " + unit);
}

}  // namespace corvex
