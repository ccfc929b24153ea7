// Diagrams: values anywhere, extremes as roots, and the rules at jumps, ties and ends.
#include <cmath>

#include "support/beam.hpp"
#include "support/near.hpp"

namespace tests_of_result_diagrams {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

TEST_CASE("At a jump both sides count, and a place shows the value after it") {
  Beam beam(4_m);
  beam.structure.support(beam.a, Support::pinned());
  beam.structure.support(beam.b, Support::roller());
  beam.loads().on(beam.member, 1_m, Force{.y = -8_kN});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const Diagram V = s[0]["beam"].shear_y();
  CHECK(V.at(1_m, Side::before).si == near(6000));
  CHECK(V.at(1_m, Side::after).si == near(-2000));
  CHECK(V.at(1_m).si == near(-2000));
  CHECK(V.at(4_m).si == near(-2000));
  CHECK(V.max().value.si == near(6000));
  CHECK(V.max().at.si() == 0);  // of equal ones the first
  CHECK(V.min().value.si == near(-2000));
  CHECK(V.min().at.si() == near(1));
  CHECK(s[0]["beam"].at(1_m, Side::before).shear_y.si() == near(6000));
  CHECK_THROWS_AS(V.max().value.in(m), std::invalid_argument);
}

TEST_CASE("Equal extremes take the smallest place") {
  Beam beam(4_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.structure.support(beam.b, Support::fixed());
  beam.loads().line(beam.member, LineForce{.y = -3_kN_per_m});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const Diagram M = s[0]["beam"].moment_z();
  CHECK(M.min().value.si == near(-3000.0 * 16 / 12));
  CHECK(M.min().at.si() == 0);
  CHECK(M.max().value.si == near(3000.0 * 16 / 24));
  CHECK(M.max().at.si() == near(2));
}

TEST_CASE("A constant diagram has its extremes at the start, and a zero one is zero") {
  Beam beam(4_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.loads().at(beam.b, Force{.x = 5_kN});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const MemberResult r = s[0]["beam"];
  CHECK(r.axial().max().value.si() == near(5000));
  CHECK(r.axial().max().at.si() == 0);
  CHECK(r.axial().min().at.si() == 0);
  CHECK(r.moment_z().max().value.si() == 0);
  CHECK(r.sag().value.si == 0);
  CHECK(r.deflection_x().at(4_m).si() == near(5000 * 4 / beam.EA()));
}

TEST_CASE("Extremes of many loads are where the shear force vanishes") {
  Beam beam(6_m);
  beam.structure.support(beam.a, Support::pinned());
  beam.structure.support(beam.b, Support::roller());
  beam.loads()
      .line(beam.member, LineForce{.y = -2_kN_per_m}, LineForce{.y = -5_kN_per_m}, 0.5_m, 3.5_m)
      .line(beam.member, LineForce{.y = 1_kN_per_m}, LineForce{}, 2_m, 6_m)
      .on(beam.member, 4.5_m, Force{.y = -3_kN})
      .on(beam.member, 1_m, Moment{.z = 2_kN_m});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const MemberResult r = s[0]["beam"];
  const Diagram M = r.moment_z(), V = r.shear_y();
  const Extreme most = M.max();
  CHECK(V.at(most.at).si == near(0, 5000));
  for (int i = 0; i <= 6000; ++i) {
    const Length x = Length::si(i * 0.001);
    CHECK(M.at(x).si <= most.value.si * (1 + 1e-12));
    CHECK(r.deflection_y().at(x).si() >= r.deflection_y().min().value.si() * (1 + 1e-12));
    CHECK(r.sag_at(x).si() <= r.sag().value.si * (1 + 1e-12));
  }
  // Equilibrium by hand: R_B from moments about A.
  const double w1 = (2e3 + 5e3) / 2 * 3, x1 = 0.5 + 3 * (2e3 + 2 * 5e3) / (3 * 7e3), w2 = 1e3 * 4 / 2, x2 = 2 + 4.0 / 3;
  CHECK(s[0].reaction("B").y.si() == near((w1 * x1 - w2 * x2 + 3000 * 4.5 - 2000) / 6));
}

TEST_CASE("Sag counts from the chord between moved places, an overhang's from its root") {
  // A cantilever: v = −P x² (3L − x)/(6EI), chord from the root to the tip −P L² x/(3EI).
  Beam beam(2_m);
  beam.structure.support(beam.a, Support::fixed());
  beam.loads().at(beam.b, Force{.y = -1_kN});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  const double L = 2, x = L * (1 - 1 / std::sqrt(3.0));
  const double expected = 1000 / (6 * beam.EI()) * (2 * L * L * x - 3 * L * x * x + x * x * x);
  CHECK(s[0]["beam"].sag_between(0_m, 2_m).at.si() == near(x));
  CHECK(s[0]["beam"].sag_between(0_m, 2_m).value.si == near(expected));
  CHECK(s[0]["beam"].sag().at.si() == near(2));
  CHECK(s[0]["beam"].sag().value.si == near(1000 * 8 / (3 * beam.EI())));
  CHECK(s[0]["beam"].governing_stretch().reading == Stretch::Reading::overhang);
  CHECK(s[0]["beam"].movement().at.si() == near(2));
  CHECK(s[0]["beam"].movement().value.si == near(1000 * 8 / (3 * beam.EI())));
}

}  // namespace tests_of_result_diagrams
