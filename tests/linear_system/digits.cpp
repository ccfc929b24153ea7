// How many digits of the movements stand, told by the program, against closed forms: never more than do, and at most
// three fewer.
#include <cmath>
#include <corvex/corvex.hpp>
#include <numbers>
#include <random>

#include "support/near.hpp"

namespace tests_of_linear_system_digits {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;

namespace {

Section given(double times) {
  GivenProperties g{.A = Area::si(1e-3 * times)};
  g.Iz = SecondMoment::si(1e-6 * times);
  g.Iy = SecondMoment::si(2e-6 * times);
  g.J = SecondMoment::si(3e-6 * times);
  return g;
}

Material of_stiffness(double E) {
  Material m = *find_material("S235");
  m.name = "E " + std::to_string(E);
  m.E = Stress::si(E);
  return m;
}

constexpr double E = 2e11, I = 1e-6, A = 1e-3;

// Movement of a point beside what it should be. A structure that is refused says that no digit stands: there is nothing
// to be optimistic about.
void assess(const Structure& s, PointId point, double exact) {
  const Solution solution = solve(s);
  if (!solution.ok()) {
    for (const Problem& p : solution.problems()) {
      INFO(p.text);
      CHECK(p.text.find("no digit is reliable") != std::string::npos);
    }
    return;
  }
  const double error = std::abs(solution[0].displacement(point).y.si() / exact - 1);
  const double stand = -std::log10(std::max(error, 1e-15));
  const int told = solution[0].digits();
  INFO("stand " << stand << ", told " << told);
  CHECK(told <= stand);
  CHECK(told >= stand - 3);
}

// A cantilever of pieces whose stiffness is alternately one and `ratio`, or `ratio` in its outer half; loaded across,
// or along while it stands askew.
struct Chain {
  int pieces;
  double ratio;
  bool halves, along;

