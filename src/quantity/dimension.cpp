#include "corvex/dimension.hpp"

#include <fmt/format.h>

#include <cmath>
#include <utility>

namespace corvex {
namespace {

bool same(double a, double b) {
  return std::abs(a - b) < 1e-9;
}

std::string base_units_of(const Dimension& d) {
  static constexpr const char* symbol[] = {"m", "kg", "s", "K", "rad"};
  std::string above, below;
  for (std::size_t i = 0; i < 5; ++i) {
    const double e = d.exponent[i];
    if (same(e, 0)) continue;
    std::string& side = e > 0 ? above : below;
    if (!side.empty()) side += '*';
    side += symbol[i];
    if (!same(std::abs(e), 1)) side += fmt::format("^{}", std::abs(e));
  }
  if (above.empty()) above = "1";
  if (below.empty()) return above;
  return above + "/" + (below.find('*') == std::string::npos ? below : "(" + below + ")");
}

}  // namespace

std::string base_units(const Dimension& d) {
  return d.none() ? "" : base_units_of(d);
}

bool Dimension::plain() const {
  return compatible(*this, dimension::number);
}
bool Dimension::none() const {
  return *this == dimension::number;
}

Dimension operator*(const Dimension& a, const Dimension& b) {
  Dimension r;
  for (std::size_t i = 0; i < 5; ++i) r.exponent[i] = a.exponent[i] + b.exponent[i];
  return r;
}

Dimension operator/(const Dimension& a, const Dimension& b) {
  Dimension r;
  for (std::size_t i = 0; i < 5; ++i) r.exponent[i] = a.exponent[i] - b.exponent[i];
  return r;
}

Dimension power(const Dimension& a, double exponent) {
  Dimension r;
  for (std::size_t i = 0; i < 5; ++i) r.exponent[i] = a.exponent[i] * exponent;
  return r;
}

bool operator==(const Dimension& a, const Dimension& b) {
  for (std::size_t i = 0; i < 5; ++i)
    if (!same(a.exponent[i], b.exponent[i])) return false;
  return true;
}

bool compatible(const Dimension& a, const Dimension& b) {
  for (std::size_t i = 0; i < 4; ++i)
    if (!same(a.exponent[i], b.exponent[i])) return false;
  return true;
}

std::string name(const Dimension& d) {
  static const std::pair<Dimension, const char*> names[] = {
      {dimension::number, "a plain number"},
      {dimension::angle, "an angle"},
      {dimension::length, "a length"},
      {dimension::area, "an area"},
      {dimension::section_modulus, "a section modulus or volume"},
      {dimension::second_moment, "a second moment of area"},
      {dimension::mass, "a mass"},
      {dimension::density, "a density"},
      {dimension::acceleration, "an acceleration"},
      {dimension::force, "a force"},
      {dimension::moment, "a moment"},
      {dimension::line_force, "a force per length"},
      {dimension::stress, "a stress"},
      {dimension::temperature, "a temperature difference"},
      {dimension::expansion, "a coefficient of expansion (1/K)"},
      {dimension::mass * dimension::length, "a mass times a length"},
      {dimension::mass / dimension::length, "a mass per length"},
      {Dimension::of(0, 0, 1), "a time"},
      {Dimension::of(0, 0, -1), "a frequency"},
  };
  for (const auto& [known, text] : names)
    if (known == d) return text;
  for (const auto& [known, text] : names)
    if (compatible(known, d)) return text;
  return base_units_of(d);
}

}  // namespace corvex
