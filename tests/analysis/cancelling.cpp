// Loads and combinations that take each other back: zeros where zeros belong, and never a refusal. Chains of every
// size: no false mechanism.
#include <cmath>
#include <corvex/corvex.hpp>
#include <random>

#include "support/near.hpp"
#include "support/plan.hpp"
#include "support/rows.hpp"

namespace tests_of_analysis_cancelling {

using namespace corvex;
using namespace corvex::test;
using namespace corvex::literals;
using namespace corvex::units;

namespace {

#ifdef CORVEX_SHORT_ROWS
constexpr int shorter = 20;
#else
constexpr int shorter = 1;
#endif

// Nothing at all is left of a case.
void nothing_left(const Structure& s, const CaseResult& r) {
  for (std::size_t p = 0; p < s.points().size(); ++p) {
    const Displacement d = r.displacement(PointId{p});
    for (const double v : {d.x.si(), d.y.si(), d.z.si(), d.rx.si(), d.ry.si(), d.rz.si()}) REQUIRE(v == 0);
    const Reaction f = r.reaction(PointId{p});
    for (const double v : {f.x.si(), f.y.si(), f.z.si(), f.mx.si(), f.my.si(), f.mz.si()}) REQUIRE(v == 0);
  }
  for (std::size_t m = 0; m < s.members().size(); ++m) {
    const MemberResult member = r[MemberId{m}];
    INFO(s.members()[m].name);
    for (const MemberFigure& f : member_figures()) {
      if (!f.diagram || f.kind == MemberFigure::Kind::rotation) continue;
      const Diagram d = f.diagram(member);
      REQUIRE(std::pair(d.max().value.si, d.min().value.si) == std::pair(0.0, 0.0));
    }
    if (const auto worst = member.von_mises()) REQUIRE(worst->value.si() == 0);
  }
}

Structure simple_beam() {
  Structure s = Structure::plane("lid");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0.7_m);
  s.member(
      "beam", {a, b},
      {.section = s.section("tube", Section(SquareTube{.width = 60_mm, .wall = 4_mm})), .material = material("S235")});
  s.support(a, Support::pinned());
  s.support(b, Support::roller());
  return s;
}

}  // namespace

TEST_CASE("A lid and its counterweight, three hands that cancel, weight against itself, heat against itself") {
  Structure s = simple_beam();
  const MemberId beam{0};
  s.load_case("lid").on(beam, 1_m, Force{.y = -2.1_kN});
  s.load_case("weight").on(beam, 1_m, Force{.y = 0.7_kN});
  s.load_case("1.1").on(beam, 0.3_m, Force{.y = -1.1_kN});
  s.load_case("2.2").on(beam, 0.3_m, Force{.y = -2.2_kN});
  s.load_case("3.3").on(beam, 0.3_m, Force{.y = 3.3_kN});
  s.load_case("own").gravity();
  s.load_case("against").gravity({.y = AccelerationSize::si(9.80665 * 1.1)});
  s.load_case("warm").heat(beam, 0.1_K);
  s.load_case("cold").heat(beam, -0.3_K);
  s.combination("closed", {{"lid", 1}, {"weight", 3}});
  s.combination("three", {{"1.1", 1}, {"2.2", 1}, {"3.3", 1}});
  s.combination("weightless", {{"own", 1.1}, {"against", 1}});
  s.combination("even", {{"warm", 3}, {"cold", 1}});
  const Solution solution = solve(s);
  INFO((solution.ok() ? "" : solution.problems().front().text));
  REQUIRE(solution.ok());
  for (const char* name : {"closed", "three", "weightless", "even"}) {
    INFO(name);
    nothing_left(s, solution[name]);
  }
}

TEST_CASE("Loads that nothing feels: over a support, a moment at a built-in end, free heat, a bar too short") {
  Structure s = Structure::plane("free");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 1.3_m, 0.77_m), c = s.point("C", 2.9_m, 0.1_m);
  const auto section = s.section("tube", Section(SquareTube{.width = 60_mm, .wall = 4_mm}));
  const auto left = s.member("left", {a, b}, {.section = section, .material = material("S235")});
  const auto right = s.member("right", {b, c}, {.section = section, .material = material("S235")});
  s.support(a, Support::fixed());
  s.load_case("over").at(a, Force{.y = -1_kN});
  s.load_case("turned").at(a, Moment{.z = 3_kN_m});
  s.load_case("heat").heat(left, 37_K).heat(right, 11_K);
  s.load_case("short").shorten(left, 1.7_mm);
  s.load_case("warped").temperature_gradient_y(left, 30_K, 0_K);
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  for (const char* name : {"over", "turned", "heat", "short", "warped"})
    for (const char* member : {"left", "right"}) {
      INFO(name << " " << member);
      CHECK(solution[name][member].von_mises()->value.si() == 0);
      CHECK(solution[name][member].axial().max().value.si() == 0);
      CHECK(solution[name][member].moment_z().min().value.si() == 0);
    }
  CHECK(solution["over"].displacement("C").y.si() == 0);
  CHECK(solution["over"].reaction("A").y.si() == near(1000));
  CHECK(solution["heat"].displacement("C").x.si() == near(12e-6 * (1.3 * 37 + 1.6 * 11), 1e-4));
}