  void check() const {
    INFO(pieces << " pieces, ratio " << ratio << (halves ? ", halves" : "") << (along ? ", along" : ""));
    Structure s = along ? Structure::space("chain") : Structure::plane("chain");
    s.analysis().shear = false;
    const double root = std::sqrt(ratio), L = 3;
    const auto one = s.section("one", given(1)), other = s.section("other", given(root));
    std::vector<PointId> points;
    for (int i = 0; i <= pieces; ++i) {
      const double x = L * i / pieces;
      points.push_back(
          s.point("P" + std::to_string(i), Length::si(along ? 0.6 * x : x), Length::si(along ? 0.8 * x : 0)));
    }
    double across = 0, stretch = 0;
    for (int i = 0; i < pieces; ++i) {
      const bool second = halves ? i >= pieces / 2 : i % 2 == 1;
      s.member("m" + std::to_string(i), {points[i], points[i + 1]},
               {.section = second ? other : one, .material = of_stiffness(second ? E * root : E)});
      const long double from = L - L * i / pieces, to = L - L * (i + 1) / pieces;
      const double stiff = second ? ratio : 1;
      // ∫ (L − x)² dx / EI and ∫ dx / EA over the piece.
      across += static_cast<double>((from * from * from - to * to * to) / 3 / (E * I * stiff));
      stretch += L / pieces / (E * A * stiff);
    }
    s.support(points.front(), Support::fixed());
    s.load_case("tip").at(points.back(), along ? Force{.x = 600_N, .y = 800_N} : Force{.y = -1_kN});
    assess(s, points.back(), along ? 800 * stretch : -1000 * across);
  }
};

}  // namespace

TEST_CASE("Digits: chains of up to 2,000 pieces") {
  const int pieces = GENERATE(1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000);
  for (const bool halves : {true, false})
    for (const bool along : {true, false}) Chain{pieces, 1, halves, along}.check();
}

TEST_CASE("Digits: chains of pieces that differ in stiffness by up to 1e12") {
  const double ratio = GENERATE(1e-12, 1e-8, 1e-4, 1e2, 1e4, 1e6, 1e8, 1e10, 1e12);
  for (const int pieces : {2, 5, 10, 20, 50, 110, 120, 150})
    for (const bool halves : {true, false})
      for (const bool along : {true, false}) Chain{pieces, ratio, halves, along}.check();
}

TEST_CASE("Digits: where refinement stalls, no digit is told that does not stand") {
  Chain{300, 1e8, true, true}.check();
  Chain{230, 1e8, true, true}.check();
  Chain{180, 1e10, true, true}.check();
}

TEST_CASE("Digits: a beam on a spring from 1e-12 to 1e12 of its own stiffness") {
  const double ratio = std::pow(10.0, GENERATE(-12, -10, -8, -6, -4, -2, 0, 2, 4, 6, 8, 10, 12));
  const int pieces = GENERATE(2, 4, 20, 200, 2000);
  INFO("ratio " << ratio << ", " << pieces << " pieces");
  Structure s = Structure::plane("beam");
  s.analysis().shear = false;
  const auto section = s.section("one", given(1));
  const double L = 4, k = ratio * 48 * E * I / (L * L * L);
  std::vector<PointId> points;
  for (int i = 0; i <= pieces; ++i) points.push_back(s.point("P" + std::to_string(i), Length::si(L * i / pieces), 0_m));
  for (int i = 0; i < pieces; ++i)
    s.member("m" + std::to_string(i), {points[i], points[i + 1]}, {.section = section, .material = of_stiffness(E)});
  s.support(points.front(), Support::pinned());
  s.support(points.back(), Support().spring({.y = Stiffness::si(k)}));
  s.load_case("middle").at(points[pieces / 2], Force{.y = -1_kN});
  assess(s, points[pieces / 2], -1000 * (L * L * L / (48 * E * I) + 1 / (4 * k)));
}

TEST_CASE("Digits: two links, flat and of unlike stiffness") {
  const double ratio = GENERATE(1e-12, 1e-9, 1e-6, 1e-3, 1., 1e3, 1e6, 1e9, 1e12);
  const double height = GENERATE(4., 0.1, 1e-3, 1e-5);
  INFO("ratio " << ratio << ", height " << height);
  Structure s = Structure::plane("links");
  const double root = std::sqrt(ratio), length = std::hypot(3.0, height), sine = height / length;
  const auto one = s.section("one", given(1)), other = s.section("other", given(root));
  const auto a = s.point("a", 0_m, 0_m), b = s.point("b", 3_m, Length::si(height)), c = s.point("c", 6_m, 0_m);
  s.member("left", {a, b}, {.section = one, .material = of_stiffness(E), .kind = MemberKind::link});
  s.member("right", {b, c}, {.section = other, .material = of_stiffness(E * root), .kind = MemberKind::link});
  s.support(a, Support::pinned());
  s.support(c, Support::pinned());
  s.load_case("top").at(b, Force{.y = -1_kN});
  const double N = -1000 / (2 * sine);
  assess(s, b, N * length / (E * A) * (1 + 1 / ratio) / (2 * sine));
}

TEST_CASE("Digits: a combination has fewer where its terms take each other back") {
  Structure s = Structure::plane("cantilever");
  const auto section = s.section("one", given(1));
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 1_m, 0_m);
  s.member("arm", {a, b}, {.section = section, .material = of_stiffness(E)});
  s.support(a, Support::fixed());
  s.load_case("down").at(b, Force{.y = -1_kN});
  s.load_case("up").at(b, Force{.y = 1_kN});
  s.combination("most", {{"down", 1.0}, {"up", 0.5}});
  s.combination("nearly nothing", {{"down", 1.0}, {"up", 1 - 1e-9}});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  CHECK(solution["most"].digits() >= 12);
  CHECK(solution["nearly nothing"].digits() <= 7);
  CHECK(solution["nearly nothing"].digits() >= 3);
}

TEST_CASE("Digits: what moves freely is told from what is only soft") {
  // A stiff half on a soft one resists, if little; the same with a hinge between does not.
  const auto hinged = GENERATE(false, true);
  Structure s = Structure::plane("chain");
  const auto section = s.section("one", given(1)), stiff = s.section("other", given(1e6));
  std::vector<PointId> points;
  for (int i = 0; i <= 50; ++i) points.push_back(s.point("P" + std::to_string(i), Length::si(3.0 * i / 50), 0_m));
  for (int i = 0; i < 50; ++i)
    s.member("m" + std::to_string(i), {points[i], points[i + 1]},
             {.section = i < 25 ? section : stiff,
              .material = of_stiffness(i < 25 ? E : E * 1e6),
              .hinge = hinged && i == 25 ? Hinge::start : Hinge::none});
  s.support(points.front(), Support::fixed());
  s.load_case("tip").at(points.back(), Force{.y = -1_kN});
  const Solution solution = solve(s);
  REQUIRE_FALSE(solution.ok());
  const std::string text = solution.problems().front().text;
  INFO(text);
  CHECK((text.find("nothing restrains") != std::string::npos) == hinged);
  CHECK((text.find("no digit is reliable") != std::string::npos) == !hinged);
}

