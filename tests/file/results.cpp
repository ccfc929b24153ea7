// Results as JSON: the fixed shape, SI units, and the same figures as the library's.
#include <cmath>
#include <corvex/export.hpp>
#include <nlohmann/json.hpp>

#include "support/near.hpp"
#include "support/schema.hpp"
#include "support/text.hpp"

namespace tests_of_file_results {

using namespace corvex;
using namespace corvex::units;
using corvex::test::near;
using Json = nlohmann::json;

namespace {

Json results(const Model& m, int places = 0) {
  const Solution s = solve(m.structure);
  REQUIRE(s.ok());
  const std::string text = results_json({.solution = s}, {.places = places});
  test::check_results(text);
  return Json::parse(text);
}

std::vector<std::string> keys(const Json& j) {
  std::vector<std::string> all;
  for (const auto& [key, value] : j.items()) all.push_back(key);
  return all;
}

Model propped() {
  return test::read(R"(
corvex: 1
title: propped
sections:
  tube: {shape: rectangular tube, height: 80 mm, width: 40 mm, wall: 4 mm}
  rod: {shape: round bar, diameter: 16 mm}
points: {A: [0, 0], B: [1.5 m, 0], C: [2.5 m, 0], D: [1.5 m, 1 m]}
members:
  beam: {through: [A, B, C], section: tube, material: S235}
  tie: {through: [B, D], section: rod, material: S235, kind: link}
supports: {A: pinned, D: pinned}
loads:
  tip: [{at: C, force: {down: 2 kN}}, {on: beam, line: {down: 1 kN/m}}]
  none: []
)");
}

}  // namespace

TEST_CASE("The shape of the results is fixed") {
  const Json j = results(propped(), 5);
  CHECK(j["format"] == "corvex-results");
  CHECK(j["version"] == 2);
  CHECK(j["model"]["title"] == "propped");
  CHECK(j["model"]["plane"] == true);
  CHECK(j["model"]["points"] == 4);
  CHECK(j["model"]["members"] == 2);
  CHECK(j["model"]["mass"].get<double>() == near(*propped().structure.mass()));
  CHECK(keys(j["cases"]) == std::vector<std::string>{"envelope", "none", "tip"});
  const Json& c = j["cases"]["tip"];
  CHECK(keys(c["displacements"]) == std::vector<std::string>{"A", "B", "C", "D"});
  CHECK(keys(c["displacements"]["B"]) == std::vector<std::string>{"rx", "ry", "rz", "x", "y", "z"});
  CHECK(keys(c["reactions"]) == std::vector<std::string>{"A", "D"});
  CHECK(keys(c["reactions"]["A"]) == std::vector<std::string>{"mx", "my", "mz", "x", "y", "z"});
  CHECK(keys(c["balance"]) == std::vector<std::string>{"applied", "error", "reacted"});
  const Json& beam = c["members"]["beam"];
  CHECK(beam["kind"] == "beam");
  CHECK(c["members"]["tie"]["kind"] == "link");
  for (const char* q :
       {"axial", "shear_y", "shear_z", "torsion", "moment_y", "moment_z", "deflection_y", "deflection_z", "sag"})
    for (const char* end : {"max", "min"}) CHECK(keys(beam[q][end]) == std::vector<std::string>{"at", "value"});
  for (const char* end : {"max", "min"})
    CHECK(keys(beam["stress"][end]) == std::vector<std::string>{"at", "value", "y", "z"});
  CHECK(keys(beam["von_mises"]["max"]) == std::vector<std::string>{"at", "value", "y", "z"});
  REQUIRE(beam["places"].size() == 5);
  CHECK(keys(beam["places"][0]) == std::vector<std::string>{"at", "axial", "deflection_y", "deflection_z", "moment_y",
                                                            "moment_z", "rotation_y", "rotation_z", "shear_y",
                                                            "shear_z", "torsion", "twist", "x", "y", "z"});
  REQUIRE(beam["joints"].size() == 4);
  CHECK(beam["joints"][1]["point"] == "B");
  CHECK(beam["joints"][1]["side"] == "before");
  CHECK(beam["joints"][2]["side"] == "after");
}

TEST_CASE("Without places there are none") {
  CHECK_FALSE(results(propped())["cases"]["tip"]["members"]["beam"].contains("places"));
}

TEST_CASE("The figures are those of statics") {
  const Json c = results(propped(), 11)["cases"]["tip"];
  // Moments about A: the tie pulls with (2 · 2.5 + 2.5²/2)/1.5 kN.
  const double tie = (2000 * 2.5 + 1000 * 2.5 * 2.5 / 2) / 1.5;
  CHECK(c["members"]["tie"]["axial"]["max"]["value"].get<double>() == near(tie));
  CHECK(c["reactions"]["A"]["y"].get<double>() == near(4500 - tie));
  CHECK(c["balance"]["applied"]["y"].get<double>() == near(-4500));
  CHECK(c["balance"]["reacted"]["y"].get<double>() == near(4500));
  CHECK(c["balance"]["applied"]["mz"].get<double>() == near(-2000 * 2.5 - 1000 * 2.5 * 2.5 / 2));
  CHECK(c["balance"]["error"].get<double>() < 1e-13);
  const Json& beam = c["members"]["beam"];
  CHECK(beam["moment_z"]["min"]["value"].get<double>() == near(-2000 - 500));
  CHECK(beam["moment_z"]["min"]["at"].get<double>() == near(1.5));
  // At the tie V jumps: a place there shows the value after it, a joint both.
  const Json& middle = beam["places"][6];
  CHECK(middle["at"].get<double>() == near(1.5));
  CHECK(middle["shear_y"].get<double>() == near(3000));
  CHECK(beam["joints"][1]["shear_y"].get<double>() == near(3000 - tie));
  CHECK(beam["places"][10]["shear_y"].get<double>() == near(2000));
  CHECK(beam["places"][10]["at"].get<double>() == 2.5);
}

TEST_CASE("Movements of a place are those of the member's axes and of the global ones") {
  const Json j = results(propped(), 7);
  const Json& tie = j["cases"]["tip"]["members"]["tie"]["places"];
  for (const Json& s : tie) {
    // A vertical member's y is global x.
    CHECK(s["deflection_y"].get<double>() == near(s["x"].get<double>(), 1e-6));
    CHECK(s["z"] == 0.0);
  }
  CHECK(tie[0]["y"].get<double>() == near(j["cases"]["tip"]["displacements"]["B"]["y"].get<double>()));
}

TEST_CASE("What does not exist is 0, what is not known is null") {
  const Json j = results(propped());
  const Json& beam = j["cases"]["tip"]["members"]["beam"];
  CHECK(beam["torsion"]["max"]["value"] == 0.0);
  CHECK(beam["shear_z"]["min"]["value"] == 0.0);
  CHECK(beam["safety"].get<double>() == near(235e6 / beam["von_mises"]["max"]["value"].get<double>()));
  CHECK(j["cases"]["none"]["members"]["beam"]["safety"].is_null());
  CHECK(j["cases"]["none"]["balance"]["error"] == 0.0);
  const Json bare = results(
      test::read(test::cantilever("    - {at: B, force: {down: 1}}", "{shape: properties, A: 10 cm^2, Iz: 200 cm^4}")));
  const Json& arm = bare["cases"]["tip"]["members"]["arm"];
  CHECK(arm["stress"]["max"]["value"].is_null());
  CHECK(arm["von_mises"]["max"]["value"].is_null());
  CHECK(arm["safety"].is_null());
}

TEST_CASE("No minus zero, no text that is not JSON") {
  const Solution s = solve(propped().structure);
  const std::string text = results_json({.solution = s}, {.places = 3});
  CHECK(text.find("-0.0,") == std::string::npos);
  CHECK(text.find("-0.0\n") == std::string::npos);
  CHECK(text.find("nan") == std::string::npos);
  CHECK(text.back() == '\n');
}

}  // namespace tests_of_file_results
