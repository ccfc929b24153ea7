// The same work for many things, on several threads.
#pragma once

#include <algorithm>
#include <atomic>
#include <exception>
#include <mutex>
#include <new>
#include <system_error>
#include <thread>
#include <vector>

#include "corvex/stop.hpp"

namespace corvex::study {

inline unsigned threads_for(unsigned wanted) {
  return wanted > 0 ? wanted : std::max(1u, std::thread::hardware_concurrency());
}

// Calls `work` with each number below `count`, each once, and with the number of the thread that it runs on. What one
// throws first is thrown when all have ended.
template <class Work>
void at_once(std::size_t count, unsigned threads, const Work& work) {
  threads = threads_for(threads);
  std::atomic<std::size_t> next{0};
  std::exception_ptr thrown;
  std::mutex mutex;
  const std::stop_token stop = StopScope::current();
  const auto run = [&](unsigned thread) {
    const StopScope scope(stop);
    for (std::size_t i = next++; i < count; i = next++) {
      try {
        stop_point();
        work(i, thread);
      } catch (...) {
        const std::lock_guard lock(mutex);
        if (!thrown) thrown = std::current_exception();
        next = count;
      }
    }
  };
  std::vector<std::thread> others;
  try {
    for (unsigned t = 1; t < threads && t < count; ++t) others.emplace_back(run, t);
  } catch (const std::system_error&) {
    // If no more threads can be started, the running ones do the work.
  } catch (const std::bad_alloc&) {
    // The same.
  }
  run(0);
  for (std::thread& t : others) t.join();
  if (thrown) std::rethrow_exception(thrown);
}

}  // namespace corvex::study
