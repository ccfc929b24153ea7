// Heat, lack of fit and settlement: forces that come from within.
#include <cmath>

#include "support/beam.hpp"
#include "support/near.hpp"

namespace tests_of_beam_strains {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

namespace {

const double alpha = material("S235").expansion.si();

}  // namespace

TEST_CASE("A heated bar between walls") {
  const MemberKind kind = GENERATE(MemberKind::beam, MemberKind::link);
  Structure s = Structure::plane("bar between walls");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 1_m);
  const Section bar = RoundBar{.diameter = 30_mm};
  const auto member =
      s.member("bar", {a, b}, {.section = s.section("bar", bar), .material = material("S235"), .kind = kind});
  s.support(a, Support::fixed());
  s.support(b, Support::fixed());
  s.load_case("heat").heat(member, 60_K);
  const Solution r = solve(s);
  REQUIRE(r.ok());
  const double N = -210e9 * bar.area().si() * alpha * 60;
  CHECK(r[0]["bar"].axial().min().value.si() == near(N));
  CHECK(r[0]["bar"].axial().max().value.si() == near(N));
  CHECK(r[0]["bar"].min_stress()->value.si() == near(-210e9 * alpha * 60));
  CHECK(r[0].reaction(a).x.si() == near(-N * 2 / std::sqrt(5)));
  CHECK(r[0].reaction(a).y.si() == near(-N / std::sqrt(5)));
  CHECK(r[0].displacement(b).x.si() == 0);
}

