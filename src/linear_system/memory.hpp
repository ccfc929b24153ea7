// Memory that this process may use.
#pragma once

namespace corvex::solver {

// In bytes: all of the machine's, or what the system allows the process; infinite where that is not known.
double memory_limit();

}  // namespace corvex::solver
