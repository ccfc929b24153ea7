// Releases of single components, rigid arms, members that act one way only.
#include <cmath>

#include "support/beam.hpp"
#include "support/cases.hpp"
#include "support/near.hpp"

namespace tests_of_beam_joints {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;
using Catch::Contains;

namespace {

constexpr double q = 5000, L = 2;

// A beam of 2 m built in at both ends, with these releases, under 5 kN/m downwards.
struct BuiltIn : Beam {
  explicit BuiltIn(const Release& release) : Beam(2_m) {
    Structure with = Structure::plane("released");
    with.analysis().shear = false;
    a = with.point("A", 0_m, 0_m);
    b = with.point("B", 2_m, 0_m);
    member =
        with.member("beam", {a, b}, {.section = with.section("tube", tube), .material = steel, .release = release});
    with.support(a, Support::fixed());
    with.support(b, Support::fixed());
    structure = with;
    loads().line(member, LineForce{.y = -5_kN_per_m});
  }
};

}  // namespace

TEST_CASE("A released shear force makes a guided end") {
  const BuiltIn beam({.end = {Component::shear_y}});
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  CHECK(s[0].reaction("A").y.si() == near(q * L));
  CHECK(s[0].reaction("B").y.si() == near(0, q * L));
  CHECK(s[0].reaction("A").mz.si() == near(q * L * L / 3));
  CHECK(s[0].reaction("B").mz.si() == near(q * L * L / 6));
  CHECK(s[0]["beam"].moment_z().min().value.si() == near(-q * L * L / 3));
  CHECK(s[0]["beam"].moment_z().max().value.si() == near(q * L * L / 6));
  // The end runs away from its point, q L⁴/24EI.
  CHECK(s[0]["beam"].deflection_y().min().value.si() == near(-q * L * L * L * L / (24 * beam.EI())));
  CHECK(s[0].displacement("B").y.si() == 0);
}

TEST_CASE("A released axial force lets a heated beam grow") {
  BuiltIn beam({.start = {Component::axial}});
  beam.structure.load_case("heat").heat(beam.member, 50_K);
  const Solution s = beam.solved();
  REQUIRE(s.ok());
  CHECK(s["heat"]["beam"].axial().min().value.si() == near(0, 1000));
  CHECK(s["heat"]["beam"].deflection_x().at(0_m).si() == near(-50 * beam.steel.expansion.si() * L));
  CHECK(s["loads"].reaction("A").mz.si() == near(q * L * L / 12));
}

TEST_CASE("A moment released at both ends is a hinge at both ends") {
  const BuiltIn released({.start = {Component::moment_z}, .end = {Component::moment_z}});
  const Solution s = released.solved();
  REQUIRE(s.ok());
  CHECK(s[0]["beam"].moment_z().max().value.si() == near(q * L * L / 8));
  CHECK(s[0]["beam"].moment_z().at(0_m).si() == 0);
  CHECK(s[0]["beam"].deflection_y().min().value.si() == near(-5 * q * L * L * L * L / (384 * released.EI())));
}

TEST_CASE("In space each moment and the torsion are released apart, also where the section is askew") {
  // A cantilever with a released far end on a wall: about y alone, about z alone.
  const auto solved = [](const Section& section, const Release& release) {
    Structure s = Structure::space("released");
    s.analysis().shear = false;
    const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 2_m, 0_m, 0_m);
    const auto member = s.member(
        "beam", {a, b}, {.section = s.section("section", section), .material = material("S235"), .release = release});
    s.support(a, Support::fixed());
    s.support(b, Support::fixed());
    s.load_case("loads")
        .line(member, LineForce{.y = -1_kN_per_m, .z = -5_kN_per_m})
        .on(member, 1_m, Moment{.x = 1_kN_m});
    return solve(s);
  };
  const Section bar = RectangularBar{.height = 80_mm, .width = 30_mm};
  const Solution about_z = solved(bar, {.end = {Component::moment_z}});
  REQUIRE(about_z.ok());
  CHECK(about_z[0]["beam"].moment_z().at(0_m).si() == near(-q * L * L / 8));
  CHECK(about_z[0]["beam"].moment_z().at(2_m).si() == near(0, q));
  CHECK(std::abs(about_z[0]["beam"].moment_y().at(2_m).si()) == near(1000 * L * L / 12));
  const Solution torsion = solved(bar, {.end = {Component::torsion}});
  REQUIRE(torsion.ok());
  CHECK(torsion[0].reaction("A").mx.si() == near(-1000));
  CHECK(torsion[0].reaction("B").mx.si() == near(0, 1000));
  const Solution angle =
      solved(AngleProfile{.height = 90_mm, .width = 60_mm, .wall = 8_mm}, {.end = {Component::moment_z}});
  REQUIRE(angle.ok());
  CHECK(angle[0]["beam"].moment_z().at(2_m).si() == near(0, q));
  CHECK(std::abs(angle[0]["beam"].moment_y().at(2_m).si()) > 100);
  // Local y points up.
  CHECK(angle[0].reaction("B").mz.si() == near(-angle[0]["beam"].moment_y().at(2_m).si(), q));
}

