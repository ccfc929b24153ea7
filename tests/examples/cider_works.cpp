// The models of the cider works against the hand calculations that their pages tell.
#include <cmath>
#include <fstream>
#include <sstream>

#include "support/near.hpp"
#include "support/program.hpp"

namespace tests_of_examples_cider_works {

using corvex::test::near;
using Json = nlohmann::json;

namespace {

Json example(const std::string& name) {
  std::ifstream in(std::string(CORVEX_EXAMPLES) + "/cider-works/" + name + ".yaml");
  std::stringstream text;
  text << in.rdbuf();
  return corvex::test::solved(text.str())["cases"];
}

double number(const Json& j) {
  return j.get<double>();
}

}  // namespace

TEST_CASE("The walkway beam: an overhang under a uniform load, and a force within its span") {
  const Json cases = example("walkway-beam");
  const double q = 2500, L = 3, a = 1;
  const Json& people = cases["people"];
  CHECK(number(people["reactions"]["B"]["y"]) == near(q * (L + a) * (L + a) / (2 * L)));
  CHECK(number(people["reactions"]["A"]["y"]) == near(q * (L * L - a * a) / (2 * L)));
  const Json& M = people["members"]["walkway"]["moment_z"];
  CHECK(number(M["min"]["value"]) == near(-q * a * a / 2));
  CHECK(number(M["min"]["at"]) == near(L));
  CHECK(number(M["max"]["value"]) == near(q * std::pow(L * L - a * a, 2) / (8 * L * L)));
  CHECK(number(M["max"]["at"]) == near((L * L - a * a) / (2 * L)));
  const Json& barrel = cases["barrel"];
  CHECK(number(barrel["reactions"]["A"]["y"]) == near(1800 * 1.8 / 3));
  CHECK(number(barrel["members"]["walkway"]["moment_z"]["max"]["value"]) == near(1800 * 1.2 * 1.8 / 3));
}

TEST_CASE("The conveyor trestle: symmetry, weight and a push") {
  const Json cases = example("conveyor-trestle");
  const Json& product = cases["product"];
  CHECK(number(product["reactions"]["A"]["y"]) == near(3200 / 2.0 + 800 * 2.4 / 2));
  CHECK(number(product["reactions"]["E"]["y"]) == near(3200 / 2.0 + 800 * 2.4 / 2));
  CHECK(number(product["reactions"]["A"]["x"]) == near(-number(product["reactions"]["E"]["x"])));
  CHECK(number(product["members"]["rail"]["moment_z"]["max"]["at"]) == near(1.2));
  // The free moment of the span hangs between the corner's and the middle's.
  const double free_moment = 3200 * 2.4 / 4 + 800 * 2.4 * 2.4 / 8;
  const Json& M = product["members"]["rail"]["moment_z"];
  CHECK(number(M["max"]["value"]) - number(M["min"]["value"]) == near(free_moment));
  const double mass = 7850 * (2 * 0.9 * 896e-6 + 2.4 * 896e-6);
  CHECK(number(cases["weight"]["reactions"]["A"]["y"]) == near(mass * 9.80665 / 2));
  CHECK(number(cases["push"]["reactions"]["A"]["x"]) + number(cases["push"]["reactions"]["E"]["x"]) == near(-300));
  for (const auto& [name, c] : cases.items())
    if (name != "envelope") CHECK(number(c["balance"]["error"]) < 1e-12);
}

TEST_CASE("The agitator bracket: an arm bent and twisted, an angle that moves sideways") {
  const Json cases = example("agitator-bracket");
  const Json& drive = cases["weight of the drive"];
  CHECK(number(drive["members"]["arm"]["torsion"]["min"]["value"]) == near(-900 * 0.26));
  CHECK(number(drive["members"]["arm"]["moment_z"]["min"]["value"]) == near(-900 * 0.7));
  CHECK(number(drive["reactions"]["A"]["mx"]) == near(900 * 0.26));
  // EN 10219-2's J of 70x70x4, with corners of 8 and 4 mm.
  const double pi = 3.14159265358979323846, mean = 0.006, around = 4 * 0.066 - 2 * mean * (4 - pi),
               inside = 0.066 * 0.066 - mean * mean * (4 - pi), K = 2 * inside * 0.004 / around;
  const double J = std::pow(0.004, 3) * around / 3 + 2 * K * inside, G = 210e9 / 2.6;
  CHECK(number(drive["displacements"]["B"]["rx"]) == near(-900 * 0.26 * 0.7 / (G * J)));
  // The angle goes down, and sideways by more than half as much.
  const Json& tip = cases["cables"]["displacements"]["G"];
  CHECK(number(tip["y"]) / -number(tip["z"]) == Approx(13.35 / 22.79).epsilon(5e-3));
  CHECK(number(cases["cables"]["members"]["cable support"]["moment_z"]["min"]["value"]) == near(-250 * 0.9));
}

TEST_CASE("The press frame: a closed ring that carries its force within itself, and a rod that acts in tension only") {
  const Json cases = example("press-frame"), &pressing = cases["pressing"], &back = cases["pulling back"];
  for (const char* foot : {"A", "B"}) CHECK(std::abs(number(pressing["reactions"][foot]["y"])) < 1e-6);
  const Json& members = pressing["members"];
  CHECK(members["tie rod"]["slack"] == true);
  CHECK(number(members["tie rod"]["axial"]["max"]["value"]) == 0);
  CHECK(back["members"]["tie rod"]["slack"] == false);
  CHECK(number(back["members"]["tie rod"]["axial"]["min"]["value"]) > 3e3);
  // What the cylinder pushes is carried by both columns; the moments of each beam about its left end.
  const double left = number(members["left column"]["axial"]["max"]["value"]),
               right = number(members["right column"]["axial"]["max"]["value"]);
  CHECK(left + right == near(80e3));
  const double M_left = number(members["left column"]["moment_z"]["min"]["value"]),
               M_right = number(members["right column"]["moment_z"]["max"]["value"]);
  CHECK(right * 0.9 == near(80e3 * 0.51 + M_left + M_right));
  // Uniform all along, as no shear passes the slack rod.
  CHECK(M_left == near(number(members["left column"]["moment_z"]["max"]["value"])));
}

TEST_CASE("The pipe rack: repeated bays, sections and joints") {
  const Json cases = example("pipe-rack"), &pipes = cases["pipes"], &members = pipes["members"];
  CHECK(members.size() == 2 + 7 + 6);
  CHECK(number(pipes["reactions"]["U"]["y"]) == near(8e3));
  CHECK(number(pipes["reactions"]["lower.6"]["y"]) == near(8e3));
  for (const char* diagonal : {"left diagonal", "left diagonals.1", "left diagonals.2", "right diagonal",
                               "right diagonals.1", "right diagonals.2"})
    CHECK(number(members[diagonal]["axial"]["min"]["value"]) > 0);
  // Any section through a bay: both chords and the diagonal hold the moment about the diagonal's foot.
  const Json& top = members["upper chord"]["axial"]["min"];
  CHECK(number(top["value"]) == Approx(-18e3).epsilon(0.02));
  CHECK(number(cases["snow"]["balance"]["applied"]["y"]) == near(-1100.0 * 9));
  // In the sun nothing pushes against the supports.
  CHECK(number(cases["sun"]["reactions"]["U"]["x"]) == 0);
}

TEST_CASE("The tank skid: mounts that share the weight, and ground that gives way") {
  const Json cases = example("tank-skid"), &standing = cases["standing"], &soft = cases["soft ground"],
             &sinking = cases["sinking end"];
  for (const char* foot : {"f1", "f2", "f3", "f4"}) {
    const double up = number(standing["reactions"][foot]["z"]);
    CHECK(up == near(number(standing["reactions"]["f1"]["z"])));
    CHECK(number(standing["displacements"][foot]["z"]) == near(-up / 6e5));
    CHECK(number(sinking["reactions"][foot]["z"]) == 0);
  }
  CHECK(number(sinking["members"]["near rail"]["moment_z"]["max"]["value"]) == 0);
  CHECK(number(sinking["displacements"]["r2"]["z"]) == near(-0.005 * 0.75));
  // One mount alone: what it gives up its neighbours take, and the one across gives up as much.
  const double f3 = number(soft["reactions"]["f3"]["z"]);
  CHECK(f3 < 0);
  CHECK(f3 > -6e5 * 0.005 / 4);
  CHECK(number(soft["reactions"]["f1"]["z"]) == near(f3));
  CHECK(number(soft["reactions"]["f2"]["z"]) == near(-f3));
  CHECK(number(soft["reactions"]["f4"]["z"]) == near(-f3));
  const double braked = number(cases["braking"]["reactions"]["f1"]["x"]);
  CHECK(braked ==
        near(-0.4 * (2 * number(standing["reactions"]["f1"]["z"]) + 2 * number(standing["reactions"]["f3"]["z"]))));
}

}  // namespace tests_of_examples_cider_works
