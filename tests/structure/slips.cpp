// Slips in calls of the library that compile: each does what is meant, or is told.
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_structure_slips {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Matchers::Contains;
using corvex::test::near;

namespace {

struct Beam {
  Structure s = Structure::plane("beam");
  PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
  SectionId tube = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm});

  Beam() {
    s.support(a, Support::pinned());
    s.support(b, Support::roller());
    s.load_case("load").gravity();
  }
};

std::string refusal(const Structure& s) {
  std::string all;
  for (const Problem& p : solve(s).problems()) all += describe(p) + "\n";
  return all;
}

}  // namespace

TEST_CASE("Points by their names, and a built-in material by its name") {
  Beam k;
  const MemberId beam = k.s.member("beam", {"A", "B"}, {.section = k.tube, .material = "S235"});
  CHECK(k.s[beam].through == std::vector<PointId>{k.a, k.b});
  CHECK(k.s.material_of(k.s[beam]) == material("S235"));
  CHECK(solve(k.s).ok());
  k.s.member("other", {"A", "b"}, {.section = k.tube, .material = "S253"});
  CHECK_THAT(refusal(k.s), Contains("member other: error: there is no point 'b'") &&
                               Contains("there is no built-in material 'S253'; did you mean 'S235'?"));
}

TEST_CASE("An id of another structure is told, and refused by results") {
  Beam k, other;
  const auto beam = k.s.member("beam", {k.a, k.b}, {.section = k.tube, .material = "S235"});
  other.s.member("beam", {other.a, other.b}, {.section = other.tube, .material = "S235"});
  const Solution solution = solve(k.s), others = solve(other.s);
  REQUIRE(solution.ok());
  CHECK_NOTHROW(solution[0][beam]);
  CHECK_THROWS_AS(others[0][beam], std::out_of_range);
  CHECK_THROWS_AS(others[0].reaction(k.a), std::out_of_range);
  CHECK_THROWS_AS(k.s[other.a], std::out_of_range);
  CHECK_THROWS_AS(envelope(others, beam), std::out_of_range);
  // A copy is the same structure.
  const Structure copy = k.s;
  CHECK(copy[k.a].name == "A");
  k.s.load_case("load").at(other.b, Force{.y = -1_kN});
  CHECK_THAT(refusal(k.s), Contains("the point does not belong to this structure"));
  Beam third;
  third.s.member("beam", {k.a, third.b}, {.section = k.tube, .material = "S235"});
  CHECK_THAT(refusal(third.s), Contains("does not belong to this structure"));
}

TEST_CASE("A case that is held over an assignment adds to what the structure has become") {
  Beam k, other;
  k.s.member("beam", {k.a, k.b}, {.section = k.tube, .material = "S235"});
  LoadsOf load = k.s.load_case("load");
  k.s = other.s;
  load.at(PointId(1), Force{.y = -1_kN});
  REQUIRE(k.s.load_cases().size() == 1);
  CHECK(k.s.load_cases()[0].loads().size() == 2);
  CHECK(other.s.load_cases()[0].loads().size() == 1);
}

TEST_CASE("A place beyond the member is refused everywhere") {
  Beam k;
  k.s.member("beam", {k.a, k.b}, {.section = k.tube, .material = "S235"});
  const Solution solution = solve(k.s);
  const MemberResult m = solution[0]["beam"];
  CHECK_NOTHROW(m.moment_z().at(2_m));
  CHECK_THROWS_AS(m.moment_z().at(5_m), std::out_of_range);
  CHECK_THROWS_AS(m.moment_z().at(-1_mm), std::out_of_range);
  CHECK_THROWS_AS(m.at(5_m), std::out_of_range);
  CHECK_THROWS_AS(m.axial().at(Length::si(std::nan(""))), std::out_of_range);
}

TEST_CASE("A limit of movement is a length, of sag a plain number or a length, of safety a plain number") {
  Beam k;
  k.s.member("beam", {k.a, k.b}, {.section = k.tube, .material = "S235"});
  const Solution solution = solve(k.s);
  const auto refused = [&](const Limit& limit) {
    const auto check = check_limits(solution, {limit});
    return check ? std::string() : describe(check.error().front());
  };
  CHECK_THAT(refused({.kind = Limit::Kind::movement, .required = 5, .at = {k.b}}),
             Contains("this limit is a plain number; a length was expected"));
  CHECK_THAT(refused({.kind = Limit::Kind::sag, .required = 5_kN}), Contains("a plain number was expected"));
  CHECK_THAT(refused({.kind = Limit::Kind::safety, .required = 5_mm}), Contains("a plain number was expected"));
  CHECK(refused({.kind = Limit::Kind::sag, .required = 5_mm}).empty());
  CHECK_THAT(refused({.kind = Limit::Kind::movement, .required = 5_mm, .at = {k.b}, .part = Part::mx}),
             Contains("x, y, z or size"));
  CHECK(refused({.kind = Limit::Kind::movement, .required = 5_mm, .at = {k.b}}).empty());
  CHECK(refused({.kind = Limit::Kind::safety, .required = 1.5, .on = {"beam"}}).empty());
}

TEST_CASE("What a temporary gives can be kept, and moved out of it") {
  Beam k;
  k.s.member("beam", {k.a, k.b}, {.section = k.tube, .material = "6082-T6"});
  std::size_t notes = 0;
  for (const Problem& p : solve(k.s).notes()) notes += p.text.size() > 0;
  CHECK(notes == 1);
  Expected<std::unique_ptr<int>, std::string> made = std::make_unique<int>(7);
  const std::unique_ptr<int> moved = std::move(made).value();
  CHECK(*moved == 7);
  const AreaProperties& area = Section(SquareTube{.width = 60_mm, .wall = 4_mm}).area_properties();
  CHECK(area.A.in(mm2) == near(896));
}

TEST_CASE("Members by name wherever members are asked for") {
  Beam k;
  const auto beam = k.s.member("beam", {k.a, k.b}, {.section = k.tube, .material = "S235"});
  const Solution solution = solve(k.s);
  CHECK(envelope(solution, "beam").moment_z.max.value == envelope(solution, beam).moment_z.max.value);
  CHECK(extreme_places(solution, "beam").size() == extreme_places(solution, beam).size());
  CHECK(places_at(solution, "beam", 1_m).size() == 1);
  CHECK_THROWS_AS(envelope(solution, "bean"), std::out_of_range);
}

TEST_CASE("Quantities multiply, divide, take roots and print themselves") {
  Length l = 2_m;
  l *= 3;
  CHECK(l == 6_m);
  l /= 2;
  CHECK(l == 3_m);
  CHECK((1 / 4_m).si() == 0.25);
  CHECK(abs(-3_m) == 3_m);
  CHECK(sqrt(9_m2) == 3_m);
  CHECK(hypot(3_m, 4_m) == 5_m);
  CHECK(sin(30_deg) == near(0.5));
  CHECK(cos(60_deg) == near(0.5));
  CHECK(tan(45_deg) == near(1));
  CHECK(to_text(3.2_kN * 0.6_m) == "1920 N·m");
  CHECK(to_text(2.5_mm) == "0.0025 m");
  CHECK(to_text(Quantity(3, Dimension::of(-1, 1, -1))) == "3 kg/(m*s)");
  CHECK(to_text(Quantity(1.5, dimension::number)) == "1.5");
}

}  // namespace tests_of_structure_slips
