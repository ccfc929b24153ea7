// A fixed portal against the equations of slope and deflection (Timoshenko and Young, Theory of Structures,
// ch. 7), written here with the stretching of the bars kept, so that nothing is lost to an assumption.
#include <Eigen/LU>
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_analysis_frames {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

namespace {

struct Portal {
  double h = 3, L = 5;
  Section leg = SquareTube{.width = 100_mm, .wall = 5_mm};
  Section rail = RectangularTube{.height = 160_mm, .width = 80_mm, .wall = 6_mm};
  Material steel = material("S275");
  Structure structure = Structure::plane("portal");
  PointId a, b, c, d;
  MemberId left, beam, right;

  Portal() {
    structure.analysis().shear = false;
    a = structure.point("A", 0_m, 0_m);
    b = structure.point("B", 0_m, Length::si(h));
    c = structure.point("C", Length::si(L), Length::si(h));
    d = structure.point("D", Length::si(L), 0_m);
    const auto legs = structure.section("leg", leg), rails = structure.section("rail", rail);
    left = structure.member("left", {a, b}, {.section = legs, .material = steel});
    beam = structure.member("beam", {b, c}, {.section = rails, .material = steel});
    right = structure.member("right", {d, c}, {.section = legs, .material = steel});
    structure.support(a, Support::fixed());
    structure.support(d, Support::fixed());
  }
  double EI(const Section& s) const { return steel.E.si() * s.properties().Iz.si(); }
  double EA(const Section& s) const { return steel.E.si() * s.properties().A.si(); }
};

}  // namespace

TEST_CASE("A fixed portal under a uniform load on its beam") {
  Portal p;
  const double q = 12e3;
  p.structure.load_case("snow").line(p.beam, LineForce{.y = -LineForceSize::si(q)});
  const Solution s = solve(p.structure);
  REQUIRE(s.ok());

  // Symmetry: B turns by t (clockwise, as C turns back) and moves outwards by u; both sink alike.
  const double kc = p.EI(p.leg) / p.h, kb = p.EI(p.rail) / p.L, ka = p.EA(p.rail) / p.L;
  Eigen::Matrix2d K;
  K << 4 * kc + 2 * kb, 6 * kc / p.h,                // moments at B
      6 * kc / p.h, 12 * kc / (p.h * p.h) + 2 * ka;  // thrust at B
  const Eigen::Vector2d x = K.lu().solve(Eigen::Vector2d(q * p.L * p.L / 12, 0));
  const double turn = x(0), out = x(1);

  CHECK(s[0].displacement("B").rz.si() == near(-turn));
  CHECK(s[0].displacement("C").rz.si() == near(turn));
  CHECK(s[0].displacement("B").x.si() == near(-out));
  const double corner = 4 * kc * turn + 6 * kc / p.h * out, foot = 2 * kc * turn + 6 * kc / p.h * out;
  CHECK(s[0]["beam"].moment_z().at(0_m).si() == near(-corner));
  CHECK(s[0]["beam"].moment_z().max().value.si() == near(q * p.L * p.L / 8 - corner));
  CHECK(std::abs(s[0].reaction("A").mz.si()) == near(foot));
  CHECK(s[0].reaction("A").x.si() == near((corner + foot) / p.h));
  CHECK(s[0].reaction("D").x.si() == near(-(corner + foot) / p.h));
  CHECK(s[0].reaction("A").y.si() == near(q * p.L / 2));
  CHECK(s[0].displacement("B").y.si() == near(-q * p.L / 2 * p.h / p.EA(p.leg)));
}

TEST_CASE("A fixed portal pushed sideways at both corners") {
  Portal p;
  const double H = 4e3;
  p.structure.load_case("wind").at(p.b, Force{.x = ForceSize::si(H)}).at(p.c, Force{.x = ForceSize::si(H)});
  const Solution s = solve(p.structure);
  REQUIRE(s.ok());

  // Antisymmetry: B and C turn by t clockwise and sway by u to the right; the left leg stretches by v, the
  // right one shrinks by as much, which turns the chord of the beam by 2 v/L clockwise.
  const double kc = p.EI(p.leg) / p.h, kb = p.EI(p.rail) / p.L, ka = p.EA(p.leg) / p.h;
  Eigen::Matrix3d K;
  K << 4 * kc + 6 * kb, -6 * kc / p.h, -12 * kb / p.L,  // moments at B
      -6 * kc / p.h, 12 * kc / (p.h * p.h), 0,          // sway
      -12 * kb / p.L, 0, ka + 24 * kb / (p.L * p.L);    // pull in the left leg
  const Eigen::Vector3d x = K.lu().solve(Eigen::Vector3d(0, H, 0));
  CHECK(s[0].displacement("B").rz.si() == near(-x(0)));
  CHECK(s[0].displacement("B").x.si() == near(x(1)));
  CHECK(s[0].displacement("B").y.si() == near(x(2)));
  CHECK(s[0].displacement("C").y.si() == near(-x(2)));
  CHECK(s[0].reaction("A").mz.si() == near(6 * kc / p.h * x(1) - 2 * kc * x(0)));
  CHECK(s[0].reaction("A").y.si() == near(-ka * x(2)));
  CHECK(s[0]["left"].axial().max().value.si() == near(ka * x(2)));
  CHECK(s[0]["right"].axial().min().value.si() == near(-ka * x(2)));
}

TEST_CASE("Two spans over three supports") {
  Structure structure = Structure::plane("two spans");
  structure.analysis().shear = false;
  const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 4_m, 0_m), c = structure.point("C", 7_m, 0_m);
  const Section bar = RectangularBar{.height = 120_mm, .width = 40_mm};
  const auto beam =
      structure.member("beam", {a, b, c}, {.section = structure.section("bar", bar), .material = material("S235")});
  structure.support(a, Support::pinned());
  structure.support(b, Support::roller());
  structure.support(c, Support::roller());
  const double q = 6e3, l = 4, r = 3;
  structure.load_case("load").line(beam, LineForce{.y = -6_kN_per_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  // The theorem of three moments.
  const double M = -q * (l * l * l + r * r * r) / (8 * (l + r));
  CHECK(s[0]["beam"].moment_z().min().value.si() == near(M));
  CHECK(s[0]["beam"].moment_z().min().at.si() == near(l));
  CHECK(s[0].reaction("A").y.si() == near(q * l / 2 + M / l));
  CHECK(s[0].reaction("C").y.si() == near(q * r / 2 + M / r));
  const auto joints = s[0]["beam"].joints();
  REQUIRE(joints.size() == 4);
  CHECK(joints[1].side == Side::before);
  CHECK(joints[1].point == b);
  CHECK(joints[1].state.shear_y.si() == near(-q * l / 2 + M / l));
  CHECK(joints[2].side == Side::after);
  CHECK(joints[2].state.shear_y.si() == near(q * r / 2 - M / r));
}

}  // namespace tests_of_analysis_frames
