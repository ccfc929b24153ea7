// Shortage of memory and of stack, reported instead of a crash.
#pragma once

#include <atomic>
#include <functional>
#include <string_view>

namespace corvex::cli {

// Where a crash is reported: standard error, or a copy of it while that is redirected.
inline std::atomic<int> crash_descriptor{2};

inline constexpr std::string_view no_memory = "corvex: error: there is not enough memory for this\n";

// Installs handlers for the signals of a crash. Some libraries abort, or use a null pointer, when memory runs out: then
// the program reports that there is not enough memory and ends with status 2. A crash with memory left is reported as a
// fault of the program and ends it by its signal.
void report_faults();

// Runs a function with a stack of at least 8 MB, whatever the limit of the shell: on this thread if the limit allows
// it, else on a new one. Returns the status of the function, or 2 with a message if the stack cannot be allocated.
int with_enough_stack(const std::function<int()>& run);

}  // namespace corvex::cli