namespace {

// Exact to far more digits than a double holds: closed forms in integers and powers of two, divided once.
struct Stub {
  Structure structure = Structure::plane("stub");
  std::vector<PointId> points;
  long double exact = 0;  // movement of the last point along y
};

// A short stiff stub, of one piece or of several, on soft springs; determinate, so that forces follow from statics
// alone: springs across at both ends, or one across and one turning at its root; loaded across at its tip or beside it.
Stub stub_on_springs(unsigned seed) {
  std::mt19937 random(seed);
  const auto share = [&] { return std::uniform_real_distribution<double>(0, 1)(random); };
  const auto power = [&](double from, double to) { return std::pow(2.0, std::floor(from + (to - from) * share())); };
  Stub s;
  s.structure.analysis().shear = false;
  const int pieces = 1 + static_cast<int>(share() * 4);
  const double piece = power(-10, 1), L = piece * pieces, soft = power(-40, 10), across = soft * power(-2, 2);
  const auto section = s.structure.section("one", given(power(-4, 8)));
  const double EI = 2e11 * s.structure.sections()[0].section.area_properties().Iz.si();
  for (int i = 0; i <= pieces; ++i)
    s.points.push_back(s.structure.point("P" + std::to_string(i), Length::si(piece * i), 0_m));
  for (int i = 0; i < pieces; ++i)
    s.structure.member("m" + std::to_string(i), {s.points[i], s.points[i + 1]},
                       {.section = section, .material = of_stiffness(2e11)});
  const double P = 1000;
  const long double l = L, k = across;
  if (share() < 0.5) {
    s.structure.support(s.points.front(), Support::hold({Dof::x}).spring({.y = Stiffness::si(across)}));
    s.structure.support(s.points.back(), Support().spring({.y = Stiffness::si(across)}));
    s.structure.load_case("tip").at(s.points.back(), Force{.y = -1_kN});
    s.exact = -P / k;
  } else {
    const double turning = soft * L * L * power(-2, 2);
    s.structure.support(s.points.front(), Support::hold({Dof::x}).spring(
                                              {.y = Stiffness::si(across), .rz = TurningStiffness::si(turning)}));
    s.structure.load_case("tip").at(s.points.back(), Force{.y = -1_kN});
    s.exact = -P * (1 / k + l * l / static_cast<long double>(turning) + l * l * l / (3 * static_cast<long double>(EI)));
  }
  return s;
}

}  // namespace

TEST_CASE("Digits: 1,000 stiff stubs on soft springs claim no more than stand") {
  int solved = 0, refused = 0;
  double worst = 0;
  for (unsigned seed = 1; seed <= 1000; ++seed) {
    INFO("seed " << seed);
    const Stub s = stub_on_springs(seed);
    const Solution solution = solve(s.structure);
    if (!solution.ok()) {
      ++refused;
      const std::string& text = solution.problems().front().text;
      INFO(text);
      CHECK((text.find("no digit is reliable") != std::string::npos ||
             text.find("too stiff compared with others") != std::string::npos));
      continue;
    }
    ++solved;
    const double error = static_cast<double>(std::abs(solution[0].displacement(s.points.back()).y.si() / s.exact - 1));
    const double stand = -std::log10(std::max(error, 1e-15));
    CHECK(solution[0].digits() >= 1);
    CHECK(solution[0].digits() <= stand);
    worst = std::max(worst, solution[0].digits() - stand);
  }
  INFO(solved << " solved, " << refused << " refused, at most " << worst << " digits too many");
  CHECK(solved > 400);
}

}  // namespace tests_of_linear_system_digits
