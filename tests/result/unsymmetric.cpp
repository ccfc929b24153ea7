// Unsymmetric sections: bending about principal axes, stress by the full formula, against hand calculations.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_result_unsymmetric {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

namespace {

const Section equal_angle = AngleProfile{80_mm, 80_mm, 8_mm, 10_mm, 5_mm};
const Section unequal_angle = AngleProfile{100_mm, 50_mm, 8_mm, 8_mm, 4_mm};

struct Cantilever {
  explicit Cantilever(const Section& section, bool shear = false) : section(section) {
    s.analysis().shear = shear;
    a = s.point("A", 0_m, 0_m, 0_m);
    b = s.point("B", 2_m, 0_m, 0_m);
    arm = s.member("arm", {a, b}, {.section = s.section("angle", section), .material = material("S355")});
    s.support(a, Support::fixed());
  }
  Section section;
  Structure s = Structure::space("bracket");
  PointId a, b;
  MemberId arm;
};

}  // namespace

TEST_CASE("An angle cantilever under a vertical force moves down and sideways") {
  const Section section = GENERATE_COPY(equal_angle, unequal_angle);
  Cantilever c(section);
  const double P = 1000, L = 2, E = 210e9;
  c.s.load_case("push").at(c.b, Force{.z = ForceSize::si(-P)});
  const Solution solution = solve(c.s);
  REQUIRE(solution.ok());
  const auto& p = section.properties();
  const double Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = p.Iyz.si(), D = Iy * Iz - Iyz * Iyz;
  // Gere and Timoshenko, ch. 6: curvatures (Mz Iy)/D up and −(Mz Iyz)/D sideways, each with L²/3.
  const Displacement d = solution["push"].displacement("B");
  const double f = P * L * L * L / (3 * E * D);
  CHECK(d.z.si() == near(-f * Iy));
  // Local y is up (global z), local z is −y there: the section's +z side lies at −y.
  const Axes axes = local_axes(c.s, c.s[c.arm]);
  CHECK(axes.y.z == near(1.0));
  const double sideways = f * Iyz;
  CHECK(d.y.si() * axes.z.y == near(sideways));
  const MemberResult r = solution["push"]["arm"];
  CHECK(r.moment_z().min().value.si() == near(-P * L));
  CHECK(std::abs(r.moment_y().min().value.si()) < 1e-6);
  CHECK(r.deflection_y().min().value.si() == near(-f * Iy));
}

TEST_CASE("An equal angle by its principal axes: the same movements and stress") {
  Cantilever c(equal_angle);
  const double P = 1000, L = 2, E = 210e9;
  c.s.load_case("push").at(c.b, Force{.z = ForceSize::si(-P)});
  const Solution solution = solve(c.s);
  const auto& p = equal_angle.properties();
  const double part = P / std::sqrt(2.0);
  const double along_1 = part * L * L * L / (3 * E * p.I1.si()), along_2 = part * L * L * L / (3 * E * p.I2.si());
  const Displacement d = solution["push"].displacement("B");
  CHECK(-d.z.si() == near((along_1 + along_2) / std::sqrt(2.0)));
  CHECK(std::abs(d.y.si()) == near((along_2 - along_1) / std::sqrt(2.0)));
  // Stress at the tip of the upright leg, by N/A and the two principal bendings.
  const MemberResult r = solution["push"]["arm"];
  double most = 0;
  for (const StressPoint& q : equal_angle.stress_map().points) {
    const double u = (q.y - q.z) / std::sqrt(2.0), v = (q.y + q.z) / std::sqrt(2.0);
    most = std::max(most, part * L * (u / p.I1.si() + v / p.I2.si()));
  }
  // On the rounded toe the place of the largest stress lies between samples.
  CHECK(r.max_stress()->value.si() >= most);
  CHECK(r.max_stress()->value.si() == Approx(most).epsilon(1e-3));
  CHECK(r.max_stress()->at.si() == 0);
  CHECK(r.max_stress()->y->si() > 0.05);  // the tip of the upright leg
}

