// A model file that is read and solved again whenever it or a table of it is saved, and its variants, solved when they
// are asked for. Nothing here waits: what takes long is done on threads of its own.
#pragma once

#include <functional>
#include <memory>
#include <stop_token>
#include <string>

#include "corvex/page_server.hpp"
#include "corvex/view.hpp"

namespace corvex::serve {

// A solved variant, with its data for the page.
struct Shown {
  Viewed viewed;
  std::string model{};     // model_data() as text
  std::stop_token stop{};  // of work on it: the model is another one, or the server ends
};

struct Answered {
  int version = 0;
  Problems problems{};  // of the file as it is now
  // The variant asked for; nothing before the first model that could be solved, or where `refused` says why not.
  std::shared_ptr<const Shown> shown{};
  Problems refused{};
};

class Followed {
 public:
  // `changed` is called from another thread after each reading.
  Followed(const ViewServer& options, std::function<void()> changed);
  // Asks what is under way to stop, and waits for it a short while. What does not come to its end by then goes on in
  // the background and is dropped.
  ~Followed();
  Followed(const Followed&) = delete;
  Followed& operator=(const Followed&) = delete;

  // Of the last reading; 0 before the first.
  int version() const;
  std::string title() const;
  // Calls `then` once: at once where the answer is known, else from another thread.
  void ask(const std::string& variant, std::function<void(Answered)> then);

 private:
  class Shared;
  std::shared_ptr<Shared> shared_;
};

}  // namespace corvex::serve
