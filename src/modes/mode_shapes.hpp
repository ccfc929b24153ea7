// Shapes of modes, and what they are in words.
#pragma once

#include "corvex/displacement.hpp"
#include "modes/eigen_modes.hpp"

namespace corvex::solver {

ModeShape shape_of(const Structure& structure, const Spans& spans, const FoundMode& found);

// Bending of a member in a mode: the largest distance from its chord along its local
// y and z axes.
struct Bow {
  double y = 0, z = 0;
};
Bow bow_of(const Structure& structure, std::size_t member, const ModeShape& shape);

// "sway of 'C' along x", "bending of 'post' about its y axis".
std::string described(const Structure& structure, const ModeShape& shape);

}  // namespace corvex::solver