TEST_CASE("Stress over an unsymmetric section gives back its forces") {
  // σ by the formula at the corners of a sharp angle, fitted by a plane: N, Mz, My follow by integration.
  Cantilever c{Section(AngleProfile{100_mm, 60_mm, 8_mm})};
  c.s.load_case("any").at(c.b, Force{.x = 5_kN, .y = 300_N, .z = -700_N});
  const Solution solution = solve(c.s);
  REQUIRE(solution.ok());
  const MemberResult r = solution["any"]["arm"];
  const SectionState at = r.at(0_m);
  const auto& p = c.section.properties();
  const double D = p.Iy.si() * p.Iz.si() - p.Iyz.si() * p.Iyz.si();
  const double ky = (at.moment_z.si() * p.Iy.si() - at.moment_y.si() * p.Iyz.si()) / D;
  const double kz = (at.moment_y.si() * p.Iz.si() - at.moment_z.si() * p.Iyz.si()) / D;
  CHECK(ky * p.Iz.si() + kz * p.Iyz.si() == near(at.moment_z.si()));
  double most = -1e300, least = 1e300;
  for (const StressPoint& q : c.section.stress_map().points) {
    const double sigma = at.axial.si() / p.A.si() - ky * q.y - kz * q.z;
    most = std::max(most, sigma);
    least = std::min(least, sigma);
  }
  CHECK(r.max_stress_at(0_m)->value.si() == near(most));
  CHECK(r.min_stress_at(0_m)->value.si() == near(least));
}

TEST_CASE("Turned by roll, a structure of angles moves with it") {
  // Roll by the angle of the principal axes, and bending in one of them stays there; shear leaves it a little.
  const auto& p = unequal_angle.properties();
  Structure s = Structure::space("rolled");
  s.analysis().shear = true;
  const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 2_m, 0_m, 0_m);
  s.member("arm", {a, b},
           {.section = s.section("angle", unequal_angle), .material = material("S355"), .roll = -p.principal});
  s.support(a, Support::fixed());
  s.load_case("push").at(b, Force{.z = -1_kN});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  const Displacement d = solution[0].displacement("B");
  const double G = material("S355").shear_modulus().si();
  CHECK(std::abs(d.y.si()) == near(1000 * 2 / (G * std::abs(p.A12.si()))));
  const double bend = 1000 * 8 / (3 * 210e9 * p.I1.si()),
               slide = 1000 * 2 / (material("S355").shear_modulus().si() * p.A1.si());
  CHECK(-d.z.si() == near(bend + slide));
}

TEST_CASE("In the plane an unsymmetric section is held, and a warning says so") {
  Structure s = Structure::plane("held");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
  s.member("arm", {a, b}, {.section = s.section("angle", unequal_angle), .material = material("S355")});
  s.support(a, Support::fixed());
  s.load_case("push").at(b, Force{.y = -1_kN});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  const auto& p = unequal_angle.properties();
  CHECK(solution[0]["arm"].max_stress()->value.si() ==
        near(2000 * (0.1 - unequal_angle.area_properties().centroid_y.si()) / p.Iz.si()));
  REQUIRE(solution.notes().size() == 2);
  CHECK(solution.notes()[0].severity == Problem::Severity::warning);
  CHECK_THAT(solution.notes()[0].text, Catch::Matchers::Contains("Iyz"));
  CHECK_THAT(solution.notes()[1].text, Catch::Matchers::Contains("shear centre"));
}

TEST_CASE("A tee bent in its own plane of symmetry does not twist, a channel does") {
  const auto notes = [](const Section& section) {
    Structure s = Structure::plane("one");
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
    s.member("arm", {a, b}, {.section = s.section("profile", section), .material = material("S355")});
    s.support(a, Support::fixed());
    s.load_case("push").at(b, Force{.y = -1_kN});
    return solve(s).notes().size();
  };
  CHECK(notes(Tee{100_mm, 100_mm, 11_mm, 11_mm, 11_mm}) == 0);
  CHECK(notes(Channel{100_mm, 50_mm, 6_mm, 8.5_mm, 8.5_mm}) == 1);
  CHECK(notes(IProfile{100_mm, 55_mm, 4.1_mm, 5.7_mm, 7_mm}) == 0);
}

}  // namespace tests_of_result_unsymmetric
