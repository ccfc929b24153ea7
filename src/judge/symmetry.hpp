// An unsymmetric answer where a symmetric one would be expected.
#pragma once

#include "corvex/solution.hpp"

namespace corvex::judging {

// A note for the first case in which a structure that is its own mirror image, under loads that are too, does not move
// so upwards and downwards; with what differs between its halves.
Problems unsymmetric_answers(const Solution& solution);

}  // namespace corvex::judging