TEST_CASE("Releases that leave a member loose are told") {
  const auto refusal = [](const Release& release) {
    const BuiltIn beam(release);
    std::string all;
    for (const Problem& p : beam.structure.validate()) all += describe(p) + "\n";
    return all;
  };
  CHECK_THAT(refusal({{Component::axial}, {Component::axial}}), Contains("'beam' slides along its axis by itself"));
  CHECK_THAT(refusal({{Component::shear_y}, {Component::shear_y}}),
             Contains("moves transversely or rotates by itself"));
  CHECK_THAT(refusal({{Component::shear_y, Component::moment_z}, {Component::moment_z}}), Contains("by itself"));
  CHECK_THAT(refusal({{Component::torsion}, {}}), Contains("has no torsion to release"));
  CHECK_THAT(refusal({{Component::moment_y}, {}}), Contains("has no moment-y to release"));
  CHECK(refusal({{Component::shear_y}, {Component::moment_z}}).empty());
}

TEST_CASE("A rigid arm at the end of a cantilever") {
  // The axis lies 120 mm above its points; the force pulls at the point.
  Structure s = Structure::plane("arm");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 3_m, 0_m);
  const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  const RigidArm arm{.y = 120_mm};
  s.member("beam", {a, b},
           {.section = s.section("tube", tube), .material = material("S235"), .offset = {.start = arm, .end = arm}});
  s.support(a, Support::fixed());
  s.load_case("pull").at(b, Force{.x = 10_kN});
  const Solution r = solve(s);
  REQUIRE(r.ok());
  const double EI = 210e9 * tube.properties().Iz.si(), EA = 210e9 * tube.area().si(), F = 10000, e = 0.12;
  // Below the axis is pulled: the beam sags.
  CHECK(r[0]["beam"].moment_z().min().value.si() == near(F * e));
  CHECK(r[0]["beam"].moment_z().max().value.si() == near(F * e));
  CHECK(r[0]["beam"].axial().max().value.si() == near(F));
  CHECK(r[0].displacement(b).rz.si() == near(F * e * 3 / EI));
  CHECK(r[0].displacement(b).x.si() == near(F * 3 / EA + F * e * e * 3 / EI));
  CHECK(r[0].displacement(b).y.si() == near(F * e * 9 / (2 * EI)));
  CHECK(r[0].reaction(a).mz.si() == near(0, F * e));
  CHECK(r[0]["beam"].deflection_x().at(3_m).si() == near(F * 3 / EA));
}

TEST_CASE("Arms shorten a beam between thick columns, and positions count along its axis") {
  Structure s = Structure::plane("between columns");
  s.analysis().shear = false;
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 4_m, 0_m);
  const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  const auto beam = s.member("beam", {a, b},
                             {.section = s.section("tube", tube),
                              .material = material("S235"),
                              .offset = {.start = {.x = 250_mm}, .end = {.x = -250_mm}}});
  s.support(a, Support::fixed());
  s.support(b, Support::fixed());
  s.load_case("load").line(beam, LineForce{.y = -4_kN_per_m}).on(beam, 1.75_m, Force{.y = -2_kN});
  const Solution r = solve(s);
  REQUIRE(r.ok());
  CHECK(r[0]["beam"].length().si() == near(3.5));
  CHECK(r[0]["beam"].moment_z().at(0_m).si() == near(-4000 * 3.5 * 3.5 / 12 - 2000 * 3.5 / 8));
  CHECK(r[0]["beam"].moment_z().max().at.si() == near(1.75));
  // About the point itself the arm adds its shear.
  CHECK(r[0].reaction(a).mz.si() == near(4000 * 3.5 * 3.5 / 12 + 2000 * 3.5 / 8 + 8000 * 0.25));
  CHECK(r[0].balance().error < 1e-12);
}

