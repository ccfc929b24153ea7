// Model files: what each key means, read through the public reader and compared with the same structure built
// by hand.
#include <cmath>
#include <corvex/export.hpp>
#include <corvex/file.hpp>

#include "support/near.hpp"
#include "support/text.hpp"

namespace tests_of_file_reading {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;
using corvex::test::read;
using corvex::test::refusal;
using corvex::test::replaced;

TEST_CASE("Points, members, supports and loads arrive as they were written") {
  const Model m = read(R"(
corvex: 1
title: bracket
units: {length: mm, force: kN, moment: kN*mm, line: kN/mm}
parameters: {reach: 1.2 m, F: 4 kN}
materials:
  own: {like: S275, yield: 260 MPa, allowable: 150 MPa}
  alloy: {E: 70 GPa, G: 26 GPa, density: 2700 kg/m^3, expansion: 23e-6/K}
  twin: own
sections:
  box: {shape: rectangular tube, height: 80 mm, width: 4 cm, wall: 4 mm}
  rod: {shape: round bar, diameter: 20 mm}
points:
  A: [0, 0]
  B: [reach, 0]
  C: [0, -reach/2]
members:
  arm: {through: [A, B], section: box, material: own}
  prop: {through: [C, B], section: rod, material: alloy, kind: link}
supports:
  A: pinned
  C: {hold: [x, y]}
loads:
  one:
    - {at: B, force: {down: F}}
    - {at: [A, B], force: [1, -2]}
    - {on: arm, at: 25 %, force: {up: 1, x: 2 kN}}
    - {on: arm, line: {down: 1 kN/m}, from: 200, to: 50 %}
    - {on: arm, line: [[0, -1], [0, -2]]}
  two:
    - {at: B, moment: 2}
    - {on: [arm, prop], line: {down: [0, 1 kN/m]}}
    - {gravity: down}
)");
  const Structure& s = m.structure;
  CHECK(s.title() == "bracket");
  CHECK(s.is_plane());
  REQUIRE(s.points().size() == 3);
  CHECK(s.points()[1].position.x == near(1.2));
  CHECK(s.points()[2].position.y == near(-0.6));
  REQUIRE(s.members().size() == 2);
  CHECK(s.members()[1].kind == MemberKind::link);
  const Material& own = s.material_of(s.members()[0]);
  CHECK(own.name == "own");
  CHECK(own.yield->in(MPa) == near(260));
  CHECK(own.allowable->in(MPa) == near(150));
  CHECK(own.E.in(GPa) == near(210));
  const Material& alloy = s.material_of(s.members()[1]);
  CHECK(alloy.shear_modulus().in(GPa) == near(26));
  CHECK(alloy.expansion.si() == near(23e-6));
  const auto& box = std::get<RectangularTube>(s.section_of(s.members()[0]).shape());
  CHECK(box.width.in(mm) == near(40));

  const auto& one = s.load_cases()[0].loads();
  REQUIRE(one.size() == 6);  // the list of points makes two
  CHECK(std::get<PointLoad>(one[0]).force.y == near(-4000));
  CHECK(std::get<PointLoad>(one[2]).force.x == near(1000));
  CHECK(std::get<PointLoad>(one[2]).force.y == near(-2000));
  CHECK(std::get<MemberLoad>(one[3]).at == near(0.3));
  CHECK(std::get<MemberLoad>(one[3]).force.y == near(1000));
  const auto& part = std::get<LineLoad>(one[4]);
  CHECK(part.from == near(0.2));
  CHECK(*part.to == near(0.6));
  CHECK(part.first.y == near(-1000));
  const auto& growing = std::get<LineLoad>(one[5]);
  CHECK(growing.first.y == near(-1e6));  // kN per mm
  CHECK(growing.last.y == near(-2e6));
  const auto& two = s.load_cases()[1].loads();
  REQUIRE(two.size() == 4);
  CHECK(std::get<PointLoad>(two[0]).moment.z == near(2));  // kN·mm
  CHECK(std::get<LineLoad>(two[2]).last.y == near(-1000));
  CHECK(std::get<GravityLoad>(two[3]).acceleration.y == near(-9.80665));
}

TEST_CASE("Three coordinates make a space structure, up is z unless y is asked for") {
  const std::string text = R"(
corvex: 1
sections: {rod: {shape: round bar, diameter: 20 mm}}
points: {A: [0, 0, 0], B: [1 m, 0, 0]}
members: {arm: {through: [A, B], section: rod, material: S235, roll: 30 deg}}
supports: {A: fixed}
loads: {one: [{at: B, force: {down: 1 kN}}, {at: B, moment: {x: 1 kN*m}}, {gravity: [0, 0, -5 m/s^2]}]}
)";
  const Model z = read(text), y = read("up: y" + text);
  CHECK(!z.structure.is_plane());
  CHECK(z.structure.up() == Up::z);
  CHECK(y.structure.up() == Up::y);
  CHECK(std::get<PointLoad>(z.structure.load_cases()[0].loads()[0]).force.z == near(-1000));
  CHECK(std::get<PointLoad>(y.structure.load_cases()[0].loads()[0]).force.y == near(-1000));
  CHECK(z.structure.members()[0].roll == near(0.5235987755982988));
  CHECK(std::get<GravityLoad>(z.structure.load_cases()[0].loads()[2]).acceleration.z == near(-5));
}

