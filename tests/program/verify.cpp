// `corvex verify`: the table, the JSON beside it, and the exit status; the same at the end of `solve`.
#include <sstream>

#include "support/near.hpp"
#include "support/program.hpp"

namespace tests_of_program_verify {

using Catch::Matchers::Contains;
using Catch::Matchers::EndsWith;
using corvex::test::Folder;
using corvex::test::near;
using Json = nlohmann::json;

namespace {

std::string beam(const std::string& expect) {
  return "corvex: 1\nunits: {length: m, force: kN}\nparameters: {P: 3 kN, L: 4 m}\n"
         "sections: {tube: {shape: square tube, width: 60 mm, wall: 4 mm}}\npoints: {A: [0, 0], B: [L, 0]}\n"
         "members: {beam: {through: [A, B], section: tube, material: S235}}\nsupports: {A: pinned, B: roller}\n"
         "loads:\n  crate:\n    - {on: beam, at: 1, force: {down: P}}\nhand:\n  let: {a: 1 m, M: P*a*(L - a)/L}\n"
         "  expect:\n" +
         expect;
}
const std::string good = "    - {reaction: A, part: y, is: P*3/4, note: lever}\n    - {moment: beam, at: a, is: M}\n";
const std::string bad = "    - {reaction: B, part: y, is: P/2}\n";

}  // namespace

TEST_CASE("verify shows formula, numbers, both values, deviation and verdict") {
  const Folder folder;
  folder.write("beam.yaml", beam(good));
  const auto o = folder.run("verify beam.yaml");
  CHECK(o.status == 0);
  CHECK(o.err.empty());
  CHECK(o.out ==
        "untitled\n\n"
        "Hand calculation: all 2 values agree\n"
        "  figure            case    hand  computed  unit          deviation  allowed\n"
        "  reaction A y      crate  2.250     2.250  kN    agrees        0 %      1 %\n"
        "      P*3/4 = 3 kN*3/4   (lever)\n"
        "  moment beam at a  crate  2.250     2.250  kN·m  agrees        0 %      1 %\n"
        "      M = 2.25 kN·m\n"
        "\nwith\n"
        "  M = P*a*(L - a)/L = 3 kN*1 m*(4 m - 1 m)/4 m = 2.25 kN·m\n");
}

TEST_CASE("One that differs ends with 1, in verify and in solve") {
  const Folder folder;
  folder.write("beam.yaml", beam(good + bad));
  const auto o = folder.run("verify beam.yaml");
  CHECK(o.status == 1);
  CHECK_THAT(o.out, Contains("1 of 3 values DIFFER") && Contains("1.500    0.7500  kN    DIFFERS      -50 %      1 %"));
  const auto solved = folder.run("solve beam.yaml");
  CHECK(solved.status == 1);
  CHECK_THAT(solved.out, Contains("Reactions") && EndsWith(o.out.substr(o.out.find("Hand calculation"))));
  CHECK(folder.run("solve beam.yaml --json -o all.json").status == 1);
  CHECK(folder.has("all.json"));
}

TEST_CASE("The JSON has what the table has, in solve as in verify") {
  const Folder folder;
  folder.write("beam.yaml", beam(good + bad + "    - {displacement: A, is: 0, within: 0.1 mm}\n"));
  const auto o = folder.run("verify beam.yaml --json");
  CHECK(o.status == 1);
  const Json j = Json::parse(o.out), hand = j["hand"];
  CHECK(j["format"] == "corvex-results");
  REQUIRE(hand.size() == 4);
  CHECK(hand[0]["what"] == "reaction A y");
  CHECK(hand[0]["case"] == "crate");
  CHECK(hand[0]["formula"] == "P*3/4");
  CHECK(hand[0]["numbers"] == "3 kN*3/4");
  CHECK(hand[0]["note"] == "lever");
  CHECK(hand[0]["within"] == 0.01);
  CHECK(hand[0]["agrees"] == true);
  CHECK(hand[2]["hand"].get<double>() == near(1500));
  CHECK(hand[2]["computed"].get<double>() == near(750));
  CHECK(hand[2]["deviation"].get<double>() == near(-0.5));
  CHECK(hand[2]["agrees"] == false);
  CHECK(hand[3]["within"].get<double>() == near(1e-4));
  CHECK(hand[3]["absolute"] == true);
  CHECK(Json::parse(folder.run("solve beam.yaml --json").out)["hand"] == hand);
}

TEST_CASE("Nothing to verify is told") {
  const Folder folder;
  std::string model = beam("");
  folder.write("beam.yaml", model.substr(0, model.find("hand:")));
  const auto o = folder.run("verify beam.yaml");
  CHECK(o.status == 2);
  CHECK_THAT(o.err, Contains("nothing to verify"));
  CHECK(folder.run("solve beam.yaml").status == 0);
}

TEST_CASE("Long formulas stay on the page") {
  const Folder folder;
  folder.write("beam.yaml",
               beam("    - {reaction: A, part: y, is: P*3/4 + 0*(P + P + P + P + P + P + P + P + P + P + P + P + P)"
                    " + 0*E(S235)*Iz(tube)/L^2 + 0*E(S235)*Iz(tube)/L^2, note: a sum that goes on for long}\n"));
  std::istringstream lines(folder.run("verify beam.yaml").out);
  for (std::string line; std::getline(lines, line);) CHECK(line.size() < 125);
}

}  // namespace tests_of_program_verify
