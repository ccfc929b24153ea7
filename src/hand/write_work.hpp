// Sums of virtual work as lines: one integral a stretch, bending, shear and axial parts apart.
#pragma once

#include "hand/free_bodies.hpp"

namespace corvex::hand {

// Adds a line for each term and their sum under this name. `per_real`, `per_virtual`: what the two states are divided
// by. Of many bars with a force each, a table.
void write_work(const Skeleton& skeleton, const std::vector<WorkTerm>& terms, const Dimension& per_real,
                const Dimension& per_virtual, const std::string& name, DerivationChapter& chapter);
// The dimension of such a sum.
Dimension work_dimension(const Dimension& per_real, const Dimension& per_virtual);

}  // namespace corvex::hand
