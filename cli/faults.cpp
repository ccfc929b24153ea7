#include "faults.hpp"

#include <fcntl.h>
#include <pthread.h>
#include <sys/mman.h>
#include <sys/resource.h>
#include <unistd.h>

#include <csignal>
#include <cstddef>
#include <cstdint>
#include <string_view>

#include "output.hpp"

namespace corvex::cli {
namespace {

constexpr std::size_t enough_stack = 8 << 20;

void put_words(std::string_view words) {
  const auto ignored = ::write(crash_descriptor, words.data(), words.size());
  static_cast<void>(ignored);
}

// Whether the largest block that a library usually asks for, the stack of a thread, can still be allocated.
bool memory_is_left() {
  void* const room = ::mmap(nullptr, enough_stack, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
  if (room == MAP_FAILED) return false;
  ::munmap(room, enough_stack);
  return true;
}

// The stack of the main thread, as far as it may grow.
std::uintptr_t stack_begin = 0, stack_size = 0;

bool is_end_of_stack(const siginfo_t* info) {
  // Pages in use cannot fault: only growth beyond the limit can.
  const auto at = reinterpret_cast<std::uintptr_t>(info->si_addr);
  constexpr std::uintptr_t beyond = 1 << 20;
  return stack_size > 0 && at < stack_begin && at + beyond + stack_size > stack_begin;
}

// Only what a signal handler may do.
[[maybe_unused]] void report_fault(int signal, siginfo_t* info, void*) {
  if (!memory_is_left() || (signal == SIGSEGV && is_end_of_stack(info))) {
    put_words(no_memory);
    _exit(refused);
  }
  put_words("corvex: error: a fault of the program, not of the model\n");
  // The handler is reset (SA_RESETHAND): the signal, delivered when this returns, ends the program.
  raise(signal);
}

struct Task {
  const std::function<int()>* run;
  int status = refused;
};
void* on_thread(void* given) {
  auto* task = static_cast<Task*>(given);
  task->status = (*task->run)();
  return nullptr;
}

}  // namespace

// Sanitizers report faults themselves.
#ifdef CORVEX_SANITIZED
void report_faults() {}
#else
void report_faults() {
  static std::byte stack[1 << 16];
  stack_t own{};
  own.ss_sp = stack, own.ss_size = sizeof stack;
  sigaltstack(&own, nullptr);
  rlimit limit{};
  if (getrlimit(RLIMIT_STACK, &limit) == 0 && limit.rlim_cur != RLIM_INFINITY) stack_size = limit.rlim_cur;
  stack_begin = reinterpret_cast<std::uintptr_t>(__builtin_frame_address(0));
  struct sigaction action {};
  action.sa_sigaction = report_fault;
  action.sa_flags = SA_SIGINFO | SA_ONSTACK | SA_RESETHAND;
  for (const int signal : {SIGSEGV, SIGBUS, SIGABRT, SIGTRAP, SIGILL, SIGFPE}) sigaction(signal, &action, nullptr);
}
#endif

int with_enough_stack(const std::function<int()>& run) {
  rlimit limit{};
  const bool bounded = getrlimit(RLIMIT_STACK, &limit) == 0 && limit.rlim_cur != RLIM_INFINITY;
  // Threads of other libraries get a fixed stack instead of one as large as the limit of the shell.
  constexpr std::size_t for_others = 2 << 20;
  pthread_attr_t usual;
  pthread_attr_init(&usual);
  pthread_attr_setstacksize(&usual, for_others);
  pthread_setattr_default_np(&usual);
  pthread_attr_destroy(&usual);
  if (!bounded || limit.rlim_cur >= enough_stack) return run();
  Task task{&run};
  pthread_attr_t attributes;
  pthread_attr_init(&attributes);
  pthread_attr_setstacksize(&attributes, enough_stack);
  pthread_t thread;
  const bool begun = pthread_create(&thread, &attributes, on_thread, &task) == 0;
  pthread_attr_destroy(&attributes);
  if (!begun) {
    put_words(no_memory);
    return refused;
  }
  pthread_join(thread, nullptr);
  return task.status;
}

}  // namespace corvex::cli
