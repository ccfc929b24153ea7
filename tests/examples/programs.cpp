// The example programs run, and say what the command line says of the same structure.
#include <cstdlib>
#include <fstream>
#include <regex>
#include <sstream>
#include <vector>

#include "support/near.hpp"
#include "support/program.hpp"

namespace tests_of_examples_programs {

using Catch::Matchers::Contains;
using Json = nlohmann::json;

namespace {

struct Ran {
  int status;
  std::string out;
};

Ran run(const std::string& name, const std::string& arguments = "") {
  const corvex::test::Folder folder;
  const std::string out = (folder.path() / "out").string();
  const int code =
      std::system(("'" CORVEX_EXAMPLE_PROGRAMS "/example-" + name + "' " + arguments + " >'" + out + "' 2>&1").c_str());
  return {WEXITSTATUS(code), folder.content("out")};
}

const std::string models = CORVEX_EXAMPLES "/cider-works/";

Json solved(const std::string& model) {
  const corvex::test::Folder folder;
  return Json::parse(folder.run("solve '" + models + model + ".yaml' --json").out)["cases"];
}

// All numbers of a line of text.
std::vector<double> numbers(const std::string& line) {
  std::vector<double> all;
  for (std::size_t at = 0; (at = line.find_first_of("-0123456789", at)) != std::string::npos;) {
    std::size_t length = 0;
    try {
      all.push_back(std::stod(line.substr(at), &length));
    } catch (const std::exception&) {
      length = 1;
    }
    at += length;
  }
  return all;
}

}  // namespace

TEST_CASE("The trestle built by code is the one of the model file") {
  const Ran ran = run("conveyor-trestle");
  CHECK(ran.status == 0);
  const Json product = solved("conveyor-trestle")["product"];
  std::istringstream lines(ran.out);
  std::string line;
  for (const char* foot : {"A", "E"}) {
    std::getline(lines, line);
    const auto found = numbers(line);
    const Json& r = product["reactions"][foot];
    REQUIRE(found.size() == 3);
    CHECK(found[0] * 1e3 == Approx(r["x"].get<double>()).margin(0.6));
    CHECK(found[1] * 1e3 == Approx(r["y"].get<double>()).margin(0.6));
    CHECK(found[2] * 1e3 == Approx(r["mz"].get<double>()).margin(0.06));
  }
  for (const char* member : {"left leg", "rail", "right leg"}) {
    std::getline(lines, line);
    const auto found = numbers(line);
    const Json& m = product["members"][member];
    INFO(line);
    REQUIRE(found.size() == 6);
    CHECK(found[0] * 1e3 == Approx(m["moment_z"]["min"]["value"].get<double>()).margin(0.06));
    CHECK(found[1] == Approx(m["moment_z"]["min"]["at"].get<double>()));
    CHECK(found[2] * 1e3 == Approx(m["moment_z"]["max"]["value"].get<double>()).margin(0.06));
    CHECK(found[4] * 1e6 == Approx(m["von_mises"]["max"]["value"].get<double>()).margin(6e4));
    CHECK(found[5] == Approx(m["safety"].get<double>()).margin(0.006));
  }
  std::getline(lines, line);
  CHECK(numbers(line).at(0) == Approx(-1e3 * product["displacements"]["C"]["y"].get<double>()).margin(6e-4));
  std::getline(lines, line);
  CHECK(line == "reaction A y by hand: P/2 + q*L/2 = 2.560 kN, agrees");
}

TEST_CASE("Walls from thin to thick: each is stiffer, safer and heavier, and one after the other will do") {
  const Ran ran = run("wall-thickness");
  CHECK(ran.status == 0);
  std::istringstream lines(ran.out);
  std::string line;
  std::getline(lines, line);
  std::vector<double> before;
  int rows = 0;
  bool did = false;
  for (; std::getline(lines, line); ++rows) {
    const auto now = numbers(line);
    REQUIRE(now.size() == 5);
    const bool does = line.find("will do") != std::string::npos;
    CHECK((does || !did));  // no thicker wall fails where a thinner one does
    CHECK(does == (now[2] <= 10.0 && now[4] >= 1.5));
    did = does;
    if (!before.empty()) {
      CHECK(now[1] > before[1]);
      CHECK(now[2] < before[2]);
      CHECK(now[3] < before[3]);
      CHECK(now[4] > before[4]);
    }
    before = now;
  }
  CHECK(rows == 6);
}

TEST_CASE("The moment at a place of a model that was read") {
  const Ran ran = run("moment-at", "'" + models + "walkway-beam.yaml' walkway '1.2 m'");
  CHECK(ran.status == 0);
  const double q = 2.5, R = q * 4 / 3, M = R * 1.2 - q * 1.2 * 1.2 / 2;
  const auto people = numbers(ran.out.substr(0, ran.out.find('\n')));
  CHECK(people.at(0) == Approx(M).margin(6e-5));
  CHECK(people.at(1) == Approx(q * 64 / 72).margin(6e-5));
  CHECK(people.at(2) == Approx(4.0 / 3).margin(6e-4));
  CHECK_THAT(run("moment-at", "'" + models + "walkway-beam.yaml' walkway '9 m'").out, Contains("which is 4 m long"));
  CHECK_THAT(run("moment-at", "'" + models + "walkway-beam.yaml' walk '1 m'").out, Contains("is not a member"));
  CHECK(run("moment-at", "nowhere.yaml beam '1 m'").status == 2);
}

TEST_CASE("The configurator prices what it chooses, and what it chooses meets the limits") {
  const Ran ran = run("configurator");
  CHECK(ran.status == 0);
  std::istringstream lines(ran.out);
  std::string line;
  std::getline(lines, line);
  int rows = 0;
  double lighter = 0;
  for (; std::getline(lines, line); ++rows) {
    // "3.0 m   SHS 60x60x2.5 RHS 80x40x2.5      4.8 m   21.1 kg     81.48"
    static const std::regex row(R"(([0-9.]+) m +(SHS [0-9x.]+) +(RHS [0-9x.]+) +([0-9.]+) m +([0-9.]+) kg +([0-9.]+))");
    std::smatch found;
    REQUIRE(std::regex_match(line, found, row));
    const double span = std::stod(found[1]), metres = std::stod(found[4]), mass = std::stod(found[5]);
    CHECK(metres == Approx(span + 1.8));
    CHECK(std::stod(found[6]) == Approx(1.85 * mass + 2.4 * metres + 2 * 9.5 + 2 * 6).margin(0.1));
    CHECK(mass > lighter);
    lighter = mass;
    const corvex::test::Folder folder;
    folder.write("trestle.yaml",
                 fmt::format("corvex: 1\nunits: {{length: m, force: kN}}\nsections: {{leg: {}, rail: {}}}\n"
                             "points: {{A: [0, 0], B: [0, 0.9], C: [{}, 0.9], D: [{}, 0]}}\n"
                             "members:\n  left leg: {{through: [A, B], section: leg, material: S235}}\n"
                             "  rail: {{through: [B, C], section: rail, material: S235}}\n"
                             "  right leg: {{through: [D, C], section: leg, material: S235}}\n"
                             "supports: {{A: pinned, D: pinned}}\nlimits: [{{safety: 1.5}}, {{sag: 1/300}}]\n"
                             "loads:\n  bottles: [{{on: rail, line: {{down: 2.2 kN/m}}}}, {{gravity: down}}]\n"
                             "  push: [{{at: B, force: {{x: 0.4}}}}, {{gravity: down}}]\n",
                             found[2].str(), found[3].str(), span, span));
    const auto o = folder.run("solve trestle.yaml --json");
    CHECK(o.status == 0);
    CHECK(nlohmann::json::parse(o.out)["model"]["mass"].get<double>() == Approx(mass).margin(0.06));
  }
  CHECK(rows == 5);
}

}  // namespace tests_of_examples_programs
