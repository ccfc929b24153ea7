// Closed forms through the whole program: model file in, JSON out.
#include <cmath>

#include "support/near.hpp"
#include "support/program.hpp"

namespace tests_of_program_closed_forms {

using corvex::test::near;
using corvex::test::solved;
using Json = nlohmann::json;

namespace {

double number(const Json& j) {
  return j.get<double>();
}

// 80 x 40 x 4 upright.
const double I = (0.04 * std::pow(0.08, 3) - 0.032 * std::pow(0.072, 3)) / 12;
const double E = 210e9;

std::string beam(const std::string& supports, const std::string& loads, const std::string& extra = "") {
  return "corvex: 1\nunits: {length: mm, force: kN}\nanalysis: {shear: off}\n" + extra +
         "sections: {tube: {shape: rectangular tube, height: 80 mm, width: 40 mm, wall: 4 mm}}\n"
         "points: {A: [0, 0], B: [2400, 0]}\n"
         "members: {beam: {through: [A, B], section: tube, material: S235}}\n"
         "supports: {" +
         supports + "}\nloads: {case: [" + loads + "]}\n";
}

}  // namespace

TEST_CASE("program: a cantilever with a force at its tip") {
  const Json c = solved(beam("A: fixed", "{at: B, force: {down: 1.5}}"), 3)["cases"]["case"];
  CHECK(number(c["displacements"]["B"]["y"]) == near(-1500 * std::pow(2.4, 3) / (3 * E * I)));
  CHECK(number(c["displacements"]["B"]["rz"]) == near(-1500 * 2.4 * 2.4 / (2 * E * I)));
  CHECK(number(c["reactions"]["A"]["mz"]) == near(1500 * 2.4));
  const Json& m = c["members"]["beam"];
  CHECK(number(m["moment_z"]["min"]["value"]) == near(-1500 * 2.4));
  CHECK(number(m["stress"]["max"]["value"]) == near(1500 * 2.4 * 0.04 / I));
  CHECK(number(m["stress"]["max"]["y"]) == near(0.04));
  CHECK(number(m["places"][1]["deflection_y"]) == near(-1500 * 1.2 * 1.2 * (3 * 2.4 - 1.2) / (6 * E * I)));
}

TEST_CASE("program: a simple span under a uniform load") {
  const Json m =
      solved(beam("A: pinned, B: roller", "{on: beam, line: {down: 3 kN/m}}"))["cases"]["case"]["members"]["beam"];
  CHECK(number(m["moment_z"]["max"]["value"]) == near(3000 * 2.4 * 2.4 / 8));
  CHECK(number(m["moment_z"]["max"]["at"]) == near(1.2));
  CHECK(number(m["shear_y"]["max"]["value"]) == near(3600));
  CHECK(number(m["shear_y"]["min"]["value"]) == near(-3600));
  CHECK(number(m["shear_y"]["min"]["at"]) == near(2.4));
  CHECK(number(m["deflection_y"]["min"]["value"]) == near(-5 * 3000 * std::pow(2.4, 4) / (384 * E * I)));
  CHECK(number(m["sag"]["max"]["at"]) == near(1.2));
}

TEST_CASE("program: a triangular load") {
  const Json c = solved(beam("A: pinned, B: roller", "{on: beam, line: {down: [0, 6 kN/m]}}"))["cases"]["case"];
  CHECK(number(c["reactions"]["B"]["y"]) == near(6000 * 2.4 / 3));
  const Json& M = c["members"]["beam"]["moment_z"]["max"];
  CHECK(number(M["value"]) == near(6000 * 2.4 * 2.4 / (9 * std::sqrt(3.0))));
  CHECK(number(M["at"]) == near(2.4 / std::sqrt(3.0)));
}

TEST_CASE("program: a propped cantilever") {
  const Json c = solved(beam("A: fixed, B: roller", "{on: beam, line: {down: 4 kN/m}}"))["cases"]["case"];
  CHECK(number(c["reactions"]["B"]["y"]) == near(3 * 4000 * 2.4 / 8));
  CHECK(number(c["reactions"]["A"]["mz"]) == near(4000 * 2.4 * 2.4 / 8));
  CHECK(number(c["members"]["beam"]["moment_z"]["max"]["at"]) == near(5 * 2.4 / 8));
  CHECK(number(c["balance"]["error"]) < 1e-12);
}

TEST_CASE("program: a built-in beam with a moment within") {
  const double L = 2.4, a = 0.9, b = 1.5, M = 2000;
  const Json c = solved(
      beam("A: fixed, B: fixed", "{on: beam, at: a, moment: 2 kN*m}", "parameters: {a: 0.9 m}\n"))["cases"]["case"];
  CHECK(number(c["reactions"]["A"]["y"]) == near(6 * M * a * b / (L * L * L)));
  CHECK(number(c["reactions"]["A"]["mz"]) == near(M * b * (2 * a - b) / (L * L)));
  CHECK(number(c["reactions"]["B"]["mz"]) == near(M * a * (2 * b - a) / (L * L)));
}

TEST_CASE("program: a truss of three bars") {
  const Json c = solved(R"(
corvex: 1
units: {length: m, force: kN}
sections: {rod: {shape: round tube, diameter: 48.3 mm, wall: 3.2 mm}}
points: {A: [0, 0], B: [4, 0], C: [1, 2]}
members:
  AC: {through: [A, C], section: rod, material: S235, kind: link}
  CB: {through: [C, B], section: rod, material: S235, kind: link}
  AB: {through: [A, B], section: rod, material: S235, kind: link}
supports: {A: pinned, B: roller}
loads: {case: [{at: C, force: {down: 9}}]}
)")["cases"]["case"];
  CHECK(number(c["members"]["AC"]["axial"]["min"]["value"]) == near(-6750 * std::sqrt(5.0) / 2));
  CHECK(number(c["members"]["CB"]["axial"]["max"]["value"]) == near(-2250 * std::sqrt(13.0) / 2));
  CHECK(number(c["members"]["AB"]["axial"]["max"]["value"]) == near(3375));
  CHECK(number(c["members"]["AB"]["von_mises"]["max"]["value"]) ==
        near(3375 / (3.14159265358979 * (0.02415 * 0.02415 - 0.02095 * 0.02095))));
}

TEST_CASE("program: a rolled section in space") {
  const double P = 1000, L = 2, r = 0.5235987755982988;
  const double Iy = (0.08 * std::pow(0.04, 3) - 0.072 * std::pow(0.032, 3)) / 12;
  const Json c = solved(R"(
corvex: 1
analysis: {shear: off}
sections: {tube: {shape: rectangular tube, height: 80 mm, width: 40 mm, wall: 4 mm}}
points: {A: [0, 0, 0], B: [2 m, 0, 0]}
members: {arm: {through: [A, B], section: tube, material: S235, roll: 30 deg}}
supports: {A: fixed}
loads: {case: [{at: B, force: {down: 1 kN}}]}
)")["cases"]["case"];
  const double v = -P * std::cos(r) * L * L * L / (3 * E * I), w = P * std::sin(r) * L * L * L / (3 * E * Iy);
  CHECK(number(c["displacements"]["B"]["z"]) == near(v * std::cos(r) - w * std::sin(r)));
  CHECK(number(c["displacements"]["B"]["y"]) == near(-(v * std::sin(r) + w * std::cos(r))));
  const Json& m = c["members"]["arm"];
  CHECK(number(m["moment_z"]["min"]["value"]) == near(-P * L * std::cos(r)));
  CHECK(number(m["moment_y"]["max"]["value"]) == near(P * L * std::sin(r)));
  CHECK(number(m["stress"]["max"]["value"]) == near(P * L * (std::cos(r) * 0.04 / I + std::sin(r) * 0.02 / Iy)));
}

}  // namespace tests_of_program_closed_forms
