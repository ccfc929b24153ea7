// Mistakes of the calling code: what compiles and is wrong is refused, and nothing is lost.
#include <catch2/catch.hpp>
#include <cmath>
#include <memory>

#include "corvex/corvex.hpp"

namespace tests_of_structure_misuse {

using namespace corvex;
using namespace corvex::literals;

namespace {

Structure cantilever(const char* title = "cantilever") {
  Structure s = Structure::plane(title);
  const PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 1_m, 0_m);
  s.member("m", {a, b}, {.section = s.section("bar", RoundBar{.diameter = 20_mm}), .material = "S235"});
  s.support(a, Support::fixed());
  return s;
}

}  // namespace

TEST_CASE("Loads follow a structure that is moved") {
  Structure s = cantilever();
  LoadsOf weight = s.load_case("weight");
  const Structure moved = std::move(s);
  weight.gravity();
  REQUIRE(moved.load_cases().size() == 1);
  CHECK(moved.load_cases()[0].loads().size() == 1);
  CHECK(weight.loads().size() == 1);
  CHECK(solve(moved)["weight"].reaction("A").y.si() > 0);
  Structure other = cantilever("other");
  other = moved;
  weight.gravity();
  CHECK(moved.load_cases()[0].loads().size() == 2);
  CHECK(other.load_cases()[0].loads().size() == 1);
}

TEST_CASE("Loads of a structure that is no longer there are refused") {
  auto s = std::make_unique<Structure>(cantilever());
  LoadsOf weight = s->load_case("weight");
  s.reset();
  CHECK_THROWS_AS(weight.gravity(), std::logic_error);
  CHECK_THROWS_AS(weight.loads(), std::logic_error);
  Structure t = cantilever();
  LoadsOf gone = t.load_case("gone");
  t.remove_load_case("gone");
  CHECK_THROWS_AS(gone.gravity(), std::out_of_range);
}

TEST_CASE("A load case that is misspelt is refused, with the name that was meant") {
  Structure s = cantilever();
  s.load_case("people").gravity();
  CHECK_THROWS_WITH(s.loads_of("poeple"),
                    Catch::Contains("there is no load case 'poeple'") && Catch::Contains("'people'"));
  s.loads_of("people").at(PointId(1), Force{.y = -1.0_kN});
  REQUIRE(s.find_load_case("people") == std::optional<std::size_t>(0));
  CHECK_FALSE(s.find_load_case("poeple"));
  CHECK(s.load_cases()[0].loads().size() == 2);
  CHECK(solve(s).ok());
  // The same name again is not another case.
  s.load_case("people");
  CHECK(s.load_cases().size() == 1);
  REQUIRE_FALSE(solve(s).ok());
  CHECK_THAT(solve(s).problems().front().text, Catch::Contains("'people' already exists"));
}

TEST_CASE("Ids of a copy are not those of the original, where they name other things") {
  Structure s = cantilever();
  const PointId a = *s.find_point("A");
  const MemberId m = *s.find_member("m");
  Structure copy = s;
  // What was there before is the same in both.
  CHECK(copy[a].name == "A");
  CHECK(copy[m].name == "m");
  CHECK(*copy.find_point("A") == a);
  CHECK(s[*copy.find_point("A")].name == "A");
  // What came later is not.
  const PointId of_copy = copy.point("only in the copy", 2_m, 0_m), own = s.point("only in s", 0_m, 5_m);
  CHECK_FALSE(s.has(of_copy));
  CHECK_FALSE(copy.has(own));
  CHECK(of_copy.index == own.index);
  CHECK_FALSE(of_copy == own);
  CHECK_THROWS_AS(s[of_copy], std::out_of_range);
  CHECK_THROWS_AS(copy[own], std::out_of_range);
  // Neither is it of a copy of the copy that was made before.
  Structure third = copy;
  CHECK(third[of_copy].name == "only in the copy");
  CHECK(third[a].name == "A");
  const PointId later = copy.point("later", 3_m, 0_m);
  CHECK_FALSE(third.has(later));
  // A number alone is of any structure.
  CHECK(s[PointId(0)].name == "A");
  // Sections likewise.
  const SectionId section = copy.section("thick", RoundBar{.diameter = 40_mm});
  s.section("thin", RoundBar{.diameter = 10_mm});
  CHECK_FALSE(s.has(section));
  // A solution has a copy: its ids are those of the structure that was solved.
  s.load_case("weight").gravity();
  const Solution solution = solve(cantilever());
  CHECK_FALSE(solution.structure().has(own));
}

