// Arcs for the curves of a drawn outline.
#pragma once

#include "outline/outline.hpp"

namespace corvex::section {

// The region with every run of short chords that lie on a circle replaced by an arc of the same area, for harmonic
// functions, which then need fewer panels. Chords that turn by more than 0.06 rad, and runs of fewer than four, stay
// as they are.
Region with_arcs(const Region& region);

}  // namespace corvex::section
