// What happens where the machine ends a program: no memory, no stack.
#pragma once

#include <functional>
#include <string_view>

namespace corvex::cli {

inline constexpr std::string_view no_memory = "corvex: error: there is not enough memory for this\n";

// Libraries of others abort, or use what they did not get, where memory runs out: then the program says that there is
// not enough memory, and ends with status 2. A fault with memory left is told as one of the program, and ends it by its
// signal.
void tell_faults();

// Runs this with a stack that is large enough, whatever the stack limit of the shell: on this thread where it allows
// that, else on one of its own. The status it returns; 2, told, where there is no room for the stack.
int with_enough_stack(const std::function<int()>& run);

}  // namespace corvex::cli
