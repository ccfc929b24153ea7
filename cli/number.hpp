// Numbers as people write them.
#pragma once

#include <string>

namespace corvex::cli {

// Below this share of its largest neighbour a figure is rounding noise, and is shown as 0.
inline constexpr double noise = 1e-9;

// `digits` significant digits, never in powers of ten where a person would not write them: "2.560", "0.002778",
// "-12350". Zero is "0".
std::string number(double value, int digits);
// The same without the zeros at its end, for places: "900", "1.2".
std::string short_number(double value, int digits);

// Columns that a terminal needs to show the text.
std::size_t width(const std::string& text);

}  // namespace corvex::cli
