// Turns of any size: closed forms of the elastica, of trusses that snap through, and what must hold of any result.
#include <catch2/catch.hpp>
#include <cmath>
#include <corvex/corvex.hpp>
#include <numbers>
#include <random>

#include "oracle/rod_elements.hpp"
#include "support/cases.hpp"
#include "support/plan.hpp"
#include "support/rows.hpp"

namespace tests_of_analysis_large_displacements {

using namespace corvex;
using namespace corvex::literals;
using std::numbers::pi;

namespace {

ForceSize newton(double v) {
  return ForceSize::si(v);
}

// A slender cantilever along x, of so many pieces, that neither stretches nor shears.
struct Strip {
  Structure s = Structure::plane("strip");
  double L = 1, EI = 0;
  PointId root, tip;

  explicit Strip(int pieces = 1) {
    s.analysis().shear = false;
    s.analysis().order = Order::large;
    // An area so large that it does not stretch.
    const SectionId strip = s.section(
        "strip", GivenProperties{.A = Area::si(1), .Iy = SecondMoment::si(1e-10), .Iz = SecondMoment::si(1e-10)});
    std::vector<PointId> points;
    for (int i = 0; i <= pieces; ++i)
      points.push_back(s.point("p" + std::to_string(i), Length::si(L * i / pieces), 0_m));
    root = points.front(), tip = points.back();
    s.member("strip", points, {.section = strip, .material = "S235"});
    EI = s.materials()[0].E.si() * 1e-10;
    s.support(root, Support::fixed());
  }
  Solution solved() const {
    Solution solution = solve(s);
    if (!solution.ok()) FAIL(solution.problems().front().text);
    return solution;
  }
};

// Of a cantilever under a force across its tip that keeps its direction (Bisshopp and Drucker, 1945): the tip's angle
// solves an equation of elliptic integrals, here by a fine Simpson's rule in the phase.
struct Elastica {
  double angle = 0, down = 0, back = 0;  // of the tip, over L

