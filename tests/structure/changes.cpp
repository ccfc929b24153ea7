// A structure that stands is changed: each change answers like a structure that was built that way.
#include <corvex/corvex.hpp>
#include <corvex/document.hpp>
#include <corvex/export.hpp>
#include <filesystem>

#include "support/near.hpp"

namespace tests_of_structure_changes {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Matchers::Contains;
using corvex::test::near;

namespace {

struct Frame {
  Structure s = Structure::plane("portal");
  PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, 2_m), c = s.point("C", 3_m, 2_m),
          d = s.point("D", 3_m, 0_m);
  MemberId left, rail, right;

  explicit Frame(Length wall = 4_mm, const char* steel = "S235", MemberKind kind = MemberKind::beam) {
    const auto tube = s.section("tube", SquareTube{.width = 60_mm, .wall = wall});
    s.section("spare", RoundBar{.diameter = 20_mm});
    left = s.member("left", {a, b}, {.section = tube, .material = steel});
    rail = s.member("rail", {b, c}, {.section = tube, .material = steel});
    right = s.member("right", {d, c}, {.section = tube, .material = steel, .kind = kind});
    s.support(a, Support::fixed());
    s.support(d, Support::pinned());
    s.load_case("load").on(rail, 1_m, Force{.y = -3_kN}).at(b, Force{.x = 1_kN});
    s.load_case("wind").at(b, Force{.x = 2_kN});
  }
};

std::string results(const Structure& s) {
  return results_json({.solution = solve(s)}, {.places = 3});
}

}  // namespace

TEST_CASE("Sections, materials, kinds and supports replaced") {
  Frame k;
  k.s.replace_section("tube", SquareTube{.width = 60_mm, .wall = 6_mm});
  CHECK(results(k.s) == results(Frame(6_mm).s));
  k.s.replace_material("S235", "6082-T6");
  CHECK(solve(k.s)[0].displacement("B").x == solve(Frame(6_mm, "6082-T6").s)[0].displacement("B").x);
  MemberOptions link = k.s.options_of("right");
  link.kind = MemberKind::link;
  k.s.change("right", link);
  CHECK(solve(k.s)[0].reaction("D").x.si() ==
        solve(Frame(6_mm, "6082-T6", MemberKind::link).s)[0].reaction("D").x.si());
  k.s.replace_support(k.d, Support::fixed());
  CHECK(std::abs(solve(k.s)[0].reaction("A").mz.si()) > 0);
  CHECK(k.s.supports().size() == 2);
  CHECK(k.s.remove_support(k.d));
  CHECK(!k.s.remove_support(k.d));
  CHECK(k.s.supports().size() == 1);
}

TEST_CASE("The options of a member are those that it was given") {
  Frame k;
  const MemberOptions given{.section = SectionId(0),
                            .material = "S355",
                            .hinge = Hinge::start,
                            .roll = 90_deg,
                            .release = {.end = {Component::axial}},
                            .offset = {.start = {.y = 50_mm}},
                            .acts = Acts::tension};
  k.s.change("rail", given);
  const MemberOptions o = k.s.options_of("rail");
  CHECK(o.material == material("S355"));
  CHECK(o.hinge == Hinge::start);
  CHECK(o.roll == 90_deg);
  CHECK(o.release.start.empty());
  CHECK(o.release.end == std::vector<Component>{Component::axial});
  CHECK(o.offset.start.y == 50_mm);
  CHECK(o.acts == Acts::tension);
}

TEST_CASE("Loads replaced and removed, cases and combinations too") {
  Frame k;
  k.s.combination("both", {{"load", 1.35}, {"wind", 1.5}});
  CHECK_THROWS_WITH(k.s.remove_load_case("wind"), Contains("load case 'wind' is in combination 'both'"));
  k.s.remove_combination("both");
  k.s.loads_of("wind").clear().at(k.c, Force{.x = 1_kN});
  CHECK(solve(k.s)["wind"].balance().applied.x == 1_kN);
  LoadsOf load = k.s.loads_of("load");
  load.replace(0, MemberLoad{k.rail, 2, {0, -500, 0}, {}}).remove(1);
  CHECK(solve(k.s)["load"].balance().applied.y == -500_N);
  CHECK(solve(k.s)["load"].balance().applied.x == 0_N);
  CHECK_THROWS_AS(load.remove(5), std::out_of_range);
  k.s.combination("again", {{"wind", 2}});
  k.s.remove_load_case("load");
  CHECK(k.s.load_cases().size() == 1);
  CHECK(solve(k.s)["again"].balance().applied.x == 2_kN);
}

TEST_CASE("Unknown names throw with the nearest known one") {
  Frame k;
  CHECK_THROWS_WITH(k.s.replace_section("tub", RoundBar{.diameter = 20_mm}), Contains("did you mean 'tube'?"));
  CHECK_THROWS_WITH(k.s.replace_material("S325", "S235"), Contains("no material 'S325'; did you mean 'S235'?"));
  CHECK_THROWS_WITH(k.s.remove_load_case("winds"), Contains("did you mean 'wind'?"));
  CHECK_THROWS_AS(k.s.change("roof", {}), std::out_of_range);
}

TEST_CASE("A section is removed where no member has it, and ids given before are refused") {
  Frame k;
  CHECK_THROWS_WITH(k.s.remove_section("tube"), Contains("section 'tube' is that of member 'left'"));
  const SectionId spare = *k.s.find_section("spare"), third = k.s.section("flat", RectangularBar{40_mm, 5_mm});
  k.s.member("brace", {k.a, k.c}, {.section = third, .material = "S235"});
  const std::string before = results(k.s);
  k.s.remove_section("spare");
  CHECK(!k.s.has(spare));
  CHECK(!k.s.has(third));
  CHECK(k.s.section_of(k.s.members()[3]).area() == Section(RectangularBar{40_mm, 5_mm}).area());
  CHECK(results(k.s) == before);
}

TEST_CASE("Families by name") {
  Frame k;
  k.s.family("legs", {k.left, k.right});
  CHECK(k.s.find_members("legs") == std::vector<MemberId>{k.left, k.right});
  CHECK(k.s.find_members("rail") == std::vector<MemberId>{k.rail});
  CHECK(k.s.find_members("roof").empty());
  CHECK(k.s.find_points("B") == std::vector<PointId>{k.b});
}

TEST_CASE("Tables from the library, as text, CSV, Markdown and a spreadsheet") {
  Frame k;
  const Solution solution = solve(k.s);
  const document::Page page = document::results_page({.solution = solution});
  const std::string text = document::page_text(page, {.width = 100});
  CHECK_THAT(text, Contains("Reactions") && Contains("portal") && Contains("left"));
  CHECK_THAT(document::page_markdown(page, 4), Contains("| point |"));
  bool reactions = false;
  for (const document::DataTable& t : document::data_tables(document::results_page({.solution = solution}, {}, true))) {
    if (t.name != "reactions") continue;
    reactions = true;
    REQUIRE(t.rows.size() == 4);
    CHECK(t.rows[0][1].words == "A");
    CHECK(*t.rows[0][2].value == near(solution[0].reaction("A").x.in(kN)));
    CHECK_THAT(document::csv(t), Contains("case,point,Fx [kN]"));
  }
  CHECK(reactions);
  const std::string path = std::string(CORVEX_BUILD) + "/changes-test.xlsx";
  CHECK(document::write_spreadsheet(path, "portal", document::data_tables(page), 4).empty());
  CHECK(std::filesystem::file_size(path) > 5000);
  std::filesystem::remove(path);
}

}  // namespace tests_of_structure_changes
