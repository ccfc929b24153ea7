// A file that is being written: gone when this is, or when the program is interrupted. One at a time.
#pragma once

#include <string>

namespace corvex::cli {

class Unfinished {
 public:
  explicit Unfinished(std::string path);
  ~Unfinished();
  Unfinished(const Unfinished&) = delete;
  Unfinished& operator=(const Unfinished&) = delete;

  const std::string& path() const { return path_; }

 private:
  std::string path_;
};

// From here on Ctrl-C, a closed terminal and a polite kill end the program as ever, and take unfinished files along.
void tidy_up_when_interrupted();

}  // namespace corvex::cli
