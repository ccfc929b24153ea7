// `corvex trace`: one member from place to place.
#include <catch2/catch.hpp>
#include <corvex/corvex.hpp>
#include <random>

#include "support/near.hpp"
#include "support/program.hpp"

namespace tests_of_program_trace {

using Catch::Matchers::Contains;
using namespace corvex::test;
using Json = nlohmann::json;

namespace {

// A simple span of 3 m with 6 kN at its third and 0.5 kN·m in its middle.
const std::string model = R"(corvex: 1
title: Span
units: {length: mm, force: kN}
sections: {tube: RHS 80x40x4}
points: {A: [0, 0], M: [1500, 0], B: [3000, 0]}
members: {beam: {through: [A, M, B], section: tube, material: S235}}
supports: {A: pinned, B: roller}
loads:
  lift: [{on: beam, at: 1 m, force: {down: 6}}]
  turn: [{on: beam, at: 1500, moment: 0.5 kN*m}]
)";

Json traced(const std::string& options) {
  const Folder folder;
  folder.write("model.yaml", model);
  const Outcome o = folder.run("trace model.yaml beam --json " + options);
  INFO(o.err);
  REQUIRE(o.status == 0);
  return Json::parse(o.out);
}

double number(const Json& j) {
  return j.get<double>();
}

}  // namespace

TEST_CASE("Without places a trace stops where something is largest or least") {
  const Json j = traced("--case lift");
  CHECK(j["format"] == "corvex-trace");
  CHECK(j["member"] == "beam");
  CHECK(j["case"] == "lift");
  const Json& s = j["places"];
  REQUIRE(s.size() >= 5);
  CHECK(number(s.front()["at"]) == 0.0);
  CHECK(number(s.back()["at"]) == near(3.0));
  // The force at the third: twice, with its jump in between.
  CHECK(number(s[1]["at"]) == near(1.0));
  CHECK(s[1]["side"] == "before");
  CHECK(number(s[1]["shear_y"]) == near(4000));
  CHECK(s[2]["side"] == "after");
  CHECK(number(s[2]["shear_y"]) == near(-2000));
  CHECK(number(s[1]["moment_z"]) == near(4000));
  std::string all;
  for (const Json& station : s) all += station.value("extremes", Json::array()).dump();
  for (const char* what : {"moment_z max", "shear_y max", "shear_y min", "deflection_y min", "sag max"})
    CHECK_THAT(all, Contains(what));
  // Normal stress is M/W there.
  CHECK(number(s[1]["stress"]["max"]["value"]) == near(-number(s[1]["stress"]["min"]["value"])));
}

TEST_CASE("A moment that ends at zero with a level tangent is not zero just before as well") {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> between(0.3, 5);
  for (int i = 0; i < 40; ++i) {
    // A beam with an overhang under a line load: at its tip M and V are zero, and rounding is beside them.
    const double span = between(random), tip = 0.4 * between(random), load = between(random);
    auto s = corvex::Structure::plane("overhang");
    const auto a = s.point("A", corvex::Length::si(0), corvex::Length::si(0)),
               b = s.point("B", corvex::Length::si(span), corvex::Length::si(0)),
               c = s.point("C", corvex::Length::si(span + tip), corvex::Length::si(0));
    const auto beam = s.member("beam", {a, b, c},
                               {.section = s.section("tube", corvex::SquareTube{.width = corvex::Length::si(0.06),
                                                                                .wall = corvex::Length::si(0.004)}),
                                .material = corvex::material("S235")});
    s.support(a, corvex::Support::pinned());
    s.support(b, corvex::Support::roller());
    s.load_case("load").line(beam, corvex::LineForce{.y = corvex::LineForceSize::si(-1000 * load)});
    const auto solution = solve(s);
    REQUIRE(solution.ok());
    double before = 0;
    std::size_t zeros = 0;
    for (const corvex::TracePlace& p : extreme_places(solution["load"]["beam"])) {
      INFO(span << " " << tip << " " << load << ": " << p.at.si());
      CHECK((p.at.si() == before || p.at.si() - before > 1e-4 * (span + tip)));
      before = p.at.si();
      for (const auto& [figure, which] : p.extremes) zeros += which == "zero";
    }
    // Between the supports it passes through zero if the overhang is not too long.
    CHECK(zeros == (tip < span ? 1 : 0));
  }
}

TEST_CASE("Places are lengths, shares or points, and stand in order, and a moment jumps") {
  const Json j = traced("--case turn --at 'B,10 %,M,200 mm'");
  std::vector<double> at;
  for (const Json& s : j["places"]) at.push_back(number(s["at"]));
  const std::vector<double> expected{0.2, 0.3, 1.5, 1.5, 3.0};
  REQUIRE(at.size() == expected.size());
  for (std::size_t i = 0; i < at.size(); ++i) CHECK(at[i] == near(expected[i]));
  CHECK(number(j["places"][2]["moment_z"]) == near(-number(j["places"][3]["moment_z"])));
  CHECK(std::abs(number(j["places"][3]["moment_z"]) - number(j["places"][2]["moment_z"])) == near(500));
  // The middle, where the force jumps, is told on both sides.
  CHECK(traced("--case lift --steps 7")["places"].size() == 8);
}

TEST_CASE("As a table a trace shows every case with points, jumps and extremes") {
  const Folder folder;
  folder.write("model.yaml", model);
  const Outcome o = folder.run("trace model.yaml beam");
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Contains("beam, 3000 mm long") && Contains("== lift ==") && Contains("== turn ==") &&
                        Contains("max Mz") && Contains("1500 M  before") && Contains("1500 M  after") &&
                        Contains("== envelope ==") && Contains("largest deflection"));
  CHECK(folder.run("trace model.yaml beam -o out.txt").out.empty());
  CHECK(folder.content("out.txt") == o.out);
  const Outcome both = folder.run("trace model.yaml beam --json");
  CHECK(both.status == 2);
  CHECK_THAT(both.err, Contains("with --json name one, for example --case 'lift' or --case envelope"));
}

}  // namespace tests_of_program_trace
