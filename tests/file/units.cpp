// The same structure written in any units is the same structure; and how results are printed follows the
// file.
#include "support/near.hpp"
#include "support/plan.hpp"
#include "support/text.hpp"

using namespace corvex;
using namespace corvex::test;

TEST_CASE("A frame written in other units, or built by hand, answers the same") {
  for (const bool plane : {true, false})
    for (unsigned seed = 100; seed < 130; ++seed) {
      INFO((plane ? "plane" : "space") << " frame " << seed);
      const Plan plan = rich_plan(seed, plane);
      const Solution built = solve(build(plan));
      REQUIRE(built.ok());
      for (const auto& [length, force, moment] :
           {std::array{"mm", "N", "N*mm"}, {"m", "kN", "kN*m"}, {"in", "lbf", "kip*ft"}, {"ft", "kip", "lbf*in"}}) {
        const Solution s = solve(read(model_file(plan, length, force, moment)).structure);
        REQUIRE(s.ok());
        for (std::size_t c = 0; c < built.size(); ++c) {
          const CaseResult a = built[c], b = s["C" + std::to_string(c)];
          double size = 0, stress = 0;
          for (std::size_t p = 0; p < plan.points.size(); ++p) {
            const Displacement d = a.displacement(PointId{p});
            size = std::max({size, std::abs(d.x.si()), std::abs(d.y.si()), std::abs(d.z.si())});
          }
          for (std::size_t i = 0; i < plan.members.size(); ++i)
            stress = std::max(stress, a[MemberId{i}].von_mises()->value.si());
          for (std::size_t p = 0; p < plan.points.size(); ++p) {
            CHECK(b.displacement(PointId{p}).x.si() == near(a.displacement(PointId{p}).x.si(), size));
            CHECK(b.displacement(PointId{p}).y.si() == near(a.displacement(PointId{p}).y.si(), size));
          }
          for (std::size_t i = 0; i < plan.members.size(); ++i)
            CHECK(b[MemberId{i}].von_mises()->value.si() == near(a[MemberId{i}].von_mises()->value.si(), stress));
        }
      }
    }
}

TEST_CASE("Bare numbers take the units that the file names, and no others") {
  const auto refused = [](const std::string& units, const std::string& loads) {
    return refusal("units: " + units + R"(
sections: {tube: {shape: round bar, diameter: 20 mm}}
points: {A: [0, 0], B: [2 m, 0]}
members: {arm: {through: [A, B], section: tube, material: S235}}
supports: {A: fixed}
loads: {tip: [)" + loads +
                   "]}\n");
  };
  using Catch::Matchers::Contains;
  CHECK_THAT(refused("{length: mm}", "{at: B, force: {down: 2}}"),
             Contains("'2' has no unit") && Contains("name force under units"));
  CHECK_THAT(refused("{force: kN}", "{on: arm, line: {down: 2}}"), Contains("name force and length under units"));
  CHECK_THAT(refused("{force: kN}", "{on: arm, at: 1, force: {down: 2}}"), Contains("name length under units"));
  CHECK_THAT(refused("{length: mm, force: kN}", "{gravity: [0, -9.81]}"), Contains("m/s^2"));
}

TEST_CASE("`units: section` settles section dimensions and the powers of given properties") {
  const Model m = read(R"(
units: {length: m, force: kN, section: mm, stress: MPa}
materials: {own: {like: S235, yield: 300}}
sections:
  tube: {shape: square tube, width: 60, wall: 4}
  given: {shape: properties, A: 1000, Iz: 2e6}
points: {A: [0, 0], B: [2, 0], C: [4, 0]}
members:
  one: {through: [A, B], section: tube, material: own}
  two: {through: [B, C], section: given, material: own}
supports: {A: fixed}
loads: {tip: [{at: C, force: {down: 2}}]}
)");
  CHECK(m.structure.sections()[0].section.properties().A.si() == near(896e-6));
  CHECK(m.structure.sections()[1].section.properties().A.si() == near(1e-3));
  CHECK(m.structure.sections()[1].section.properties().Iz.si() == near(2e-6));
  CHECK(m.structure.materials()[0].yield->si() == near(300e6));
}

TEST_CASE("Results print in the units of the file, or in the usual ones") {
  const auto units = [](const std::string& text) {
    return read("units: " + text + R"(
sections: {tube: {shape: round bar, diameter: 20 mm}}
points: {A: [0, 0], B: [2 m, 0]}
members: {arm: {through: [A, B], section: tube, material: S235}}
supports: {A: fixed}
loads: {tip: []}
)")
        .units;
  };
  const ModelUnits usual = units("{}");
  CHECK(usual.length.text == "m");
  CHECK(usual.force.text == "kN");
  CHECK(usual.moment.text == "kN·m");
  CHECK(usual.deflection.text == "mm");
  CHECK(usual.stress.text == "MPa");
  const ModelUnits own = units("{length: mm, force: N, moment: N*mm, stress: N/mm^2, deflection: um}");
  CHECK(own.moment.text == "N·mm");
  CHECK(own.moment.si == near(1e-3));
  CHECK(own.stress.text == "N/mm²");
  CHECK(own.deflection.si == near(1e-6));
  const ModelUnits inches = units("{length: in}");
  CHECK(inches.force.text == "lbf");
  CHECK(inches.moment.text == "lbf·in");
  CHECK(inches.deflection.text == "in");
  CHECK(inches.stress.text == "psi");
  const ModelUnits kips = units("{length: ft, force: kip}");
  CHECK(kips.force.text == "kip");
  CHECK(kips.moment.si == near(4448.2216152605 * 0.0254));
}
