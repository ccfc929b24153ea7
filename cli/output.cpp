#include "output.hpp"

#include <cstdio>
#include <filesystem>
#include <fstream>

namespace corvex::cli {

std::string write(const std::string& path, const std::string& content) {
  if (path.empty() || path == "-") {
    const bool done =
        std::fwrite(content.data(), 1, content.size(), stdout) == content.size() && std::fflush(stdout) == 0;
    return done ? "" : "standard output cannot be written";
  }
  const std::string beside = path + ".part";
  {
    std::ofstream out(beside, std::ios::binary);
    out << content;
    out.flush();
    if (!out) {
      std::remove(beside.c_str());
      return "'" + path + "' cannot be written";
    }
  }
  std::error_code error;
  std::filesystem::rename(beside, path, error);
  if (!error) return {};
  std::remove(beside.c_str());
  return "'" + path + "' cannot be written: " + error.message();
}

}  // namespace corvex::cli
