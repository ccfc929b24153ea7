#include "modes.hpp"

#include <fmt/format.h>

#include <chrono>
#include <corvex/modes.hpp>

#include "models.hpp"

namespace bench {
namespace {

using namespace corvex;

double milliseconds(int times, const auto& work) {
  double least = 1e300;
  for (int i = 0; i < times; ++i) {
    const auto start = std::chrono::steady_clock::now();
    work();
    least =
        std::min(least, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
  }
  return least;
}

void row(const char* name, Structure s, int times) {
  const std::string load_case = s.load_cases().front().name();
  const double first = milliseconds(times, [&] { (void)solve(s); });
  const double ten = milliseconds(times, [&] { (void)corvex::modes(s, {.vibration = 10}); });
  const double buckling = milliseconds(times, [&] { (void)corvex::modes(s, {.buckling = {{load_case, 3}}}); });
  s.analysis().order = Order::second;
  const bool stands = solve(s).ok();
  const double second = milliseconds(times, [&] { (void)solve(s); });
  fmt::print("| {} | {} | {:.1f} ms | {:.1f} ms | {:.1f} ms | {} |\n", name, s.members().size(), first, ten, buckling,
             stands ? fmt::format("{:.1f} ms", second) : std::string("buckles"));
}

}  // namespace

void modes() {
  fmt::print(
      "\n## Modes and second order\n\nThe solution at first order of one case, ten natural frequencies, three load factors of the case "
      "with its solution, and the solution at second order.\n\n| model | members | first order | ten frequencies | three load "
      "factors | second order |\n|---|--:|--:|--:|--:|--:|\n");
  row("flat frame, 5 bays of 5 storeys", flat_frame(5, 5, 1), 5);
  row("flat frame, 20 bays of 20 storeys", flat_frame(20, 20, 1), 3);
  row("lattice, 8 x 8 x 8 points", lattice(8, 1), 1);
  row("lattice, 17 x 17 x 17 points", lattice(17, 1), 1);
}

}  // namespace bench