TEST_CASE("Ids of two structures differ") {
  Structure a = Structure::plane("a"), b = Structure::plane("b");
  CHECK_FALSE(a.point("P", 0_m, 0_m) == b.point("Q", 7_m, 7_m));
  CHECK(PointId(0) == *a.find_point("P"));
}

TEST_CASE("A member with a section of another structure is told, and nothing breaks") {
  Structure s = cantilever();
  s.member("foreign", {PointId(0), PointId(1)}, {.section = SectionId(9), .material = "S235"});
  s.load_case("weight").gravity();
  CHECK_FALSE(s.validate().empty());
  CHECK_FALSE(s.mass());
  CHECK(bill_of_materials(s).empty());
  CHECK(load_totals(s).empty());
  CHECK_THROWS_AS(s.section_of(s.members()[1]), std::out_of_range);
  CHECK_FALSE(
      check(s, HandCalculation{.expect = {{.figure = {.kind = Figure::Kind::mass}, .is = "A(m)*1 kg/1 m^2"}}}).empty());
  CHECK_FALSE(inspect(s).findings.empty());
  CHECK_FALSE(solve(s).ok());
  const auto chosen =
      choose(s, {.groups = {{.section = "bar", .from = profiles_of("SHS")}}, .limits = {{.required = 1.5}}});
  REQUIRE_FALSE(chosen.ok());
  CHECK_FALSE(chosen.error().empty());
  CHECK_FALSE(compare({{.name = "x", .structure = s}})[0].refused.empty());
  CHECK(evaluate(s).problems().size() == solve(s).problems().size());
  // A member without points.
  Structure bare = cantilever();
  bare.member("bare", std::vector<PointId>{}, {.section = SectionId(0), .material = "S235"});
  CHECK_FALSE(bare.mass());
  CHECK_THROWS_AS(bare.length_of(bare.members()[1]), std::out_of_range);
  CHECK(bill_of_materials(bare).empty());
}

TEST_CASE("A limit of a moment on a displacement is refused") {
  Structure s = cantilever();
  s.load_case("weight").gravity();
  const Solution solution = solve(s);
  for (const Part part : {Part::mx, Part::my, Part::mz}) {
    const auto check =
        check_limits(solution, {{.kind = Limit::Kind::movement, .required = 5_mm, .at = {PointId(1)}, .part = part}});
    REQUIRE_FALSE(check.ok());
    CHECK_FALSE(check.error().front().text.empty());
  }
}

TEST_CASE("Places beside a member are refused by its deflection") {
  Structure s = cantilever();
  s.load_case("weight").gravity();
  const MemberResult m = solve(s)["weight"]["m"];
  for (const double x : {-1.0, -1e-6, 1.000001, 7.0, std::nan("")}) {
    CHECK_THROWS_AS(m.sag_at(Length::si(x)), std::out_of_range);
    CHECK_THROWS_AS(m.sag_between(Length::si(x), 1_m), std::logic_error);
    CHECK_THROWS_AS(m.moment_z().at(Length::si(x)), std::out_of_range);
  }
  CHECK_THROWS_AS(m.sag_between(600_mm, 400_mm), std::invalid_argument);
  CHECK_THROWS_AS(m.sag_between(500_mm, 500_mm), std::invalid_argument);
  CHECK(m.sag_between(0_m, 1_m).value.si > 0);
  CHECK(m.sag_at(1_m).si() > 0);
}

TEST_CASE("Names are texts of any kind, and forces add") {
  Structure s = cantilever();
  const std::string steel = "S355", case_name = "both";
  const std::vector<std::string> ends{"A", "C"};
  s.point("C", 0_m, 1_m);
  s.member("post", ends, {.section = *s.find_section(std::string("bar")), .material = steel});
  const Force push{.x = 1.0_kN}, pull{.y = -2.0_kN};
  const Force sum = push + 2 * pull - push / 2;
  CHECK(sum == Force{.x = 0.5_kN, .y = -4.0_kN});
  CHECK(-sum == Force{.x = -0.5_kN, .y = 4.0_kN});
  CHECK(Moment{.z = 500_N_mm} + Moment{.z = 0.5_N_m} == Moment{.z = 1_N_m});
  s.load_case(case_name).at(*s.find_point("C"), sum);
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  CHECK(solution[case_name].reaction(std::string("A")).x.si() == Approx(-500));
  CHECK((3_Hz).si() == 3);
  CHECK((1.2e-5_per_K).si() == 1.2e-5);
}

}  // namespace tests_of_structure_misuse
