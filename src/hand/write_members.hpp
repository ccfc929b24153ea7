// Internal forces along members, stretch by stretch, as formulas in the running coordinate with their extremes.
#pragma once

#include "hand/free_bodies.hpp"

namespace corvex::hand {

// Of these members, all if empty.
void write_members(const Ledger& ledger, const std::vector<MemberId>& members, DerivationChapter& chapter);

}  // namespace corvex::hand
