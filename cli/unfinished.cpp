#include "unfinished.hpp"

#include <unistd.h>

#include <atomic>
#include <csignal>
#include <utility>

namespace corvex::cli {
namespace {

// A handler may read no more than this: the name of the file, or nothing.
std::atomic<const char*> unfinished{nullptr};

extern "C" void interrupted(int signal) {
  if (const char* path = unfinished.load()) unlink(path);
  std::signal(signal, SIG_DFL);
  std::raise(signal);
}

}  // namespace

Unfinished::Unfinished(std::string path) : path_(std::move(path)) {
  unfinished = path_.c_str();
}

Unfinished::~Unfinished() {
  unfinished = nullptr;
  // Where it was renamed there is nothing to remove.
  unlink(path_.c_str());
}

void tidy_up_when_interrupted() {
  for (const int signal : {SIGINT, SIGTERM, SIGHUP})
    if (std::signal(signal, interrupted) == SIG_IGN) std::signal(signal, SIG_IGN);
}

}  // namespace corvex::cli
