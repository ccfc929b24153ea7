// Combinations, the envelope and limits.
#include <cmath>

#include "support/beam.hpp"
#include "support/near.hpp"
#include "support/plan.hpp"

namespace tests_of_result_combinations {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;
using Catch::Contains;

TEST_CASE("A combination is the sum of its cases, in every figure") {
  for (const bool plane : {true, false})
    for (unsigned seed = 400; seed < 415; ++seed) {
      INFO((plane ? "plane" : "space") << " frame " << seed);
      Structure structure = build(rich_plan(seed, plane));
      structure.combination("sum", {{"C0", 1.35}, {"C2", -0.5}});
      const Solution s = solve(structure);
      REQUIRE(s.ok());
      CHECK(s.assessed() == std::vector<std::size_t>{3});
      const CaseResult a = s["C0"], b = s["C2"], sum = s["sum"];
      double move = 0, force = 0;
      for (std::size_t p = 0; p < structure.points().size(); ++p)
        for (const CaseResult& c : {a, b}) move = std::max(move, std::abs(c.displacement(PointId{p}).x.si()));
      for (std::size_t i = 0; i < structure.members().size(); ++i)
        for (const CaseResult& c : {a, b})
          for (const Diagram& d : {Diagram(c[MemberId{i}].axial()), Diagram(c[MemberId{i}].moment_z())})
            force = std::max({force, std::abs(d.max().value.si), std::abs(d.min().value.si)});
      for (std::size_t p = 0; p < structure.points().size(); ++p)
        CHECK(sum.displacement(PointId{p}).x.si() ==
              near(1.35 * a.displacement(PointId{p}).x.si() - 0.5 * b.displacement(PointId{p}).x.si(), move));
      for (const PointSupport& p : structure.supports())
        CHECK(sum.reaction(p.at).y.si() ==
              near(1.35 * a.reaction(p.at).y.si() - 0.5 * b.reaction(p.at).y.si(), 10 * force));
      for (std::size_t i = 0; i < structure.members().size(); ++i)
        for (const double share : {0.001, 0.37, 0.999}) {
          const Length x = a[MemberId{i}].length() * share;
          const auto at = [&](const CaseResult& c) { return c[MemberId{i}].at(x); };
          CHECK(at(sum).moment_z.si() == near(1.35 * at(a).moment_z.si() - 0.5 * at(b).moment_z.si(), force));
          CHECK(at(sum).axial.si() == near(1.35 * at(a).axial.si() - 0.5 * at(b).axial.si(), force));
          CHECK(at(sum).deflection_y.si() ==
                near(1.35 * at(a).deflection_y.si() - 0.5 * at(b).deflection_y.si(), 10 * move));
        }
      CHECK(sum.balance().error < 1e-10);
    }
}

TEST_CASE("With ropes each combination finds its own state") {
  Structure s = Structure::plane("mast");
  const auto foot = s.point("foot", 0_m, 0_m), head = s.point("head", 0_m, 4_m), left = s.point("left", -3_m, 0_m),
             right = s.point("right", 3_m, 0_m);
  const Material steel = material("S235");
  s.member("mast", {foot, head},
           {.section = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = steel});
  const MemberOptions rope{.section = s.section("rope", RoundBar{.diameter = 10_mm}),
                           .material = steel,
                           .kind = MemberKind::link,
                           .acts = Acts::tension};
  s.member("left rope", {left, head}, rope);
  s.member("right rope", {head, right}, rope);
  for (const PointId p : {foot, left, right}) s.support(p, Support::pinned());
  s.load_case("from the left").at(head, Force{.x = 2_kN});
  s.load_case("from the right").at(head, Force{.x = -3_kN});
  s.combination("both", {{"from the left", 1}, {"from the right", 1}});
  const Solution r = solve(s);
  REQUIRE(r.ok());
  // 1 kN to the left: the right rope alone, not the sum of both ropes' forces.
  CHECK(r["both"]["right rope"].axial().max().value.si() == near(1000.0 * 5 / 3));
  CHECK(r["both"]["left rope"].axial().max().value.si() == 0);
  CHECK(r["both"]["left rope"].is_slack());
}

TEST_CASE("The envelope tells the largest and the least of the combinations, and which") {
  Structure structure = build(rich_plan(431, false));
  structure.combination("one", {{"C0", 1}, {"C1", 1}});
  structure.combination("two", {{"C0", -1.2}, {"C2", 0.3}});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  for (std::size_t i = 0; i < structure.members().size(); ++i) {
    const MemberEnvelope e = envelope(s, MemberId{i});
    const MemberResult one = s["one"][MemberId{i}], two = s["two"][MemberId{i}];
    const auto check = [](const Range& r, const Diagram& a, const Diagram& b) {
      CHECK(r.max.value.si == std::max(a.max().value.si, b.max().value.si));
      CHECK(r.min.value.si == std::min(a.min().value.si, b.min().value.si));
      const Diagram& governs = r.max.load_case == "one" ? a : b;
      CHECK(governs.max().value.si == r.max.value.si);
      CHECK(governs.max().at == r.max.at);
    };
    check(e.axial, one.axial(), two.axial());
    check(e.shear_z, one.shear_z(), two.shear_z());
    check(e.torsion, one.torsion(), two.torsion());
    check(e.moment_y, one.moment_y(), two.moment_y());
    check(e.moment_z, one.moment_z(), two.moment_z());
    check(e.deflection_y, one.deflection_y(), two.deflection_y());
    CHECK(e.von_mises.stress->value == std::max(one.von_mises()->value, two.von_mises()->value));
    CHECK(e.sag.value.si == std::max(one.sag().value.si, two.sag().value.si));
  }
}

namespace {

// A rail on three posts with an end that hangs over, under 8 kN in the middle of the first span.
struct Trestle {
  Trestle() {
    s.analysis().shear = false;
    const auto section = s.section("tube", tube);
    const Material steel = material("S235");
    a = s.point("A", 0_m, 0_m), b = s.point("B", 1_m, 0_m), c = s.point("C", 2_m, 0_m), d = s.point("D", 3_m, 0_m),
    e = s.point("E", 4_m, 0_m);
    rail = s.member("rail", {a, b, c, d, e}, {.section = section, .material = steel});
    s.support(a, Support::pinned());
    s.support(c, Support::roller());
    s.support(d, Support::roller());
    s.load_case("load").at(b, Force{.y = -8_kN});
    s.load_case("half").at(b, Force{.y = -4_kN});
  }
  LimitCheck check(const Limits& limits) const {
    const Solution r = solve(s);
    REQUIRE(r.ok());
    const auto checked = check_limits(r, limits);
    REQUIRE(checked.ok());
    return checked.value();
  }
  std::string refusal(const Limits& limits) const {
    const auto checked = check_limits(solve(s), limits);
    REQUIRE_FALSE(checked.ok());
    return describe(checked.error().front());
  }
  Section tube = RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm};
  Structure s = Structure::plane("trestle");
  PointId a, b, c, d, e;
  MemberId rail;
};

}  // namespace

