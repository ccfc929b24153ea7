// Sag between what holds: supports, and members that carry the point in the case.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_result_sag {

using namespace corvex;
using namespace corvex::test;
using namespace corvex::literals;
using namespace corvex::units;

namespace {

const Section tube = RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm};

LimitCheck checked(const Structure& s, std::vector<MemberId> on, double required = 1.0 / 300) {
  const Solution solution = solve(s);
  INFO((solution.ok() ? "" : solution.problems().front().text));
  REQUIRE(solution.ok());
  const auto check =
      check_limits(solution, {{.kind = Limit::Kind::sag, .required = required, .on = {on.begin(), on.end()}}});
  REQUIRE(check.ok());
  return check.value();
}

using Between = std::pair<std::string, std::string>;

}  // namespace

TEST_CASE("What hangs from a beam does not hold it: a load on a stub, and the same load on the beam") {
  const auto beam_of = [](bool stub, MemberId& beam) {
    Structure s = Structure::plane("beam");
    const auto section = s.section("tube", tube);
    const Material steel = material("S235");
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m), c = s.point("C", 4_m, 0_m),
               d = s.point("D", 2_m, -0.5_m);
    beam = s.member("beam", {a, b, c}, {.section = section, .material = steel});
    if (stub) s.member("stub", {b, d}, {.section = section, .material = steel});
    s.support(a, Support::pinned());
    s.support(c, Support::roller());
    s.load_case("load").at(stub ? d : b, Force{.y = -2_kN});
    return s;
  };
  MemberId beam(0);
  const Structure with_stub = beam_of(true, beam), without = beam_of(false, beam);
  const LimitCheck hanging = checked(with_stub, {MemberId(0)}), direct = checked(without, {MemberId(0)});
  REQUIRE(hanging.verdicts.size() == 1);
  REQUIRE(direct.verdicts.size() == 1);
  CHECK(hanging.verdicts[0].between == Between("A", "C"));
  CHECK(hanging.verdicts[0].value->si == near(direct.verdicts[0].value->si));
  CHECK(hanging.verdicts[0].state == Verdict::State::exceeded);
  // The table says the same.
  const Solution solution = solve(beam_of(true, beam));
  CHECK(solution[0][beam].sag().value.si == near(hanging.verdicts[0].value->si * 4));
  CHECK(solution[0][beam].sag_at(2_m).si() == near(solution[0][beam].sag().value.si));
}

TEST_CASE("A post that carries the point holds it, and is named") {
  Structure s = Structure::plane("rail");
  const auto section = s.section("tube", tube);
  const Material steel = material("S235");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m), c = s.point("C", 4_m, 0_m),
             foot = s.point("F", 2_m, -1_m), tip = s.point("T", 4.8_m, 0_m);
  const auto rail = s.member("rail", {a, b, c, tip}, {.section = section, .material = steel});
  s.member("post", {b, foot}, {.section = section, .material = steel, .hinge = Hinge::both});
  s.support(a, Support::pinned());
  s.support(c, Support::roller());
  s.support(foot, Support::pinned());
  s.load_case("load").line(rail, LineForce{.y = -3_kN_per_m});
  const LimitCheck check = checked(s, {rail});
  REQUIRE(check.verdicts.size() == 3);
  CHECK(check.verdicts[0].between == Between("A", "B"));
  CHECK(check.verdicts[0].note == "B held by post");
  CHECK(check.verdicts[1].note == "B held by post");
  CHECK(check.verdicts[2].between == Between("C", "T"));
  CHECK(check.verdicts[2].note == "overhang, its end against C held by its support");
  const Solution solution = solve(s);
  const CaseResult r = solution[0];
  CHECK(check.verdicts[2].value->si == near(std::abs(r.displacement("T").y.si() - r.displacement("C").y.si()) / 0.8));
  const std::vector<Stretch> stretches = r["rail"].stretches();
  REQUIRE(stretches.size() == 3);
  CHECK(r["rail"].sag().value.si ==
        near(std::max({stretches[0].sag.value.si, stretches[1].sag.value.si, stretches[2].sag.value.si})));
}