TEST_CASE("A member through points between arms is joined to each by an arm of its share") {
  // A beam laid on a girder, both through three points, 80 mm above it: as if it were three short rigid posts.
  const auto solved = [](bool arms) {
    Structure s = Structure::plane("girder and rail");
    const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
    const auto section = s.section("tube", tube);
    const auto stiff = s.section("post", GivenProperties{.A = 1_m * 1_m, .Iz = SecondMoment::si(1)});
    std::vector<PointId> low, high;
    for (const double x : {0.0, 1.0, 2.5}) low.push_back(s.point("L" + std::to_string(low.size()), Length::si(x), 0_m));
    if (!arms)
      for (const double x : {0.0, 1.0, 2.5})
        high.push_back(s.point("H" + std::to_string(high.size()), Length::si(x), 80_mm));
    const Material steel = material("S235");
    Material rigid = steel;
    rigid.name = "rigid";
    rigid.E = Stiffness::si(1e17) / 1_m;
    s.member("girder", low, {.section = section, .material = steel});
    const RigidArm up{.y = 80_mm};
    if (arms)
      s.member("rail", low, {.section = section, .material = steel, .offset = {.start = up, .end = up}});
    else
      s.member("rail", high, {.section = section, .material = steel});
    for (std::size_t i = 0; i < high.size(); ++i)
      s.member("post " + std::to_string(i), {low[i], high[i]}, {.section = stiff, .material = rigid});
    s.support(low[0], Support::pinned());
    s.support(low[2], Support::roller());
    s.load_case("load").on(*s.find_member("rail"), 1.6_m, Force{.y = -9_kN});
    const Solution r = solve(s);
    REQUIRE(r.ok());
    return std::array{r[0]["rail"].moment_z().max().value.si(), r[0]["rail"].axial().min().value.si(),
                      r[0]["girder"].moment_z().max().value.si(), r[0].displacement(low[1]).y.si()};
  };
  const auto with = solved(true), without = solved(false);
  for (std::size_t i = 0; i < with.size(); ++i) CHECK(with[i] == Approx(without[i]).epsilon(1e-5));
}

TEST_CASE("A link with an arm turns its point") {
  // A tie that grips 200 mm below the head of a post.
  Structure s = Structure::plane("tie");
  s.analysis().shear = false;
  const auto foot = s.point("foot", 0_m, 0_m), head = s.point("head", 0_m, 3_m), wall = s.point("wall", 2_m, 2.8_m);
  const Section tube = SquareTube{.width = 60_mm, .wall = 4_mm};
  const auto section = s.section("tube", tube);
  s.member("post", {foot, head}, {.section = section, .material = material("S235")});
  const auto tie = s.member("tie", {head, wall},
                            {.section = section,
                             .material = material("S235"),
                             .kind = MemberKind::link,
                             .offset = {.start = {.y = -200_mm}}});
  s.support(foot, Support::fixed());
  s.support(wall, Support::pinned());
  s.load_case("short").shorten(tie, 1_mm);
  const Solution r = solve(s);
  REQUIRE(r.ok());
  const double N = r[0]["tie"].axial().max().value.si();
  CHECK(N > 0);
  CHECK(r[0]["tie"].length().si() == near(2.0));
  CHECK(r[0].reaction(wall).x.si() == near(N));
  CHECK(r[0].reaction(foot).mz.si() == near(N * 2.8));
  CHECK(r[0]["post"].moment_z().at(3_m).si() == near(-N * 0.2));
}

