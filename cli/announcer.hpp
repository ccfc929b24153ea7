// Tells things on standard output and standard error without waiting for whoever reads them.
#pragma once

#include <memory>
#include <string>

namespace corvex::cli {

// Texts are written in order by a thread of its own. Where nobody reads them (a full pipe, a terminal that was stopped)
// those beyond the first hundred are left out, and how many is told. The thread outlives this where it cannot write: a
// program that ends must not wait for it.
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
