#include "memory.hpp"

#include <sys/resource.h>
#include <unistd.h>

#include <algorithm>
#include <atomic>
#include <charconv>
#include <cstdio>
#include <cstdlib>
#include <exception>
#include <limits>
#include <new>
#include <string_view>
#include <utility>

#include "faults.hpp"
#include "output.hpp"

namespace corvex::cli {
namespace {

constexpr std::string_view fault = "corvex: error: a fault of the program, not of the model\n";

std::atomic<void*> reserve = nullptr;

// Called when an allocation fails. What unwinds after this may need a little memory itself.
void give_the_reserve_up() {
  // Of several threads that find no memory at the same time one gives it up.
  std::free(reserve.exchange(nullptr));
  std::set_new_handler(nullptr);
  throw std::bad_alloc();
}

// The last resort: a destructor that needs memory and gets none ends here.
[[noreturn]] void end_in_words() {
  std::string_view words = fault;
  try {
    if (const auto thrown = std::current_exception()) std::rethrow_exception(thrown);
  } catch (const std::bad_alloc&) {
    words = no_memory;
  } catch (...) {
  }
  const auto ignored = ::write(crash_descriptor, words.data(), words.size());
  static_cast<void>(ignored);
  _exit(refused);
}

[[maybe_unused]] std::uint64_t free_memory() {
  unsigned long long kilobytes = 0;
  if (std::FILE* info = std::fopen("/proc/meminfo", "re")) {
    char line[256];
    while (std::fgets(line, sizeof line, info))
      if (std::sscanf(line, "MemAvailable: %llu kB", &kilobytes) == 1) break;
    std::fclose(info);
  }
  return kilobytes << 10;
}

}  // namespace

std::uint64_t bytes_of(const std::string& text) {
  double number = 0;
  const char* end = text.data() + text.size();
  const auto [rest, error] = std::from_chars(text.data(), end, number);
  std::string_view unit(rest, static_cast<std::size_t>(end - rest));
  while (unit.starts_with(' ')) unit.remove_prefix(1);
  static constexpr std::pair<std::string_view, double> units[] = {{"GB", 1e9},      {"MB", 1e6},      {"kB", 1e3},
                                                                  {"GiB", 1 << 30}, {"MiB", 1 << 20}, {"KiB", 1 << 10}};
  const auto it = std::find_if(std::begin(units), std::end(units), [&](const auto& u) { return u.first == unit; });
  if (error != std::errc() || it == std::end(units) || !(number > 0 && number < 1e9)) return 0;
  return static_cast<std::uint64_t>(number * it->second);
}

// A sanitizer maps far more than it uses, so that there is nothing to bound.
#ifdef CORVEX_SANITIZED
void bound_memory(std::uint64_t) {}
#else
void bound_memory(std::uint64_t bytes) {
  if (bytes == 0) bytes = free_memory() / 4 * 3;
  if (bytes == 0) return;
  rlimit limit{};
  if (getrlimit(RLIMIT_DATA, &limit) != 0) return;
  limit.rlim_cur = std::min<rlim_t>({limit.rlim_cur, limit.rlim_max, bytes});
  setrlimit(RLIMIT_DATA, &limit);
}
#endif

void keep_a_reserve() {
  constexpr std::size_t size = 1 << 20;
  void* const room = std::malloc(size);
  // Touched, so that it is there when it is needed.
  if (room) std::fill_n(static_cast<char*>(room), size, '\1');
  reserve = room;
  std::set_new_handler(give_the_reserve_up);
  std::set_terminate(end_in_words);
}

}  // namespace corvex::cli
