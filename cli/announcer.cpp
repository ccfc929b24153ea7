#include "announcer.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <condition_variable>
#include <deque>
#include <mutex>
#include <string_view>
#include <thread>
#include <utility>

namespace corvex::cli {

struct Announcer::Shared {
  std::mutex mutex;
  std::condition_variable changed, written;
  std::deque<std::pair<int, std::string>> texts;
  std::size_t left_out = 0;
  bool ended = false, busy = false;

  static void write_all(int descriptor, std::string_view text) {
    while (!text.empty()) {
      const ssize_t n = ::write(descriptor, text.data(), text.size());
      if (n < 0 && errno == EINTR) continue;
      // A closed stream has no reader: the text is dropped.
      if (n <= 0) return;
      text.remove_prefix(static_cast<std::size_t>(n));
    }
  }

  void work() {
    std::unique_lock lock(mutex);
    for (;;) {
      changed.wait(lock, [&] { return ended || !texts.empty(); });
      if (texts.empty()) return;
      auto [descriptor, text] = std::move(texts.front());
      texts.pop_front();
      if (texts.empty() && left_out > 0) {
        text += fmt::format("corvex: {} messages were left out, since nobody read them\n", left_out);
        left_out = 0;
      }
      busy = true;
      lock.unlock();
      write_all(descriptor, text);
      lock.lock();
      busy = false;
      written.notify_all();
    }
  }
};

Announcer::Announcer() : shared_(std::make_shared<Shared>()) {
  std::thread([shared = shared_] { shared->work(); }).detach();
}

Announcer::~Announcer() {
  std::unique_lock lock(shared_->mutex);
  shared_->ended = true;
  shared_->changed.notify_all();
  constexpr std::chrono::milliseconds patience(200);
  shared_->written.wait_for(lock, patience, [&] { return shared_->texts.empty() && !shared_->busy; });
}

void Announcer::add(int descriptor, std::string text) const {
  constexpr std::size_t most = 100;
  const std::lock_guard lock(shared_->mutex);
  if (shared_->texts.size() >= most) {
    ++shared_->left_out;
    return;
  }
  shared_->texts.emplace_back(descriptor, std::move(text));
  shared_->changed.notify_one();
}

}  // namespace corvex::cli