TEST_CASE("JSON is a model file too") {
  const Model m = read(R"({"corvex": 1, "units": {"length": "m", "force": "N"},
 "sections": {"bar": {"shape": "rectangular bar", "height": "60 mm", "width": "20 mm"}},
 "points": {"A": [0, 0], "B": [2.5, 0]},
	"members": {"beam": {"through": ["A", "B"], "section": "bar", "material": "S235"}},
 "supports": {"A": "fixed"}, "loads": {"tip": [{"at": "B", "force": [0, -1000]}]}})");
  const Solution s = solve(m.structure);
  REQUIRE(s.ok());
  CHECK(s["tip"].reaction("A").mz.si() == near(2500));
}

TEST_CASE("Scalars are texts: names that look like something else stay names") {
  const Model m = read(R"(
corvex: 1
sections: {on: {shape: round bar, diameter: 20 mm}}
points: {y: [0, 0], n: [1 m, 0], 012: [2 m, 0]}
members: {yes: {through: [y, n, 012], section: on, material: S235}}
supports: {y: fixed}
loads: {null: [{at: 012, force: {down: 1 kN}}], "off": [{on: yes, at: 0, force: {down: 0}}]}
)");
  CHECK(m.structure.points()[2].name == "012");
  CHECK(m.structure.load_cases()[0].name() == "null");
}

