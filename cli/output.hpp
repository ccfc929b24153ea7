#pragma once

#include <string>

#include "corvex/problem.hpp"

namespace corvex::cli {

// To a file, whole or not at all (through a file beside it that is renamed); "" or "-" is standard output.
// An empty answer means success; else the reason.
std::string write(const std::string& path, const std::string& content);

// Tells why nothing was written, and answers with the exit status for that.
int refuse(const std::string& why);
int refuse(const Problems& problems);

}  // namespace corvex::cli
