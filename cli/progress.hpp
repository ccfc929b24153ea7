// The current operation and its duration: on standard error where that is a terminal, once the work has taken a second.
#pragma once

#include <chrono>
#include <condition_variable>
#include <mutex>
#include <string>
#include <thread>

namespace corvex::cli {

class Progress {
 public:
  Progress();
  ~Progress();
  Progress(const Progress&) = delete;
  Progress& operator=(const Progress&) = delete;

  // "solving 15000 members"
  void doing(std::string what);
  // Nothing more is shown, and the line is empty again: before anything else is written there.
  void done();

 private:
  void show();

  std::chrono::steady_clock::time_point start_ = std::chrono::steady_clock::now();
  std::mutex mutex_;
  std::condition_variable changed_;
  std::string what_;
  bool done_ = false;
  std::thread shower_;
};

}  // namespace corvex::cli
