// Every mistake of a description is found before solving, says what it is about, and is refused by `solve`.
#include <cmath>
#include <corvex/corvex.hpp>
#include <functional>

#include "support/near.hpp"

namespace tests_of_structure_validate {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Matchers::Contains;

namespace {

// A sound cantilever to spoil.
struct Sound {
  Structure s = Structure::plane("sound");
  PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
  SectionId bar = s.section("bar", RectangularBar{.height = 60_mm, .width = 20_mm});
  MemberOptions options{.section = bar, .material = material("S235")};
  MemberId beam = s.member("beam", {a, b}, options);
  LoadsOf loads = s.load_case("loads");
  Sound() {
    s.support(a, Support::fixed());
    loads.at(b, Force{.y = -1_kN});
  }
};

void refused(const Structure& s, const std::string& phrase) {
  const Problems problems = s.validate();
  REQUIRE(problems.size() == 1);
  CHECK_THAT(describe(problems[0]), Contains(phrase));
  CHECK(!solve(s).ok());
}

}  // namespace

TEST_CASE("A sound description has no problem") {
  Sound k;
  CHECK(k.s.validate().empty());
  CHECK(solve(k.s).ok());
  CHECK(k.s.mass()->si() == test::near(0.06 * 0.02 * 2 * 7850));
}

TEST_CASE("Names") {
  Sound k;
  SECTION("used twice") {
    k.s.point("A", 5_m, 0_m);
    refused(k.s, "point A: error: the name 'A' is used twice");
  }
  SECTION("reserved") {
    k.s.point("all", 5_m, 0_m);
    refused(k.s, "reserved");
  }
  SECTION("of a load case") {
    k.s.load_case("envelope");
    refused(k.s, "load case envelope: error: 'envelope' is a reserved name");
  }
  SECTION("with a comma") {
    k.s.section("a, b", RoundBar{.diameter = 20_mm});
    refused(k.s, "a quote or a comma");
  }
}

TEST_CASE("Members") {
  Sound k;
  const auto c = k.s.point("C", 1_m, 1_mm), d = k.s.point("D", 3_m, 0_m), e = k.s.point("E", 2_m, 0_m);
  SECTION("not straight") {
    k.s.member("bent", {k.a, c, k.b}, k.options);
    refused(k.s, "member bent: error: point 'C' is 0.001 m off the straight line from 'A' to 'B'");
  }
  SECTION("out of order") {
    k.s.member("back", {k.a, d, k.b}, k.options);
    refused(k.s, "not in order");
  }
  SECTION("without length") {
    k.s.member("none", {k.b, e}, k.options);
    refused(k.s, "same place");
  }
  SECTION("through one point") {
    k.s.member("one", {k.a}, k.options);
    refused(k.s, "at least two points");
  }
  SECTION("a link through three") {
    MemberOptions o = k.options;
    o.kind = MemberKind::link;
    k.s.member("link", {k.a, k.b, d}, o);
    refused(k.s, "a link has two points");
  }
  SECTION("a link with a hinge") {
    MemberOptions o = k.options;
    o.kind = MemberKind::link;
    o.hinge = Hinge::both;
    k.s.member("link", {k.a, k.b}, o);
    refused(k.s, "no rotation to release");
  }
  SECTION("rolled out of the plane") {
    MemberOptions o = k.options;
    o.roll = 30_deg;
    k.s.member("rolled", {k.b, d}, o);
    refused(k.s, "bend out of the plane");
  }
  SECTION("a strange section") {
    MemberOptions o = k.options;
    o.section = SectionId{7};
    k.s.member("odd", {k.b, d}, o);
    refused(k.s, "does not belong to this structure");
  }
  SECTION("a beam whose section tells only an area") {
    MemberOptions o = k.options;
    o.section = k.s.section("area", GivenProperties{.A = Area::si(1e-3)});
    k.s.member("bare", {k.b, d}, o);
    refused(k.s, "needs Iz");
  }
}

TEST_CASE("Materials and sections") {
  Sound k;
  const auto d = k.s.point("D", 3_m, 0_m);
  SECTION("without E") {
    MemberOptions o = k.options;
    o.material = Material{.name = "putty"};
    k.s.member("soft", {k.b, d}, o);
    refused(k.s, "material 'putty' needs E");
  }
  SECTION("an impossible Poisson's ratio") {
    MemberOptions o = k.options;
    o.material.poisson = 0.7;
    k.s.member("odd", {k.b, d}, o);
    refused(k.s, "Poisson");
  }
  SECTION("a wall too thick") {
    k.s.section("solid", SquareTube{.width = 40_mm, .wall = 20_mm});
    refused(k.s, "section solid: error: a wall of 20 mm leaves no hole in a width of 40 mm");
  }
  SECTION("an unknown name in code is a slip that throws") {
    CHECK_THROWS_WITH(material("S253"), Contains("did you mean 'S235'") || Contains("S235"));
  }
}

TEST_CASE("Supports and loads") {
  Sound k;
  SECTION("two supports on one point") {
    k.s.support(k.a, Support::pinned());
    refused(k.s, "two supports");
  }
  SECTION("a load beside its member") {
    k.loads.on(k.beam, 2.5_m, Force{.y = -1_kN});
    refused(k.s, "2.5 m is not on member 'beam', which is 2 m long");
  }
  SECTION("a line load that ends before it begins") {
    k.loads.line(k.beam, LineForce{}, LineForce{}, 1_m, 0.5_m);
    refused(k.s, "not after its beginning");
  }
  SECTION("a force out of the plane") {
    k.loads.at(k.b, Force{.z = 1_kN});
    refused(k.s, "load 2 of case loads: error: this force leaves the plane");
  }
  SECTION("a moment out of the plane") {
    k.loads.at(k.b, Moment{.x = 1_kN_m});
    refused(k.s, "only moments about z are possible");
  }
  SECTION("a load that is no number") {
    k.loads.at(k.b, Force{.y = ForceSize::si(std::numeric_limits<double>::quiet_NaN())});
    refused(k.s, "not finite");
  }
  SECTION("gravity on a member without density") {
    Material unknown = material("S355");
    unknown.density.reset();
    const auto light = k.s.member("light", {k.a, k.b},
                                  {.section = k.s.section("rod", RoundBar{.diameter = 9_mm}), .material = unknown});
    REQUIRE(k.s[light].name == "light");
    k.loads.gravity();
    CHECK_FALSE(k.s.mass());
    refused(k.s, "the material 'S355' has no density, so gravity would not act on light");
  }
  SECTION("gravity without any mass") {
    Structure s = Structure::plane("weightless");
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
    Material ghost = material("S235");
    ghost.density = Density();
    s.member("beam", {a, b}, {.section = s.section("bar", RoundBar{.diameter = 20_mm}), .material = ghost});
    s.support(a, Support::fixed());
    s.load_case("weight").gravity();
    refused(s, "no mass");
  }
}

TEST_CASE("Slips of an exponent are out of range") {
  Sound k;
  SECTION("coordinates") {
    k.s.point("far", Length::si(1e12), 0_m);
    refused(k.s, "point far: error: a coordinate lies beyond 1e+06 m");
  }
  SECTION("lengths") {
    const auto c = k.s.point("C", Length::si(2 + 1e-12), 0_m);
    k.s.member("speck", {k.b, c}, k.options);
    refused(k.s, "out of range");
  }
  SECTION("moduli") {
    MemberOptions o = k.options;
    o.material.E = Stress::si(1e30);
    k.s.member("rigid", {k.b, k.s.point("D", 3_m, 0_m)}, o);
    const Problems problems = k.s.validate();
    REQUIRE(problems.size() == 2);  // E, and the G that follows from it
    CHECK_THAT(problems[0].text, Contains("out of range"));
  }
  SECTION("densities and the like") {
    const auto [spoil, words] = GENERATE(table<std::function<void(Material&)>, const char*>(
        {{[](Material& m) { m.density = Density::si(1e308); }, "the density is out of range"},
         {[](Material& m) { m.density = Density::si(std::nan("")); }, "the density is out of range"},
         {[](Material& m) { m.expansion = Expansion::si(std::nan("")); },
          "the coefficient of expansion is out of range"},
         {[](Material& m) { m.allowable = Stress::si(1e30); }, "the strength is out of range"}}));
    MemberOptions o = k.options;
    spoil(o.material);
    o.material.name = "spoilt";
    k.s.member("heavy", {k.b, k.s.point("D", 3_m, 0_m)}, o);
    refused(k.s, words);
  }
  SECTION("sections") {
    k.s.section("beam of the moon", RoundBar{.diameter = Length::si(3e6)});
    refused(k.s, "'diameter' is out of range");
  }
  SECTION("loads") {
    k.loads.at(k.b, Force{.y = ForceSize::si(1e40)});
    refused(k.s, "out of range");
  }
}

TEST_CASE("An empty structure is refused, not computed") {
  const Structure s = Structure::plane("empty");
  const Problems problems = s.validate();
  CHECK(problems.size() == 2);
  CHECK(!solve(s).ok());
}

TEST_CASE("Asking for what is not there throws, and names it") {
  Sound k;
  const Solution s = solve(k.s);
  CHECK_THROWS_WITH(s["wind"], Contains("wind"));
  CHECK_THROWS_WITH(s[0]["rafter"], Contains("rafter"));
  CHECK_THROWS_WITH(s[0].displacement("Q"), Contains("Q"));
  CHECK_THROWS_AS(s[0]["beam"].at(3_m), std::out_of_range);
  CHECK_THROWS_AS(solve(Structure::plane("empty"))[0], std::out_of_range);
}

}  // namespace tests_of_structure_validate
