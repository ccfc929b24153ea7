// The same structure written in any units is the same structure; and how results are printed follows the
// file.
#include "support/near.hpp"
#include "support/plan.hpp"
#include "support/text.hpp"

namespace tests_of_file_units {

using namespace corvex;
using namespace corvex::test;
using namespace corvex::literals;
using namespace corvex::units;

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
  CHECK_THAT(refused("{force: kN}", "{on: arm, line: {down: 2}}"), Contains("name line under units"));
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

namespace {

// A cantilever of 2 m; what it has besides.
std::string arm(const std::string& units, const std::string& loads, const std::string& more = "") {
  return "corvex: 1\nunits: " + units + "\nsections: {tube: {shape: round bar, diameter: 20 mm}}\n" +
         "points: {A: [0, 0], B: [2 m, 0]}\nmembers: {arm: {through: [A, B], section: tube, material: S235}}\n" +
         "supports: {A: fixed}\nloads: {tip: [" + loads + "]}\n" + more;
}

}  // namespace

TEST_CASE("A bare angle is refused unless its unit is named") {
  using Catch::Matchers::Contains;
  CHECK_THAT(refusal(arm("{force: kN}", "{at: B, force: {size: 100, angle: -60}}")),
             Contains("'-60' has no unit; an angle was expected, for example 30 deg (or name angle under units:)"));
  CHECK_THAT(refusal(replaced(arm("{force: kN}", "{at: B, force: {down: 1}}"), "S235}", "S235, roll: 90}")),
             Contains("'90' has no unit; an angle was expected"));
  CHECK_THAT(refusal(replaced(arm("{force: kN}", "{at: B, force: {down: 1}}"), "B: [2 m, 0]",
                              "B: {from: A, length: 2 m, angle: 30}")),
             Contains("'30' has no unit; an angle was expected"));
  CHECK_THAT(refusal(arm("{force: kN}", "{at: A, settle: {rz: 0.01}}")), Contains("'0.01' has no unit"));
  const Model named = read(arm("{force: kN, angle: deg}", "{at: B, force: {size: 100, angle: -60}}"));
  const auto load = std::get<PointLoad>(named.structure.load_cases()[0].loads()[0]);
  CHECK(load.force.x == near(50e3));
  CHECK(load.force.y == near(-50e3 * std::sqrt(3)));
  // Zero is zero, and a formula that divides lengths is a rotation.
  CHECK_NOTHROW(read(arm("{force: kN}", "{at: B, force: {size: 100, angle: 0}}")));
  CHECK_NOTHROW(read(arm("{force: kN}", "{at: A, settle: {rz: 1 mm/2 m}}")));
}

TEST_CASE("Degrees in sin and cos without their unit are warned of") {
  const Model m = read(arm("{force: kN}", "{at: B, force: {down: 2*sin(30)}}"));
  REQUIRE(m.notes.size() == 1);
  CHECK(m.notes[0].severity == Problem::Severity::warning);
  CHECK_THAT(describe(m.notes[0]), Catch::Contains("30 in sin, cos or tan is a plain number in radians; for "
                                                   "degrees write 30 deg"));
  CHECK(read(arm("{force: kN}", "{at: B, force: {down: 2*sin(30 deg) + 0*cos(1.5)}}")).notes.empty());
}

TEST_CASE("Bare moments and line loads are read where readers agree on them") {
  using Catch::Matchers::Contains;
  const auto moment_of = [](const std::string& units) {
    const Model m = read(arm(units, "{at: B, moment: 2}"));
    return std::get<PointLoad>(m.structure.load_cases()[0].loads()[0]).moment.z;
  };
  const auto line_of = [](const std::string& units) {
    const Model m = read(arm(units, "{on: arm, line: {down: 2}}"));
    return -std::get<LineLoad>(m.structure.load_cases()[0].loads()[0]).first.y;
  };
  const double lbf = 4.4482216152605, in = 0.0254;
  CHECK(moment_of("{length: m, force: kN}") == near(2000));
  CHECK(moment_of("{length: in, force: lbf}") == near(2 * lbf * in));
  CHECK(moment_of("{length: mm, force: kN, moment: kN*mm}") == near(2));
  CHECK(line_of("{length: m, force: N}") == near(2));
  CHECK(line_of("{length: ft, force: lbf}") == near(2 * lbf / 0.3048));
  CHECK(line_of("{length: mm, force: kN, line: N/mm}") == near(2000));
  for (const char* unit : {"mm", "cm"}) {
    const std::string units = std::string("{length: ") + unit + ", force: kN}";
    CHECK_THAT(refusal(arm(units, "{at: B, moment: 2}")), Contains("write N*m or N*mm, or name moment under units:"));
    CHECK_THAT(refusal(arm(units, "{on: arm, line: {down: 2}}")),
               Contains("write N/m or N/mm, or name line under units:"));
  }
}

TEST_CASE("Moments and line loads that are not named print as the force does") {
  for (const auto& [units, moment, line] : {std::array{"{length: mm, force: N}", "N·m", "N/m"},
                                            {"{length: mm, force: kN}", "kN·m", "kN/m"},
                                            {"{length: m}", "kN·m", "kN/m"},
                                            {"{length: in, force: lbf}", "lbf·in", "lbf/in"},
                                            {"{length: in}", "lbf·in", "lbf/in"},
                                            {"{length: mm, force: N, moment: N*mm, line: N/mm}", "N·mm", "N/mm"}}) {
    INFO(units);
    const Model m = read(arm(units, "{at: B, force: {down: 2 kN}}"));
    CHECK(m.units.moment.text == moment);
    CHECK(m.units.line.text == line);
    CHECK(unit_for(dimension::line_force, m.units).text == line);
  }
  const auto in_newtons = units_for_print("N", ModelUnits());
  REQUIRE(in_newtons);
  CHECK(in_newtons->moment.text == "N·m");
  CHECK(in_newtons->line.text == "N/m");
}

TEST_CASE("Bare sizes of sections are read in millimetres and inches only") {
  const auto width_of = [](const std::string& units) {
    const Model m = read(replaced(arm(units, "{at: B, force: {down: 1 N}}"), "diameter: 20 mm", "diameter: 2"));
    return m.structure.sections()[0].section.area_properties().height.si();
  };
  CHECK(width_of("{length: mm}") == near(0.002));
  CHECK(width_of("{length: in}") == near(0.0508));
  CHECK(width_of("{length: m, section: cm}") == near(0.02));
  for (const char* unit : {"m", "ft", "cm"})
    CHECK_THAT(refusal(replaced(arm(std::string("{length: ") + unit + "}", "{at: B, force: {down: 1 N}}"),
                                "diameter: 20 mm", "diameter: 2")),
               Catch::Contains("name section under units:"));
  CHECK_THAT(refusal(arm("{section: m^2}", "{at: B, force: {down: 1 N}}")),
             Catch::Contains("write the unit of their lengths, as section: cm"));
}

TEST_CASE("Fractions, units that only divide, and inverse functions") {
  const auto value = [](const std::string& formula) {
    const auto e = evaluate(formula, Scope());
    INFO(formula << (e ? "" : ": " + e.error().text));
    REQUIRE(e.ok());
    return e->quantity;
  };
  CHECK(value("(1/4) in").in(inch) == near(0.25));
  CHECK(value("2*(1 + 1/2) ft").in(ft) == near(3));
  CHECK(value("6.5e-6 1/degF").in(per_K) == near(6.5e-6 * 1.8));
  CHECK(value("6.5e-6/degF").in(per_K) == near(6.5e-6 * 1.8));
  CHECK(value("12e-6 1/K").in(per_K) == near(12e-6));
  CHECK(value("8 N/m/mm^2").si == near(8e6));
  CHECK(value("atan(1)").in(deg) == near(45));
  CHECK(value("asin(1/2)").in(deg) == near(30));
  CHECK(value("acos(0)").in(deg) == near(90));
  CHECK(value("atan2(-1 m, 1 m)").in(deg) == near(-45));
  CHECK(value("hypot(3 m, 400 cm)").in(m) == near(5));
  CHECK(value("cos(atan2(3, 4))").si == near(0.8));
  for (const auto& [formula, message] : {std::pair("asin(2)", "a number from -1 to 1"),
                                         {"atan2(1 m)", "'atan2' takes two values, 1 was given"},
                                         {"hypot(1 m, 2 N)", "'hypot' compares a length with a force"},
                                         {"acos(1 m)", "'acos' takes a plain number, but this is a length"}}) {
    const auto e = evaluate(formula, Scope());
    INFO(formula);
    REQUIRE_FALSE(e.ok());
    CHECK_THAT(e.error().text, Catch::Contains(message));
  }
  CHECK_THAT(refusal(replaced(arm("{force: kN}", "{at: B, force: {down: 1}}"), "[2 m, 0]", "[1/4 in, 0]")),
             Catch::Contains("1/4 in is 1/(4 in); write (1/4) in"));
}

}  // namespace tests_of_file_units
