// Corvex: numbers as text.
//
//     fmt::print("{} {}\n", corvex::number(2777.83, 4), corvex::number(0.0027778, 3));   // 2778 0.00278
//     fmt::print("{} {}\n", corvex::number(2.5, 4), corvex::short_number(2.5, 4));   // 2.500 2.5
#pragma once

#include <string>

#include "corvex/quantity.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// How many significant digits a number may have; more or fewer throw std::invalid_argument.
inline constexpr int least_digits = 1, most_digits = 15;

// `value` with that many significant digits, 1 to 15; in scientific notation from 1e10 on and below 1e-4. It is rounded
// once, to the nearest, ties away from zero. Up to 6 digits a value that is below a tie by 4e-13 of itself or less
// counts as the tie, so that round-off does not show. Zero is "0"; infinities and NaN are "–".
std::string number(double value, int digits);
// The same without trailing zeros behind the point, for places.
std::string short_number(double value, int digits);

// A quantity with its SI unit, for messages: "1920 N·m", "0.0025 m".
std::string to_text(const Quantity& quantity, int digits = 6);

}  // namespace corvex

#pragma GCC visibility pop
