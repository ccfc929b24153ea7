// Stress along members, safety, and what is not known.
#include <cmath>

#include "support/beam.hpp"
#include "support/cases.hpp"
#include "support/near.hpp"

namespace tests_of_result_stresses {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

namespace {

// A cantilever in space of any section, 2 m along x, with anything at its tip.
struct Arm {
  explicit Arm(const Section& section, MemberKind kind = MemberKind::beam) : section_(section) {
    a = s.point("A", 0_m, 0_m, 0_m);
    b = s.point("B", 2_m, 0_m, 0_m);
    member =
        s.member("arm", {a, b}, {.section = s.section("own", section), .material = material("S355"), .kind = kind});
    s.support(a, Support::fixed());
  }
  MemberResult solved() const {
    const Solution solution = solve(s);
    REQUIRE(solution.ok());
    return solution[0]["arm"];
  }
  LoadsOf loads() { return test::loads_in(s, "loads"); }

  Section section_;
  Structure s = Structure::space("arm");
  PointId a, b;
  MemberId member;
};

}  // namespace

TEST_CASE("Bending and pull add up") {
  Beam beam(2_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.loads().at(beam.b, Force{.x = 20_kN, .y = -1_kN});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const MemberResult r = s[0]["beam"];
  const auto& p = beam.tube.properties();
  const double pull = 20e3 / p.A.si(), bend = 2000 * 0.05 / p.Iz.si();
  CHECK(r.max_stress()->value.si() == near(pull + bend));
  CHECK(r.max_stress()->at.si() == 0);
  CHECK(r.max_stress()->y->si() == near(0.05));  // hogging: tension above
  CHECK(r.min_stress()->value.si() == near(pull - bend));
  CHECK(r.min_stress()->y->si() == near(-0.05));
  CHECK(*r.safety() == near(235e6 / r.von_mises()->value.si()));
}

TEST_CASE("Short beams yield by shear at the axis") {
  Beam beam(0.05_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.loads().at(beam.b, Force{.y = -10_kN});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const auto worst = *s[0]["beam"].von_mises();
  double peak = 0;
  for (const StressPoint& p : beam.tube.stress_map().points) peak = std::max(peak, std::abs(p.vy));
  CHECK(worst.value.si() >= std::sqrt(3.0) * peak * 10e3 * (1 - 1e-12));
}

TEST_CASE("A shaft bent and twisted") {
  Arm arm(RoundBar{.diameter = 40_mm});
  arm.loads().at(arm.b, Force{.y = 300_N, .z = -400_N}).at(arm.b, Moment{.x = 600_N_m});
  const MemberResult r = arm.solved();
  const double I = arm.section_.properties().Iz.si();
  const double sigma = 1000 * 0.02 / I, tau = 600 * 0.02 / (2 * I);  // M = 500 N · 2 m
  CHECK(r.max_stress()->value.si() == near(sigma));
  // The worst place of the rim leans a little from the tension's towards where V adds to T.
  CHECK(r.von_mises()->value.si() == Approx(std::sqrt(sigma * sigma + 3 * tau * tau)).epsilon(1e-3));
  CHECK(r.von_mises()->value.si() >= std::sqrt(sigma * sigma + 3 * tau * tau) * (1 - 1e-12));
  CHECK(std::hypot(r.max_stress()->y->si(), r.max_stress()->z->si()) == near(0.02));
  // Tension lies away from the force: the force pulls towards −z (global), the top (local y up) is in
  // tension.
  CHECK(r.max_stress()->y->si() == near(0.02 * 0.8));
}

TEST_CASE("The worst rim stress under line loads in both planes is found exactly") {
  Arm arm(RoundTube{.diameter = 60.3_mm, .wall = 2.9_mm});
  arm.loads()
      .line(arm.member, LineForce{.x = 2_kN_per_m, .y = -1_kN_per_m}, LineForce{.z = 2_kN_per_m})
      .at(arm.b, Force{.z = -1_kN});
  const MemberResult r = arm.solved();
  const auto& p = arm.section_.properties();
  const double most = r.max_stress()->value.si(), least = r.min_stress()->value.si(), mises = r.von_mises()->value.si();
  double seen_most = -1e300, seen_least = 1e300, seen_mises = 0;
  for (int i = 0; i <= 4000; ++i) {
    const SectionState t = r.at(Length::si(2.0 * i / 4000));
    const double n = t.axial.si() / p.A.si(), b = std::hypot(t.moment_y.si(), t.moment_z.si()) * 0.03015 / p.Iz.si();
    seen_most = std::max(seen_most, n + b);
    seen_least = std::min(seen_least, n - b);
    seen_mises = std::max(seen_mises, std::max(std::abs(n + b), std::abs(n - b)));
  }
  CHECK(seen_most <= most * (1 + 1e-9));
  CHECK(seen_most == Approx(most).epsilon(1e-6));
  CHECK(seen_least >= least * (1 + 1e-9));
  CHECK(seen_least == Approx(least).epsilon(1e-6));
  CHECK(mises >= seen_mises * (1 - 1e-9));
}

TEST_CASE("Torsion alone: yield at τ√3") {
  const Section section = GENERATE(Section(SquareTube{.width = 60_mm, .wall = 4_mm}),
                                   Section(RectangularBar{.height = 50_mm, .width = 20_mm}));
  Arm arm(section);
  arm.loads().at(arm.b, Moment{.x = 500_N_m});
  const MemberResult r = arm.solved();
  double peak = 0;
  for (const StressPoint& p : section.stress_map().points) peak = std::max(peak, std::abs(p.t));
  CHECK(r.von_mises()->value.si() == Approx(std::sqrt(3.0) * 500 * peak).epsilon(1e-4));
  CHECK(r.max_stress()->value.si() == near(0, 1e6));
}

TEST_CASE("Stresses under changing loads stand at their exact place") {
  // Thrust grows towards the root while bending peaks inside the span.
  Beam beam(3_m);
  beam.structure.support(beam.a, Support::pinned());
  beam.structure.support(beam.b, Support::roller());
  beam.loads().line(beam.member, LineForce{.x = -40_kN_per_m, .y = -2_kN_per_m});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const MemberResult r = s[0]["beam"];
  const auto& p = beam.tube.properties();
  // σ(x) = −q_x (L − x)/A − q x (L − x)/2 · h/(2 I): its root of the derivative, by hand.
  const double a = 40e3 / p.A.si(), c = 2000 * 0.05 / (2 * p.Iz.si()), L = 3;
  const double x = (c * L - a) / (2 * c);
  REQUIRE(x > 0);
  CHECK(r.min_stress()->at.si() == near(x));
  CHECK(r.min_stress()->value.si() == near(-(a * (L - x) + c * x * (L - x))));
  CHECK(r.von_mises()->value.si() >= -r.min_stress()->value.si());
}

TEST_CASE("Allowable stress goes before yield, and without strength there is no safety") {
  Beam beam(2_m);
  MemberOptions o{.section = beam.section, .material = beam.steel};
  o.material.allowable = 100_MPa;
  const auto c = beam.structure.point("C", 4_m, 0_m), d = beam.structure.point("D", 6_m, 0_m);
  beam.structure.member("allowed", {beam.b, c}, o);
  o.material.allowable.reset();
  o.material.yield.reset();
  beam.structure.member("unknown", {c, d}, o);
  beam.structure.support(beam.a, Support::fixed());
  beam.loads().at(d, Force{.x = 10_kN});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const double sigma = 10e3 / beam.tube.properties().A.si();
  CHECK(*s[0]["beam"].safety() == near(235e6 / sigma));
  CHECK(*s[0]["allowed"].safety() == near(100e6 / sigma));
  CHECK(!s[0]["unknown"].safety());
}

TEST_CASE("No stress, no safety factor") {
  Beam beam(2_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.loads();
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  CHECK(s[0]["beam"].von_mises()->value.si() == 0);
  CHECK(!s[0]["beam"].safety());
}

TEST_CASE("A stress that leaves a part out gives no safety") {
  const GivenProperties all{
      .A = Area::si(1e-3), .Iy = SecondMoment::si(1e-6), .Iz = SecondMoment::si(2e-6), .J = SecondMoment::si(1e-6)};
  GivenProperties with_moduli = all;
  with_moduli.Wy = SectionModulus::si(2e-5);
  with_moduli.Wz = SectionModulus::si(4e-5);
  SECTION("without moduli there is no stress at all") {
    Arm arm{Section(all)};
    arm.loads().at(arm.b, Force{.z = -1_kN});
    const MemberResult r = arm.solved();
    CHECK(!r.max_stress());
    CHECK(!r.von_mises());
    CHECK(!r.safety());
  }
  SECTION("with them the normal stress, but not von Mises") {
    Arm arm{Section(with_moduli)};
    arm.loads().at(arm.b, Force{.x = 5_kN, .y = 500_N, .z = -1_kN});
    const MemberResult r = arm.solved();
    CHECK(r.max_stress()->value.si() == near(5e6 + 2000 / 4e-5 + 1000 / 2e-5));
    CHECK(r.min_stress()->value.si() == near(5e6 - 2000 / 4e-5 - 1000 / 2e-5));
    CHECK(!r.max_stress()->y);
    CHECK(!r.von_mises());
    CHECK(!r.safety());
  }
  SECTION("without shear areas there is no shear deformation") {
    Arm arm{Section(with_moduli)};
    arm.loads().at(arm.b, Force{.z = -1_kN});
    CHECK(arm.solved().deflection_y().at(2_m).si() == near(-1000 * 8 / (3 * 210e9 * 2e-6)));
  }
}

}  // namespace tests_of_result_stresses
