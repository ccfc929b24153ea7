// Springs, supports along directions of their own.
#include <cmath>

#include "support/beam.hpp"
#include "support/near.hpp"

namespace tests_of_linear_system_supports {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

TEST_CASE("A beam on two springs and a third in the middle") {
  Structure s = Structure::plane("beam on springs");
  s.analysis().shear = false;
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m), c = s.point("C", 4_m, 0_m);
  const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  s.member("beam", {a, b, c}, {.section = s.section("tube", tube), .material = material("S235")});
  const double k = 4e5, k_middle = 3e5, P = 8000, L = 4, EI = 210e9 * tube.properties().Iz.si();
  s.support(a, Support::hold({Dof::x}).spring({.y = Stiffness::si(k)}));
  s.support(b, Support().spring({.y = Stiffness::si(k_middle)}));
  s.support(c, Support().spring({.y = Stiffness::si(k)}));
  s.load_case("load").at(b, Force{.y = ForceSize::si(-P)});
  const Solution r = solve(s);
  REQUIRE(r.ok());
  // The beam with its end springs is one spring, beside the one in the middle.
  const double beam = 1 / (1 / (2 * k) + L * L * L / (48 * EI)), down = P / (beam + k_middle);
  CHECK(r[0].displacement(b).y.si() == near(-down));
  CHECK(r[0].reaction(b).y.si() == near(k_middle * down));
  CHECK(r[0].reaction(a).y.si() == near(beam * down / 2));
  CHECK(r[0].displacement(a).y.si() == near(-beam * down / 2 / k));
  CHECK(r[0].balance().error < 1e-12);
}

TEST_CASE("A cantilever whose wall gives way by a turning spring") {
  Beam beam(2_m);
  beam.structure.support(beam.a, Support::pinned().spring({.rz = 50_kN_m_per_rad}));
  beam.loads().at(beam.b, Force{.y = -1_kN});
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  CHECK(r[0].displacement(beam.b).y.si() == near(-1000 * 8 / (3 * beam.EI()) - 1000 * 4 / 50e3));
  CHECK(r[0].displacement(beam.a).rz.si() == near(-2000 / 50e3));
  CHECK(r[0].reaction(beam.a).mz.si() == near(2000));
}

TEST_CASE("Ground that moves under a spring presses by what is left of the way") {
  Beam beam(2_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.structure.support(beam.b, Support().spring({.y = 100_N_per_mm}));
  beam.loads().settle(beam.b, {.y = 10_mm});
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  const double bend = 3 * beam.EI() / 8, force = 0.01 / (1 / bend + 1 / 1e5);
  CHECK(r[0].reaction(beam.b).y.si() == near(force));
  CHECK(r[0].displacement(beam.b).y.si() == near(force / bend));
}

TEST_CASE("An inclined roller") {
  const double slope = GENERATE(0.1, 0.6435, 1.2);
  Beam beam(3_m);
  beam.structure.support(beam.a, Support::pinned());
  // Its length does not matter.
  beam.structure.support(beam.b, Support().along({-5 * std::sin(slope), 5 * std::cos(slope), 0}));
  beam.loads().on(beam.member, 1_m, Force{.y = -6_kN});
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  const double R = 2000 / std::cos(slope);
  const Reaction b = r[0].reaction(beam.b), a = r[0].reaction(beam.a);
  CHECK(b.x.si() == near(-R * std::sin(slope)));
  CHECK(b.y.si() == near(2000));
  CHECK(a.x.si() == near(R * std::sin(slope)));
  CHECK(a.y.si() == near(4000));
  CHECK(r[0]["beam"].axial().max().value.si() == near(-R * std::sin(slope)));
  // It slides along the slope, by what the beam is pressed together.
  const Displacement d = r[0].displacement(beam.b);
  CHECK(-d.x.si() * std::sin(slope) + d.y.si() * std::cos(slope) == near(0, std::abs(d.x.si())));
  CHECK(d.x.si() == near(-R * std::sin(slope) * 3 / beam.EA()));
}

TEST_CASE("Two directions held in space give a reaction in their plane, however they are named") {
  const auto solved = [](const std::vector<Vector>& along, const std::vector<Dof>& held) {
    Structure s = Structure::space("post");
    const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 1_m, 2_m, 2_m);
    const Section tube = RoundTube{.diameter = 60_mm, .wall = 4_mm};
    s.member("post", {a, b}, {.section = s.section("tube", tube), .material = material("S235")});
    s.support(a, Support::fixed());
    Support skew = Support::hold(held);
    for (const Vector& v : along) skew = skew.along(v);
    s.support(b, skew);
    s.load_case("load").at(b, Force{1_kN, 2_kN, -3_kN});
    const Solution r = solve(s);
    REQUIRE(r.ok());
    const Reaction q = r[0].reaction(b);
    return Vector{q.x.si(), q.y.si(), q.z.si()};
  };
  const Vector first{1, 1, 0}, second{0, 1, 1};
  const Vector r = solved({first, second}, {});
  CHECK(dot(r, cross(first, second)) == near(0, 3000));
  CHECK(length(r - solved({second, first}, {})) < 1e-9 * 3000);
  CHECK(length(r - solved({first, first + second * 3}, {})) < 1e-9 * 3000);
  // One of them a global axis.
  CHECK(length(solved({{1, 0, 0}, second}, {}) - solved({second}, {Dof::x})) < 1e-9 * 3000);
  // Three of them hold all.
  CHECK(length(solved({first, second, {1, 0, 0}}, {}) - solved({}, {Dof::x, Dof::y, Dof::z})) < 1e-9 * 3000);
}

