#include "time_limit.hpp"

#include <sys/time.h>
#include <unistd.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <csignal>
#include <cstddef>
#include <string_view>
#include <utility>

#include "output.hpp"

namespace corvex::cli {
namespace {

// Only what a signal handler may do.
void give_up(int) {
  constexpr std::string_view words =
      "corvex: error: this takes longer than --max-time allows (an hour if it is not given); nothing was written\n";
  const auto ignored = ::write(STDERR_FILENO, words.data(), words.size());
  static_cast<void>(ignored);
  _exit(refused);
}

}  // namespace

double seconds_of(const std::string& text) {
  double number = 0;
  const char* end = text.data() + text.size();
  const auto [rest, error] = std::from_chars(text.data(), end, number);
  std::string_view unit(rest, static_cast<std::size_t>(end - rest));
  while (unit.starts_with(' ')) unit.remove_prefix(1);
  static constexpr std::pair<std::string_view, double> units[] = {{"s", 1}, {"min", 60}, {"h", 3600}};
  const auto it = std::find_if(std::begin(units), std::end(units), [&](const auto& u) { return u.first == unit; });
  if (error != std::errc() || it == std::end(units) || !(number > 0 && number < 1e6)) return 0;
  return number * it->second;
}

void bound_time(double seconds) {
  std::signal(SIGALRM, give_up);
  itimerval timer{};
  timer.it_value.tv_sec = static_cast<time_t>(seconds);
  timer.it_value.tv_usec = static_cast<suseconds_t>((seconds - std::floor(seconds)) * 1e6);
  // A timer of nothing would never ring.
  if (timer.it_value.tv_sec == 0 && timer.it_value.tv_usec == 0) timer.it_value.tv_usec = 1;
  setitimer(ITIMER_REAL, &timer, nullptr);
}

}  // namespace corvex::cli
