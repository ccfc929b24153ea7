// Members in space: rolled sections, torsion, both bending planes, up along z and along y.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_analysis_space {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

namespace {

const Section flat = RectangularTube{.height = 120_mm, .width = 60_mm, .wall = 5_mm};
const Material s355 = material("S355");

}  // namespace

TEST_CASE("A rolled section in space bends about its own axes") {
  const double roll = GENERATE(0.0, 0.4, -1.1, 1.5707963267948966);
  const bool shear = GENERATE(false, true);
  Structure structure = Structure::space("rolled");
  structure.analysis().shear = shear;
  const auto a = structure.point("A", 0_m, 0_m, 0_m), b = structure.point("B", 2_m, 0_m, 0_m);
  structure.member("arm", {a, b},
                   {.section = structure.section("tube", flat), .material = s355, .roll = Angle::si(roll)});
  structure.support(a, Support::fixed());
  structure.load_case("tip").at(b, Force{.z = -2_kN});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  // Along x: y is up (z), z is to the right of the looker (−y); roll turns y towards z.
  const double P = 2000, L = 2, c = std::cos(roll), sn = std::sin(roll);
  const double along_y = -P * c, along_z = P * sn;  // the force in the section's axes
  const auto& p = flat.properties();
  const double E = s355.E.si(), G = s355.shear_modulus().si();
  const double fy = L * L * L / (3 * E * p.Iz.si()) + (shear ? L / (G * p.Ay.si()) : 0);
  const double fz = L * L * L / (3 * E * p.Iy.si()) + (shear ? L / (G * p.Az.si()) : 0);
  const double v = along_y * fy, w = along_z * fz;
  const MemberResult m = s[0]["arm"];
  CHECK(m.deflection_y().at(2_m).si() == near(v, 1e-3));
  CHECK(m.deflection_z().at(2_m).si() == near(w, 1e-3));
  CHECK(s[0].displacement("B").z.si() == near(v * c - w * sn));
  CHECK(s[0].displacement("B").y.si() == near(-(v * sn + w * c), 1e-3));
  CHECK(m.moment_z().at(0_m).si() == near(along_y * L, P));
  CHECK(m.moment_y().at(0_m).si() == near(along_z * L, P));
  CHECK(m.shear_y().at(1_m).si() == near(-along_y, P));
  CHECK(m.shear_z().at(1_m).si() == near(-along_z, P));
  // Bending alone: My and Mz are both largest in one corner.
  const double worst = std::abs(along_y) * L * 0.06 / p.Iz.si() + std::abs(along_z) * L * 0.03 / p.Iy.si();
  CHECK(m.max_stress()->value.si() == near(worst));
  CHECK(m.min_stress()->value.si() == near(-worst));
}

TEST_CASE("A cranked arm bends and twists") {
  const Up up = GENERATE(Up::z, Up::y);
  // Arm along x, then a crank along the other horizontal axis; the force at its tip points down.
  const double L = 1.5, c = 0.6, P = 800;
  Structure structure = Structure::space("crank", up);
  const auto place = [&](double x, double side) { return up == Up::z ? Vector{x, side, 0} : Vector{x, 0, -side}; };
  const auto point = [&](const char* name, const Vector& v) {
    return structure.point(name, Length::si(v.x), Length::si(v.y), Length::si(v.z));
  };
  const auto a = point("A", place(0, 0)), b = point("B", place(L, 0)), t = point("T", place(L, c));
  const auto section = structure.section("tube", flat);
  structure.member("arm", {a, b}, {.section = section, .material = s355});
  structure.member("crank", {b, t}, {.section = section, .material = s355});
  structure.support(a, Support::fixed());
  structure.load_case("tip").at(t, up == Up::z ? Force{.z = -ForceSize::si(P)} : Force{.y = -ForceSize::si(P)});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  const MemberResult arm = s[0]["arm"], crank = s[0]["crank"];
  CHECK(arm.moment_z().min().value.si() == near(-P * L));
  CHECK(crank.moment_z().min().value.si() == near(-P * c));
  // The face along +x is turned by the force on the left side of the arm: right-handed about x that is −P c.
  CHECK(arm.torsion().max().value.si() == near(-P * c));
  CHECK(arm.torsion().min().value.si() == near(-P * c));
  CHECK(crank.torsion().max().value.si() == near(0, P * c));
  const auto& p = flat.properties();
  const double E = s355.E.si(), G = s355.shear_modulus().si();
  const double bend = P / (E * p.Iz.si()), slip = P / (G * p.Ay.si()), twist = P * c * L / (G * p.J.si());
  const double sink = bend * (L * L * L + c * c * c) / 3 + slip * (L + c) + twist * c;
  const Displacement d = s[0].displacement("T");
  CHECK((up == Up::z ? d.z : d.y).si() == near(-sink));
  const Reaction r = s[0].reaction("A");
  CHECK(r.mx.si() == near(P * c));
  CHECK((up == Up::z ? r.my : -r.mz).si() == near(-P * L));
}

