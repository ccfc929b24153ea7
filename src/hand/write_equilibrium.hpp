// The forces of a statically determinate state, found one after another and written as steps.
#pragma once

#include "hand/free_bodies.hpp"

namespace corvex::hand {

// Adds the steps by which everything in the ledger becomes known: the whole structure, its rigid parts, pieces and
// joints, each by equations that leave one unknown; sections where joints do not suffice; equations that hold together
// where nothing else helps.
void write_equilibrium(Ledger& ledger, DerivationChapter& chapter);

}  // namespace corvex::hand
