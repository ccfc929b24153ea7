// Natural frequencies, load factors and second order beside the solution of first order.
#pragma once

namespace bench {

void modes();

}  // namespace bench
