// Loads through a place of the section: twist, torque, deflection and stress of cantilevers against closed forms, and
// what holds of every structure with such loads.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/near.hpp"
#include "support/plan.hpp"

namespace tests_of_beam_through {

using namespace corvex;
using namespace corvex::test;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Matchers::Contains;

namespace {

const Section upn = Channel{.height = 200_mm, .width = 75_mm, .web = 8.5_mm, .flange = 11.5_mm, .root = 11.5_mm};
const Section angle = AngleProfile{.height = 100_mm, .width = 50_mm, .wall = 8_mm, .root = 8_mm, .toe = 4_mm};

// A cantilever along x of 2 m, its local y up; 8 kN down at its tip or spread over it.
struct Cantilever {
  explicit Cantilever(const Section& section) : section_(section) {
    a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 2_m, 0_m, 0_m);
    arm = s.member("arm", {a, b}, {.section = s.section("own", section), .material = material("S355")});
    s.support(a, Support::fixed());
  }
  Solution solved() const {
    Solution solution = solve(s);
    REQUIRE(solution.ok());
    return solution;
  }
  double GJ() const { return material("S355").shear_modulus().si() * section_.properties().J.si(); }

  Section section_;
  Structure s = Structure::space("cantilever");
  PointId a, b;
  MemberId arm;
};

}  // namespace

TEST_CASE("A force at the tip through centroid, shear centre or a given place: torque, twist, deflection") {
  const Section section = GENERATE(upn, angle);
  const SectionProperties& p = section.properties();
  const double P = 8000, L = 2;
  // Local y is up and local z is global −y: a force down through the place z turns about x by P (z − zs).
  const auto [through, lever] =
      GENERATE_COPY(table<Through, double>({{Through::shear_centre(), 0.0},
                                            {Through::centroid(), -p.shear_centre_z.si()},
                                            {Through::at(13_mm, 40_mm), 0.04 - p.shear_centre_z.si()}}));
  Cantilever c(section);
  const bool on_point = GENERATE(true, false);
  if (on_point)
    c.s.load_case("tip").at(c.b, Force{.z = -8_kN}).through(through);
  else
    c.s.load_case("tip").on(c.arm, 2_m, Force{.z = -8_kN}).through(through);
  const Solution solution = c.solved();
  const MemberResult r = solution[0]["arm"];
  const double T = P * lever;
  CHECK(r.torsion().at(1_m).si() == near(T, 1));
  CHECK(solution[0].displacement("B").rx.si() == near(T * L / c.GJ(), 1e-3));
  CHECK(solution[0].reaction("A").mx.si() == near(-T, 1));
  CHECK(solution[0].balance().error < 1e-12);
  // The deflection of the axis does not ask where the force acts.
  Cantilever bent(section);
  bent.s.load_case("tip").at(bent.b, Force{.z = -8_kN});
  CHECK(solution[0].displacement("B").z.si() == near(bent.solved()[0].displacement("B").z.si()));
  // The same as the force and its torque.
  bent.s.load_case("both").at(bent.b, Force{.z = -8_kN}).at(bent.b, Moment{.x = MomentSize::si(T)});
  CHECK(r.von_mises()->value.si() == near(bent.solved()["both"]["arm"].von_mises()->value.si()));
}

TEST_CASE("A line load through the centroid twists all along: T falls linearly, the twist is a parabola") {
  Cantilever c(upn);
  const double q = 3000, L = 2, e = -upn.properties().shear_centre_z.si();
  const bool whole = GENERATE(true, false);
  if (whole) {
    c.s.analysis().through = Through::centroid();
    c.s.load_case("line").line(c.arm, LineForce{.z = -3_kN_per_m});
  } else {
    c.s.load_case("line").spread({c.arm}, Force{.z = -6_kN}).through(Through::centroid());
  }
  const Solution solution = c.solved();
  const MemberResult r = solution[0]["arm"];
  for (const double x : {0.0, 0.4, 1.0, 1.7}) CHECK(r.torsion().at(Length::si(x)).si() == near(q * e * (L - x)));
  CHECK(solution[0].displacement("B").rx.si() == near(q * e * L * L / (2 * c.GJ())));
  CHECK(r.moment_z().at(0_m).si() == near(-q * L * L / 2));
}

