// Names and directions, as messages have them.
#pragma once

#include <string>
#include <vector>

#include "corvex/structure.hpp"

namespace corvex {

// "A", "A and B", "A, B and C", "A, B, C and 12 more"
std::string list(const std::vector<std::string>& names, std::size_t most = 6);

// A name in running text: in single quotes.
std::string quoted(const std::string& name);

// "x", "y", "z" or "(0.6, 0.8)"
std::string direction(const Structure& structure, Vector v);

// "1500 mm": in the print units of the structure.
inline std::string length_words(const Structure& structure, double si, int digits = 6) {
  return with_unit(si, dimension::length, structure.print_units(), digits);
}

}  // namespace corvex
