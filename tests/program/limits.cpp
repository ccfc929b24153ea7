// Combinations and limits from a file: tables, JSON, exit status.
#include <catch2/catch.hpp>

#include "support/near.hpp"
#include "support/program.hpp"

namespace tests_of_program_limits {

using Catch::Matchers::Contains;
using namespace corvex::test;
using Json = nlohmann::json;

namespace {

const std::string model = R"(corvex: 1
title: Limits
units: {length: mm, force: kN}
sections: {rail: RHS 80x40x4}
points: {A: [0, 0], B: [1200, 0], C: [2400, 0]}
members: {rail: {through: [A, B, C], section: rail, material: S235}}
supports: {A: pinned, C: roller}
loads:
  product: [{at: B, force: {down: 4}}]
  weight: [{gravity: down}]
combinations:
  service: {product: 1, weight: 1}
  light: {product: 0.5, weight: 1}
limits:
  - {safety: 1.1}
  - {sag: 1/200}
  - {movement: 20 mm, at: B, part: y, case: light}
hand:
  expect:
    - {reaction: A, part: y, case: light, is: 1 kN, within: 10 %}
)";

std::string with(std::string text, const std::string& what, const std::string& by) {
  const std::size_t at = text.find(what);
  REQUIRE(at != std::string::npos);
  return text.replace(at, what.size(), by);
}

}  // namespace

TEST_CASE("Tables show the combinations, with their envelope and the verdicts") {
  const Folder folder;
  folder.write("model.yaml", model);
  const Outcome o = folder.run("solve model.yaml");
  INFO(o.out << o.err);
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Contains("service: ") && Contains("light: ") && Contains("== envelope of 2 combinations ==") &&
                        !Contains("product: ") && Contains("Limits: all 3 met"));
  const Json j = Json::parse(folder.run("solve model.yaml --json").out);
  CHECK(j["cases"].size() == 5);
  const Json& e = j["cases"]["envelope"];
  CHECK(e["members"]["rail"]["moment_z"]["max"]["case"] == "service");
  CHECK(e["members"]["rail"]["moment_z"]["max"]["at"].get<double>() == near(1.2));
  CHECK(e["reactions"]["A"]["y"]["min"]["case"] == "light");
  CHECK(e["reactions"]["A"]["y"]["max"]["value"] == j["cases"]["service"]["reactions"]["A"]["y"]);
  CHECK(e["members"]["rail"]["von_mises"]["max"]["value"] ==
        j["cases"]["service"]["members"]["rail"]["von_mises"]["max"]["value"]);
  REQUIRE(j["limits"].size() == 3);
  CHECK(j["limits"][0]["limit"] == "safety");
  CHECK(j["limits"][0]["on"] == "rail");
  CHECK(j["limits"][0]["case"] == "service");
  CHECK(j["limits"][0]["value"] == e["members"]["rail"]["safety"]);
  CHECK(j["limits"][1]["between"] == Json({"A", "C"}));
  CHECK(j["limits"][2]["case"] == "light");
  for (const Json& l : j["limits"]) CHECK(l["met"] == true);
}

TEST_CASE("Cases and members and points can be chosen") {
  const Folder folder;
  folder.write("model.yaml", with(model, "members: {rail: {through: [A, B, C], section: rail, material: S235}}",
                                  "members: {rail: {each: [[A, B], [B, C]], section: rail, material: S235}}"));
  const auto shown = [&](const std::string& options) {
    const Outcome o = folder.run("solve model.yaml " + options);
    INFO(o.err);
    REQUIRE(o.status != 2);
    return o.out;
  };
  CHECK_THAT(shown("--case product"),
             Contains("== product ==") && !Contains("== service ==") && !Contains("== envelope of 2 combinations =="));
  CHECK_THAT(shown("--case light,product"), Contains("== product ==") && Contains("== light =="));
  CHECK_THAT(shown("--member rail.2"), Contains("rail.2  N ") && !Contains("rail.1  N ") &&
                                           !Contains("Reactions, global axes\n") &&
                                           Contains("== envelope of 2 combinations =="));
  CHECK_THAT(shown("--member rail"), Contains("rail.1  N ") && Contains("rail.2  N "));
  CHECK_THAT(shown("--point B"), Contains("Displacements") && !Contains("Internal forces") && !Contains("  A    "));
  for (const auto& [call, message] : {std::pair("--case servic", "did you mean 'service'?"),
                                      {"--member beam", "there is no member 'beam'"},
                                      {"--point rail", "there is no point 'rail'"},
                                      {"--case light --json", "JSON holds every case"},
                                      {"--case light --format json", "JSON holds every case"}}) {
    const Outcome o = folder.run(std::string("solve model.yaml ") + call);
    INFO(call << o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(message));
  }
}

TEST_CASE("A limit that is exceeded ends with 1 and stands first") {
  const Folder folder;
  folder.write("model.yaml", with(model, "1/200", "1/300"));
  const Outcome o = folder.run("solve model.yaml");
  CHECK(o.status == 1);
  CHECK_THAT(o.out, Contains("Limits: 1 of 3 EXCEEDED"));
  CHECK(o.out.find("deflection     rail A-C") < o.out.find("safety factor  rail"));
  CHECK_THAT(o.out, Contains("≤  1/300           EXCEEDED"));
  CHECK(folder.run("solve model.yaml --json").status == 1);
  CHECK(folder.run("verify model.yaml").status == 0);
}

TEST_CASE("Slips in combinations and limits are told at their place") {
  const auto [what, by, message] = GENERATE(table<std::string, std::string, std::string>({
      {"{product: 0.5,", "{prodct: 0.5,",
       "model.yaml:13:11: error: there is no load case 'prodct'; did you mean 'product'?"},
      {"{product: 0.5,", "{product: 5 kN,", "13:20: error: '5 kN' is a force; a plain number was expected"},
      {"light: {product: 0.5, weight: 1}", "light: 3", "combination 'light': a map"},
      {"  light:", "  weight:", "'weight' is the name of a load case already"},
      {"{safety: 1.1}", "{safty: 1.1}", "'safty' is not a key of a limit; did you mean 'safety'?"},
      {"{safety: 1.1}", "{safety: -1}", "15:14: error: a limit must be greater than zero"},
      {"{safety: 1.1}", "{safety: 1.1, part: x}", "'part' does not go with 'safety'"},
      {"{safety: 1.1}", "{safety: 1.1, on: post}", "there is no member 'post'"},
      {"{safety: 1.1}", "{on: rail}", "a limit needs one of: safety, sag, drift, movement, buckling"},
      {"{sag: 1/200}", "{sag: 1/200, between: [A]}", "two points were expected in 'between'"},
      {"{sag: 1/200}", "{sag: 5 kN}", "'5 kN' is a force; a plain number was expected"},
      {"part: y, case: light", "part: mx, case: light", "'mx' is not a part of a movement"},
      {"part: y, case: light", "part: y, case: lght",
       "there is no load case or combination 'lght'; did you mean 'light'?"},
      {"at: B, part: y", "part: y", "a limit of movement needs 'at'"},
      {"case: light, is", "case: lght, is", "there is no load case 'lght'; did you mean 'light'?"},
  }));
  const Folder folder;
  folder.write("model.yaml", with(model, what, by));
  const Outcome o = folder.run("solve model.yaml");
  INFO(o.err);
  CHECK(o.status == 2);
  CHECK(o.out.empty());
  CHECK_THAT(o.err, Contains(message));
}

}  // namespace tests_of_program_limits
