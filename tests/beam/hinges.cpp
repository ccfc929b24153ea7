// Hinges at the ends of members: what they free, and that nothing else moves for it.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_beam_hinges {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

namespace {

const Section bar = RectangularBar{.height = 80_mm, .width = 30_mm};
const Material steel = material("S235");
const double EI = 210e9 * bar.properties().Iz.si();

}  // namespace

TEST_CASE("A hinge inside a continuous beam makes it statically determinate") {
  Structure structure = Structure::plane("hinged");
  structure.analysis().shear = false;
  const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 3_m, 0_m), h = structure.point("H", 4_m, 0_m),
             c = structure.point("C", 6_m, 0_m);
  const auto section = structure.section("bar", bar);
  structure.member("long", {a, b, h}, {.section = section, .material = steel});
  const auto hung = structure.member("hung", {h, c}, {.section = section, .material = steel, .hinge = Hinge::start});
  structure.support(a, Support::pinned());
  structure.support(b, Support::roller());
  structure.support(c, Support::roller());
  structure.load_case("load").line(hung, LineForce{.y = -2_kN_per_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  CHECK(s[0].reaction("C").y.si() == near(2000));
  CHECK(s[0].reaction("A").y.si() == near(-2000.0 / 3));
  CHECK(s[0].reaction("B").y.si() == near(2000.0 * 4 / 3));
  CHECK(s[0]["long"].moment_z().min().value.si() == near(-2000));
  CHECK(s[0]["hung"].moment_z().at(0_m).si() == 0);
  CHECK(s[0]["hung"].moment_z().max().value.si() == near(2000.0 * 4 / 8));
  CHECK(s[0].turns(h));
  // The hinge sinks with the overhang: P c² (L + c)/(3 EI).
  CHECK(s[0].displacement("H").y.si() == near(-2000 * 1 * (3 + 1) / (3 * EI)));
}

TEST_CASE("A hinge at either end of a loaded built-in beam makes it propped") {
  const bool at_start = GENERATE(true, false);
  Structure structure = Structure::plane("propped");
  structure.analysis().shear = false;
  const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 2_m, 0_m);
  const auto beam = structure.member(
      "beam", {a, b},
      {.section = structure.section("bar", bar), .material = steel, .hinge = at_start ? Hinge::start : Hinge::end});
  structure.support(a, Support::fixed());
  structure.support(b, Support::fixed());
  structure.load_case("load").line(beam, LineForce{.y = -5_kN_per_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  const double q = 5000, L = 2;
  CHECK(s[0].reaction(at_start ? "A" : "B").mz.si() == near(0, q * L * L));
  CHECK(std::abs(s[0].reaction(at_start ? "B" : "A").mz.si()) == near(q * L * L / 8));
  CHECK(s[0].reaction(at_start ? "A" : "B").y.si() == near(3 * q * L / 8));
  // The slope at the hinge is the member's own.
  const Diagram v = s[0]["beam"].deflection_y();
  CHECK(v.min().value.si == near(-q * std::pow(L, 4) / EI * (39 + 55 * std::sqrt(33.0)) / 65536));
  CHECK(v.min().at.si() == near(at_start ? L * (1 + std::sqrt(33.0)) / 16 : L * (15 - std::sqrt(33.0)) / 16));
}

TEST_CASE("A moment just inside a hinge bends the member, not the joint") {
  Structure structure = Structure::plane("moment at a hinge");
  const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 2_m, 0_m);
  const auto beam = structure.member(
      "beam", {a, b}, {.section = structure.section("bar", bar), .material = steel, .hinge = Hinge::both});
  structure.support(a, Support::fixed());
  structure.support(b, Support::fixed());
  structure.load_case("turn").on(beam, 0_m, Moment{.z = 1_kN_m});
  structure.load_case("other end").on(beam, 2_m, Moment{.z = 1_kN_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  for (const char* name : {"turn", "other end"}) {
    CHECK(s[name].reaction("A").y.si() == near(500));
    CHECK(s[name].reaction("B").y.si() == near(-500));
    CHECK(s[name].reaction("A").mz.si() == near(0, 1000));
  }
  CHECK(s["turn"]["beam"].moment_z().min().value.si() == near(-1000));
  CHECK(s["other end"]["beam"].moment_z().max().value.si() == near(1000));
}

TEST_CASE("A three-hinged portal is found by statics alone") {
  Structure structure = Structure::plane("three hinges");
  const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 0_m, 3_m), c = structure.point("C", 2_m, 3_m),
             d = structure.point("D", 4_m, 3_m), e = structure.point("E", 4_m, 0_m);
  const auto section = structure.section("bar", bar);
  const MemberOptions o{.section = section, .material = steel};
  structure.member("left", {a, b}, o);
  const auto half = structure.member("left half", {b, c}, {.section = section, .material = steel, .hinge = Hinge::end});
  structure.member("right half", {c, d}, o);
  structure.member("right", {e, d}, o);
  structure.support(a, Support::pinned());
  structure.support(e, Support::pinned());
  structure.load_case("load").line(half, LineForce{.y = -6_kN_per_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  CHECK(s[0].reaction("E").y.si() == near(3000));
  CHECK(s[0].reaction("A").y.si() == near(9000));
  CHECK(s[0].reaction("A").x.si() == near(2000));
  CHECK(s[0]["left half"].moment_z().at(2_m).si() == near(0, 6000));
  CHECK(s[0]["right half"].moment_z().at(0_m).si() == near(0, 6000));
}

TEST_CASE("In space a hinge frees both bending moments and keeps torsion") {
  Structure structure = Structure::space("hinged in space");
  const auto a = structure.point("A", 0_m, 0_m, 0_m), b = structure.point("B", 2_m, 0_m, 0_m);
  const auto beam = structure.member(
      "beam", {a, b}, {.section = structure.section("bar", bar), .material = steel, .hinge = Hinge::both});
  structure.support(a, Support::fixed());
  structure.support(b, Support::fixed());
  structure.load_case("push and turn")
      .on(beam, 0.5_m, Force{.y = 1_kN, .z = -2_kN})
      .on(beam, 0.5_m, Moment{.x = 100_N_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  const Reaction r = s[0].reaction("A");
  CHECK(r.y.si() == near(-750));
  CHECK(r.z.si() == near(1500));
  CHECK(r.mx.si() == near(-75));
  CHECK(r.my.si() == near(0, 1000));
  CHECK(r.mz.si() == near(0, 1000));
}

TEST_CASE("Rods hinged at both ends may spin: that is no mechanism, until a load turns them") {
  // A tripod of beams hinged at both ends in space: nothing turns with the top.
  Structure structure = Structure::space("hinged tripod");
  const auto top = structure.point("T", 0.1_m, 0.2_m, 3_m);
  const auto section = structure.section("bar", bar);
  int n = 0;
  for (const auto& [x, y] : {std::pair(1.0, 0.0), {-1.0, 1.0}, {-1.0, -1.0}}) {
    const auto foot = structure.point("F" + std::to_string(n), Length::si(x), Length::si(y), 0_m);
    structure.support(foot, Support::pinned());
    structure.member("leg" + std::to_string(n++), {foot, top},
                     {.section = section, .material = steel, .hinge = Hinge::both});
  }
  SECTION("a force is carried as by links") {
    structure.load_case("load").at(top, Force{.x = 1_kN, .z = -5_kN});
    const Solution s = solve(structure);
    REQUIRE(s.ok());
    CHECK(s[0].balance().error < 1e-12);
    for (int i = 0; i < 3; ++i) CHECK(s[0]["leg" + std::to_string(i)].moment_z().max().value.si() == near(0, 5000));
  }
  SECTION("a moment at the top has nothing to hold it") {
    structure.load_case("load").at(top, Moment{.z = 1_kN_m});
    const Solution s = solve(structure);
    REQUIRE(!s.ok());
    CHECK(s.problems()[0].text.find("T") != std::string::npos);
  }
}

}  // namespace tests_of_beam_hinges
