// Corvex: the version of the library that these headers belong to.
//
//     fmt::print("{}\n", corvex::version() == CORVEX_VERSION);   // true
//
// `version()` is that of the library which the program runs with.
#pragma once

#if __cplusplus < 202002L
#error "Corvex needs C++20: compile with -std=c++20 or later"
#endif

#include <string_view>

#define CORVEX_VERSION_MAJOR 0
#define CORVEX_VERSION_MINOR 1
#define CORVEX_VERSION_PATCH 0
#define CORVEX_VERSION "0.1.0"

#pragma GCC visibility push(default)

namespace corvex {

std::string_view version() noexcept;

}  // namespace corvex

#pragma GCC visibility pop
