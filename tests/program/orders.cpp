// Second order, large displacements and masses with arms as a user meets them.
#include <catch2/catch.hpp>

#include "support/program.hpp"

namespace tests_of_program_orders {

using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

std::string prop(const std::string& analysis, double down) {
  return "corvex: 1\ntitle: Prop\nunits: {length: m, force: kN}\nanalysis: " + analysis +
         "\nsections: {tube: SHS 60x60x4}\npoints: {A: [0, 0], B: [0, 3]}\n"
         "members: {prop: {through: [A, B], section: tube, material: S235}}\nsupports: {A: fixed}\n"
         "loads: {press: [{at: B, force: {down: " +
         std::to_string(down) + "}}]}\n";
}

}  // namespace

TEST_CASE("The order of the analysis stands at the head of the results, and imperfections bend a straight prop") {
  const Folder folder;
  folder.write("prop.yaml", prop("{order: second, imperfection: {sway: 1/200, bow: 1/250, toward: x}}", 12));
  const Outcome run = folder.run("solve prop.yaml");
  INFO(run.err);
  REQUIRE(run.status == 0);
  CHECK_THAT(run.out, Contains("second order, sway 1/200, bow 1/250 toward x"));
  const auto j = nlohmann::json::parse(folder.run("solve prop.yaml --json").out);
  CHECK(j["model"]["order"] == "second");
  CHECK(j["cases"]["press"]["displacements"]["B"]["x"].get<double>() > 1e-3);
  // Without them it stays straight.
  folder.write("straight.yaml", prop("{order: second}", 12));
  const auto straight = nlohmann::json::parse(folder.run("solve straight.yaml --json").out);
  CHECK(straight["cases"]["press"]["displacements"]["B"]["x"] == 0);
  CHECK_THAT(folder.run("report prop.yaml -o prop.md").err, Contains(""));
  CHECK_THAT(folder.content("prop.md"), Contains("second order"));
  CHECK_THAT(folder.run("derive prop.yaml").err, Contains("a derivation is of first order"));
}

TEST_CASE("What is beyond its critical load is refused with the load factor, or the share where equilibrium ends") {
  const Folder folder;
  folder.write("second.yaml", prop("{order: second}", 90));
  Outcome run = folder.run("solve second.yaml");
  CHECK(run.status != 0);
  CHECK_THAT(run.err, Contains("in case 'press' the structure buckles (sway of 'B' along x): its critical load factor is 0."));
  folder.write("large.yaml", prop("{order: large}", 90));
  run = folder.run("solve large.yaml");
  CHECK(run.status != 0);
  CHECK_THAT(run.err, Contains("in case 'press' equilibrium ends at 0.") && Contains("buckles or snaps through"));
}

TEST_CASE("Large displacements tell their steps, and are drawn as large as they are") {
  const Folder folder;
  folder.write("leaf.yaml", R"(corvex: 1
title: Leaf
units: {length: mm, force: N}
analysis: {order: large}
materials: {spring: {like: S355, yield: 1200 MPa}}
sections: {leaf: {shape: rectangular bar, height: 4 mm, width: 40 mm}}
points: {A: [0, 0], B: [800, 0]}
members: {leaf: {through: [A, B], section: leaf, material: spring}}
supports: {A: fixed}
loads: {lift: [{at: B, force: {up: 120}}]}
)");
  const Outcome run = folder.run("solve leaf.yaml");
  INFO(run.err);
  REQUIRE(run.status == 0);
  CHECK_THAT(run.out, Contains("large displacements") && Contains("Load steps"));
  const auto j = nlohmann::json::parse(folder.run("solve leaf.yaml --json").out);
  const auto& steps = j["cases"]["lift"]["steps"];
  REQUIRE(steps.size() >= 4);
  CHECK(steps.back()["load"] == 1);
  const double y = j["cases"]["lift"]["displacements"]["B"]["y"], x = j["cases"]["lift"]["displacements"]["B"]["x"];
  CHECK(y > 0.3);
  CHECK(x < -0.05);
  CHECK_THAT(folder.run("draw leaf.yaml --what deformed -o leaf.svg").err, !Contains("error"));
  CHECK_THAT(folder.content("leaf.svg"), Contains("true scale"));
}

TEST_CASE("Slips in order, imperfection and mass are told where they stand") {
  const Folder folder;
  const auto told = [&](const std::string& analysis) {
    folder.write("m.yaml", prop(analysis, 12));
    return folder.run("solve m.yaml").err;
  };
  CHECK_THAT(told("{order: secnd}"), Contains("second") && Contains("m.yaml:4:"));
  CHECK_THAT(told("{imperfection: {sway: 1/200, toward: x}}"), Contains("belongs to second order"));
  CHECK_THAT(told("{order: second, imperfection: {sway: 1/200}}"), !Contains("error"));
  CHECK_THAT(told("{order: second, imperfection: {toward: x}}"), Contains("a sway or a bow was expected"));
  CHECK_THAT(told("{order: second, imperfection: {sway: 2, toward: x}}"), Contains("a share from 0 to 1/10"));
  CHECK_THAT(told("{order: second, imperfection: {sway: 1/200, toward: y}}"), Contains("the direction is x or -x"));
  folder.write("m.yaml", prop("{order: first}", 12) + "masses: {B: {arm: [0, 300 mm]}}\n");
  CHECK_THAT(folder.run("solve m.yaml").err, Contains("its mass is missing"));
}

TEST_CASE("A mass on an arm weighs at its centre, turns in modes, and is written as it was read") {
  const Folder folder;
  folder.write("m.yaml", R"(corvex: 1
title: Motor
units: {length: mm, force: N}
sections: {tube: SHS 60x60x4}
points: {A: [0, 0], B: [0, 1000]}
members: {mast: {through: [A, B], section: tube, material: S235}}
supports: {A: fixed}
masses: {B: {mass: 20 kg, arm: [300 mm, 0], inertia: 1.5 kg*m^2}}
loads: {weight: [{gravity: down}]}
modes: {vibration: 1}
hand:
  expect:
    - {reaction: A, part: mz, is: 20 kg*gn*300 mm}
    - {frequency: 1, is: 1 Hz, within: 99 %}
)");
  const Outcome run = folder.run("verify m.yaml");
  INFO(run.out << run.err);
  CHECK_THAT(run.out, Contains("frequency of mode 1"));
  const auto with = nlohmann::json::parse(folder.run("modes m.yaml --json").out);
  folder.write("point.yaml",
               std::string(folder.content("m.yaml"))
                   .replace(folder.content("m.yaml").find("{mass: 20 kg"),
                            std::string("{mass: 20 kg, arm: [300 mm, 0], inertia: 1.5 kg*m^2}").size(), "20 kg"));
  const auto point = nlohmann::json::parse(folder.run("modes point.yaml --json").out);
  CHECK(with["vibration"][0]["frequency"].get<double>() < point["vibration"][0]["frequency"].get<double>());
}

}  // namespace tests_of_program_orders