TEST_CASE("A grillage: cross beams stand on main beams, which they load") {
  Structure s = Structure::space("grillage");
  const auto section = s.section("tube", tube);
  const Material steel = material("S235");
  std::vector<PointId> left, right;
  for (int i = 0; i <= 4; ++i) {
    left.push_back(s.point("L" + std::to_string(i), Length::si(i), 0_m, 0_m));
    right.push_back(s.point("R" + std::to_string(i), Length::si(i), 2_m, 0_m));
  }
  const auto main = s.member("main", left, {.section = section, .material = steel});
  s.member("other main", right, {.section = section, .material = steel});
  std::vector<MemberId> cross;
  for (int i = 1; i <= 3; ++i)
    cross.push_back(s.member("cross" + std::to_string(i),
                             {left[static_cast<std::size_t>(i)], right[static_cast<std::size_t>(i)]},
                             {.section = section, .material = steel}));
  for (const PointId p : {left.front(), left.back(), right.front(), right.back()}) s.support(p, Support::fixed());
  LoadsOf floor = s.load_case("floor");
  for (const MemberId m : cross) floor.line(m, LineForce{.z = -4_kN_per_m});
  const LimitCheck mains = checked(s, {main});
  REQUIRE(mains.verdicts.size() == 1);
  CHECK(mains.verdicts[0].between == Between("L0", "L4"));
  const LimitCheck crosses = checked(s, {cross[1]});
  REQUIRE(crosses.verdicts.size() == 1);
  CHECK(crosses.verdicts[0].note == "L2 held by main, R2 held by other main");
  CHECK(crosses.verdicts[0].value->si < mains.verdicts[0].value->si);
}

TEST_CASE("A roof hung from a beam: the rods hold the roof and load the beam") {
  Structure s = Structure::plane("roof");
  const auto section = s.section("tube", tube), rod = s.section("rod", Section(RoundBar{.diameter = 12_mm}));
  const Material steel = material("S235");
  std::vector<PointId> above, below;
  for (int i = 0; i <= 3; ++i) {
    above.push_back(s.point("U" + std::to_string(i), Length::si(1.5 * i), 2_m));
    below.push_back(s.point("L" + std::to_string(i), Length::si(1.5 * i), 0_m));
  }
  const auto beam = s.member("beam", above, {.section = section, .material = steel});
  const auto roof = s.member("roof", below, {.section = section, .material = steel});
  for (int i = 0; i <= 3; ++i)
    s.member("rod" + std::to_string(i), {above[static_cast<std::size_t>(i)], below[static_cast<std::size_t>(i)]},
             {.section = rod, .material = steel, .kind = MemberKind::link});
  s.support(above.front(), Support::pinned());
  s.support(above.back(), Support::roller());
  s.support(below.front(), Support::hold({Freedom::x}));
  s.load_case("snow").line(roof, LineForce{.y = -1_kN_per_m});
  const LimitCheck of_beam = checked(s, {beam}), of_roof = checked(s, {roof});
  REQUIRE(of_beam.verdicts.size() == 1);
  CHECK(of_beam.verdicts[0].between == Between("U0", "U3"));
  REQUIRE(of_roof.verdicts.size() == 3);
  CHECK(of_roof.verdicts[1].note == "L1 held by rod1, L2 held by rod2");
}

TEST_CASE("What carries in one case and hangs in another cuts only in the first") {
  // A tie that is pulled down in one case, and holds the beam up in the other.
  Structure s = Structure::plane("both");
  const auto section = s.section("tube", tube);
  const Material steel = material("S235");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m), c = s.point("C", 4_m, 0_m),
             d = s.point("D", 2_m, -1_m);
  const auto beam = s.member("beam", {a, b, c}, {.section = section, .material = steel});
  s.member("tie", {b, d}, {.section = section, .material = steel});
  // A soft spring under D: it carries a little of what rests on the beam.
  s.support(a, Support::pinned());
  s.support(c, Support::roller());
  s.support(d, Support().spring({.y = 50_N_per_mm}));
  s.load_case("on the beam").line(beam, LineForce{.y = -2_kN_per_m});
  s.load_case("on the tie").at(d, Force{.y = -2_kN});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  CHECK(solution["on the beam"]["beam"].stretches().size() == 2);
  CHECK(solution["on the tie"]["beam"].stretches().size() == 1);
}

}  // namespace tests_of_result_sag
