// The parts of a profile's designation.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace corvex::section {

struct Designation {
  std::string series;           // upper case: "SHS"
  std::vector<double> numbers;  // 60 60 4, in `inches` or mm
  std::string tail;             // upper case, what follows the numbers: "A500", "SCH40"
  bool inches = false;
  bool fraction = false;  // a number was written as a fraction
};

// Numbers are decimals or fractions ("1/4", "1 1/2", "1-1/2"), between them x, X, × or *; nothing if it cannot be taken
// apart.
std::optional<Designation> take_apart(std::string_view text);

// A number as designations have it: 4, 12.5.
std::string plain(double value);

}  // namespace corvex::section
