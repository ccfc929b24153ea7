// Writes messages to standard output and standard error without waiting for their reader.
#pragma once

#include <memory>
#include <string>

namespace corvex::cli {

// A separate thread writes the texts in order. If nobody reads them (a full pipe, a stopped terminal), texts beyond the
// first hundred are dropped and their number is reported. The thread outlives this object if it cannot write, so that
// the end of the program does not wait for it.
class Announcer {
 public:
  Announcer();
  ~Announcer();
  Announcer(const Announcer&) = delete;
  Announcer& operator=(const Announcer&) = delete;

  void on_output(std::string text) const { add(1, std::move(text)); }
  void on_error(std::string text) const { add(2, std::move(text)); }

 private:
  struct Shared;
  void add(int descriptor, std::string text) const;

  std::shared_ptr<Shared> shared_;
};

}  // namespace corvex::cli
