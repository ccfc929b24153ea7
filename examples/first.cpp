// The smallest whole program: a leg with a push at its head. The README shows it.
#include <fmt/format.h>

#include <corvex/corvex.hpp>
using namespace corvex::literals;

int main() {
  corvex::Structure trestle = corvex::Structure::plane("conveyor trestle");
  const auto a = trestle.point("A", 0_m, 0_m);
  const auto b = trestle.point("B", 0_m, 0.9_m);
  const auto leg = trestle.section("leg", corvex::SquareTube{.width = 60_mm, .wall = 4_mm});
  trestle.member("left leg", {a, b}, {.section = leg, .material = "S235"});
  trestle.support(a, corvex::Support::fixed());
  trestle.load_case("push").at(b, corvex::Force{.x = 300_N, .y = -3.2_kN});

  const corvex::Solution solution = corvex::solve(trestle);
  const corvex::Diagram bending = solution["push"]["left leg"].moment_z();
  const corvex::Extreme most = bending.max();
  fmt::print("{:.1f} N·m at {:.2f} m\n", most.value.in(corvex::units::N_m), most.at.in(corvex::units::m));
}
