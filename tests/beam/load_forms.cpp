// Loads per plan, in a member's own axes, spread over members, by angle and toward a point.
#include <cmath>

#include "support/beam.hpp"
#include "support/near.hpp"

namespace tests_of_beam_load_forms {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

namespace {

// A rafter of 5 m that rises 3 m over a plan of 4 m, pinned below, on a roller above.
struct Rafter {
  Rafter() {
    structure.analysis().shear = false;
    const auto a = structure.point("eaves", 0_m, 0_m), b = structure.point("ridge", 4_m, 3_m);
    rafter =
        structure.member("rafter", {a, b}, {.section = structure.section("tube", tube), .material = material("S235")});
    structure.support(a, Support::pinned());
    structure.support(b, Support::roller());
  }
  Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  Structure structure = Structure::plane("rafter");
  MemberId rafter;
};

}  // namespace

TEST_CASE("Snow per ground plan on a rafter") {
  Rafter r;
  r.structure.load_case("snow").line(r.rafter, LineForce{.y = -2_kN_per_m}, LineForce{.y = -2_kN_per_m},
                                     {.per = Per::plan});
  r.structure.load_case("roofing").line(r.rafter, LineForce{.y = -2_kN_per_m});
  const Solution s = solve(r.structure);
  REQUIRE(s.ok());
  CHECK(s["snow"].balance().applied.y.si() == near(-8000));
  CHECK(s["snow"]["rafter"].moment_z().max().value.si() == near(2000.0 * 4 * 4 / 8));
  CHECK(s["snow"].reaction("ridge").y.si() == near(4000));
  CHECK(s["roofing"].balance().applied.y.si() == near(-10000));
  CHECK(s["roofing"]["rafter"].moment_z().max().value.si() == near(2000.0 * 5 * 4 / 8));
  // Sideways, too, and on a part; changing linearly.
  Rafter part;
  part.structure.load_case("drift").line(part.rafter, LineForce{}, LineForce{.y = -3_kN_per_m},
                                         {.from = 1_m, .to = 3.5_m, .per = Per::plan});
  const Solution drift = solve(part.structure);
  REQUIRE(drift.ok());
  CHECK(drift[0].balance().applied.y.si() == near(-3000.0 / 2 * 2.5 * 0.8));
}

TEST_CASE("In space the ground plan is square to up, whichever axis that is") {
  for (const Up up : {Up::y, Up::z}) {
    Structure s = Structure::space("rafter", up);
    const auto a = s.point("A", 0_m, 0_m, 0_m),
               b = up == Up::z ? s.point("B", 2_m, 2_m, 1_m) : s.point("B", 2_m, 1_m, 2_m);
    const auto m = s.member("rafter", {a, b},
                            {.section = s.section("bar", RoundBar{.diameter = 40_mm}), .material = material("S235")});
    s.support(a, Support::fixed());
    const LineForce q = up == Up::z ? LineForce{.z = -1_kN_per_m} : LineForce{.y = -1_kN_per_m};
    s.load_case("snow").line(m, q, q, {.per = Per::plan});
    const Solution r = solve(s);
    REQUIRE(r.ok());
    const Reaction reaction = r[0].reaction(a);
    CHECK((up == Up::z ? reaction.z : reaction.y).si() == near(1000 * std::sqrt(8)));
  }
}

TEST_CASE("Loads in a member's own axes are the same loads turned") {
  Rafter own, global;
  const double c = 0.8, s = 0.6;
  const LoadAxes axes = LoadAxes::member;
  own.structure.load_case("load")
      .line(own.rafter, LineForce{.y = -2_kN_per_m}, LineForce{.x = 1_kN_per_m}, {.axes = axes})
      .on(own.rafter, 2_m, Force{.x = 3_kN, .y = -1_kN}, axes)
      .on(own.rafter, 1_m, Moment{.z = 500_N_m}, axes)
      .spread({own.rafter}, Force{.y = -4_kN}, axes);
  const auto turned = [&](double x, double y) { return Vector{c * x - s * y, s * x + c * y, 0}; };
  const auto line = [&](double x, double y) {
    const Vector v = turned(x, y);
    return LineForce{LineForceSize::si(v.x), LineForceSize::si(v.y)};
  };
  const auto force = [&](double x, double y) {
    const Vector v = turned(x, y);
    return Force{ForceSize::si(v.x), ForceSize::si(v.y)};
  };
  global.structure.load_case("load")
      .line(global.rafter, line(0, -2000), line(1000, 0))
      .on(global.rafter, 2_m, force(3000, -1000))
      .on(global.rafter, 1_m, Moment{.z = 500_N_m})
      .line(global.rafter, line(0, -4000.0 / 5));
  const Solution a = solve(own.structure), b = solve(global.structure);
  REQUIRE(a.ok());
  REQUIRE(b.ok());
  for (const double x : {0.3, 1.7, 2.5, 4.9}) {
    const SectionState u = a[0]["rafter"].at(Length::si(x)), v = b[0]["rafter"].at(Length::si(x));
    CHECK(u.moment_z.si() == near(v.moment_z.si(), 5000));
    CHECK(u.axial.si() == near(v.axial.si(), 5000));
    CHECK(u.deflection_y.si() == near(v.deflection_y.si(), 0.01));
  }
  // Wind square to the rafter: by hand.
  Rafter wind;
  wind.structure.load_case("wind").line(wind.rafter, LineForce{.y = -1_kN_per_m}, LineForce{.y = -1_kN_per_m},
                                        {.axes = axes});
  const Solution w = solve(wind.structure);
  CHECK(w[0]["rafter"].moment_z().max().value.si() == near(1000.0 * 25 / 8, 3125));
  CHECK(w[0].balance().applied.x.si() == near(1000 * 5 * 0.6));
}

TEST_CASE("A force spread over members is one force per their summed length") {
  Structure s = Structure::plane("spread");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 3_m, 0_m), c = s.point("C", 3_m, 2_m);
  const MemberOptions o{.section = s.section("bar", RectangularBar{.height = 60_mm, .width = 40_mm}),
                        .material = material("S235")};
  const auto flat = s.member("flat", {a, b}, o), upright = s.member("upright", {b, c}, o);
  s.support(a, Support::fixed());
  s.load_case("load").spread({flat, upright}, Force{.y = -10_kN});
  const Solution r = solve(s);
  REQUIRE(r.ok());
  CHECK(r[0].reaction(a).y.si() == near(10000));
  CHECK(r[0]["upright"].axial().min().value.si() == near(-10000.0 * 2 / 5));
  CHECK(r[0].reaction(a).mz.si() == near(6000 * 1.5 + 4000 * 3.0));
}

