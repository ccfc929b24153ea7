// A motion of points, told in words.
#pragma once

#include <string>
#include <vector>

#include "structure/words.hpp"

namespace corvex::solver {

struct Motion {
  std::vector<Vector> move, turn;  // of each point
};

// "C, D and rail slide along x: nothing restrains them"
std::string in_words(const Structure& structure, const Motion& motion);

// The points that move, or only turn where none moves.
std::vector<std::string> moving_points(const Structure& structure, const Motion& motion);

// The members all of whose points move.
std::vector<std::string> whole_members(const Structure& structure, const std::vector<bool>& moving);

}  // namespace corvex::solver