TEST_CASE("Own weight through the centroid, and a force along the member beside its centroid") {
  Cantilever c(upn);
  c.s.load_case("weight").gravity().through(Through::centroid());
  c.s.load_case("pull").on(c.arm, 2_m, Force{.x = 10_kN}).through(Through::at(30_mm, -20_mm));
  c.s.load_case("drag").line(c.arm, LineForce{.x = 1_kN_per_m}).through(Through::at(30_mm, -20_mm));
  const Solution solution = c.solved();
  const double w = upn.area().si() * 7850 * 9.80665, e = -upn.properties().shear_centre_z.si();
  CHECK(solution["weight"]["arm"].torsion().at(0_m).si() == near(w * e * 2));
  // N at y = 30, z = −20 mm: Mz = −N y, My = −N z, constant; the line load lets both grow towards the root.
  CHECK(solution["pull"]["arm"].moment_z().at(1_m).si() == near(-300));
  CHECK(solution["pull"]["arm"].moment_y().at(1_m).si() == near(200));
  CHECK(solution["pull"]["arm"].torsion().at(1_m).si() == 0);
  CHECK(solution["drag"]["arm"].moment_z().at(0.5_m).si() == near(-1000 * 1.5 * 0.03));
  CHECK(solution["drag"]["arm"].moment_y().at(0.5_m).si() == near(1000 * 1.5 * 0.02));
  CHECK(solution["drag"]["arm"].shear_y().at(0.5_m).si() == near(0, 1));
  // Stress at the centroid's fibre is N/A alone.
  CHECK(solution["pull"]["arm"].normal_stress_at(1_m, Length(), Length())->si() == near(1e4 / upn.area().si()));
}

TEST_CASE("In the plane a section is held: only the lever of forces along the member counts") {
  Structure s = Structure::plane("plane");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
  const auto m = s.member("arm", {a, b}, {.section = s.section("upn", upn), .material = material("S355")});
  s.support(a, Support::fixed());
  s.load_case("down").on(m, 2_m, Force{.y = -1_kN}).through(Through::centroid());
  s.load_case("pull").on(m, 2_m, Force{.x = 1_kN}).through(Through::at(50_mm, 0_mm));
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  CHECK(solution["down"]["arm"].torsion().at(1_m).si() == 0);
  CHECK(solution["pull"]["arm"].moment_z().at(1_m).si() == near(-50));
}

TEST_CASE("Both figures are told where loads through the centroid would matter, and warping is named") {
  Cantilever c(upn);
  c.s.load_case("tip").at(c.b, Force{.z = -8_kN});
  const Solution bent = c.solved();
  const auto told = [](const Solution& s, const char* words) {
    for (const Problem& p : s.notes())
      if (p.text.find(words) != std::string::npos) return p.text;
    return std::string();
  };
  const std::string both = told(bent, "if the loads act at the centroid");
  CHECK_THAT(both, Contains("'arm': safety factor "));
  c.s.analysis().through = Through::centroid();
  const Solution twisted = c.solved();
  const double one = *bent[0]["arm"].safety(), other = *twisted[0]["arm"].safety();
  CHECK(one > 1.3 * other);
  CHECK_THAT(both, Contains("42.9") && Contains("mm from its centroid"));
  CHECK(told(twisted, "if the loads act at the centroid").empty());
  CHECK_FALSE(bent[0]["arm"].leaves_out_warping());
  CHECK(twisted[0]["arm"].leaves_out_warping());
  CHECK_THAT(told(twisted, "restrained warping"), Contains("stress and safety factor are given without it"));
  // A tube has no such word.
  Cantilever tube(SquareTube{.width = 60_mm, .wall = 4_mm});
  tube.s.load_case("tip").at(tube.b, Moment{.x = 500_N_m});
  CHECK_FALSE(tube.solved()[0]["arm"].leaves_out_warping());
}

TEST_CASE("What cannot act through a place is refused") {
  Cantilever c(upn);
  const auto d = c.s.point("D", 4_m, 0_m, 0_m);
  c.s.member("more", {c.b, d}, {.section = SectionId{0}, .material = material("S355")});
  c.s.load_case("tip").at(c.b, Force{.z = -1_kN}).through(Through::centroid());
  const Problems two = c.s.validate();
  REQUIRE(two.size() == 1);
  CHECK_THAT(two[0].text, Contains("several beams meet at 'B'"));
  Cantilever link(upn);
  const auto e = link.s.point("E", 2_m, 0_m, 1_m);
  const auto bar = link.s.member("bar", {link.b, e},
                                 {.section = SectionId{0}, .material = material("S355"), .kind = MemberKind::link});
  link.s.support(e, Support::pinned());
  link.s.load_case("tip").on(bar, 0.5_m, Force{.x = 1_kN}).through(Through::centroid());
  const Problems refused = link.s.validate();
  REQUIRE(refused.size() == 1);
  CHECK_THAT(refused[0].text, Contains("'bar' is a link and is not twisted"));
}

