// Names and directions, as messages have them.
#pragma once

#include <string>
#include <vector>

#include "corvex/structure.hpp"

namespace corvex {

// "A", "A and B", "A, B and C", "A, B, C and 12 more"
std::string list(const std::vector<std::string>& names, std::size_t most = 6);

// "x", "y", "z" or "(0.6, 0.8)"
std::string direction(const Structure& structure, Vector v);

}  // namespace corvex
