// Detects that a file was saved or replaced, also by another file, a link or a pipe.
#pragma once

#include <chrono>
#include <cstdint>
#include <optional>
#include <string>

namespace corvex::serve {

struct Stamp {
  bool exists = false;
  std::uint64_t device = 0, file = 0;
  std::uint32_t mode = 0;
  std::int64_t size = -1, modified = 0, changed = 0;  // times in nanoseconds

  bool operator==(const Stamp&) const = default;
};
// Never blocks, whatever kind of file the path leads to.
Stamp stamp_of(const std::string& path);

// A file that is looked at again and again. It must be made before the file is read.
class WatchedFile {
 public:
  explicit WatchedFile(std::string path);

  const std::string& path() const { return path_; }
  // Whether the file is another one than at first, and is not being written to just now.
  bool has_changed();

 private:
  using Clock = std::chrono::steady_clock;

  std::string path_;
  Stamp first_, last_;
  Clock::time_point made_ = Clock::now();
  std::optional<Clock::time_point> differs_since_{};
  // Times of files advance in steps of some milliseconds: one that was written just before may be written again without
  // a new stamp. It is compared once more by its content.
  std::optional<std::uint64_t> content_{};
  bool recent_ = false;
};

}  // namespace corvex::serve