TEST_CASE("Of cases that differ by rounding the first is named") {
  for (unsigned seed = 420; seed < 440; ++seed) {
    INFO("frame " << seed);
    Structure structure = build(rich_plan(seed, seed % 2 == 0));
    structure.combination("first", {{"C0", 1.35}, {"C1", 0.7}, {"C2", 0.3}});
    structure.combination("other order", {{"C2", 0.3}, {"C1", 0.7}, {"C0", 1.35}});
    const Solution s = solve(structure);
    REQUIRE(s.ok());
    const auto checked = check_limits(s, {{.kind = Limit::Kind::safety, .required = 1.5},
                                          {.kind = Limit::Kind::sag, .required = 1.0 / 300},
                                          {.kind = Limit::Kind::movement, .required = 1_mm, .at = {PointId{1}}}});
    REQUIRE(checked.ok());
    for (const Verdict& v : checked->verdicts)
      if (v.state != Verdict::State::not_checked) CHECK(v.load_case == "first");
  }
}

TEST_CASE("Safety is held against the worst case") {
  Trestle t;
  const double worst = *solve(t.s)["load"]["rail"].safety();
  const LimitCheck check = t.check({{.kind = Limit::Kind::safety, .required = worst * 1.01}});
  REQUIRE(check.verdicts.size() == 1);
  CHECK(check.verdicts[0].on == "rail");
  CHECK(check.verdicts[0].load_case == "load");
  CHECK(check.verdicts[0].value->si == near(worst));
  CHECK_FALSE(check.all_met());
  CHECK(t.check({{.kind = Limit::Kind::safety, .required = worst * 0.99}}).all_met());
  // A case of one's own choice.
  const LimitCheck half = t.check({{.kind = Limit::Kind::safety, .required = worst * 1.01, .cases = {"half"}}});
  CHECK(half.all_met());
  CHECK(half.verdicts[0].value->si == near(2 * worst));
}

TEST_CASE("Safety that cannot be told is not checked, and without stress it is without end") {
  Structure s = Structure::plane("bar");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 1_m, 0_m), c = s.point("C", 0_m, 1_m);
  s.member("given", {a, b},
           {.section = s.section("given", GivenProperties{.A = Area::si(4e-4), .Iz = SecondMoment::si(4e-7)}),
            .material = material("S235")});
  s.member("idle", {a, c}, {.section = s.section("bar", RoundBar{.diameter = 20_mm}), .material = material("S235")});
  s.support(a, Support::fixed());
  s.load_case("tip").at(b, Force{.y = -1_kN});
  const auto check = check_limits(solve(s), {{.kind = Limit::Kind::safety, .required = 1}});
  REQUIRE(check.ok());
  CHECK(check->verdicts[0].state == Verdict::State::not_checked);
  CHECK_FALSE(check->verdicts[0].value);
  CHECK_THAT(check->verdicts[0].note, Contains("not known in full"));
  CHECK(check->verdicts[1].state == Verdict::State::met);
  CHECK_FALSE(check->verdicts[1].value);
}