TEST_CASE("`all` means every point or member, and gravity takes a vector") {
  const Model m = read(test::cantilever(R"(
    - {at: all, force: {x: 1 kN}}
    - {on: all, line: {down: 1 kN/m}}
    - {gravity: [2 m/s^2, 0]})"));
  CHECK(m.structure.load_cases()[0].loads().size() == 2 + 1 + 1);
}

TEST_CASE("Shear deformation can be left out") {
  CHECK(read(test::cantilever("")).structure.analysis().shear);
  CHECK_FALSE(read("analysis: {shear: off}\n" + test::cantilever("")).structure.analysis().shear);
  CHECK(read("analysis: {shear: on}\n" + test::cantilever("")).structure.analysis().shear);
}

TEST_CASE("Properties of a section can be given") {
  const Model m = read(test::cantilever("", "{shape: properties, A: 10 cm^2, Iz: 200 cm^4, Wz: 40 cm^3, Ay: 5 cm^2}"));
  const auto& p = m.structure.sections()[0].section.properties();
  CHECK(p.A.si() == near(1e-3));
  CHECK(p.Iz.si() == near(2e-6));
  CHECK(p.Ay.si() == near(5e-4));
  CHECK(p.Iy.si() == 0);
}

TEST_CASE("Parameters may stand in any order and use each other") {
  const Model m = read("parameters: {tip: 2*arm - 100 mm, arm: 0.55 m, F: 3 kN}\n" +
                       test::cantilever("    - {at: B, force: {down: F*tip/arm}}"));
  CHECK(std::get<PointLoad>(m.structure.load_cases()[0].loads()[0]).force.y == near(-3000 * 1.0 / 0.55));
}

TEST_CASE("Files of other editors: carriage returns and a mark at the beginning") {
  const std::string text = test::cantilever("    - {at: B, force: {down: 2}}");
  std::string other = "\xEF\xBB\xBF";
  for (const char c : text) other += c == '\n' ? "\r\n" : std::string(1, c);
  CHECK(results_json({.solution = solve(read(other).structure)}) ==
        results_json({.solution = solve(read(text).structure)}));
}

TEST_CASE("A designation of the catalogue stands for a section, and defaults for what members do not say") {
  const std::string text = R"(corvex: 1
units: {length: mm, force: kN}
defaults: {section: SHS 60x60x4, material: S355, kind: beam}
sections: {web: SHS 40x40x3}
points: {A: [0, 0], B: [0, 900], C: [900, 900], D: [900, 0]}
members:
  post: {through: [A, B]}
  posts: {each: [[D, C]], section: web}
  rail: {through: [B, C], section: SHS 60x60x4, material: S235}
  tie: {through: [A, C], section: ROUND 12, kind: link}
supports: {"A, D": fixed}
masses: {"B, C": 5 kg}
loads: {push: [{at: B, force: {x: 2}}]}
)";
  const Model m = read(text);
  const Structure& s = m.structure;
  const auto section = [&](const char* member) { return s.sections()[s[*s.find_member(member)].section.index].name; };
  CHECK(section("post") == "SHS 60x60x4");
  CHECK(section("posts.1") == "web");
  CHECK(section("rail") == "SHS 60x60x4");
  CHECK(section("tie") == "ROUND 12");
  CHECK(s.sections().size() == 3);
  CHECK(s.material_of(s[*s.find_member("post")]).name == "S355");
  CHECK(s.material_of(s[*s.find_member("rail")]).name == "S235");
  CHECK(s[*s.find_member("tie")].kind == MemberKind::link);
  CHECK(s.supports().size() == 2);
  CHECK(s.point_masses().size() == 2);
  CHECK(solve(s).ok());
  using Catch::Matchers::Contains;
  CHECK_THAT(refusal(replaced(text, "section: ROUND 12", "section: SHS 60x60x60")), Contains(":10:"));
  CHECK_THAT(refusal(replaced(text, "section: ROUND 12", "section: wep")), Contains("did you mean 'web'?"));
  CHECK_THAT(refusal(replaced(text, "{section: SHS 60x60x4, material: S355", "{section: nothing, material: S355")),
             Contains("3:21: error: there is no section 'nothing'") && !Contains("needs"));
  CHECK_THAT(refusal(replaced(text, "defaults: {section: SHS 60x60x4, ", "defaults: {")),
             Contains("member 'post' needs 'section'"));
  CHECK_THAT(refusal(replaced(text, "\"A, D\": fixed", "\"A, X\": fixed")),
             Contains("11:16: error: there is no point 'X'"));
  CHECK_THAT(refusal(replaced(text, "\"A, D\": fixed", "\"A,, D\": fixed")),
             Contains("the name of a point was expected next to the comma"));
  CHECK_THAT(refusal(replaced(text, "section: web}", "section: SHS 2x2x1/8}")), Contains("fractions are inches"));
}

}  // namespace tests_of_file_reading
