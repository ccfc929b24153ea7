#include "child.hpp"

#include <malloc.h>
#include <sys/wait.h>
#include <unistd.h>

#include <fstream>
#include <stdexcept>
#include <string>

namespace bench {
namespace {

double peak_megabytes() {
  std::ifstream in("/proc/self/status");
  for (std::string line; std::getline(in, line);)
    if (line.rfind("VmHWM:", 0) == 0) return std::stod(line.substr(6)) / 1024;
  return 0;
}

}  // namespace

void forget_peak() {
  malloc_trim(0);
  std::ofstream("/proc/self/clear_refs") << "5";
}

Measured in_child(const std::function<void(Measured&)>& work) {
  int pipe_ends[2];
  if (pipe(pipe_ends) != 0) throw std::runtime_error("no pipe");
  const pid_t child = fork();
  if (child == 0) {
    Measured m;
    work(m);
    m.peak = peak_megabytes();
    const bool written = write(pipe_ends[1], &m, sizeof m) == sizeof m;
    _exit(written ? 0 : 1);
  }
  Measured m;
  close(pipe_ends[1]);
  const bool read_all = read(pipe_ends[0], &m, sizeof m) == sizeof m;
  close(pipe_ends[0]);
  int status = 0;
  waitpid(child, &status, 0);
  if (!read_all || status != 0) throw std::runtime_error("a measurement failed");
  return m;
}

}  // namespace bench
