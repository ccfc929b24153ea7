// Straight beams against closed forms (Roark's Formulas for Stress and Strain, ch. 8; Gere and Timoshenko,
// app. G).
#include <cmath>

#include "support/beam.hpp"
#include "support/near.hpp"

namespace tests_of_analysis_beams {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

namespace {

MemberResult only(const Solution& s) {
  REQUIRE(s.ok());
  return s[0][MemberId{0}];
}

}  // namespace

TEST_CASE("A cantilever with a force at its tip") {
  const bool shear = GENERATE(false, true);
  Beam beam(1.7_m, shear);
  beam.structure.support(beam.a, Support::fixed());
  const double P = 1400, L = beam.L;
  beam.loads().at(beam.b, Force{.y = -ForceSize::si(P)});
  const Solution s = beam.solved();
  const MemberResult m = only(s);
  const Displacement tip = s[0].displacement(beam.b);
  const double by_shear = shear ? P * L / beam.GA() : 0;
  CHECK(tip.y.si() == near(-(P * L * L * L / (3 * beam.EI()) + by_shear)));
  CHECK(tip.rz.si() == near(-P * L * L / (2 * beam.EI())));
  CHECK(m.moment_z().min().value.si() == near(-P * L));
  CHECK(m.moment_z().min().at.si() == 0);
  CHECK(m.moment_z().max().value.si() == near(0, P * L));
  CHECK(m.shear_y().max().value.si() == near(P));
  const Reaction r = s[0].reaction(beam.a);
  CHECK(r.x.si() == near(0, P));
  CHECK(r.y.si() == near(P));
  CHECK(r.mz.si() == near(P * L));
  for (const double x : {0.2, 0.9, 1.5}) {
    const double bent = P * x * x * (3 * L - x) / (6 * beam.EI()) + (shear ? P * x / beam.GA() : 0);
    CHECK(m.deflection_y().at(Length::si(x)).si() == near(-bent));
  }
}

TEST_CASE("A simple span under a uniform load") {
  const bool shear = GENERATE(false, true);
  Beam beam(2.6_m, shear);
  beam.structure.support(beam.a, Support::pinned());
  beam.structure.support(beam.b, Support::roller());
  const double q = 3200, L = beam.L;
  beam.loads().line(beam.member, LineForce{.y = -LineForceSize::si(q)});
  const Solution s = beam.solved();
  const MemberResult m = only(s);
  const Extreme most = m.moment_z().max();
  CHECK(most.value.si == near(q * L * L / 8));
  CHECK(most.at.si() == near(L / 2));
  CHECK(m.moment_z().min().value.si() == near(0, q * L * L));
  CHECK(m.moment_z().min().at.si() == 0);
  CHECK(m.shear_y().at(0_m).si() == near(q * L / 2));
  CHECK(m.shear_y().at(2.6_m).si() == near(-q * L / 2));
  const double sag = 5 * q * std::pow(L, 4) / (384 * beam.EI()) + (shear ? q * L * L / (8 * beam.GA()) : 0);
  CHECK(m.deflection_y().min().value.si() == near(-sag));
  CHECK(m.deflection_y().min().at.si() == near(L / 2));
  CHECK(m.sag().value.si == near(sag));
  CHECK(m.sag().at.si() == near(L / 2));
  CHECK(s[0].displacement("A").rz.si() == near(-q * L * L * L / (24 * beam.EI())));
  CHECK(s[0].displacement("B").rz.si() == near(q * L * L * L / (24 * beam.EI())));
}

TEST_CASE("A simple span under a load that grows from nothing") {
  Beam beam(3.1_m);
  beam.structure.support(beam.a, Support::pinned());
  beam.structure.support(beam.b, Support::roller());
  const double q = 4100, L = beam.L, EI = beam.EI();
  beam.loads().line(beam.member, LineForce{}, LineForce{.y = -LineForceSize::si(q)});
  const Solution s = beam.solved();
  const MemberResult m = only(s);
  CHECK(s[0].reaction("A").y.si() == near(q * L / 6));
  CHECK(s[0].reaction("B").y.si() == near(q * L / 3));
  CHECK(m.moment_z().max().value.si() == near(q * L * L / (9 * std::sqrt(3.0))));
  CHECK(m.moment_z().max().at.si() == near(L / std::sqrt(3.0)));
  const double x = L * std::sqrt(1 - std::sqrt(8.0 / 15));
  CHECK(m.deflection_y().min().at.si() == near(x));
  CHECK(m.deflection_y().min().value.si() ==
        near(-q * x / (360 * EI * L) * (7 * std::pow(L, 4) - 10 * L * L * x * x + 3 * std::pow(x, 4))));
}

TEST_CASE("A built-in beam with a force anywhere") {
  Beam beam(2.2_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.structure.support(beam.b, Support::fixed());
  const double a = GENERATE(0.3, 0.77, 1.1, 1.9);
  const double P = 2500, L = beam.L, b = L - a, EI = beam.EI();
  beam.loads().on(beam.member, Length::si(a), Force{.y = -ForceSize::si(P)});
  const Solution s = beam.solved();
  const MemberResult m = only(s);
  CHECK(s[0].reaction("A").y.si() == near(P * b * b * (3 * a + b) / (L * L * L)));
  CHECK(s[0].reaction("B").y.si() == near(P * a * a * (a + 3 * b) / (L * L * L)));
  CHECK(s[0].reaction("A").mz.si() == near(P * a * b * b / (L * L)));
  CHECK(s[0].reaction("B").mz.si() == near(-P * a * a * b / (L * L)));
  CHECK(m.moment_z().at(0_m).si() == near(-P * a * b * b / (L * L)));
  CHECK(m.moment_z().max().value.si() == near(2 * P * a * a * b * b / (L * L * L)));
  CHECK(m.moment_z().max().at.si() == near(a));
  CHECK(m.deflection_y().at(Length::si(a)).si() == near(-P * std::pow(a * b, 3) / (3 * EI * L * L * L)));
  // The deepest place lies in the longer part.
  const double c = std::max(a, b), d = std::min(a, b);
  CHECK(m.deflection_y().min().value.si() == near(-2 * P * std::pow(c, 3) * d * d / (3 * EI * std::pow(3 * c + d, 2))));
  const double from_long_end = 2 * c * L / (3 * c + d);
  CHECK(m.deflection_y().min().at.si() == near(a > b ? from_long_end : L - from_long_end));
}

TEST_CASE("A built-in beam with a moment anywhere") {
  Beam beam(2.2_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.structure.support(beam.b, Support::fixed());
  const double a = GENERATE(0.25, 1.1, 1.6);
  const double M = 900, L = beam.L, b = L - a;
  beam.loads().on(beam.member, Length::si(a), Moment{.z = MomentSize::si(M)});
  const Solution s = beam.solved();
  const MemberResult m = only(s);
  const double R = 6 * M * a * b / (L * L * L), MA = M * b * (2 * a - b) / (L * L);
  CHECK(s[0].reaction("A").y.si() == near(R));
  CHECK(s[0].reaction("B").y.si() == near(-R));
  CHECK(s[0].reaction("A").mz.si() == near(MA, M));
  CHECK(m.moment_z().at(0_m).si() == near(-MA, M));
  CHECK(m.moment_z().at(Length::si(a), Side::before).si() == near(-MA + R * a, M));
  CHECK(m.moment_z().at(Length::si(a), Side::after).si() == near(-MA + R * a - M, M));
  CHECK(m.moment_z().at(Length::si(L)).si() == near(-MA + R * L - M, M));
}

TEST_CASE("A force may stand at the very end of a member, or at a point in between") {
  Beam beam(2_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.loads().on(beam.member, 2_m, Force{.y = -1_kN});
  beam.structure.load_case("at the point").at(beam.b, Force{.y = -1_kN});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  CHECK(s["loads"].displacement("B").y.si() == near(s["at the point"].displacement("B").y));
  const Diagram shear = s["loads"]["beam"].shear_y();
  CHECK(shear.max().value.si == near(1000));
  CHECK(shear.min().value.si == near(1000));
  CHECK(shear.at(2_m).si == near(1000));
}

TEST_CASE("A propped cantilever") {
  Beam beam(2.4_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.structure.support(beam.b, Support::roller());
  const double q = 1800, L = beam.L;
  beam.loads().line(beam.member, LineForce{.y = -LineForceSize::si(q)});
  const Solution s = beam.solved();
  const MemberResult m = only(s);
  CHECK(s[0].reaction("A").y.si() == near(5 * q * L / 8));
  CHECK(s[0].reaction("B").y.si() == near(3 * q * L / 8));
  CHECK(s[0].reaction("A").mz.si() == near(q * L * L / 8));
  CHECK(m.moment_z().min().value.si() == near(-q * L * L / 8));
  CHECK(m.moment_z().max().value.si() == near(9 * q * L * L / 128));
  CHECK(m.moment_z().max().at.si() == near(5 * L / 8));
  // Deepest at (15 − √33)/16 of the length from the fixed end.
  CHECK(m.deflection_y().min().at.si() == near(L * (15 - std::sqrt(33.0)) / 16));
}

TEST_CASE("A propped cantilever that shears") {
  Beam beam(0.5_m, true);
  beam.structure.support(beam.a, Support::fixed());
  beam.structure.support(beam.b, Support::roller());
  const double q = 50e3, L = beam.L;
  beam.loads().line(beam.member, LineForce{.y = -LineForceSize::si(q)});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  // The released tip sinks by bending and shear; the reaction lifts it back by both.
  const double sink = q * std::pow(L, 4) / (8 * beam.EI()) + q * L * L / (2 * beam.GA());
  const double lift = L * L * L / (3 * beam.EI()) + L / beam.GA();
  CHECK(s[0].reaction("B").y.si() == near(sink / lift));
}

TEST_CASE("An overhang loaded along its outer half") {
  // Span L from A to B, overhang c beyond B, loaded from B + c/2 to the tip.
  const double L = 2, c = 0.8, q = 5000, w = q * c / 2;
  Structure structure = Structure::plane("overhang");
  structure.analysis().shear = false;
  const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 2_m, 0_m),
             t = structure.point("T", 2.8_m, 0_m);
  const Section bar = RectangularBar{.height = 60_mm, .width = 20_mm};
  const auto beam =
      structure.member("beam", {a, b, t}, {.section = structure.section("bar", bar), .material = material("S235")});
  structure.support(a, Support::pinned());
  structure.support(b, Support::roller());
  const LineForce down{.y = -LineForceSize::si(q)};
  structure.load_case("half").line(beam, down, down, 2.4_m, 2.8_m);
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  const double lever = 0.75 * c, EI = 210e9 * bar.properties().Iz.si();
  CHECK(s[0].reaction("A").y.si() == near(-w * lever / L));
  CHECK(s[0].reaction("B").y.si() == near(w * (1 + lever / L)));
  const MemberResult m = s[0]["beam"];
  CHECK(m.moment_z().min().value.si() == near(-w * lever));
  CHECK(m.moment_z().min().at.si() == near(L));
  CHECK(m.shear_y().at(2_m, Side::before).si() == near(-w * lever / L));
  CHECK(m.shear_y().at(2_m, Side::after).si() == near(w));
  CHECK(m.shear_y().at(2.4_m).si() == near(w));
  CHECK(m.shear_y().at(2.6_m).si() == near(w / 2));
  // Tip: the turn of B carries it, then the overhang bends as a cantilever loaded on its outer half.
  const double turn = w * lever * L / (3 * EI);
  const double bent =
      q * std::pow(c, 4) / (8 * EI) - (q * std::pow(c / 2, 4) / (8 * EI) + q * std::pow(c / 2, 3) / (6 * EI) * (c / 2));
  CHECK(s[0].displacement("T").y.si() == near(-(turn * c + bent)));
  // The span bulges up: most where the slope vanishes, at L/√3 from A.
  CHECK(m.deflection_y().max().at.si() == near(L / std::sqrt(3.0)));
  CHECK(m.deflection_y().max().value.si() == near(w * lever * L * L / (9 * std::sqrt(3.0) * EI)));
}

TEST_CASE("Own weight hangs on the mass of the section") {
  Beam beam(3_m);
  beam.structure.support(beam.a, Support::pinned());
  beam.structure.support(beam.b, Support::roller());
  beam.loads().gravity();
  beam.structure.load_case("sideways").gravity(Acceleration{.x = 2_m_s2});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const double weight = 7850 * beam.tube.properties().A.si() * 3 * 9.80665;
  CHECK(s["loads"].reaction("A").y.si() == near(weight / 2));
  CHECK(s["loads"]["beam"].moment_z().max().value.si() == near(weight * 3 / 8));
  CHECK(s["sideways"].reaction("A").x.si() == near(-weight / 9.80665 * 2));
  CHECK(s["sideways"]["beam"].axial().max().value.si() == near(weight / 9.80665 * 2));
  CHECK(s["sideways"].displacement("B").x.si() == near(weight / 9.80665 * 2 * 3 / (2 * beam.EA())));
}

TEST_CASE("A beam drawn from right to left keeps tension below positive") {
  Structure structure = Structure::plane("drawn backwards");
  const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 2_m, 0_m);
  const auto bar = structure.section("bar", RectangularBar{.height = 60_mm, .width = 20_mm});
  const auto beam = structure.member("beam", {b, a}, {.section = bar, .material = material("S235")});
  structure.support(a, Support::pinned());
  structure.support(b, Support::roller());
  structure.load_case("one").on(beam, 0.5_m, Force{.y = -4_kN});  // from B
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  CHECK(s[0].reaction("B").y.si() == near(3000));
  const MemberResult m = s[0]["beam"];
  CHECK(m.moment_z().max().value.si() == near(1500));
  CHECK(m.moment_z().max().at.si() == near(0.5));
  CHECK(m.shear_y().at(0_m).si() == near(3000));
  CHECK(m.deflection_y().min().value.si() < 0);
}

}  // namespace tests_of_analysis_beams