TEST_CASE("A heated bar that is free grows and bears nothing") {
  Beam beam(3_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.loads().heat(beam.member, Temperature::si(-40));
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  CHECK(r[0].displacement(beam.b).x.si() == near(-40 * alpha * 3));
  CHECK(std::abs(r[0]["beam"].axial().max().value.si()) < 1e-9 * beam.EA() * 40 * alpha);
  CHECK(r[0]["beam"].deflection_x().at(1.5_m).si() == near(-40 * alpha * 1.5));
}

TEST_CASE("Heat across a built-in beam") {
  Beam beam(4_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.structure.support(beam.b, Support::fixed());
  beam.loads().temperature_gradient_y(beam.member, 40_K, 10_K);
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  const double M = beam.EI() * alpha * 30 / 0.1, N = -beam.EA() * alpha * 25;
  CHECK(r[0]["beam"].moment_z().min().value.si() == near(M));
  CHECK(r[0]["beam"].moment_z().max().value.si() == near(M));
  CHECK(r[0]["beam"].axial().max().value.si() == near(N));
  CHECK(r[0]["beam"].shear_y().max().value.si() == near(0, M));
  CHECK(r[0]["beam"].sag().value.si == near(0, 0.01));
  CHECK(r[0].reaction(beam.a).mz.si() == near(-M));
}

TEST_CASE("Heat across a simple beam bends it toward the warm side, without forces") {
  const bool shear = GENERATE(true, false);
  Beam beam(4_m, shear);
  beam.structure.support(beam.a, Support::pinned());
  beam.structure.support(beam.b, Support::roller());
  beam.loads().temperature_gradient_y(beam.member, 20_K, 0_K);
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  CHECK(r[0]["beam"].deflection_y().max().value.si() == near(alpha * 20 / 0.1 * 16 / 8));
  CHECK(r[0]["beam"].deflection_y().max().at.si() == near(2.0));
  CHECK(r[0].displacement(beam.a).rz.si() == near(alpha * 20 / 0.1 * 4 / 2));
  CHECK(std::abs(r[0]["beam"].moment_z().max().value.si()) < 1e-9 * beam.EI() * alpha * 200);
}

TEST_CASE("The heat of the centroid makes the length: not the mean of both sides where the section is uneven") {
  Structure s = Structure::plane("tee");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
  const Section tee = Tee{.height = 100_mm, .width = 80_mm, .web = 8_mm, .flange = 10_mm};
  const auto member = s.member("tee", {a, b}, {.section = s.section("tee", tee), .material = material("S235")});
  s.support(a, Support::fixed());
  s.load_case("heat").temperature_gradient_y(member, 50_K, 0_K);
  const Solution r = solve(s);
  REQUIRE(r.ok());
  // The centroid from the bottom: by hand.
  const double A = 80 * 10 + 90 * 8, below = (800.0 * 95 + 720 * 45) / A;
  CHECK(r[0].displacement(b).x.si() == near(alpha * 50 * below / 100 * 2));
  CHECK(r[0].displacement(b).y.si() == near(alpha * 50 / 0.1 * 4 / 2 * -1));
}

TEST_CASE("Heat across both directions of a rolled member in space") {
  // Rolled by a right angle, local y points along −y of the structure and local z up.
  Structure s = Structure::space("rolled");
  const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 2_m, 0_m, 0_m);
  const Section bar = RectangularBar{.height = 80_mm, .width = 30_mm};
  const auto member =
      s.member("bar", {a, b}, {.section = s.section("bar", bar), .material = material("S235"), .roll = 90_deg});
  s.support(a, Support::fixed());
  s.load_case("y").temperature_gradient_y(member, 10_K, -10_K);
  s.load_case("z").temperature_gradient_z(member, 10_K, -10_K);
  const Solution r = solve(s);
  REQUIRE(r.ok());
  const Axes axes = local_axes(s, s[member]);
  // The tip moves away from the warm side.
  const double by_y = alpha * 20 / 0.08 * 4 / 2, by_z = alpha * 20 / 0.03 * 4 / 2;
  const Displacement y = r["y"].displacement(b), z = r["z"].displacement(b);
  CHECK(dot(axes.y, {y.x.si(), y.y.si(), y.z.si()}) == near(-by_y));
  CHECK(dot(axes.z, {z.x.si(), z.y.si(), z.z.si()}) == near(-by_z));
  CHECK(std::abs(axes.z.z) == near(1.0));
  CHECK(dot(axes.z, {y.x.si(), y.y.si(), y.z.si()}) == near(0, by_y));
}

TEST_CASE("A bar made too short among three") {
  // Three bars of one section hang from a ceiling and meet in D: the middle one, of length L, is too short by δ.
  const double L = 1.5, angle = 0.6, d = 0.002, c = std::cos(angle);
  Structure s = Structure::plane("three bars");
  const auto left = s.point("A", Length::si(-L * std::tan(angle)), Length::si(L)),
             top = s.point("B", 0_m, Length::si(L)),
             right = s.point("C", Length::si(L * std::tan(angle)), Length::si(L)), low = s.point("D", 0_m, 0_m);
  const Section bar = RoundBar{.diameter = 20_mm};
  const MemberOptions o{.section = s.section("bar", bar), .material = material("S235"), .kind = MemberKind::link};
  s.member("left", {left, low}, o);
  const auto middle = s.member("middle", {top, low}, o);
  s.member("right", {right, low}, o);
  for (const PointId p : {left, top, right}) s.support(p, Support::pinned());
  s.load_case("fit").shorten(middle, Length::si(d));
  const Solution r = solve(s);
  REQUIRE(r.ok());
  const double EA = 210e9 * bar.area().si(), N = EA * d / L * 2 * c * c * c / (1 + 2 * c * c * c);
  CHECK(r[0]["middle"].axial().max().value.si() == near(N));
  CHECK(r[0]["left"].axial().max().value.si() == near(-N / (2 * c)));
  CHECK(r[0]["right"].axial().min().value.si() == near(-N / (2 * c)));
  CHECK(r[0].displacement(low).y.si() == near(d - N * L / EA));
  CHECK(r[0].balance().error < 1e-12);
}

TEST_CASE("A middle support of two spans settles") {
  Structure s = Structure::plane("two spans");
  s.analysis().shear = false;
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 3_m, 0_m), c = s.point("C", 6_m, 0_m);
  const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  s.member("beam", {a, b, c}, {.section = s.section("tube", tube), .material = material("S235")});
  s.support(a, Support::pinned());
  s.support(b, Support::roller());
  s.support(c, Support::roller());
  s.load_case("settled").settle(b, {.y = Length::si(-0.008)});
  const Solution r = solve(s);
  REQUIRE(r.ok());
  const double EI = 210e9 * tube.properties().Iz.si();
  CHECK(r[0].displacement(b).y.si() == -0.008);
  CHECK(r[0].reaction(b).y.si() == near(-6 * EI * 0.008 / 27));
  CHECK(r[0].reaction(a).y.si() == near(3 * EI * 0.008 / 27));
  CHECK(r[0]["beam"].moment_z().max().value.si() == near(3 * EI * 0.008 / 9));
  CHECK(r[0]["beam"].moment_z().max().at.si() == near(3.0));
}

TEST_CASE("A built-in end that turns") {
  Beam beam(2_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.structure.support(beam.b, Support::fixed());
  beam.loads().settle(beam.a, {.rz = Angle::si(0.004)});
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  CHECK(r[0].reaction(beam.a).mz.si() == near(4 * beam.EI() * 0.004 / 2));
  CHECK(r[0].reaction(beam.b).mz.si() == near(2 * beam.EI() * 0.004 / 2));
  CHECK(r[0].displacement(beam.a).rz.si() == 0.004);
}

TEST_CASE("Settlement of a statically determinate structure brings no forces") {
  Beam beam(2_m);
  beam.structure.support(beam.a, Support::pinned());
  beam.structure.support(beam.b, Support::roller());
  beam.loads().settle(beam.b, {.y = Length::si(-0.01)}).settle(beam.b, {.y = Length::si(-0.01)});
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  CHECK(std::abs(r[0].reaction(beam.b).y.si()) < 1e-9 * 6 * beam.EI() * 0.02 / 8);
  CHECK(r[0].displacement(beam.a).rz.si() == near(-0.01));
  CHECK(r[0]["beam"].deflection_y().at(1_m).si() == near(-0.01));
}

}  // namespace tests_of_beam_strains
