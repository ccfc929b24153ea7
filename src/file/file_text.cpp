#include "file/file_text.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>

#include <algorithm>
#include <filesystem>
#include <iterator>
#include <optional>
#include <system_error>

#include "file/descriptor.hpp"
#include "quantity/utf8.hpp"

namespace corvex::file {
namespace {

namespace fs = std::filesystem;

// The content of an open file; `name` is used in errors.
Expected<std::string, Problem> text_of(const Descriptor& file, const std::string& name, bool may_be_stream) {
  const auto refused = [&](std::string why) { return problem_at({name, 0, 0}, std::move(why)); };
  const auto cannot = [&](int error) {
    return refused(fmt::format("it cannot be read: {}", std::generic_category().message(error)));
  };
  struct stat s {};
  if (::fstat(file.get(), &s) != 0) return cannot(errno);
  if (S_ISDIR(s.st_mode)) return refused("this is a folder; a file was expected");
  if (!may_be_stream && !S_ISREG(s.st_mode)) return refused("this is not a regular file");
  const auto too_large = [&] { return refused(fmt::format("the file is larger than {} MiB", largest_file >> 20)); };
  if (S_ISREG(s.st_mode) && static_cast<std::uintmax_t>(s.st_size) > largest_file) return too_large();
  std::string text;
  text.reserve(static_cast<std::size_t>(std::max<off_t>(s.st_size, 0)));
  char block[1 << 14];
  while (true) {
    const ssize_t n = ::read(file.get(), block, sizeof block);
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return cannot(errno);
    if (n == 0) return text;
    text.append(block, static_cast<std::size_t>(n));
    if (text.size() > largest_file) return too_large();
  }
}

// The path relative to a folder that contains it, both without links; nothing if it is outside.
std::optional<fs::path> way_below(const fs::path& folder, const fs::path& path) {
  const fs::path way = path.lexically_relative(folder);
  if (way.empty() || *way.begin() == "..") return std::nullopt;
  return way;
}

// Opens without following links, so that no checked part of the path can be replaced in between. Closed on failure.
Descriptor opened_below(const fs::path& folder, const fs::path& way) {
  Descriptor at(::open(folder.c_str(), O_PATH | O_DIRECTORY | O_CLOEXEC));
  for (auto part = way.begin(); at && part != way.end(); ++part) {
    const bool last = std::next(part) == way.end();
    const int how = last ? O_RDONLY | O_NONBLOCK | O_NOCTTY : O_PATH | O_DIRECTORY;
    at = Descriptor(::openat(at.get(), part->c_str(), how | O_NOFOLLOW | O_CLOEXEC));
  }
  return at;
}

}  // namespace

Expected<std::string, Problem> text_of_file(const std::string& path, bool may_be_stream) {
  const bool standard_input = may_be_stream && path == "-";
  const std::string name = standard_input ? "standard input" : path;
  // A pipe without a writer would be waited for before it could be refused.
  const Descriptor file(standard_input
                            ? ::fcntl(0, F_DUPFD_CLOEXEC, 3)
                            : ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NOCTTY | (may_be_stream ? 0 : O_NONBLOCK)));
  if (file) return text_of(file, name, may_be_stream);
  if (standard_input) return problem_at({name, 0, 0}, "it cannot be read: it is closed");
  return problem_at({name, 0, 0}, errno == ENOENT ? "the file does not exist"
                                                  : "it cannot be read: " + std::generic_category().message(errno));
}

Expected<std::string, Problem> text_of_file_below(const std::string& path, const std::vector<std::string>& folders,
                                                  const std::string& further) {
  const auto refused = [](std::string why) { return Problem{std::move(why)}; };
  std::error_code error;
  const fs::path whole = fs::absolute(path, error);
  const fs::path real = fs::weakly_canonical(whole, error);
  if (error) return refused("cannot be found: " + error.message());
  for (const std::string& given : folders) {
    const fs::path folder = fs::canonical(given, error);
    if (error) continue;
    const auto way = way_below(folder, real);
    if (!way) continue;
    const Descriptor file = opened_below(folder, *way);
    if (file) return text_of(file, path, false);
    if (errno == ENOENT) return problem_at({path, 0, 0}, "the file does not exist");
    if (errno == ELOOP || errno == ENOTDIR) return refused("cannot be read: it was replaced while it was opened");
    return refused("cannot be read: " + std::generic_category().message(errno));
  }
  return refused(
      "is outside the folder of the model; tables are read from this folder, from folders in it, and from those of " +
      further);
}

std::string table_path(const std::string& model_file, std::string_view table) {
  return (fs::path(model_file).parent_path() / std::string(table)).string();
}

Problem why_not_text(std::string_view text, const std::string& file) {
  int line = 1, column = 1;
  for (std::size_t i = 0; i < text.size();) {
    const std::size_t length = first_character(text.substr(i)).length;
    if (length == 0) return problem_at({file, line, column}, "the file is not UTF-8 text: save it as UTF-8");
    if (text[i] == '\0') return problem_at({file, line, column}, "the file is not text: it has a zero byte");
    i += length;
    ++column;
    if (text[i - 1] == '\n') ++line, column = 1;
  }
  return {};
}

}  // namespace corvex::file
