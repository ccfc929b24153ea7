// Threads that work off tasks one after the other.
#pragma once

#include <functional>
#include <memory>
#include <stop_token>

namespace corvex::serve {

// The threads outlive this where a task does not come to its end: they keep what they need, and end after it.
class Workers {
 public:
  explicit Workers(unsigned threads);
  ~Workers();
  Workers(const Workers&) = delete;
  Workers& operator=(const Workers&) = delete;

  // Work of a task stops (corvex/stop.hpp) when the token says so; a task that is thrown out of is over.
  void add(std::stop_token stop, std::function<void()> task);

 private:
  struct Shared;
  std::shared_ptr<Shared> shared_;
};

}  // namespace corvex::serve
