// Every form of a load, a support and a direction, as the file has it.
#include "support/near.hpp"
#include "support/text.hpp"

namespace tests_of_file_loads {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

std::string frame(const std::string& load, const std::string& supports = "A: fixed, D: {hold: [y]}",
                  const std::string& units = "length: mm, force: kN, moment: kN*mm, line: kN/mm") {
  return "corvex: 1\nunits: {" + units +
         "}\nparameters: {P: 3 kN}\nsections: {tube: {shape: rectangular tube, height: 80 mm, width: 40 mm, wall: 4 mm}}\n"
         "points: {A: [0, 0], B: [0, 2 m], C: [3 m, 2 m], D: [3 m, 0]}\n"
         "members:\n"
         "  leg: {through: [A, B], section: tube, material: S235}\n"
         "  rail: {through: [B, C], section: tube, material: S235}\n"
         "  post: {through: [C, D], section: tube, material: S235}\n"
         "supports: {" +
         supports + "}\nloads:\n  c:\n    - " + load + "\n";
}

// The single load of that text.
template <class L>
L load(const std::string& text) {
  const Structure s = read(frame(text)).structure;
  REQUIRE(s.load_cases()[0].loads().size() == 1);
  REQUIRE(std::holds_alternative<L>(s.load_cases()[0].loads()[0]));
  return std::get<L>(s.load_cases()[0].loads()[0]);
}

void check(const Vector& v, const Vector& expected) {
  CAPTURE(v.x, v.y, v.z);
  CHECK(length(v - expected) <= 1e-12 * length(expected));
}

}  // namespace

TEST_CASE("Directions by map, angle, toward a point, in the member's axes") {
  check(load<PointLoad>("{at: C, force: {down: P, x: 1}}").force, {1000, -3000, 0});
  check(load<PointLoad>("{at: C, force: {size: P, angle: 90 deg}}").force, {0, 3000, 0});
  check(load<PointLoad>("{at: C, force: {size: 5, toward: A}}").force, Vector{-3, -2, 0} * (5000 / std::sqrt(13)));
  check(load<MemberLoad>("{on: rail, at: 1 m, force: {size: 5, toward: D}}").force,
        Vector{2, -2, 0} * (5000 / std::sqrt(8)));
  check(load<LineLoad>("{on: rail, line: {size: [1 kN/m, 2 kN/m], angle: -90 deg}}").last, {0, -2000, 0});
  for (const char* text :
       {"{on: leg, at: 50 %, force: {y: 2, axes: member}}", "{on: leg, at: 1 m, force: {y: 2}, axes: member}",
        "{on: leg, at: 1000, force: [0, 2], axes: member}",
        "{on: leg, at: 1 m, force: {size: 2, angle: 90 deg}, axes: member}"}) {
    const MemberLoad l = load<MemberLoad>(text);
    check(l.force, {0, 2000, 0});
    CHECK(l.axes == LoadAxes::member);
    CHECK(l.at == 1.0);
  }
  CHECK(load<LineLoad>("{on: leg, line: [[0, 1], [0, 2]], axes: member}").axes == LoadAxes::member);
  CHECK(load<LineLoad>("{on: leg, line: [[0, 1], [0, 2]], axes: global}").axes == LoadAxes::global);
}

TEST_CASE("Loads of every kind") {
  CHECK(load<MemberLoad>("{on: rail, at: 1.2 m, moment: 2 kN*m}").moment.z == 2000);
  CHECK(load<LineLoad>("{on: rail, line: {down: 1}, per: plan}").per == Per::plan);
  CHECK(load<LineLoad>("{on: rail, line: {down: 1}, from: 1 m}").from == 1);
  const SpreadLoad spread = load<SpreadLoad>("{on: [leg, rail], spread: {down: 500 N}}");
  check(spread.force, {0, -500, 0});
  CHECK(spread.on.size() == 2);
  CHECK(load<TemperatureLoad>("{on: rail, heat: 60 K}").plus == 60);
  CHECK(load<TemperatureLoad>("{on: rail, heat: 90 degF}").plus == near(50));
  const TemperatureLoad across = load<TemperatureLoad>("{on: rail, heat: {plus-y: 40 K, minus-y: 0}}");
  CHECK(across.across == TemperatureLoad::Across::y);
  CHECK(across.plus == 40);
  CHECK(across.minus == 0);
  CHECK(load<LackOfFitLoad>("{on: rail, shorten: 2}").by == 0.002);
  check(load<SettlementLoad>("{at: D, settle: {down: 3 mm}}").move, {0, -0.003, 0});
  check(load<SettlementLoad>("{at: A, settle: [1, -2]}").move, {0.001, -0.002, 0});
  CHECK(load<SettlementLoad>("{at: A, settle: {rz: 2 mrad, x: 1}}").turn.z == 0.002);
  CHECK(load<GravityLoad>("{gravity: down}").acceleration.y == -9.80665);
  check(load<GravityLoad>("{gravity: [0.3*gn, -gn]}").acceleration, {0.3 * 9.80665, -9.80665, 0});
  check(load<GravityLoad>("{gravity: {size: gn, angle: -60 deg}}").acceleration,
        Vector{0.5, -std::sqrt(0.75), 0} * 9.80665);
}

