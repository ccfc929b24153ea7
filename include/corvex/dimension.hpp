// Corvex: the dimension of a physical quantity, known at run time.
//
// Five base dimensions: length, mass, time, temperature difference and angle. An angle is a dimension of its
// own (so that a moment and a rotational stiffness cannot be mistaken for each other in print), but rad
// cancels against a plain number when dimensions are compared: see `compatible`. Exponents are exact for the
// powers and roots that occur.
//
//     const corvex::Dimension d = corvex::dimension::force / corvex::dimension::area;
//     fmt::print("{}\n", name(d));   // a stress
#pragma once

#include <array>
#include <string>

#pragma GCC visibility push(default)

namespace corvex {

struct Dimension {
  // Exponents of metre, kilogram, second, kelvin, radian. Fractions occur (sqrt), hence double.
  std::array<double, 5> exponent{};

  static constexpr Dimension of(double length, double mass, double time, double temperature = 0, double angle = 0) {
    return {{length, mass, time, temperature, angle}};
  }
  // Dimensionless, or an angle: a value that is accepted where a plain number is expected.
  bool plain() const;
  // Not even an angle.
  bool none() const;
};

namespace dimension {
inline constexpr Dimension number = Dimension::of(0, 0, 0);
inline constexpr Dimension length = Dimension::of(1, 0, 0);
inline constexpr Dimension area = Dimension::of(2, 0, 0);
inline constexpr Dimension section_modulus = Dimension::of(3, 0, 0);
inline constexpr Dimension second_moment = Dimension::of(4, 0, 0);
inline constexpr Dimension mass = Dimension::of(0, 1, 0);
inline constexpr Dimension density = Dimension::of(-3, 1, 0);
inline constexpr Dimension acceleration = Dimension::of(1, 0, -2);
inline constexpr Dimension force = Dimension::of(1, 1, -2);
inline constexpr Dimension moment = Dimension::of(2, 1, -2);
inline constexpr Dimension line_force = Dimension::of(0, 1, -2);
inline constexpr Dimension stress = Dimension::of(-1, 1, -2);
inline constexpr Dimension temperature = Dimension::of(0, 0, 0, 1);
inline constexpr Dimension expansion = Dimension::of(0, 0, 0, -1);
inline constexpr Dimension angle = Dimension::of(0, 0, 0, 0, 1);
}  // namespace dimension

Dimension operator*(const Dimension& a, const Dimension& b);
Dimension operator/(const Dimension& a, const Dimension& b);
Dimension power(const Dimension& a, double exponent);
bool operator==(const Dimension& a, const Dimension& b);

// Equal but for angles: rad cancels against a plain number.
bool compatible(const Dimension& a, const Dimension& b);

// "kg*m/s^2"; empty for a plain number.
std::string base_units(const Dimension& d);

// The dimension in words: "a length", "a force per length"; otherwise its base units, for example "m^3/s".
std::string name(const Dimension& d);

}  // namespace corvex

#pragma GCC visibility pop
