#include "serve/stamp.hpp"

#include <fcntl.h>
#include <sys/stat.h>
#include <time.h>
#include <unistd.h>

#include <functional>
#include <string_view>

namespace corvex::serve {
namespace {

using namespace std::chrono_literals;

// Of a regular file that is not very large.
std::optional<std::uint64_t> content_of(const std::string& path) {
  constexpr off_t most = 16 << 20;
  const int file = ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NOCTTY | O_NONBLOCK);
  if (file < 0) return std::nullopt;
  struct stat s {};
  std::optional<std::uint64_t> content;
  if (::fstat(file, &s) == 0 && S_ISREG(s.st_mode) && s.st_size <= most) {
    std::string all(static_cast<std::size_t>(s.st_size), '\0');
    const ssize_t n = ::pread(file, all.data(), all.size(), 0);
    if (n >= 0) content = std::hash<std::string_view>()(std::string_view(all).substr(0, static_cast<std::size_t>(n)));
  }
  ::close(file);
  return content;
}

std::int64_t nanoseconds(const timespec& t) {
  return static_cast<std::int64_t>(t.tv_sec) * 1'000'000'000 + t.tv_nsec;
}

}  // namespace

Stamp stamp_of(const std::string& path) {
  struct stat s {};
  if (::stat(path.c_str(), &s) != 0) return {};
  return {true, static_cast<std::uint64_t>(s.st_dev), static_cast<std::uint64_t>(s.st_ino), s.st_mode,
          S_ISREG(s.st_mode) ? static_cast<std::int64_t>(s.st_size) : 0,
          // Others than files change by being used.
          S_ISREG(s.st_mode) ? nanoseconds(s.st_mtim) : 0, S_ISREG(s.st_mode) ? nanoseconds(s.st_ctim) : 0};
}

WatchedFile::WatchedFile(std::string path) : path_(std::move(path)), first_(stamp_of(path_)), last_(first_) {
  timespec now{};
  ::clock_gettime(CLOCK_REALTIME, &now);
  constexpr std::int64_t step = 50'000'000;
  recent_ = first_.exists && nanoseconds(now) - first_.changed < step;
  if (recent_) content_ = content_of(path_);
}

bool WatchedFile::has_changed() {
  // An editor may still be writing: it is waited for until two looks agree, but not for ever.
  constexpr auto patience = 500ms;
  const Stamp now = stamp_of(path_);
  const auto time = Clock::now();
  const bool settled = now == last_;
  last_ = now;
  if (now != first_) {
    if (!differs_since_) differs_since_ = time;
    return settled || time - *differs_since_ > patience;
  }
  differs_since_.reset();
  if (!recent_ || time - made_ < 100ms) return false;
  recent_ = false;
  return content_ && content_of(path_) != content_;
}

}  // namespace corvex::serve
