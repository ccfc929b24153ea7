#include "progress.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <cstdio>
#include <utility>

#include "output.hpp"

namespace corvex::cli {

Progress::Progress() {
  if (isatty(STDERR_FILENO)) shower_ = std::thread([this] { show(); });
}

Progress::~Progress() {
  done();
}

void Progress::doing(std::string what) {
  const std::lock_guard lock(mutex_);
  what_ = std::move(what);
}

void Progress::done() {
  {
    const std::lock_guard lock(mutex_);
    done_ = true;
  }
  changed_.notify_all();
  if (shower_.joinable()) shower_.join();
}

void Progress::show() {
  using namespace std::chrono_literals;
  std::unique_lock lock(mutex_);
  const auto ended = [this] { return done_; };
  if (changed_.wait_for(lock, 1s, ended)) return;
  do {
    const std::chrono::duration<double> since = std::chrono::steady_clock::now() - start_;
    say("\r\033[Kcorvex: {}, {:.0f} s", what_, since.count());
    std::fflush(stderr);
  } while (!changed_.wait_for(lock, 200ms, ended));
  say("\r\033[K");
  std::fflush(stderr);
}

}  // namespace corvex::cli
