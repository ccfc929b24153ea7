// `modes` and the pictures of modes as a user meets them.
#include <catch2/catch.hpp>
#include <pugixml.hpp>

#include "support/program.hpp"

namespace tests_of_program_modes {

using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

const std::string prop = R"model(corvex: 1
title: Slender prop
units: {length: m, force: kN}
sections: {tube: SHS 40x40x3}
points: {A: [0, 0], B: [0, 3]}
members: {prop: {through: [A, B], section: tube, material: S235}}
supports: {A: pinned, B: {hold: [x]}}
loads: {roof: [{at: B, force: {down: 10 kN}}]}
analysis: {shear: off}
)model";

}  // namespace

TEST_CASE("A prop buckles at Euler's force and swings as a hinged beam") {
  const Folder folder;
  folder.write("prop.yaml", prop + "limits: [{buckling: 1.5}, {frequency: 40 Hz}]\n");
  const Outcome run = folder.run("modes prop.yaml");
  INFO(run.err);
  REQUIRE(run.status == 0);
  CHECK_THAT(run.out, Contains("Natural frequencies") && Contains("Critical load factors, 'roof'") &&
                          Contains("Members in compression, mode 1 of 'roof'") && Contains("prop along x, most at 1.5 m"));
  const auto j = nlohmann::json::parse(folder.run("modes prop.yaml --vibration 2 --json").out);
  CHECK(j["format"] == "corvex-modes");
  REQUIRE(j["vibration"].size() == 2);
  const double factor = j["buckling"]["roof"][0]["factor"], frequency = j["vibration"][0]["frequency"];
  // What the catalogue tells of the section, put into Euler's formula and that of the hinged beam.
  const auto section = nlohmann::json::parse(folder.run("catalogue 'SHS 40x40x3' --json").out);
  const double pi = 3.14159265358979323846, EI = 210e9 * section["profiles"][0]["Iz"].get<double>(),
               m = 7850 * section["profiles"][0]["A"].get<double>();
  CHECK(factor * 10e3 == Approx(EI * pi * pi / 9).epsilon(1e-9));
  CHECK(frequency == Approx(pi / 2 / 9 * std::sqrt(EI / m)).epsilon(1e-9));
  CHECK(j["buckling"]["roof"][0]["members"]["prop"]["effective_length"].get<double>() == Approx(3).epsilon(1e-9));
  CHECK(j["vibration"][0]["mass_share"]["x"].get<double>() == Approx(8 / pi / pi).epsilon(1e-9));
  // The limits are assessed by them.
  const auto limits = nlohmann::json::parse(folder.run("solve prop.yaml --json").out)["limits"];
  CHECK(limits[0]["value"].get<double>() == Approx(factor));
  CHECK(limits[0]["met"] == (factor >= 1.5));
  CHECK(limits[1]["value"].get<double>() == Approx(frequency));
  // Pressed as it is it swings more slowly.
  const auto under = nlohmann::json::parse(folder.run("modes prop.yaml --vibration 1 --under roof --json").out);
  CHECK(under["vibration"][0]["frequency"].get<double>() ==
        Approx(frequency * std::sqrt(1 - 1 / factor)).epsilon(1e-9));
  // A section that keeps the load factor.
  folder.write("choose.yaml", prop + "limits: [{buckling: 20}]\nchoose: {tube: {from: [SHS]}}\n");
  CHECK(folder.run("choose choose.yaml").status == 0);
}

TEST_CASE("Modes are drawn, still and moving, and those that there are not are refused") {
  const Folder folder;
  folder.write("prop.yaml", prop);
  REQUIRE(folder.run("draw prop.yaml --what vibration --mode 2 -o mode.svg").status == 0);
  const std::string svg = folder.content("mode.svg");
  CHECK_THAT(svg, Contains("Mode 2 of vibration") && Contains("class=\"vibration\""));
  REQUIRE(folder.run("draw prop.yaml --what buckling --animate -o buckling.svg").status == 0);
  CHECK_THAT(folder.content("buckling.svg"), Contains("load factor") && Contains("<animate"));
  CHECK(folder.run("draw prop.yaml --what buckling -o buckling.gif").status == 0);
  for (const auto& [call, message] :
       {std::pair{"draw prop.yaml --what moment --mode 2 -o x.svg", "--mode goes with --what vibration or buckling"},
        {"modes prop.yaml --buckling rof", "there is no load case or combination 'rof'; did you mean 'roof'?"},
        {"modes prop.yaml --under rof", "did you mean 'roof'?"}}) {
    const Outcome refused = folder.run(call);
    INFO(refused.err);
    CHECK(refused.status == 2);
    CHECK_THAT(refused.err, Contains(message));
  }
}

TEST_CASE("A comparison shows the modes that its first model asks for, and a frequency under a case is a hand figure") {
  const Folder folder;
  folder.write("prop.yaml", prop + R"(modes: {vibration: 2, under: roof, buckling: {roof: 1}}
hand: {expect: [{frequency: 1, case: roof, is: 1 Hz}, {frequency: 1, is: 1 Hz}]}
variants: {thick: {sections: {tube: SHS 40x40x4}}}
)");
  const auto compared = nlohmann::json::parse(folder.run("compare prop.yaml --json").out)["variants"];
  for (const auto& [name, options] : {std::pair{"original", ""}, {"thick", " --variant thick"}}) {
    const auto alone = nlohmann::json::parse(folder.run(std::string("modes prop.yaml --json") + options).out);
    const auto& shown = compared[name]["shown"];
    INFO(shown);
    REQUIRE(shown.size() == 3);
    CHECK(shown["frequency of mode 1 in roof"].get<double>() ==
          Approx(alone["vibration"][0]["frequency"].get<double>()).epsilon(1e-12));
    CHECK(shown["frequency of mode 2 in roof"].get<double>() ==
          Approx(alone["vibration"][1]["frequency"].get<double>()).epsilon(1e-12));
    CHECK(shown["buckling of mode 1"].get<double>() ==
          Approx(alone["buckling"]["roof"][0]["factor"].get<double>()).epsilon(1e-12));
  }
  // Pressed, it swings slower.
  const auto hand = nlohmann::json::parse(folder.run("verify prop.yaml --json").out)["hand"];
  REQUIRE(hand.size() == 2);
  CHECK(hand[0]["case"] == "roof");
  CHECK(hand[0]["computed"].get<double>() < 0.99 * hand[1]["computed"].get<double>());
  // A model without that case is compared by its frequencies at rest.
  std::string other = prop;
  other.replace(other.find("roof"), 4, "snow");
  folder.write("other.yaml", other);
  CHECK_THAT(folder.run("compare prop.yaml other.yaml").out, Contains("frequency of mode 2  "));
}

}  // namespace tests_of_program_modes
