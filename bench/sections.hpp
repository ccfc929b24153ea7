#pragma once

namespace bench {

// Prints what sections cost and how their errors shrink.
void sections();

}  // namespace bench