TEST_CASE("Shear along a principal axis of an unsymmetric section moves it sideways too: by energy") {
  // L 90x70 with legs of 25 and 3 mm, 100 mm long, 10 kN upright. Castigliano: the deflection of shear is
  // ∂/∂V ∫ τ²/2G, with the energies about y and z (docs/theory.md): e_yy = Iz²/Ay, and e_yz from A12 and the principal
  // axes.
  Outline l{.points = {{0_mm, 0_mm}, {70_mm, 0_mm}, {70_mm, 25_mm}, {3_mm, 25_mm}, {3_mm, 90_mm}, {0_mm, 90_mm}}};
  const Section section(l);
  const SectionProperties& p = section.properties();
  const double Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = p.Iyz.si(), D = Iy * Iz - Iyz * Iyz;
  const double e_yy = Iz * Iz / p.Ay.si(), e_zz = Iy * Iy / p.Az.si();
  const double alpha = p.principal.si(), c = std::cos(alpha), n = std::sin(alpha);
  // In principal axes: e11 = I1²/A1, e22 = I2²/A2, e12 = I1 I2/A12; e_yz by turning back.
  const double e11 = std::pow(p.I1.si(), 2) / p.A1.si(), e22 = std::pow(p.I2.si(), 2) / p.A2.si(),
               e12 = p.I1.si() * p.I2.si() / p.A12.si();
  CHECK(c * c * e11 - 2 * c * n * e12 + n * n * e22 == near(e_yy));
  CHECK(n * n * e11 + 2 * c * n * e12 + c * c * e22 == near(e_zz));
  const double e_yz = c * n * (e11 - e22) + (c * c - n * n) * e12;
  Structure s = Structure::space("short");
  const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 100_mm, 0_m, 0_m);
  s.member("arm", {a, b}, {.section = s.section("own", section), .material = material("S355")});
  s.support(a, Support::fixed());
  s.load_case("push").at(b, Force{.z = 10_kN});
  Structure stiff = s;
  stiff.analysis().shear = false;
  const Displacement all = solve(s)[0].displacement("B"), bent = solve(stiff)[0].displacement("B");
  // a = V Iy/D, b = −V Iyz/D of a force along y; the energy is (a² e_yy + 2ab e_yz + b² e_zz)/2G per length.
  const double G = material("S355").shear_modulus().si(), L = 0.1, V = 10e3, ka = Iy / D, kb = -Iyz / D, kz = Iz / D;
  const double up = V * L / G * (ka * ka * e_yy + 2 * ka * kb * e_yz + kb * kb * e_zz);
  const double right = V * L / G * (ka * kb * e_yy + (ka * kz + kb * kb) * e_yz + kb * kz * e_zz);
  CHECK(all.z.si() - bent.z.si() == near(up));
  CHECK(-(all.y.si() - bent.y.si()) == near(right));  // local z is global −y
}

TEST_CASE("Random frames with loads through places: balance and reciprocity") {
  for (unsigned seed = 1; seed <= 40; ++seed) {
    INFO(seed);
    Plan plan = rich_plan(seed, false);
    Structure s = build(plan);
    s.analysis().through = seed % 3 == 0 ? Through::centroid() : Through::at(Length::si(0.01 * (seed % 5)), 25_mm);
    const Solution solution = solve(s);
    REQUIRE(solution.ok());
    for (std::size_t c = 0; c < solution.size(); ++c) CHECK(solution[c].balance().error < 1e-9);
    // dM/dx = V less the moment per length is not asked; T, V and M jump only where something acts: joints balance.
  }
  // Two forces through places beside the shear centre: each does the same work on what the other brings about.
  Cantilever c(upn);
  c.s.load_case("one").on(c.arm, 2_m, Force{.z = -1_kN}).through(Through::at(0_mm, 40_mm));
  c.s.load_case("other").on(c.arm, 1.3_m, Force{.y = 1_kN}).through(Through::at(80_mm, 0_mm));
  const Solution solution = c.solved();
  const SectionProperties& p = upn.properties();
  // Work of a force: its movement and, by its lever, the twist at its place.
  const auto twist = [&](const char* of, double x) {
    const MemberResult r = solution[of]["arm"];
    return r.torsion().at(0_m).si() * std::min(x, of == std::string("one") ? 2.0 : 1.3) / c.GJ();
  };
  const double levers[] = {0.04 - p.shear_centre_z.si(), 0.08 - p.shear_centre_y.si()};
  // Down at z turns by +P z; global y is local −z, which at y turns by −P y.
  const double one = -1000 * solution["other"]["arm"].at(2_m).z.si() + 1000 * levers[0] * twist("other", 2);
  const double other = 1000 * solution["one"]["arm"].at(1.3_m).y.si() - 1000 * levers[1] * twist("one", 1.3);
  CHECK(one == near(other));
}

}  // namespace tests_of_beam_through