  explicit Elastica(double load) {  // P L²/EI
    // sin θ is that of the phase: 2k² = 1 + sin(angle), sin φ1 = 1/(k√2), √load = ∫ dφ/√(1 − k² sin²φ) from φ1 to π/2.
    double low = 1e-9, high = pi / 2 - 1e-12;
    for (int i = 0; i < 100; ++i) {
      angle = (low + high) / 2;
      (integral(angle, false) < std::sqrt(load) ? low : high) = angle;
    }
    down = 1 - 2 * integral(angle, true) / std::sqrt(load);
    back = 1 - std::sqrt(2 * std::sin(angle) / load);
  }
  static double integral(double angle, bool second) {
    const double k2 = (1 + std::sin(angle)) / 2, from = std::asin(std::sqrt(1 / (2 * k2)));
    constexpr int n = 4000;
    double sum = 0;
    for (int i = 0; i <= n; ++i) {
      const double phase = from + (pi / 2 - from) * i / n, root = std::sqrt(1 - k2 * std::pow(std::sin(phase), 2));
      sum += (i == 0 || i == n ? 1 : i % 2 ? 4 : 2) * (second ? root : 1 / root);
    }
    return sum * (pi / 2 - from) / n / 3;
  }
};

}  // namespace

TEST_CASE("A moment rolls a cantilever up to a full circle, and twice around") {
  for (const int pieces : {1, 3})
    for (const double rounds : {0.25, 1.0, 2.0}) {
      INFO(pieces << " pieces, " << rounds << " rounds");
      Strip c(pieces);
      const double M = 2 * pi * rounds * c.EI / c.L;
      c.s.load_case("load").at(c.tip, Moment{.z = MomentSize::si(M)});
      const Solution solution = c.solved();
      const Displacement d = solution["load"].displacement(c.tip);
      const double a = 2 * pi * rounds;
      CHECK(d.x.si() == Approx(std::sin(a) / a - 1).margin(1e-9));
      CHECK(d.y.si() == Approx((1 - std::cos(a)) / a).margin(1e-9));
      CHECK(d.rz.si() == Approx(a).epsilon(1e-9));
      // Half way, and inside.
      const SectionState half = solution["load"]["strip"].at(500_mm);
      CHECK(half.y.si() == Approx((1 - std::cos(a / 2)) / a).margin(1e-9));
      CHECK(half.moment_z.si() == Approx(M).epsilon(1e-9));
      CHECK(std::abs(half.axial.si()) < 1e-6 * M);
      REQUIRE(!solution["load"].steps().empty());
      CHECK(solution["load"].steps().back().load == 1);
    }
}

TEST_CASE("A cantilever under a force across its tip is the elastica of Bisshopp and Drucker") {
  for (const double load : {0.2, 1.0, 5.0, 10.0}) {
    INFO("P L²/EI = " << load);
    Strip c(2);
    const double P = load * c.EI;
    c.s.load_case("load").at(c.tip, Force{.y = newton(-P)});
    const Solution solution = c.solved();
    const Displacement d = solution["load"].displacement(c.tip);
    const Elastica exact(load);
    CHECK(-d.rz.si() == Approx(exact.angle).epsilon(1e-7));
    CHECK(-d.y.si() == Approx(exact.down).epsilon(1e-7));
    CHECK(-d.x.si() == Approx(exact.back).epsilon(1e-6));
    // The moment at the root is the force times where it acts in the end.
    CHECK(std::abs(solution["load"].reaction(c.root).mz.si()) == Approx(P * (1 + d.x.si())).epsilon(1e-9));
    CHECK(solution["load"].balance().error < 1e-9);
  }
  // Printed in the paper's tables, to its digits: P L²/EI = 1 and 10.
  CHECK(Elastica(1).down == Approx(0.30172).margin(1e-5));
  CHECK(Elastica(10).down == Approx(0.81061).margin(1e-5));
}

TEST_CASE("A shallow truss snaps through at the load of its closed form") {
  // Two bars, hinged; P = 2 EA (h − w)(1/ℓ(w) − 1/L) of which the first maximum is the limit point.
  const double b = 1, h = 0.15, L = std::hypot(b, h);
  const auto load = [&](double w) { return 2 * (h - w) * (L / std::hypot(b, h - w) - 1) / L; };  // P / EA
  double limit = 0;
  for (int i = 0; i <= 200000; ++i) limit = std::max(limit, load(h * i / 200000));
  const auto truss = [&](double share) {
    Structure s = Structure::plane("shallow");
    s.analysis().order = Order::large;
    const auto a = s.point("A", Length::si(-b), 0_m), c = s.point("C", Length::si(b), 0_m),
               top = s.point("B", 0_m, Length::si(h));
    const SectionId bar = s.section(
        "bar", GivenProperties{.A = Area::si(1e-4), .Iy = SecondMoment::si(1e-5), .Iz = SecondMoment::si(1e-5)});
    for (const auto& [name, from] : {std::pair{"left", a}, {"right", c}})
      s.member(name, {from, top}, {.section = bar, .material = "S235", .kind = MemberKind::link});
    s.support(a, Support::pinned()), s.support(c, Support::pinned());
    s.load_case("load").at(top, Force{.y = newton(-share * limit * s.materials()[0].E.si() * 1e-4)});
    return s;
  };
  for (const double share : {0.3, 0.9, 0.999}) {
    const Solution solution = solve(truss(share));
    REQUIRE(solution.ok());
    const double w = -solution["load"].displacement("B").y.si();
    CHECK(load(w) == Approx(share * limit).epsilon(1e-9));
    const double N = 210e9 * 1e-4 * (std::hypot(b, h - w) / L - 1);
    CHECK(solution["load"]["left"].axial().min().value.si() == Approx(N).epsilon(1e-9));
    CHECK(solution["load"].balance().error < 1e-9);
  }
  const Solution beyond = solve(truss(1.25));
  REQUIRE(!beyond.ok());
  CHECK(beyond.problems().front().text ==
        "in case 'load' equilibrium ends at 0.8 of the load: there the structure buckles or snaps through");
}

TEST_CASE("Williams' toggle of two stiff-jointed bars snaps where it did for him") {
  // Bars of 12.943 in with a rise of 0.386 in, EA = 1.885e6 lb, EI = 9.27e3 lb in², built in (Williams 1964; Wood and
  // Zienkiewicz 1977 find a limit load of about 34 lb). A load of 40 lb is beyond it.
  Structure s = Structure::plane("toggle");
  s.analysis().order = Order::large;
  s.analysis().shear = false;
  const double in = 0.0254, lbf = 4.4482216152605, half = std::sqrt(12.943 * 12.943 - 0.386 * 0.386) * in;
  const double E = 210e9, EA = 1.885e6 * lbf, EI = 9.27e3 * lbf * in * in;
  const auto a = s.point("A", Length::si(-half), 0_m), top = s.point("B", 0_m, Length::si(0.386 * in)),
             c = s.point("C", Length::si(half), 0_m);
  const SectionId bar = s.section(
      "bar", GivenProperties{.A = Area::si(EA / E), .Iy = SecondMoment::si(EI / E), .Iz = SecondMoment::si(EI / E)});
  s.member("left", {a, top}, {.section = bar, .material = "S235"});
  s.member("right", {top, c}, {.section = bar, .material = "S235"});
  s.support(a, Support::fixed()), s.support(c, Support::fixed());
  s.load_case("load").at(top, Force{.y = newton(-40 * lbf)});
  const Solution beyond = solve(s);
  REQUIRE(!beyond.ok());
  const std::string text = beyond.problems().front().text;
  const double share = std::stod(text.substr(text.find("ends at ") + 8));
  CHECK(40 * share == Approx(34).margin(0.5));
}

TEST_CASE("A bar between two anchors that is warmed is pressed, and buckles where second order says so") {
  const auto warm = [](double kelvin, Order order) {
    Structure s = Structure::plane("pipe");
    s.analysis().order = order;
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 6_m, 0_m);
    const auto pipe = s.member(
        "pipe", {a, b}, {.section = s.section("t", RoundTube{.diameter = 60.3_mm, .wall = 4_mm}), .material = "S235"});
    s.support(a, Support::fixed()), s.support(b, Support::fixed());
    s.load_case("steam").heat(pipe, Temperature::si(kelvin));
    return s;
  };
  const Structure s = warm(20, Order::large);
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  const Material& steel = s.materials()[0];
  // Of a bar that keeps its length the strain is minus that of the heat.
  const double N = -steel.E.si() * s.sections()[0].section.area().si() * steel.expansion.si() * 20;
  CHECK(solution["steam"]["pipe"].axial().min().value.si() == Approx(N).epsilon(1e-9));
  CHECK(solution["steam"].reaction("A").x.si() == Approx(-N).epsilon(1e-9));
  CHECK(solve(warm(34, Order::large)).ok());
  CHECK(solve(warm(34, Order::second)).ok());
  CHECK(!solve(warm(40, Order::large)).ok());
  CHECK(!solve(warm(40, Order::second)).ok());
}

