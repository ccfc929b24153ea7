// Formulas as they are set in a book: fractions, powers, roots.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace corvex::reporting {

struct Math {
  enum class Kind {
    number,    // "3.2"
    unit,      // "kN/m"
    name,      // "P"; with a part, its index: Iz of rail
    sign,      // "+", "=", "·"
    row,       // parts side by side
    fraction,  // parts: above, below
    power,     // parts: base, exponent
    root,      // part: the radicand
    brackets,  // parts side by side in brackets
  };
  Kind kind = Kind::row;
  std::string text{};
  std::vector<Math> parts{};
};

// A formula of the model file, which has been evaluated before.
Math typeset(std::string_view formula);
// left = middle = right
Math equation(std::vector<Math> sides);

std::string mathml(const Math& math);

}  // namespace corvex::reporting