TEST_CASE("A structure held by springs alone stands, and without enough of them it is told what moves") {
  Beam beam(2_m);
  beam.structure.support(beam.a, Support().spring({.x = 100_N_per_mm, .y = 100_N_per_mm, .rz = 10_kN_m_per_rad}));
  beam.loads().at(beam.b, Force{.x = 1_kN});
  const Solution r = beam.solved();
  REQUIRE(r.ok());
  CHECK(r[0].displacement(beam.a).x.si() == near(0.01));

  Beam loose(2_m);
  loose.structure.support(loose.a, Support().spring({.x = 100_N_per_mm, .y = 100_N_per_mm}));
  loose.loads().at(loose.b, Force{.x = 1_kN});
  REQUIRE_FALSE(loose.solved().ok());
  CHECK_THAT(loose.solved().problems().front().text, Catch::Contains("rotates about 'A': nothing restrains it"));

  Beam sliding(2_m);
  sliding.structure.support(sliding.a, Support().along({0.6, 0.8, 0}));
  sliding.structure.support(sliding.b, Support().along({0.6, 0.8, 0}));
  sliding.loads().at(sliding.b, Force{.x = 1_kN});
  REQUIRE_FALSE(sliding.solved().ok());
}

TEST_CASE("Masses on points weigh as members do") {
  Structure s = Structure::space("tank", Up::y);
  const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 2_m, 0_m, 0_m);
  const auto section = s.section("tube", RoundTube{.diameter = 60_mm, .wall = 4_mm});
  s.member("beam", {a, b}, {.section = section, .material = material("S235")});
  s.support(a, Support::fixed());
  s.point_mass(b, 80_kg);
  s.point_mass(b, 20_kg);
  s.load_case("weight").gravity();
  s.load_case("braking").gravity({.x = 3_m_s2});
  const double member = s.section_of(s.members()[0]).area().si() * 7850 * 2;
  CHECK(s.mass()->si() == near(100 + member));
  const Solution r = solve(s);
  REQUIRE(r.ok());
  CHECK(r["weight"].reaction(a).y.si() == near((100 + member) * 9.80665));
  CHECK(r["weight"].reaction(a).mz.si() == near((100 * 2 + member) * 9.80665));
  CHECK(r["braking"].reaction(a).x.si() == near(-(100 + member) * 3));
  CHECK(r["weight"].balance().error < 1e-12);
}

TEST_CASE("Slips in supports, masses and settlements are told") {
  const auto refusal = [](const auto& spoil) {
    Beam beam(2_m);
    beam.structure.support(beam.a, Support::fixed());
    beam.loads().at(beam.b, Force{.y = -1_kN});
    spoil(beam);
    const Problems problems = beam.structure.validate();
    std::string all;
    for (const Problem& p : problems) all += describe(p) + "\n";
    return all;
  };
  using Catch::Contains;
  CHECK_THAT(refusal([](Beam& b) { b.structure.support(b.b, Support::roller().spring({.y = 1_N_per_mm})); }),
             Contains("support B: error: y is restrained; the spring there has no effect"));
  CHECK_THAT(refusal([](Beam& b) { b.structure.support(b.b, Support().spring({.y = Stiffness::si(-1)})); }),
             Contains("the spring y needs a stiffness greater than zero"));
  CHECK_THAT(refusal([](Beam& b) { b.structure.support(b.b, Support().spring({.rx = 1_kN_m_per_rad})); }),
             Contains("a plane structure has no displacement along rx"));
  CHECK_THAT(refusal([](Beam& b) {
               b.structure.support(b.b, Support().along({0, 0, 0}));
             }),
             Contains("a direction to restrain needs a length"));
  CHECK_THAT(refusal([](Beam& b) {
               b.structure.support(b.b, Support().along({0, 1, 1}));
             }),
             Contains("leaves the plane"));
  CHECK_THAT(refusal([](Beam& b) { b.structure.point_mass(b.b, Mass::si(-1)); }),
             Contains("mass at B: error: a mass cannot be negative"));
  CHECK_THAT(refusal([](Beam& b) { b.loads().settle(b.b, {.y = 1_mm}); }), Contains("there is no support at 'B'"));
  CHECK_THAT(refusal([](Beam& b) {
               b.structure.support(b.b, Support::roller());
               b.loads().settle(b.b, {.x = 1_mm, .y = 1_mm});
             }),
             Contains("load 2 of case loads: error: the support at 'B' does not restrain this direction"));
  CHECK_THAT(refusal([](Beam& b) {
               b.structure.support(b.b, Support().along({0.6, 0.8, 0}));
               b.loads().settle(b.b, {.x = 1_mm, .y = 1_mm});
             }),
             Contains("does not restrain this direction"));
  CHECK_THAT(refusal([](Beam& b) {
               b.structure.support(b.b, Support::pinned());
               b.loads().settle(b.b, {.rz = 1_deg});
             }),
             Contains("does not restrain rotation about z"));
}

}  // namespace tests_of_linear_system_supports
