#include "corvex/number.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <stdexcept>

namespace corvex {

namespace {

// The value in scientific notation, rounded once; ties are rounded away from zero.
std::string scientific(double value, int digits) {
  // fmt rounds ties to even. The next digits show whether this is one; 60 of them decide it for every double.
  const std::string more = fmt::format("{:.{}e}", value, digits + 3);
  const std::size_t dropped = more.find('e') - 4;
  if (more.compare(dropped, 4, "5000") == 0) {
    const std::string exact = fmt::format("{:.{}e}", value, 60);
    if (exact.find_first_not_of('0', dropped + 1) == exact.find('e')) value = std::nextafter(value, 2 * value);
  }
  return fmt::format("{:.{}e}", value, digits - 1);
}

}  // namespace

std::string number(double value, int digits) {
  if (digits < least_digits || digits > most_digits)
    throw std::invalid_argument(
        fmt::format("a number has {} to {} significant digits, not {}", least_digits, most_digits, digits));
  if (!std::isfinite(value)) return "–";
  if (value == 0) return "0";
  // A tie that round-off has lowered is still a tie: 1312.5 and 1312.499999999999 print alike. With more digits than
  // these, round-off shows by itself.
  constexpr int most_with_ties = 6;
  constexpr double round_off = 4e-13;
  if (digits <= most_with_ties && std::isfinite(value * (1 + round_off))) value *= 1 + round_off;
  const std::string rounded = scientific(value, digits);
  int exponent = 0;
  const char* power = rounded.data() + rounded.find('e') + 1;
  std::from_chars(*power == '+' ? power + 1 : power, rounded.data() + rounded.size(), exponent);
  if (exponent < -4 || exponent > 9) return rounded;
  // The digits alone, then the point at its place.
  std::string text = rounded.substr(0, rounded.find('e'));
  const std::string sign = text.front() == '-' ? "-" : "";
  std::erase_if(text, [](char c) { return c == '-' || c == '.'; });
  if (exponent >= digits - 1) return sign + text + std::string(static_cast<std::size_t>(exponent - digits + 1), '0');
  if (exponent < 0) return sign + "0." + std::string(static_cast<std::size_t>(-exponent - 1), '0') + text;
  return sign + text.insert(static_cast<std::size_t>(exponent + 1), ".");
}

std::string short_number(double value, int digits) {
  std::string text = number(value, digits);
  const std::size_t power = std::min(text.find('e'), text.size());
  if (text.find('.') >= power) return text;
  std::size_t end = text.find_last_not_of('0', power - 1);
  if (text[end] == '.') --end;
  return text.erase(end + 1, power - end - 1);
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