TEST_CASE("The worst reading of a deflection counts, and an overhang is named") {
  Trestle t;
  const LimitCheck check = t.check({{.kind = Limit::Kind::sag, .required = 1.0 / 300}});
  REQUIRE(check.verdicts.size() == 1);
  // The worst of all readings: of both spans, the whole and the overhang.
  double worst = 0;
  const Solution both = solve(t.s);
  for (const Stretch& one : both["load"]["rail"].stretches()) worst = std::max(worst, one.ratio());
  CHECK(check.verdicts[0].value->si == near(worst));
  // The simple span's P L³/48EI less that of its end moment.
  const MemberResult m = solve(t.s)["load"]["rail"];
  const double EI = 210e9 * t.tube.properties().Iz.si(), M = -m.moment_z().at(2_m).si();
  const double middle = 8000 * 8 / (48 * EI) - M * 4 / (16 * EI);
  CHECK(m.sag_between(0_m, 2_m).value.si >= middle);
  CHECK(m.sag_between(0_m, 2_m).value.si == Approx(middle).epsilon(0.05));
  // Between two points of one's own choice, in either order.
  const LimitCheck between = t.check({{.kind = Limit::Kind::sag, .required = 1, .between = std::pair(t.c, t.a)}});
  REQUIRE(between.verdicts.size() == 1);
  CHECK(between.verdicts[0].value->si == near(m.sag_between(0_m, 2_m).value.si / 2));
  CHECK(between.verdicts[0].value->si <= check.verdicts[0].value->si);
}

TEST_CASE("Movement of points, by parts") {
  Trestle t;
  const Displacement d = solve(t.s)["load"].displacement("E");
  const LimitCheck check =
      t.check({{.kind = Limit::Kind::movement, .required = Length::si(1e-6), .at = {t.e}, .part = Part::y},
               {.kind = Limit::Kind::movement, .required = 1_m, .at = {t.e, t.b}}});
  REQUIRE(check.verdicts.size() == 3);
  CHECK(check.verdicts[0].value->si == near(std::abs(d.y.si())));
  CHECK_FALSE(check.verdicts[0].state == Verdict::State::met);
  CHECK(check.verdicts[1].value->si == near(std::hypot(d.x.si(), d.y.si())));
  CHECK(check.count(Verdict::State::met) == 2);
}

TEST_CASE("Slips in limits and combinations are told") {
  Trestle t;
  using Kind = Limit::Kind;
  CHECK_THAT(t.refusal({{.kind = Kind::safety, .required = 0}}),
             Contains("limit 1: error: a limit must be greater than zero"));
  CHECK_THAT(t.refusal({{.kind = Kind::safety, .required = 1, .cases = {"lode"}}}),
             Contains("there is no load case or combination 'lode'"));
  CHECK_THAT(t.refusal({{.kind = Kind::movement, .required = 1_m}}), Contains("a limit of movement names points"));
  const auto other = t.s.point("F", 9_m, 9_m);
  CHECK_THAT(t.refusal({{.kind = Kind::sag, .required = 1, .between = std::pair(t.a, other)}}),
             Contains("no member has both points 'A' and 'F'"));

  const auto problems = [](const auto& spoil) {
    Trestle u;
    spoil(u.s);
    std::string all;
    for (const Problem& p : u.s.validate()) all += describe(p) + "\n";
    return all;
  };
  CHECK_THAT(problems([](Structure& s) {
               s.combination("sum", {{"lode", 1}});
             }),
             Contains("combination sum: error: there is no load case 'lode'"));
  CHECK_THAT(problems([](Structure& s) {
               s.combination("load", {{"half", 1}});
             }),
             Contains("'load' is the name of a load case already"));
  CHECK_THAT(problems([](Structure& s) {
               s.combination("envelope", {{"half", 1}});
             }),
             Contains("'envelope' is a reserved name"));
  CHECK_THAT(problems([](Structure& s) {
               s.combination("sum", {{"half", 1}, {"half", 2}});
             }),
             Contains("'half' is listed twice"));
  CHECK_THAT(problems([](Structure& s) { s.combination("sum", {}); }), Contains("contains no valid load case"));
  CHECK_THAT(problems([](Structure& s) {
               s.combination("sum", {{"half", 1}});
               s.combination("sum", {{"load", 1}});
             }),
             Contains("the name 'sum' is used twice"));
}

}  // namespace tests_of_result_combinations
