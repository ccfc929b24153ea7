// A motion of points, told in words.
#pragma once

#include <string>
#include <vector>

#include "corvex/structure.hpp"

namespace corvex::solver {

struct Motion {
  std::vector<Vector> move, turn;  // of each point
};

// "C, D and rail slide along x: nothing holds them"
std::string in_words(const Structure& structure, const Motion& motion);

// The members all of whose points move.
std::vector<std::string> whole_members(const Structure& structure, const std::vector<bool>& moving);

// "A", "A and B", "A, B and C", "A, B, C and 12 more"
std::string list(const std::vector<std::string>& names, std::size_t most = 6);

// "x", "y", "z" or "(0.6, 0.8)"
std::string direction(const Structure& structure, Vector v);

}  // namespace corvex::solver