namespace {

// A mast with a rope to either side, pushed to the right by 2 kN at its head.
Structure mast(bool ropes) {
  Structure s = Structure::plane("mast");
  const auto foot = s.point("foot", 0_m, 0_m), head = s.point("head", 0_m, 4_m), left = s.point("left", -3_m, 0_m),
             right = s.point("right", 3_m, 0_m);
  s.member("mast", {foot, head},
           {.section = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = material("S235")});
  const MemberOptions rope{.section = s.section("rope", RoundBar{.diameter = 10_mm}),
                           .material = material("S235"),
                           .kind = MemberKind::link,
                           .acts = ropes ? Acts::tension : Acts::always};
  s.member("left rope", {left, head}, rope);
  s.member("right rope", {head, right}, rope);
  s.support(foot, Support::pinned());
  s.support(left, Support::pinned());
  s.support(right, Support::pinned());
  s.load_case("wind").at(head, Force{.x = 2_kN});
  return s;
}

}  // namespace

TEST_CASE("A rope goes slack, and its partner takes all") {
  const Solution r = solve(mast(true));
  REQUIRE(r.ok());
  CHECK(r[0]["left rope"].axial().max().value.si() == near(2000.0 * 5 / 3));
  CHECK_FALSE(r[0]["left rope"].is_slack());
  CHECK(r[0]["right rope"].axial().max().value.si() == 0);
  CHECK(r[0]["right rope"].axial().min().value.si() == 0);
  CHECK(r[0]["right rope"].is_slack());
  CHECK(r[0]["mast"].axial().min().value.si() == near(-2000.0 * 4 / 3));
  CHECK(r[0].reaction("right").x.si() == 0);
  CHECK(r[0].balance().error < 1e-12);
  // With both acting, half each.
  const Solution both = solve(mast(false));
  CHECK(both[0]["right rope"].axial().min().value.si() == near(-2000.0 * 5 / 6));
}

TEST_CASE("Ropes that are tightened beforehand both act, until the wind exceeds them: every case finds its own state") {
  Structure s = mast(true);
  const auto left = *s.find_member("left rope"), right = *s.find_member("right rope");
  const auto head = *s.find_point("head");
  for (const double wind : {0.5, 1.0, 30.0})
    s.load_case("wind " + std::to_string(wind))
        .shorten(left, 3_mm)
        .shorten(right, 3_mm)
        .at(head, Force{.x = ForceSize::si(1000 * wind)});
  const Solution r = solve(s);
  REQUIRE(r.ok());
  CHECK(r[0]["right rope"].is_slack());
  CHECK_FALSE(r[1]["right rope"].is_slack());
  CHECK_FALSE(r[2]["right rope"].is_slack());
  CHECK(r[3]["right rope"].is_slack());
  // While both act their forces differ by the wind's share, as without the tightening.
  for (const std::size_t c : {1, 2}) {
    const double wind = c == 1 ? 500 : 1000;
    CHECK(r[c]["left rope"].axial().max().value.si() - r[c]["right rope"].axial().max().value.si() ==
          near(wind * 5 / 3));
  }
  CHECK(r[3]["left rope"].axial().max().value.si() == near(30000.0 * 5 / 3));
}

TEST_CASE("A prop bears, and comes off when its beam is lifted") {
  const auto solved = [](double load) {
    Structure s = Structure::plane("prop");
    s.analysis().shear = false;
    const auto a = s.point("A", 0_m, 2_m), b = s.point("B", 3_m, 2_m), ground = s.point("ground", 3_m, 0_m);
    const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
    const auto section = s.section("tube", tube);
    const auto beam = s.member("beam", {a, b}, {.section = section, .material = material("S235")});
    s.member("prop", {ground, b},
             {.section = section, .material = material("S235"), .kind = MemberKind::link, .acts = Acts::compression});
    s.support(a, Support::fixed());
    s.support(ground, Support::pinned());
    s.load_case("load").line(beam, LineForce{.y = LineForceSize::si(load)});
    const Solution r = solve(s);
    REQUIRE(r.ok());
    return r;
  };
  const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  const double EI = 210e9 * tube.properties().Iz.si(), EA = 210e9 * tube.area().si();
  const Solution down = solved(-4000);
  // The tip would sink by q L⁴/8EI; the prop gives way by 2 m/EA.
  const double prop = 4000 * 81 / (8 * EI) / (27 / (3 * EI) + 2 / EA);
  CHECK(down[0]["prop"].axial().min().value.si() == near(-prop));
  CHECK_FALSE(down[0]["prop"].is_slack());
  const Solution up = solved(4000);
  CHECK(up[0]["prop"].is_slack());
  CHECK(up[0].reaction("ground").y.si() == 0);
  CHECK(up[0].displacement("B").y.si() == near(4000 * 81 / (8 * EI)));
}