TEST_CASE("A shaft with a torque anywhere") {
  Structure structure = Structure::space("shaft");
  const auto a = structure.point("A", 0_m, 0_m, 0_m), b = structure.point("B", 0_m, 3_m, 0_m);
  const Section bar = RoundBar{.diameter = 50_mm};
  const auto shaft = structure.member("shaft", {a, b}, {.section = structure.section("bar", bar), .material = s355});
  structure.support(a, Support::fixed());
  structure.support(b, Support::fixed());
  structure.load_case("drive").on(shaft, 1.2_m, Moment{.y = 700_N_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  CHECK(s[0].reaction("A").my.si() == near(-700 * 1.8 / 3));
  CHECK(s[0].reaction("B").my.si() == near(-700 * 1.2 / 3));
  const Diagram T = s[0]["shaft"].torsion();
  CHECK(T.max().value.si == near(420));
  CHECK(T.min().value.si == near(-280));
  CHECK(T.min().at.si() == near(1.2));
  CHECK(s[0]["shaft"].von_mises()->value.si() == near(std::sqrt(3.0) * 420 * 0.025 / bar.properties().J.si()));
}

TEST_CASE("Loads across in both planes of a built-in member along any direction") {
  // A member that slopes in space under a force that changes along it: end moments q L²/20 and q L²/30.
  Structure structure = Structure::space("sloping");
  structure.analysis().shear = false;
  const Vector along{1, 2, 2};  // length 3
  const auto a = structure.point("A", 1_m, 1_m, 1_m), b = structure.point("B", 2_m, 3_m, 3_m);
  const auto member = structure.member("m", {a, b}, {.section = structure.section("tube", flat), .material = s355});
  structure.support(a, Support::fixed());
  structure.support(b, Support::fixed());
  const Axes axes = local_axes(structure, structure[member]);
  const Vector last = axes.y * -900.0 + axes.z * 600.0;
  structure.load_case("wind").line(
      member, LineForce{}, LineForce{LineForceSize::si(last.x), LineForceSize::si(last.y), LineForceSize::si(last.z)});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  const MemberResult m = s[0]["m"];
  const double L = length(along);
  CHECK(m.length().si() == near(3));
  CHECK(m.moment_z().at(0_m).si() == near(-900 * L * L / 30));
  CHECK(m.moment_z().at(3_m).si() == near(-900 * L * L / 20));
  CHECK(m.moment_y().at(0_m).si() == near(600 * L * L / 30));
  CHECK(m.moment_y().at(3_m).si() == near(600 * L * L / 20));
  CHECK(m.shear_y().at(0_m).si() == near(900 * 3 * L / 20));
  CHECK(m.shear_z().at(3_m).si() == near(600 * 7 * L / 20));
}

}  // namespace tests_of_analysis_space