TEST_CASE("Supports of every kind") {
  const auto support = [](const std::string& text) {
    return read(frame("{gravity: down}", "A: fixed, D: " + text)).structure.supports()[1];
  };
  CHECK(support("{hold: [[0.6, 0.8]]}").along == std::vector<Vector>{{0.6, 0.8, 0}});
  CHECK(support("{hold: [x, [3, 4], rz]}").held == std::array{true, false, false, false, false, true});
  CHECK(support("{hold: [[cos(30 deg), sin(30 deg)]]}").along[0].y == near(0.5));
  CHECK(support("{spring: {y: 500 N/mm, rz: 2 kN*m/rad}}").spring == std::array<double, 6>{0, 5e5, 0, 0, 0, 2000});
  CHECK(support("{hold: [x], spring: {y: 1 kN/cm}}").spring[1] == near(1e5));
}

TEST_CASE("Bare changes of temperature and masses take the units that the file names") {
  const auto m =
      read(frame("{on: rail, heat: 60}", "A: fixed, D: roller", "length: mm, force: kN, temperature: degF, mass: lb") +
           "masses: {B: 10, C: 5 kg}\n");
  CHECK(std::get<TemperatureLoad>(m.structure.load_cases()[0].loads()[0]).plus == near(60 / 1.8));
  CHECK(m.structure.point_masses()[0].mass == near(4.5359237));
  CHECK_THAT(
      refusal(frame("{on: rail, heat: 60}")),
      Contains(
          "'60' has no unit; a temperature change was expected, for example 60 K (or name temperature under units:)"));
}

TEST_CASE("Slips in loads and supports are told at their place") {
  const auto [text, message] = GENERATE(table<std::string, std::string>({
      {"{on: rail, heat: {plus-y: 3 K}}", "13:24: error: heat across a member needs 'minus-y'"},
      {"{on: rail, heat: {plus-y: 3 K, minus-z: 1 K}}", "across one direction a load"},
      {"{on: rail, heat: {top: 3 K}}", "'top' is not a key of heat"},
      {"{on: rail, heat: 60 mm}", "'60 mm' is a length; a temperature change was expected"},
      {"{on: rail, at: 1 m, heat: 60 K}", "13:18: error: 'at' does not go with 'heat'"},
      {"{at: C, heat: 60 K}", "'at' does not go with 'heat'"},
      {"{heat: 60 K}", "a temperature change needs 'on'"},
      {"{on: rail, shorten: 4 m}", "cannot be 4000 mm too short"},
      {"{on: rail, line: {down: 1}, per: roof}",
       "'roof' is not a reference length of a line load; expected: plan, length"},
      {"{on: leg, line: {x: 1}, per: plan}", "'leg' is vertical and has no horizontal projection"},
      {"{on: rail, spread: {down: 1 kN/m}}", "'1 kN/m' is a force per length; a force was expected"},
      {"{at: C, settle: {down: 3 mm}}", "there is no support at 'C': only supports settle"},
      {"{at: D, settle: {x: 3 mm}}", "13:23: error: the support at 'D' does not restrain this direction"},
      {"{at: C, force: {size: 3}}", "'size' needs either 'angle' or 'toward'"},
      {"{at: C, force: {size: 3, angle: 3 deg, toward: A}}", "'size' needs either 'angle' or 'toward'"},
      {"{at: C, force: {size: 3, toward: C}}", "the load acts at C itself"},
      {"{at: C, force: {size: 3, toward: Q}}", "there is no point 'Q'"},
      {"{at: C, force: {angle: 3 deg}}", "'angle' needs 'size'"},
      {"{at: C, force: {size: 3, angle: 3 deg, x: 1}}", "'x' does not go with 'size'"},
      {"{on: rail, line: {size: 3, toward: A}}", "'toward' needs a load that acts at one place"},
      {"{at: C, force: {x: 1}, axes: member}", "only loads on members can be given in a member's axes"},
      {"{at: C, force: {x: 1, axes: member}}", "only loads on members can be given in a member's axes"},
      {"{on: rail, at: 1 m, force: {down: 1}, axes: member}", "'down' is a global direction"},
      {"{on: rail, at: 1 m, force: {down: 1, axes: member}}", "'down' is a global direction"},
      {"{on: rail, at: 1 m, force: {y: 1}, axes: members}", "'members' is not whose axes; did you mean 'member'?"},
      {"{on: rail, line: {down: [1, 2, 3]}}", "a first and a last value were expected, but there are 3"},
  }));
  const std::string all = refusal(frame(text));
  INFO(all);
  CHECK_THAT(all, Contains(message));
  CHECK(std::count(all.begin(), all.end(), '\n') == 1);
}

