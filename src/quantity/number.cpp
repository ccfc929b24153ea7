#include "corvex/number.hpp"

#include <fmt/format.h>

#include <cmath>

namespace corvex {

std::string number(double value, int digits) {
  if (!std::isfinite(value)) return "–";
  if (value == 0) return "0";
  // The exponent after rounding: 9.9996 has one digit more than it seems.
  const std::string rounded = fmt::format("{:.{}e}", value, digits - 1);
  const int exponent = std::stoi(rounded.substr(rounded.find('e') + 1));
  if (exponent < -6 || exponent > 9) return rounded;
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

}  // namespace corvex
