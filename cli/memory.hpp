// How much memory the program may take.
#pragma once

#include <cstdint>
#include <string>

namespace corvex::cli {

// "2 GB", "500 MB", "300 MiB"; 0 if it is none of these.
std::uint64_t bytes_of(const std::string& text);

// From here on allocations beyond so many bytes fail; 0 is three quarters of what the machine has free.
void bound_memory(std::uint64_t bytes);

// Keeps a reserve with which the program can report it, and tidy up, when memory has run out.
void keep_a_reserve();

}  // namespace corvex::cli
