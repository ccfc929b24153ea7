// How long the program may take.
#pragma once

#include <string>

namespace corvex::cli {

// Default time limit of a command.
inline constexpr double usual_seconds = 3600;

// "90 s", "10 min", "2 h", in seconds; 0 if it is none of these.
double seconds_of(const std::string& text);

// After so many seconds the program says that it took too long, and ends with status 2. What it writes by then is
// whole or not there.
void bound_time(double seconds);

}  // namespace corvex::cli
