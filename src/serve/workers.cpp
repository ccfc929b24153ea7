#include "serve/workers.hpp"

#include <condition_variable>
#include <deque>
#include <exception>
#include <mutex>
#include <system_error>
#include <thread>
#include <utility>

#include "corvex/stop.hpp"

namespace corvex::serve {

struct Workers::Shared {
  std::mutex mutex;
  std::condition_variable changed;
  std::deque<std::pair<std::stop_token, std::function<void()>>> tasks;
  bool ended = false;

  void work() {
    for (;;) {
      std::unique_lock lock(mutex);
      changed.wait(lock, [&] { return ended || !tasks.empty(); });
      if (ended) return;
      auto [stop, task] = std::move(tasks.front());
      tasks.pop_front();
      lock.unlock();
      const StopScope scope(stop);
      try {
        task();
      } catch (const std::exception&) {
        // Stopped, or no memory is left: nothing of it is kept.
      }
    }
  }
};

Workers::Workers(unsigned threads) : shared_(std::make_shared<Shared>()) {
  for (unsigned i = 0; i < threads; ++i) std::thread([shared = shared_] { shared->work(); }).detach();
}

Workers::~Workers() {
  const std::lock_guard lock(shared_->mutex);
  shared_->ended = true;
  shared_->tasks.clear();
  shared_->changed.notify_all();
}

void Workers::add(std::stop_token stop, std::function<void()> task) {
  const std::lock_guard lock(shared_->mutex);
  shared_->tasks.emplace_back(std::move(stop), std::move(task));
  shared_->changed.notify_one();
}

}  // namespace corvex::serve
