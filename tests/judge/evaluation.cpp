// Solution, limits, hand values and findings together; and what becomes of a structure that is refused.
#include <catch2/catch.hpp>
#include <corvex/export.hpp>

#include "corvex/corvex.hpp"
#include "corvex/document.hpp"
#include "corvex/file.hpp"
#include "corvex/picture.hpp"
#include "corvex/report.hpp"
#include "corvex/view.hpp"
#include "support/schema.hpp"

namespace tests_of_judge_evaluation {

using namespace corvex;
using namespace corvex::literals;

namespace {

// A beam on two supports; without the second one it can turn.
Structure beam(bool supported) {
  Structure s = Structure::plane("beam");
  const PointId a = s.point("A", 0_mm, 0_mm), b = s.point("B", 2000_mm, 0_mm);
  const SectionId tube = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm});
  const MemberId rail = s.member("rail", {a, b}, {.section = tube, .material = material("S235")});
  s.support(a, Support::pinned());
  if (supported) s.support(b, Support::roller());
  s.load_case("work").on(rail, 1000_mm, Force{.y = -2.0_kN});
  return s;
}

const Limits safety{{.kind = Limit::Kind::safety, .required = 1.5}};
const HandCalculation moment{
    .expect = {{.figure = {.kind = Figure::Kind::moment_z, .of = "rail"}, .is = "2 kN*2 m/4", .load_case = "work"}}};

}  // namespace

TEST_CASE("An evaluation has what its parts have") {
  const Structure s = beam(true);
  const Evaluation e = evaluate(s, {.limits = safety, .hand = moment});
  REQUIRE(e.ok());
  CHECK(e.problems().empty());
  CHECK(e.passes());
  const auto limits = check_limits(e.solution, safety);
  REQUIRE(limits.ok());
  REQUIRE(e.limits.verdicts.size() == limits->verdicts.size());
  CHECK(e.limits.verdicts[0].value->si == limits->verdicts[0].value->si);
  REQUIRE(e.hand.comparisons.size() == 1);
  CHECK(e.hand.comparisons[0].computed.si == Approx(1000.0).epsilon(1e-12));
  // Every finding of the description, and of the results.
  for (const Problem& p : inspect(s, safety).findings)
    CHECK(std::any_of(e.findings.begin(), e.findings.end(), [&](const Problem& q) { return q.text == p.text; }));
  for (const Problem& p : assess(e.solution, e.limits, e.hand))
    CHECK(std::any_of(e.findings.begin(), e.findings.end(), [&](const Problem& q) { return q.text == p.text; }));
  CHECK(std::is_sorted(e.findings.begin(), e.findings.end(),
                       [](const Problem& a, const Problem& b) { return a.severity < b.severity; }));
}

TEST_CASE("A limit that is exceeded and a hand value that differs do not pass") {
  const Structure s = beam(true);
  CHECK_FALSE(evaluate(s, {.limits = {{.kind = Limit::Kind::safety, .required = 1000}}}).passes());
  HandCalculation wrong = moment;
  wrong.expect[0].is = "2 kN*2 m/8";
  CHECK_FALSE(evaluate(s, {.hand = wrong}).passes());
  CHECK(evaluate(s, {.hand = wrong}).ok());
}

TEST_CASE("Names of what is not there are values of an evaluation") {
  HandCalculation wrong = moment;
  wrong.expect[0].figure.of = "no such member";
  const Limits of_nothing{{.kind = Limit::Kind::safety, .required = 1.5, .on = {"nothing"}}};
  const Evaluation e = evaluate(beam(true), {.limits = of_nothing, .hand = wrong});
  CHECK(e.solution.ok());
  CHECK_FALSE(e.ok());
  CHECK_FALSE(e.passes());
  CHECK(e.refused_hand.size() == 1);
  CHECK(e.refused_limits.size() == 1);
  CHECK(e.problems().size() == 2);
}

TEST_CASE("A refused solution is a value for every function that takes one") {
  const Structure s = beam(false);
  const Solution solution = solve(s);
  REQUIRE_FALSE(solution.ok());
  REQUIRE_FALSE(solution.problems().empty());
  const std::string why = solution.problems().front().text;
  CHECK(solution.structure().title() == "beam");
  CHECK(solution.size() == 0);
  CHECK(solution.assessed().empty());
  CHECK(solution.notes().empty());
  CHECK_THROWS_AS(solution[0], std::out_of_range);
  CHECK_THROWS_AS(solution["work"], std::out_of_range);

  const auto hand = verify(solution, moment);
  REQUIRE_FALSE(hand.ok());
  CHECK(hand.error().front().text == why);
  const auto limits = check_limits(solution, safety);
  REQUIRE_FALSE(limits.ok());
  CHECK(limits.error().front().text == why);
  CHECK(assess(solution).empty());
  const Problems inspected = inspect(solution).findings;
  CHECK(std::any_of(inspected.begin(), inspected.end(), [&](const Problem& p) { return p.text == why; }));
  CHECK_FALSE(modes(solution, {.vibration = 1}).ok());
  CHECK_FALSE(derive(solution, 0).ok());

  Model model{.structure = s, .hand = moment, .limits = safety};
  const Evaluation e = evaluate(model);
  CHECK_FALSE(e.ok());
  CHECK_FALSE(e.passes());
  CHECK(e.problems().front().text == why);
  CHECK(e.findings.empty());
  for (const std::string& json : {results_json(e), verification_json(e)}) {
    CHECK(json.find(why) != std::string::npos);
    CHECK(test::Schema("results.schema.json").refusal(nlohmann::json::parse(json)) == "");
  }
  const auto picture = draw(solution, {}, ImageFormat::svg);
  REQUIRE_FALSE(picture.ok());
  CHECK(picture.error().text == why);
  const auto sides = draw({{"one", solution}}, Together::side_by_side, {}, ImageFormat::svg);
  REQUIRE_FALSE(sides.ok());
  CHECK(sides.error().text == why);
  const auto written = report(model, e, {}, ReportFormat::html);
  REQUIRE_FALSE(written.ok());
  CHECK(written.error().text == why);
  const auto page = view_page({{"", model, e}});
  REQUIRE_FALSE(page.ok());
  CHECK(page.error().text == why);
}

TEST_CASE("Digits, modes and places have ranges") {
  const Solution solution = solve(beam(true));
  for (const int digits : {0, 16, -3}) CHECK_FALSE(draw(solution, {.digits = digits}, ImageFormat::svg).ok());
  CHECK_FALSE(draw(solution, {.of = PictureOf::vibration, .mode = 100'000}, ImageFormat::svg).ok());
  CHECK_FALSE(draw(solution, {.of = PictureOf::vibration, .mode = 0}, ImageFormat::svg).ok());
  const MemberResult rail = solution["work"]["rail"];
  for (const int count : {-1, 0, 1, 2'000'000'000}) CHECK_THROWS_AS(even_places(rail, count), std::invalid_argument);
  CHECK(even_places(rail, 2).size() == 2);
}

}  // namespace tests_of_judge_evaluation