TEST_CASE("A slack rope hangs from its upper end, a loose prop stands on its lower one") {
  Structure s = Structure::plane("hanging");
  const auto top = s.point("top", 0_m, 3_m), low = s.point("low", 0_m, 0_m), beside = s.point("beside", 1_m, 0_m),
             above = s.point("above", 1_m, 3_m);
  const Section bar = RoundBar{.diameter = 20_mm};
  const auto section = s.section("bar", bar);
  const Material steel = material("S235");
  s.member("rope", {low, top},
           {.section = section, .material = steel, .kind = MemberKind::link, .acts = Acts::tension});
  s.member("prop", {above, beside},
           {.section = section, .material = steel, .kind = MemberKind::link, .acts = Acts::compression});
  for (const PointId p : {top, low, beside, above}) s.support(p, Support::pinned());
  s.load_case("weight").gravity();
  const Solution r = solve(s);
  REQUIRE(r.ok());
  const double weight = bar.area().si() * 7850 * 3 * 9.80665;
  CHECK(r[0].reaction(top).y.si() == near(weight));
  CHECK(r[0].reaction(low).y.si() == near(0, weight));
  CHECK(r[0]["rope"].axial().min().value.si() == near(0, weight));
  CHECK(r[0]["rope"].axial().max().value.si() == near(weight));
  CHECK(r[0].reaction(beside).y.si() == near(weight));
  CHECK(r[0].reaction(above).y.si() == near(0, weight));
  CHECK(r[0]["prop"].axial().max().value.si() == near(0, weight));
  CHECK(r[0]["prop"].axial().min().value.si() == near(-weight));
}

TEST_CASE("A beam that acts in tension only keeps its bending, and grows freely in the heat") {
  Structure s = Structure::plane("one way");
  s.analysis().shear = false;
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
  const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  const auto beam = s.member("beam", {a, b},
                             {.section = s.section("tube", tube), .material = material("S235"), .acts = Acts::tension});
  s.support(a, Support::fixed());
  s.support(b, Support::fixed());
  s.load_case("warm").heat(beam, 30_K).line(beam, LineForce{.y = -5_kN_per_m});
  s.load_case("cold").heat(beam, Temperature::si(-30)).line(beam, LineForce{.y = -5_kN_per_m});
  const Solution r = solve(s);
  REQUIRE(r.ok());
  CHECK(r["warm"]["beam"].is_slack());
  CHECK(r["warm"]["beam"].axial().min().value.si() == 0);
  CHECK(r["cold"]["beam"].axial().max().value.si() == near(210e9 * tube.area().si() * 12e-6 * 30));
  for (const char* c : {"warm", "cold"}) CHECK(r[c].reaction(a).mz.si() == near(q * L * L / 12));
}

TEST_CASE("What no rope can hold is told with the ropes that are slack") {
  // A hanging lamp that is pushed up.
  Structure s = Structure::plane("lamp");
  const auto left = s.point("left", -1_m, 2_m), right = s.point("right", 1_m, 2_m), lamp = s.point("lamp", 0_m, 0_m);
  const MemberOptions rope{.section = s.section("rope", RoundBar{.diameter = 10_mm}),
                           .material = material("S235"),
                           .kind = MemberKind::link,
                           .acts = Acts::tension};
  s.member("rope 1", {left, lamp}, rope);
  s.member("rope 2", {right, lamp}, rope);
  s.support(left, Support::pinned());
  s.support(right, Support::pinned());
  s.load_case("weight").at(lamp, Force{.y = -1_kN});
  CHECK(solve(s).ok());
  s.load_case("lift").at(lamp, Force{.y = 1_kN});
  const Solution r = solve(s);
  REQUIRE_FALSE(r.ok());
  CHECK_THAT(describe(r.problems().front()), Contains("in case 'lift', with 'rope 1'") && Contains("slack, 'lamp'"));
}

