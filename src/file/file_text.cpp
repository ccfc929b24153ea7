#include "file/file_text.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>

#include <algorithm>
#include <system_error>

#include "file/descriptor.hpp"
#include "quantity/utf8.hpp"

namespace corvex::file {
Expected<std::string, Problem> text_of_file(const std::string& path, bool may_be_stream) {
  const bool standard_input = may_be_stream && path == "-";
  const std::string name = standard_input ? "standard input" : path;
  const auto refused = [&](std::string why) { return problem_at({name, 0, 0}, std::move(why)); };
  const auto cannot = [&](int error) {
    return refused(fmt::format("it cannot be read: {}", std::generic_category().message(error)));
  };
  // A pipe without a writer would be waited for before it could be refused.
  Descriptor file(standard_input
                      ? ::fcntl(0, F_DUPFD_CLOEXEC, 3)
                      : ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NOCTTY | (may_be_stream ? 0 : O_NONBLOCK)));
  if (!file && standard_input) return refused("it cannot be read: it is closed");
  if (!file) return errno == ENOENT ? refused("there is no such file") : cannot(errno);
  struct stat s {};
  if (::fstat(file.get(), &s) != 0) return cannot(errno);
  if (S_ISDIR(s.st_mode)) return refused("this is a folder; a file was expected");
  if (!may_be_stream && !S_ISREG(s.st_mode)) return refused("this is no regular file");
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
