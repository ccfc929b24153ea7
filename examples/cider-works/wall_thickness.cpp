// Which wall will do? One beam of the tank walkway, from thin to thick; the solver keeps what does not depend on the
// wall.
#include <fmt/format.h>

#include <corvex/corvex.hpp>

using namespace corvex::literals;
using namespace corvex::units;
using corvex::units::kg, corvex::units::mm, corvex::units::MPa;

namespace {

constexpr corvex::Length span = 3_m, overhang = 1_m;

corvex::Structure walkway(corvex::Length wall) {
  corvex::Structure s = corvex::Structure::plane("tank walkway");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", span, 0_m), c = s.point("C", span + overhang, 0_m);
  const auto tube = s.section("tube", corvex::RectangularTube{.height = 100_mm, .width = 50_mm, .wall = wall});
  const auto beam = s.member("walkway", {a, b, c}, {.section = tube, .material = corvex::material("S235")});
  s.support(a, corvex::Support::pinned());
  s.support(b, corvex::Support::roller());
  s.load_case("people and weight").line(beam, corvex::LineForce{.y = -2.5_kN_per_m}).gravity();
  return s;
}

}  // namespace

int main() {
  corvex::Solver solver;
  fmt::print("wall  mass   sag     stress     safety\n");
  for (const double wall : {2.0, 3.0, 4.0, 5.0, 6.0, 8.0}) {
    const corvex::Structure structure = walkway(wall * mm);
    const corvex::Solution solution = solver.solve(structure);
    const corvex::MemberResult beam = solution[0]["walkway"];
    const bool keeps = *beam.safety() >= 1.5 && beam.sag().value.in(mm) <= (span / 300).in(mm);
    fmt::print("{:.1f}  {:5.1f}  {:5.2f} mm  {:5.1f} MPa  {:.2f}{}\n", wall, structure.mass()->in(kg),
               beam.sag().value.in(mm), beam.von_mises()->value.in(MPa), *beam.safety(), keeps ? "  will do" : "");
  }
}