TEST_CASE("Webs of crossed ties: of each pair one acts, whatever the load, and all signs are kept") {
  // A cantilever of many fields, whose diagonals act in tension only, under loads up, down and alternating.
  Structure s = Structure::plane("crossed ties");
  constexpr int fields = 8;
  std::vector<PointId> low, high;
  for (int i = 0; i <= fields; ++i) {
    low.push_back(s.point("L" + std::to_string(i), Length::si(i), 0_m));
    high.push_back(s.point("H" + std::to_string(i), Length::si(i), 1_m));
  }
  const Material steel = material("S235");
  const MemberOptions tube{.section = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = steel};
  MemberOptions post = tube;
  post.hinge = Hinge::both;
  const MemberOptions tie{.section = s.section("tie", RoundBar{.diameter = 12_mm}),
                          .material = steel,
                          .kind = MemberKind::link,
                          .acts = Acts::tension};
  s.member("low chord", low, tube);
  s.member("high chord", high, tube);
  for (int i = 0; i <= fields; ++i) s.member("post " + std::to_string(i), {low[i], high[i]}, post);
  for (int i = 0; i < fields; ++i) {
    s.member("rise " + std::to_string(i), {low[i], high[i + 1]}, tie);
    s.member("fall " + std::to_string(i), {high[i], low[i + 1]}, tie);
  }
  for (const PointId p : {low[0], high[0]}) s.support(p, Support::fixed());
  LoadsOf alternating = s.load_case("alternating");
  for (int i = 1; i <= fields; ++i) {
    test::loads_in(s, "down").at(high[i], Force{.y = -2_kN});
    test::loads_in(s, "up").at(high[i], Force{.y = 2_kN});
    alternating.at(high[i], Force{.x = 1_kN, .y = ForceSize::si(i % 2 ? 5000 : -6000)});
  }
  s.load_case("weight").gravity();
  const Solution r = solve(s);
  for (const Problem& p : r.problems()) UNSCOPED_INFO(describe(p));
  REQUIRE(r.ok());
  for (std::size_t c = 0; c < r.size(); ++c) {
    int slack = 0;
    double largest = 0;
    for (std::size_t i = 0; i < s.members().size(); ++i)
      largest = std::max(largest, r[c][MemberId{i}].axial().max().value.si());
    for (std::size_t i = 0; i < s.members().size(); ++i) {
      if (s.members()[i].acts != Acts::tension) continue;
      const MemberResult m = r[c][MemberId{i}];
      slack += m.is_slack();
      CHECK(m.axial().min().value.si() >= -1e-9 * largest);
      // A slack tie's ends are nearer than its own length.
      if (m.is_slack()) CHECK(m.deflection_x().at(m.length()).si() <= m.deflection_x().at(0_m).si() + 1e-12);
    }
    CHECK(slack >= fields / 2);
    CHECK(r[c].balance().error < 1e-10);
  }
}

TEST_CASE("Slips in members that act one way, and in arms, are told") {
  const auto refusal = [](const MemberOptions& extra, bool three) {
    Structure s = Structure::plane("slip");
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 1_m, 0_m), c = s.point("C", 2_m, 0_m);
    MemberOptions o = extra;
    o.section = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm});
    o.material = material("S235");
    s.member("beam", three ? std::vector{a, b, c} : std::vector{a, c}, o);
    s.support(a, Support::fixed());
    s.load_case("load").at(c, Force{.y = -1_kN});
    std::string all;
    for (const Problem& p : s.validate()) all += describe(p) + "\n";
    return all;
  };
  CHECK_THAT(refusal({.acts = Acts::tension}, true), Contains("a one-way member has two points"));
  CHECK_THAT(refusal({.release = {.start = {Component::axial}}, .acts = Acts::tension}, false),
             Contains("a one-way member cannot release its axial force"));
  CHECK_THAT(refusal({.offset = {.start = {.z = 10_mm}}}, false), Contains("this offset leaves the plane"));
  CHECK_THAT(refusal({.offset = {.start = {.x = 2_m}}}, false), Contains("between its rigid arms 'beam' is 0 m long"));
  CHECK_THAT(refusal({.kind = MemberKind::link, .release = {.start = {Component::moment_z}}}, false),
             Contains("it has no other release"));
}

}  // namespace tests_of_beam_joints
