// Corvex: files written whole or not at all.
//
//     const std::string why = corvex::write_file("/nowhere/results.json", "{}");
//     fmt::print("{}\n", why);   // '/nowhere/results.json' cannot be written: the folder does not exist
//
// Every file is first written in full as an unnamed temporary file in the folder of its target (a named one where the
// file system has no unnamed ones), and then replaces the target in one step: an interruption or a full disk leaves the
// old file as it was, and of two writers of one file one wins as a whole. The mode and the owner of the old file are
// kept. A symbolic link is followed to its target. A file with several names (hard links), or one in a folder that
// cannot be written to, is written in place after room for it was reserved. Devices and pipes are written to.
//
// Different writers may be used in different threads at once.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#pragma GCC visibility push(default)

namespace corvex {

class FileWriter {
 public:
  FileWriter();
  ~FileWriter();
  FileWriter(const FileWriter&) = delete;
  FileWriter& operator=(const FileWriter&) = delete;

  // Writes the bytes to a temporary file in the folder of the target. Empty if that was done, else the reason, with the
  // path.
  [[nodiscard]] std::string stage(const std::string& path, std::string_view bytes);
  // Puts all staged files in their places, in the order in which they were staged. Empty if that was done, else the
  // reason. What is not committed leaves nothing behind.
  [[nodiscard]] std::string commit();

 private:
  struct Staged;
  std::vector<std::unique_ptr<Staged>> staged_;
};

// One file, at once. Empty if that was done, else the reason, with the path.
[[nodiscard]] std::string write_file(const std::string& path, std::string_view bytes);

}  // namespace corvex

#pragma GCC visibility pop
