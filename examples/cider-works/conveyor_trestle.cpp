// The trestle under the bottle conveyor, built by code and printed: the same structure as conveyor-trestle.yaml.
#include <fmt/format.h>

#include <corvex/corvex.hpp>

using namespace corvex::literals;
using namespace corvex::units;
using corvex::units::kN, corvex::units::kN_m, corvex::units::m, corvex::units::mm, corvex::units::MPa;

namespace {

struct Trestle {
  corvex::Structure structure = corvex::Structure::plane("Bottling line, conveyor trestle");
  corvex::PointId a, b, c, d, e;
};

Trestle build(corvex::Length span, corvex::ForceSize product) {
  Trestle t;
  corvex::Structure& s = t.structure;
  t.a = s.point("A", 0_m, 0_m);
  t.b = s.point("B", 0_m, 900_mm);
  t.c = s.point("C", span / 2, 900_mm);
  t.d = s.point("D", span, 900_mm);
  t.e = s.point("E", span, 0_m);

  corvex::Material steel = corvex::material("S235");
  steel.yield = 225_MPa;
  const auto leg = s.section("leg", corvex::SquareTube{.width = 60_mm, .wall = 4_mm});
  const auto tube = s.section("rail", corvex::RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm});
  s.member("left leg", {t.a, t.b}, {.section = leg, .material = steel});
  const auto rail = s.member("rail", {t.b, t.c, t.d}, {.section = tube, .material = steel});
  s.member("right leg", {t.e, t.d}, {.section = leg, .material = steel});
  s.support(t.a, corvex::Support::fixed());
  s.support(t.e, corvex::Support::fixed());

  s.load_case("product").at(t.c, corvex::Force{.y = -product}).line(rail, corvex::LineForce{.y = -0.8_kN_per_m});
  s.load_case("weight").gravity();
  return t;
}

}  // namespace

int main() {
  const Trestle trestle = build(2.4_m, 3.2_kN);
  const corvex::Solution solution = corvex::solve(trestle.structure);
  if (!solution.ok()) {
    for (const corvex::Problem& p : solution.problems()) fmt::print("{}\n", describe(p));
    return 1;
  }

  const corvex::CaseResult product = solution["product"];
  for (const auto& [name, point] : {std::pair{"A", trestle.a}, {"E", trestle.e}}) {
    const corvex::Reaction r = product.reaction(point);
    fmt::print("reaction at {}: {:7.3f} kN across, {:.3f} kN up, {:7.4f} kN·m\n", name, r.x.in(kN), r.y.in(kN),
               r.mz.in(kN_m));
  }
  for (const corvex::Member& member : trestle.structure.members()) {
    const corvex::MemberResult result = product[member.name];
    const corvex::Extreme most = result.moment_z().max(), least = result.moment_z().min();
    fmt::print("{:9}: M from {:7.4f} kN·m at {:.2f} m to {:.4f} kN·m at {:.2f} m, {:5.1f} MPa, safety {:.2f}\n",
               member.name, least.value.in(kN_m), least.at.in(m), most.value.in(kN_m), most.at.in(m),
               result.von_mises()->value.in(MPa), *result.safety());
  }
  fmt::print("C goes down by {:.3f} mm\n", -product.displacement(trestle.c).y.in(mm));

  // The hand calculation for comparison.
  const corvex::HandCalculation hand{
      .let = {{"P", 3.2_kN}, {"q", 0.8_kN_per_m}, {"L", "length(rail)"}},
      .expect = {{.figure = {.kind = corvex::Figure::Kind::reaction, .of = "A", .part = corvex::Part::y},
                  .is = "P/2 + q*L/2",
                  .load_case = "product",
                  .note = "symmetry"}}};
  const auto verified = corvex::verify(solution, hand);
  for (const corvex::Comparison& c : verified->comparisons)
    fmt::print("{} by hand: {} = {:.3f} kN, {}\n", c.what, c.formula.text, c.hand.in(kN),
               c.agrees ? "agrees" : "DIFFERS");
}
