// Corvex: numbers as people write them.
//
//     fmt::print("{} {}\n", corvex::number(2777.83, 4), corvex::number(0.0027778, 3));   // 2778 0.00278
//     fmt::print("{} {}\n", corvex::number(2.5, 4), corvex::short_number(2.5, 4));   // 2.500 2.5
#pragma once

#include <string>

#include "corvex/quantity.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// `digits` significant digits, in powers of ten only where a person would write them: beyond a thousand millions and
// below a ten-thousandth. Zero is "0", what is no number "–".
std::string number(double value, int digits);
// The same without the zeros at its end, for places.
std::string short_number(double value, int digits);

// A quantity with its SI unit, for messages: "1920 N·m", "0.0025 m".
std::string to_text(const Quantity& quantity, int digits = 6);

}  // namespace corvex

#pragma GCC visibility pop