TEST_CASE("A rope that goes slack at once does not shorten the steps, and the other holds") {
  Structure s = Structure::plane("ropes");
  s.analysis().order = Order::large;
  const auto foot = s.point("A", 0_m, 0_m), head = s.point("B", 0_m, 3_m), left = s.point("L", -2_m, 0_m),
             right = s.point("R", 2_m, 0_m);
  s.member("mast", {foot, head},
           {.section = s.section("t", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = "S235"});
  const SectionId rope = s.section("r", RoundBar{.diameter = 8_mm});
  for (const auto& [name, from] : {std::pair{"left", left}, {"right", right}})
    s.member(name, {from, head},
             {.section = rope, .material = "S355", .kind = MemberKind::link, .acts = Acts::tension});
  for (const auto p : {foot, left, right}) s.support(p, Support::pinned());
  s.load_case("wind").at(head, Force{.x = 1_kN, .y = -3_kN});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  CHECK(solution["wind"]["right"].is_slack());
  CHECK(solution["wind"]["left"].axial().max().value.si() > 1000);
  CHECK(solution["wind"].steps().size() < 12);
  CHECK(solution["wind"].balance().error < 1e-9);
}

TEST_CASE("What small loads do is what first order says, and turning the whole structure turns the answer") {
  const auto build = [](bool large, double angle, double scale) {
    Structure s = Structure::plane("frame");
    if (large) s.analysis().order = Order::large;
    const auto at = [&](const char* name, double x, double y) {
      return s.point(name, Length::si(x * std::cos(angle) - y * std::sin(angle)),
                     Length::si(x * std::sin(angle) + y * std::cos(angle)));
    };
    const auto a = at("A", 0, 0), b = at("B", 0, 2), c = at("C", 3, 2), d = at("D", 3, 0);
    const SectionId t = s.section("t", SquareTube{.width = 60_mm, .wall = 4_mm});
    s.member("left", {a, b}, {.section = t, .material = "S235"});
    s.member("beam", {b, c}, {.section = t, .material = "S235", .hinge = Hinge::end});
    s.member("right", {d, c}, {.section = t, .material = "S235"});
    s.support(a, Support::fixed()), s.support(d, Support::pinned());
    const Vector f{scale * std::cos(angle) * 900, scale * std::sin(angle) * 900, 0};
    test::loads_in(s, "load").at(b, Force{.x = newton(f.x), .y = newton(f.y)});
    test::loads_in(s, "load").line(MemberId(1), LineForce{.x = LineForceSize::si(scale * 2000 * std::sin(angle)),
                                                          .y = LineForceSize::si(-scale * 2000 * std::cos(angle))});
    return s;
  };
  const Solution first = solve(build(false, 0, 1e-4)), small = solve(build(true, 0, 1e-4));
  REQUIRE(small.ok());
  for (const char* p : {"B", "C"})
    CHECK(small["load"].displacement(p).x.si() == Approx(first["load"].displacement(p).x.si()).epsilon(1e-5));
  CHECK(small["load"]["beam"].moment_z().largest().si() ==
        Approx(first["load"]["beam"].moment_z().largest().si()).epsilon(1e-5));
  const Solution straight = solve(build(true, 0, 5)), turned = solve(build(true, 0.7, 5));
  REQUIRE(straight.ok());
  REQUIRE(turned.ok());
  const Displacement u = straight["load"].displacement("C"), v = turned["load"].displacement("C");
  CHECK(v.x.si() == Approx(u.x.si() * std::cos(0.7) - u.y.si() * std::sin(0.7)).epsilon(1e-8));
  CHECK(turned["load"]["left"].moment_z().largest().si() ==
        Approx(straight["load"]["left"].moment_z().largest().si()).epsilon(1e-8));
  CHECK(turned["load"].balance().error < 1e-9);
}

TEST_CASE("A bent cantilever in space moves as published") {
  // An arc of 45 degrees of radius 100, a unit square, E = 1e7, G = 5e6, a force of 600 square to its plane (Bathe and
  // Bolourchi, 1979; Simo and Vu-Quoc, 1986): the tip goes to (15.7 to 15.9, 46.8 to 47.2, 53.4 to 53.6). Members are
  // straight between points on the arc.
  Structure s = Structure::space("arc");
  s.analysis().order = Order::large;
  s.analysis().shear = false;
  Material m = *find_material("S235");
  m.name = "unit", m.E = Stress::si(1e7), m.G = Stress::si(5e6);
  const SectionId square = s.section("square", RectangularBar{.height = 1_m, .width = 1_m});
  std::vector<PointId> points;
  constexpr int pieces = 8;
  for (int i = 0; i <= pieces; ++i) {
    const double a = pi / 4 * i / pieces;
    points.push_back(
        s.point("p" + std::to_string(i), Length::si(100 * (1 - std::cos(a))), Length::si(100 * std::sin(a)), 0_m));
  }
  for (int i = 0; i < pieces; ++i)
    s.member("m" + std::to_string(i), {points[static_cast<std::size_t>(i)], points[static_cast<std::size_t>(i) + 1]},
             {.section = square, .material = m});
  s.support(points.front(), Support::fixed());
  s.load_case("load").at(points.back(), Force{.z = 600_N});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  const Displacement d = solution["load"].displacement(points.back());
  const Vector at = s.points().back().position;
  CHECK(at.x + d.x.si() == Approx(15.8).margin(0.2));
  CHECK(at.y + d.y.si() == Approx(47.1).margin(0.3));
  CHECK(d.z.si() == Approx(53.5).margin(0.2));
  CHECK(solution["load"].balance().error < 1e-8);
}

TEST_CASE("A straight column under its load alone ends at Euler's force") {
  Strip c;
  c.s.load_case("load").at(c.tip, Force{.x = newton(-1.6 * pi * pi * c.EI / 4)});
  const Solution solution = solve(c.s);
  REQUIRE(!solution.ok());
  const std::string text = solution.problems().front().text;
  CHECK(std::stod(text.substr(text.find("ends at ") + 8)) == Approx(0.625).epsilon(1e-4));
}

TEST_CASE("Random frames bend far as a second model of short straight pieces does") {
  const unsigned frames = test::rows(16U, 5U);
  int compared = 0, far = 0;
  for (unsigned seed = 0; seed < frames; ++seed)
    for (const bool plane : {true, false}) {
      INFO("seed " << seed << (plane ? " plane" : " space"));
      std::mt19937 random(seed);
      const auto between = [&](double low, double high) {
        return low + (high - low) * static_cast<double>(random()) / static_cast<double>(std::mt19937::max());
      };
      Structure s = plane ? Structure::plane("frame") : Structure::space("frame");
      s.analysis().order = Order::large;
      const SectionId tube = s.section("tube", RectangularTube{.height = 30_mm, .width = 20_mm, .wall = 1.5_mm});
      // A line with knees, held at its start and often at its end.
      const int members = 2 + static_cast<int>(random() % 3);
      Vector at{};
      std::vector<PointId> points;
      for (int i = 0; i <= members; ++i) {
        points.push_back(
            s.point("p" + std::to_string(i), Length::si(at.x), Length::si(at.y), Length::si(plane ? 0 : at.z)));
        at = at + Vector{between(0.3, 1.2), between(-0.9, 0.9), between(-0.9, 0.9)};
      }
      for (int i = 0; i < members; ++i)
        s.member("m" + std::to_string(i),
                 {points[static_cast<std::size_t>(i)], points[static_cast<std::size_t>(i) + 1]},
                 {.section = tube, .material = "S235"});
      s.support(points.front(), Support::fixed());
      const bool held = seed % 2 == 0;
      if (held) s.support(points.back(), Support::fixed());
      for (int i = 1; i < members + (held ? 0 : 1); ++i) {
        const double most = held ? 4000 : 400;
        test::loads_in(s, "load").at(points[static_cast<std::size_t>(i)],
                                     Force{.x = newton(between(-most, most)),
                                           .y = newton(between(-most, most)),
                                           .z = newton(plane ? 0 : between(-most, most))});
      }
      const Solution solution = solve(s);
      if (!solution.ok()) continue;
      const std::vector<Vector> second = test::rod_displacements(s, 10);
      if (second.empty()) continue;
      double most = 0, off = 0;
      for (std::size_t i = 0; i < points.size(); ++i) {
        const Displacement d = solution[0].displacement(points[i]);
        const Vector u{d.x.si(), d.y.si(), d.z.si()};
        most = std::max(most, length(u));
        off = std::max(off, length(u - second[i]));
      }
      INFO("moved by " << most);
      CHECK(off < 2e-4 * most);
      ++compared;
      if (most > 0.1) ++far;
    }
  CHECK(compared > static_cast<int>(frames));
  CHECK(far * 4 > compared);
}

TEST_CASE("Frames of every kind bend far in the same way with a point more in each member") {
#ifdef CORVEX_SHORT_ROWS
  constexpr unsigned last = 1, first_plane = 9;
#else
  constexpr unsigned last = 4, first_plane = 7;
#endif
  // In the tenth plane frame the method once lost its way, and ended at another equilibrium far off. In the ninth
  // equilibrium ends at 0.555 of a case, which steps of a quarter of the load once leapt over.
  int compared = 0;
  for (const bool plane : {true, false})
    for (unsigned seed = plane ? first_plane : 1; seed <= (plane ? 10 : last); ++seed) {
      INFO((plane ? "plane" : "space") << " frame " << seed);
      const test::Plan plan = test::rich_plan(seed, plane);
      Structure whole = test::build(plan), more = test::build(test::with_points_between(plan));
      whole.analysis().order = more.analysis().order = Order::large;
      const Solution a = solve(whole), b = solve(more);
      INFO((a.ok() ? "" : a.problems().front().text) << (b.ok() ? "" : b.problems().front().text));
      REQUIRE(a.ok() == b.ok());
      if (!a.ok()) continue;
      for (std::size_t c = 0; c < a.size(); ++c) {
        double most = 0, off = 0;
        for (std::size_t p = 0; p < plan.points.size(); ++p) {
          const Displacement u = a[c].displacement(PointId(p)), v = b[c].displacement(PointId(p));
          most = std::max(most, length({u.x.si(), u.y.si(), u.z.si()}));
          off = std::max(off, length({u.x.si() - v.x.si(), u.y.si() - v.y.si(), u.z.si() - v.z.si()}));
        }
        CHECK(off < 1e-8 * most);
        ++compared;
      }
    }
  CHECK(compared >= static_cast<int>(last + 10 - first_plane));
}

}  // namespace tests_of_analysis_large_displacements
