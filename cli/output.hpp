#pragma once

#include <string>

namespace corvex::cli {

// To a file, whole or not at all (through a file beside it that is renamed); "" or "-" is standard output.
// An empty answer means success; else the reason.
std::string write(const std::string& path, const std::string& content);

}  // namespace corvex::cli
