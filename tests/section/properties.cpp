// What a cross-section is worth, against closed forms, textbook coefficients and limits.
#include <cmath>
#include <corvex/section.hpp>
#include <corvex/solution.hpp>
#include <numbers>

#include "support/near.hpp"

namespace tests_of_section_properties {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;
using std::numbers::pi;

TEST_CASE("A square tube") {
  const auto p = Section(SquareTube{.width = 60_mm, .wall = 4_mm}).properties();
  CHECK(p.A.in(mm2) == near(60 * 60 - 52 * 52));
  CHECK(p.Iz.in(mm4) == near((std::pow(60, 4) - std::pow(52, 4)) / 12));
  CHECK(p.Iy.in(mm4) == near(p.Iz.in(mm4)));
  CHECK(p.Wz.in(mm3) == near((std::pow(60, 4) - std::pow(52, 4)) / 12 / 30));
  // Bredt on the middle line of 56 mm with the wall's own part is 1.3 % more than what stiff corners make of it.
  CHECK(p.J.in(mm4) == Approx(std::pow(56, 3) * 4 + 4 * 56 * std::pow(4, 3) / 3.0).epsilon(0.03));
}

TEST_CASE("A rectangular tube") {
  const auto p = Section(RectangularTube{.height = 120_mm, .width = 60_mm, .wall = 5_mm}).properties();
  CHECK(p.A.in(mm2) == near(120 * 60 - 110 * 50));
  CHECK(p.Iz.in(mm4) == near((60 * std::pow(120, 3) - 50 * std::pow(110, 3)) / 12));
  CHECK(p.Iy.in(mm4) == near((120 * std::pow(60, 3) - 110 * std::pow(50, 3)) / 12));
  CHECK(p.Wz.in(mm3) == near(p.Iz.in(mm4) / 60));
  CHECK(p.Wy.in(mm3) == near(p.Iy.in(mm4) / 30));
  const double Am = 115 * 55, u = 2 * (115 + 55);
  CHECK(p.J.in(mm4) == Approx(4 * Am * Am * 5 / u + u * 125 / 3.0).epsilon(0.03));
}

TEST_CASE("In a thin wall Bredt's flow is all there is, and shear flows along the middle line") {
  // Square of side a: J = a³ t; the energy of the flow round the wall makes As = 5/12 A (Cowper's 20/48 without
  // Poisson).
  const double a = 0.1, t = GENERATE(1e-4, 4e-4);
  const auto p = Section(SquareTube{.width = Length::si(a + t), .wall = Length::si(t)}).properties();
  CHECK(p.J.si() == Approx(a * a * a * t).epsilon(t / a));
  CHECK(p.Ay / p.A == Approx(5.0 / 12).epsilon(3 * t / a));
  CHECK(p.Az / p.A == near(p.Ay / p.A));
}

TEST_CASE("Round tubes from thin to solid") {
  const double D = 0.1;
  const double t = GENERATE(0.0005, 0.004, 0.02, 0.045);
  const auto p = Section(RoundTube{.diameter = Length::si(D), .wall = Length::si(t)}).properties();
  const double d = D - 2 * t;
  CHECK(p.A.si() == near(pi / 4 * (D * D - d * d)));
  CHECK(p.Iz.si() == near(pi / 64 * (std::pow(D, 4) - std::pow(d, 4))));
  CHECK(p.J.si() == near(pi / 32 * (std::pow(D, 4) - std::pow(d, 4))));
  // A ring, by the flow along its middle line, tends to 1/2 A when it is thin; the exact solution of a bar, to which
  // the bore leads when it closes, is 6/7 A.
  if (t == 0.0005) CHECK(p.Ay / p.A == Approx(0.5).epsilon(1e-3));
  CHECK(p.Ay / p.A > 0.5);
  CHECK(p.Ay / p.A < 6.0 / 7);
  CHECK(p.Ay == p.Az);
  // Drawn as an outline of 240 corners it is the same, less what the corners cut off.
  Outline drawn;
  drawn.holes.emplace_back();
  for (int i = 0; i < 120; ++i) {
    const double angle = 2 * pi * i / 120;
    drawn.points.push_back({Length::si(D / 2 * std::cos(angle)), Length::si(D / 2 * std::sin(angle))});
    drawn.holes[0].push_back({Length::si(d / 2 * std::cos(angle)), Length::si(d / 2 * std::sin(angle))});
  }
  const auto q = Section(drawn).properties();
  CHECK(q.J.si() == Approx(p.J.si()).epsilon(3e-3));
  CHECK(q.Ay / q.A == Approx(p.Ay / p.A).epsilon(0.015));
}

TEST_CASE("A round bar") {
  const auto p = Section(RoundBar{.diameter = 30_mm}).properties();
  CHECK(p.A.in(mm2) == near(pi * 225));
  CHECK(p.Iy.in(mm4) == near(pi * std::pow(15, 4) / 4));
  CHECK(p.J.in(mm4) == near(pi * std::pow(15, 4) / 2));
  CHECK(p.Ay / p.A == near(6.0 / 7));
}

TEST_CASE("A rectangular bar, with torsion after Saint-Venant") {
  // J = β a b³ and τ = T/(α a b²): Timoshenko and Goodier, art. 109, table of coefficients.
  const auto [ratio, alpha, beta] = GENERATE(table<double, double, double>({{1, 0.208, 0.1406},
                                                                            {1.2, 0.219, 0.166},
                                                                            {1.5, 0.231, 0.196},
                                                                            {2, 0.246, 0.229},
                                                                            {3, 0.267, 0.263},
                                                                            {5, 0.291, 0.291},
                                                                            {10, 0.312, 0.312},
                                                                            {1e4, 0.33331, 0.33331}}));
  const double b = 0.01, a = ratio * b;
  const bool upright = GENERATE(true, false);
  const Section bar =
      upright ? RectangularBar{Length::si(a), Length::si(b)} : RectangularBar{Length::si(b), Length::si(a)};
  const auto p = bar.properties();
  CHECK(p.A.si() == near(a * b));
  CHECK((upright ? p.Iz : p.Iy).si() == near(b * a * a * a / 12));
  CHECK((upright ? p.Iy : p.Iz).si() == near(a * b * b * b / 12));
  CHECK(p.Ay / p.A == near(5.0 / 6));
  CHECK(p.J.si() / (a * b * b * b) == Approx(beta).margin(6e-4));
  double peak = 0;
  for (const StressPoint& s : bar.stress_map().points) peak = std::max(peak, std::abs(s.t));
  CHECK(1 / (peak * a * b * b) == Approx(alpha).margin(6e-4));
}

TEST_CASE("The square's torsion constant to ten digits") {
  // 0.140577014955153 a⁴: the series of the square summed independently.
  double sum = 0;
  for (int n = 1; n < 60; n += 2) sum += std::tanh(n * pi / 2) / std::pow(n, 5);
  // The tail beyond n = 60, where tanh is 1: Σ over odd n of n⁻⁵ less what was summed.
  for (int n = 61; n < 20001; n += 2) sum += std::pow(n, -5.0);
  const double expected = (1 - 192 / std::pow(pi, 5) * sum) / 3;
  CHECK(Section(RectangularBar{1_m, 1_m}).properties().J.si() == Approx(expected).epsilon(1e-12));
  CHECK(expected == Approx(0.1405770).epsilon(1e-6));
}

TEST_CASE("Figures from a table are taken as they are") {
  const Section given =
      GivenProperties{.A = Area::si(1e-3), .Iz = SecondMoment::si(2e-6), .Wz = SectionModulus::si(3e-5)};
  CHECK(given.properties().A.si() == 1e-3);
  CHECK(given.properties().Iz.si() == 2e-6);
  CHECK(given.properties().Ay.si() == 0);
  CHECK(given.stress_map().kind == StressMap::Kind::moduli);
  CHECK(Section(GivenProperties{.A = Area::si(1e-3)}).stress_map().kind == StressMap::Kind::unknown);
}

TEST_CASE("A shape that cannot exist says which dimension is wrong") {
  const auto fault = [](const Shape& s) {
    const auto faults = check(s);
    REQUIRE(faults.size() >= 1);
    return faults[0].dimension;
  };
  CHECK(fault(SquareTube{.width = 60_mm, .wall = 30_mm}) == "wall");
  CHECK(fault(SquareTube{.width = 60_mm}) == "wall");
  CHECK(fault(RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 20_mm}) == "wall");
  CHECK(fault(RectangularTube{.width = 40_mm, .wall = 4_mm}) == "height");
  CHECK(fault(RoundTube{.diameter = -1_mm, .wall = 4_mm}) == "diameter");
  CHECK(fault(RoundBar{}) == "diameter");
  CHECK(fault(RectangularBar{.height = 4_mm}) == "width");
  CHECK(fault(GivenProperties{}) == "A");
  CHECK(fault(GivenProperties{.A = Area::si(1), .Iz = SecondMoment::si(-1)}) == "Iz");
  CHECK(Section(SquareTube{.width = 60_mm, .wall = 30_mm}).properties().A.si() == 0);
  CHECK(check(SquareTube{.width = 60_mm, .wall = 4_mm}).empty());
}