TEST_CASE("2,000 random models whose combinations take each other back are solved, and nothing is left") {
  std::mt19937 random(7);
  const auto share = [&] { return std::uniform_real_distribution<double>(0, 1)(random); };
  int combinations = 0;
  for (unsigned seed = 1; seed <= 2000 / shorter; ++seed) {
    INFO(seed);
    // Every kind of frame, support, hinge, heat and lack of fit; every fourth is large.
    Plan plan = seed % 4 ? random_plan(seed, seed % 2 == 0) : rich_plan(seed, seed % 8 == 0);
    // With members that act one way only each combination is a state of its own.
    if (seed % 3 == 0)
      for (std::size_t m = 0; m < plan.members.size(); ++m)
        if (plan.members[m].link) plan.members[m].acts = m % 2 ? Acts::tension : Acts::compression;
    // Some cannot do without what is slack under their own loads.
    if (seed % 3 == 0 && !solve(build(plan)).ok()) continue;
    Structure s = build(plan);
    const std::string first = s.load_cases().front().name();
    // The same loads again, in other portions: a·f + b·f − (a + b)·f with factors that rounding does not cancel.
    LoadsOf again = s.load_case("again");
    for (const Load& l : std::vector<Load>(s.load_cases().front().loads())) again.add(l);
    const double a = 0.1 + share(), b = 0.1 + share() * 3;
    s.combination("none", {{first, a + b}, {"again", -(a + b)}});
    s.combination("portions", {{first, 1.1 * 3}, {"again", -3.3}});
    const Solution solution = solve(s);
    if (!solution.ok()) FAIL(solution.problems().front().text);
    nothing_left(s, solution["none"]);
    nothing_left(s, solution["portions"]);
    combinations += 2;
  }
  CHECK(combinations > 3600 / shorter);
}

TEST_CASE("40,000 random chains over the allowed range of sizes: none is taken for a mechanism") {
  std::mt19937 random(11);
  const auto share = [&] { return std::uniform_real_distribution<double>(0, 1)(random); };
  const auto power = [&](double from, double to) { return std::pow(10.0, from + (to - from) * share()); };
  int solved = 0, digits = 0;
  for (int i = 0; i < test::rows(40000, 8000) / shorter; ++i) {
    // A cantilever of two to five pieces, straight or bent, each of its own length and stiffness.
    Structure s = Structure::plane("chain");
    const int pieces = 2 + static_cast<int>(share() * 4);
    double x = 0, y = 0;
    std::vector<PointId> points{s.point("P0", 0_m, 0_m)};
    const double lengths = 4.5 * share(), stiffnesses = 7.5 * share();
    for (int k = 1; k <= pieces; ++k) {
      const double L = power(-lengths, lengths), angle = share() < 0.5 ? 0 : 2 * share() - 1;
      x += L * std::cos(angle), y += L * std::sin(angle);
      points.push_back(s.point("P" + std::to_string(k), Length::si(x), Length::si(y)));
      const double I = power(-stiffnesses - 6, stiffnesses - 6);
      const auto section =
          s.section("s" + std::to_string(k),
                    Section(GivenProperties{.A = Area::si(std::sqrt(I) * (0.5 + share())), .Iz = SecondMoment::si(I)}));
      s.member("m" + std::to_string(k), {points[static_cast<std::size_t>(k - 1)], points[static_cast<std::size_t>(k)]},
               {.section = section, .material = material("S235")});
    }
    s.support(points.front(), Support::fixed());
    s.load_case("tip").at(points.back(), Force{.y = -1_kN});
    const Solution solution = solve(s);
    if (solution.ok()) {
      ++solved;
      continue;
    }
    const std::string& text = solution.problems().front().text;
    // Refused for its digits, never as something that can move.
    INFO(i << ": " << text);
    const bool honest = text.find("digit") != std::string::npos || text.find("singular to working precision") != std::string::npos || text.find("out of range") != std::string::npos;
    if (!honest) FAIL(text);
    ++digits;
  }
  INFO(solved << " solved, " << digits << " refused for their digits");
  CHECK(solved > test::rows(25000, 5000) / shorter);
}

}  // namespace tests_of_analysis_cancelling