TEST_CASE("Forces by angle and toward a point") {
  const Force f = at_angle(10_kN, Angle::si(-std::acos(-1.0) / 3));
  CHECK(f.x.si() == near(5000));
  CHECK(f.y.si() == near(-10000 * std::sqrt(3) / 2));
  CHECK(at_angle(1_kN, 90_deg).x.si() == 0);
  CHECK(at_angle(1_kN, -90_deg).y.si() == -1000);
  CHECK(at_angle(1_kN, 450_deg).y.si() == 1000);
  const Force t = toward(7_kN, {1, 2, 3}, {3, 5, 9});
  CHECK(t.x.si() == near(2000));
  CHECK(t.y.si() == near(3000));
  CHECK(t.z.si() == near(6000));
}

TEST_CASE("Places found from other places") {
  const Vector p{1, 2, 3};
  CHECK(moved(p, 1_m, -1_m, 2_m) == Vector{2, 1, 5});
  CHECK(length(polar(p, 2_m, 30_deg) - (p + Vector{std::sqrt(3), 1, 0})) < 1e-12);
  CHECK(polar(p, 2_m, 180_deg) == Vector{-1, 2, 3});
  CHECK(between(p, {3, 2, 3}, 0.25) == Vector{1.5, 2, 3});
  CHECK(length(between(p, {4, 6, 3}, 1_m) - Vector{1.6, 2.8, 3}) < 1e-12);
  CHECK(mirrored(p, Axis::x, 2_m) == Vector{3, 2, 3});
  CHECK(mirrored(p, Axis::z, 0_m) == Vector{1, 2, -3});
}

TEST_CASE("Slips in these loads are told") {
  const auto refusal = [](const auto& load) {
    Rafter r;
    const auto post =
        r.structure.member("post", {*r.structure.find_point("ridge"), r.structure.point("foot", 4_m, 0_m)},
                           {.section = SectionId(0), .material = material("S235")});
    load(r.structure.load_case("load"), r.rafter, post);
    std::string all;
    for (const Problem& p : r.structure.validate()) all += describe(p) + "\n";
    return all;
  };
  using Catch::Contains;
  const LineForce q{.y = -1_kN_per_m};
  CHECK_THAT(refusal([&](LoadsOf c, MemberId, MemberId post) { c.line(post, q, q, {.per = Per::plan}); }),
             Contains("'post' is vertical and has no horizontal projection"));
  CHECK_THAT(
      refusal([&](LoadsOf c, MemberId m, MemberId) { c.line(m, q, q, {.axes = LoadAxes::member, .per = Per::plan}); }),
      Contains("a load per plan has global directions"));
  CHECK_THAT(refusal([&](LoadsOf c, MemberId m, MemberId) {
               c.spread({m, m}, Force{.y = -1_kN});
             }),
             Contains("'rafter' is listed twice"));
  CHECK_THAT(refusal([&](LoadsOf c, MemberId, MemberId) { c.spread({}, Force{.y = -1_kN}); }),
             Contains("the load has no member"));
  CHECK_THAT(refusal([&](LoadsOf c, MemberId m, MemberId) { c.shorten(m, 6_m); }),
             Contains("cannot be 6 m too short"));
  CHECK_THAT(refusal([&](LoadsOf c, MemberId m, MemberId) { c.temperature_gradient_z(m, 6_K, 1_K); }),
             Contains("heat across z would bend 'rafter' out of the plane"));
  CHECK_THAT(refusal([&](LoadsOf c, MemberId m, MemberId) {
               c.line(m, LineForce{.z = 1_kN_per_m}, LineForce{}, {.axes = LoadAxes::member});
             }),
             Contains("this force leaves the plane"));
}

}  // namespace tests_of_beam_load_forms
