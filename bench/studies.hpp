// Loops over one structure: what an engineer's script costs.
#pragma once

namespace bench {

void studies();

}  // namespace bench