TEST_CASE("A plane structure bends the same to the last digit before and after all of its section is known") {
  // Dimensions that no other test uses, so that nothing is remembered of these shapes.
  const Shape shapes[] = {SquareTube{.width = 61.37_mm, .wall = 3.11_mm},
                          SquareTube{.width = 61.37_mm, .wall = 3.11_mm, .corner = 5.7_mm},
                          RectangularTube{.height = 93.1_mm, .width = 41.3_mm, .wall = 2.9_mm, .corner = 4.4_mm},
                          IProfile{.height = 183_mm, .width = 91_mm, .web = 5.3_mm, .flange = 8_mm, .root = 9_mm},
                          AngleProfile{.height = 83_mm, .width = 51_mm, .wall = 7_mm, .root = 6_mm, .toe = 3_mm},
                          Tee{.height = 71_mm, .width = 63_mm, .web = 7_mm, .flange = 8_mm, .root = 7_mm}};
  for (const Shape& shape : shapes) {
    INFO(name(shape));
    const auto deflection = [&] {
      Structure s = Structure::plane("cantilever");
      const PointId a = s.point("a", 0_m, 0_m), b = s.point("b", 0.3_m, 0_m);
      s.member("m", {a, b}, {.section = s.section("s", shape), .material = "S235"});
      s.support(a, Support::fixed());
      s.load_case("tip").at(b, Force{.y = -1_kN});
      return solve(s)[0].displacement("b").y.si();
    };
    const double before = deflection();
    CHECK(Section(shape).properties().Wt.si() > 0);
    CHECK(deflection() == before);
  }
}

}  // namespace tests_of_section_properties
