// Trusses by joints, and their movements by the principle of virtual forces.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_analysis_trusses {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

TEST_CASE("A triangle of three bars by joints") {
  const MemberKind kind = MemberKind::link;
  Structure structure = Structure::plane("bracket");
  const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 4_m, 0_m), c = structure.point("C", 1_m, 2_m);
  const Section tube = RoundTube{.diameter = 48.3_mm, .wall = 3.2_mm};
  const auto section = structure.section("tube", tube);
  const MemberOptions o{.section = section, .material = material("S235"), .kind = kind};
  structure.member("AC", {a, c}, o);
  structure.member("CB", {c, b}, o);
  structure.member("AB", {a, b}, o);
  structure.support(a, Support::pinned());
  structure.support(b, Support::roller());
  const double P = 9e3;
  structure.load_case("load").at(c, Force{.y = -9_kN});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  const double A = P * 3 / 4, B = P / 4;
  CHECK(s[0].reaction("A").y.si() == near(A));
  CHECK(s[0].reaction("B").y.si() == near(B));
  const double ac = std::sqrt(5.0), cb = std::sqrt(13.0), ab = 4;
  const double n_ac = -A * ac / 2, n_cb = -B * cb / 2, n_ab = A / 2;
  CHECK(s[0]["AC"].axial().min().value.si() == near(n_ac));
  CHECK(s[0]["CB"].axial().min().value.si() == near(n_cb));
  CHECK(s[0]["AB"].axial().max().value.si() == near(n_ab));
  // δ = Σ N n L/(E A), with n for a unit force at C: the same distribution over P.
  const double EA = 210e9 * tube.properties().A.si();
  const double sink = (n_ac * n_ac * ac + n_cb * n_cb * cb + n_ab * n_ab * ab) / (P * EA);
  CHECK(s[0].displacement("C").y.si() == near(-sink));
  CHECK(s[0].displacement("B").x.si() == near(n_ab * ab / EA));
  // A link has nothing but its axial force, and N/A as stress.
  const MemberResult link = s[0]["AC"];
  CHECK(link.moment_z().max().value.si() == 0);
  CHECK(link.shear_y().max().value.si() == 0);
  CHECK(link.min_stress()->value.si() == near(n_ac / tube.properties().A.si()));
  CHECK(link.von_mises()->value.si() == near(-n_ac / tube.properties().A.si()));
}

TEST_CASE("Beams with hinges at both ends are the same truss") {
  const auto solve_with = [](MemberKind kind, Hinge hinge) {
    Structure structure = Structure::plane("truss");
    const auto a = structure.point("A", 0_m, 0_m), b = structure.point("B", 3_m, 0_m),
               c = structure.point("C", 6_m, 0_m);
    const auto d = structure.point("D", 1.5_m, 2_m), e = structure.point("E", 4.5_m, 2_m);
    const auto section = structure.section("tube", SquareTube{.width = 40_mm, .wall = 3_mm});
    const MemberOptions o{.section = section, .material = material("S235"), .kind = kind, .hinge = hinge};
    int n = 0;
    for (const auto& [from, to] : {std::pair(a, b), {b, c}, {a, d}, {d, b}, {b, e}, {e, c}, {d, e}})
      structure.member("m" + std::to_string(++n), {from, to}, o);
    structure.support(a, Support::pinned());
    structure.support(c, Support::roller());
    structure.load_case("load").at(d, Force{.y = -10_kN}).at(e, Force{.x = 2_kN});
    return solve(structure);
  };
  const Solution links = solve_with(MemberKind::link, Hinge::none), hinged = solve_with(MemberKind::beam, Hinge::both);
  REQUIRE(links.ok());
  REQUIRE(hinged.ok());
  for (int n = 1; n <= 7; ++n) {
    const std::string name = "m" + std::to_string(n);
    CHECK(hinged[0][name].axial().max().value.si() == near(links[0][name].axial().max().value.si(), 1e4));
  }
  CHECK(hinged[0].displacement("E").x.si() == near(links[0].displacement("E").x));
}

TEST_CASE("Loads on a link go to its ends, and its axial force changes along it") {
  Structure structure = Structure::plane("hanger");
  const auto a = structure.point("A", 0_m, 2_m), b = structure.point("B", 0_m, 0_m), c = structure.point("C", 3_m, 2_m);
  const auto section = structure.section("rod", RoundBar{.diameter = 20_mm});
  const MemberOptions o{.section = section, .material = material("S235"), .kind = MemberKind::link};
  const auto hanger = structure.member("hanger", {a, b}, o);
  const auto stay = structure.member("stay", {b, c}, o);
  structure.support(a, Support::pinned());
  structure.support(c, Support::pinned());
  structure.load_case("pull")
      .on(hanger, 0.5_m, Force{.y = -3_kN})
      .on(stay, Length::si(std::sqrt(13.0) / 3), Force{.y = -3_kN});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  // The stay's load: two thirds to B, one third to C. At B the stay can bear no part of it across.
  CHECK(s[0].balance().error < 1e-12);
  CHECK(s[0].reaction("A").y.si() + s[0].reaction("C").y.si() == near(6000));
  const Diagram N = s[0]["hanger"].axial();
  CHECK(N.at(0.5_m, Side::before).si - N.at(0.5_m, Side::after).si == near(3000));
  REQUIRE(s.notes()[0].finding == "link-load");
  CHECK(s.notes()[0].text.find("link") != std::string::npos);
  CHECK(s.notes()[0].text.find("stay") != std::string::npos);
}

TEST_CASE("A space tripod of links") {
  Structure structure = Structure::space("tripod");
  const auto top = structure.point("T", 0_m, 0_m, 3_m);
  const auto section = structure.section("rod", RoundBar{.diameter = 20_mm});
  std::vector<PointId> feet;
  for (int i = 0; i < 3; ++i) {
    const double angle = i * 2 * 3.14159265358979323846 / 3;
    feet.push_back(
        structure.point("F" + std::to_string(i), Length::si(std::cos(angle)), Length::si(std::sin(angle)), 0_m));
    structure.support(feet.back(), Support::pinned());
    structure.member("leg" + std::to_string(i), {feet.back(), top},
                     {.section = section, .material = material("S235"), .kind = MemberKind::link});
  }
  structure.load_case("down").at(top, Force{.z = -6_kN});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  for (int i = 0; i < 3; ++i)
    CHECK(s[0]["leg" + std::to_string(i)].axial().max().value.si() == near(-2000 * std::sqrt(10.0) / 3));
  CHECK(s[0].displacement("T").rx.si() == 0);  // links bring no rotations to a point
  CHECK_FALSE(s[0].turns(top));
}

}  // namespace tests_of_analysis_trusses
