#include "output.hpp"

#include <fmt/format.h>

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
  namespace fs = std::filesystem;
  const std::string failed = "'" + path + "' cannot be written";
  std::error_code error;
  // A device or a pipe is written to, never replaced; behind a link stands the file that is meant.
  const bool plain = !fs::exists(path, error) || fs::is_regular_file(path, error);
  const fs::path target = fs::is_symlink(path, error) ? fs::weakly_canonical(path, error) : fs::path(path);
  const fs::path first = plain ? fs::path(target.string() + ".part") : target;
  std::ofstream out(first, std::ios::binary);
  out << content;
  out.close();
  if (!out) {
    if (plain) fs::remove(first, error);
    return failed;
  }
  if (!plain) return {};
  fs::rename(first, target, error);
  if (!error) return {};
  const std::string why = error.message();
  fs::remove(first, error);
  return failed + ": " + why;
}

namespace {

constexpr int refused = 2;

}  // namespace

int refuse(const std::string& why) {
  fmt::print(stderr, "corvex: error: {}\n", why);
  return refused;
}

int refuse(const Problems& problems) {
  constexpr std::size_t most = 25;
  for (std::size_t i = 0; i < problems.size() && i < most; ++i) fmt::print(stderr, "{}\n", describe(problems[i]));
  if (problems.size() > most) fmt::print(stderr, "and {} more\n", problems.size() - most);
  return refused;
}

}  // namespace corvex::cli