TEST_CASE("Slips in supports") {
  const auto [text, message] = GENERATE(table<std::string, std::string>({
      {"{hold: [[0, 0]]}", "a direction to restrain needs a length"},
      {"{hold: [[1, 0, 0]]}", "2 components were expected"},
      {"{hold: [[1 kN, 0]]}", "'1 kN' is a force; a plain number was expected"},
      {"{spring: {y: 500}}", "'500' has no unit; a stiffness was expected, for example 500 N/mm"},
      {"{spring: {rz: 500 N/mm}}", "a stiffness against turning was expected, for example 2 kN*m/rad"},
      {"{spring: {y: 0 N/mm}}", "a spring needs a stiffness greater than zero"},
      {"{spring: {}}", "a spring was expected, for example {y: 500 N/mm}"},
      {"{spring: {w: 5 N/mm}}", "'w' is not a key of spring"},
      {"{hold: [y], spring: {y: 5 N/mm}}", "y is restrained; the spring there has no effect"},
      {"{}", "needs 'hold'"},
  }));
  const std::string all = refusal(frame("{gravity: down}", "A: fixed, D: " + text));
  INFO(all);
  CHECK_THAT(all, Contains(message));
}

TEST_CASE("Loads act through a place of the section where they say so") {
  const auto read = [](const std::string& load, const std::string& analysis = "") {
    return read_model_text(
        "corvex: 1\n" + analysis +
            "units: {length: mm, force: kN, line: kN/mm, moment: kN*mm}\nsections: {beam: UPN 200}\npoints: {A: [0, 0, 0], B: [3000, 0, 0]}\n"
            "members: {beam: {through: [A, B], section: beam, material: S235}}\n"
            "supports: {A: fixed}\nloads: {case: [" +
            load + "]}\n",
        "model.yaml");
  };
  const auto place = [&](const std::string& load) {
    const auto model = read(load);
    REQUIRE(model.ok());
    const Load& l = model->structure.load_cases()[0].loads().front();
    return std::visit(
        [](const auto& one) {
          if constexpr (requires { one.through; }) return one.through;
          return std::optional<Through>();
        },
        l);
  };
  using Place = Through::Place;
  CHECK_FALSE(place("{on: beam, at: 1 m, force: {down: 8}}"));
  CHECK(place("{on: beam, at: 1 m, force: {down: 8}, through: centroid}")->place == Place::centroid);
  CHECK(place("{on: beam, line: {down: 8}, through: shear centre}")->place == Place::shear_centre);
  CHECK(place("{on: beam, spread: {down: 8}, through: centroid}")->place == Place::centroid);
  CHECK(place("{gravity: down, through: centroid}")->place == Place::centroid);
  CHECK(place("{at: B, force: {down: 8}, through: centroid}")->place == Place::centroid);
  const auto given = place("{on: beam, at: 1 m, force: {down: 8}, through: {y: 40, z: -1.5 cm}}");
  CHECK(given->place == Place::at);
  CHECK(given->y.si() == near(0.04));
  CHECK(given->z.si() == near(-0.015));
  const auto all = read("{gravity: down}", "analysis: {through: centroid}\n");
  REQUIRE(all.ok());
  CHECK(all->structure.analysis().through.place == Place::centroid);
  for (const auto& [load, words] : std::vector<std::pair<std::string, std::string>>{
           {"{on: beam, at: 1 m, force: {down: 8}, through: centre}", "the place of the section"},
           {"{on: beam, at: 1 m, force: {down: 8}, through: {}}",
            "a place of the section was expected, for example {y: 40 mm, z: 0}"},
           {"{on: beam, at: 1 m, force: {down: 8}, through: {x: 1}}", "x"},
           {"{on: beam, heat: 20 K, through: centroid}", "'through' does not go with 'heat'"}}) {
    const auto wrong = read(load);
    REQUIRE_FALSE(wrong.ok());
    INFO(describe(wrong.error().front()));
    CHECK_THAT(describe(wrong.error().front()), Catch::Contains(words));
  }
}

}  // namespace tests_of_file_loads
