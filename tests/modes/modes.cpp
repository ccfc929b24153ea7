// Natural frequencies and load factors of buckling against closed forms. Roots of the frequency equations are found
// here by bisection.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <corvex/corvex.hpp>
#include <corvex/modes.hpp>
#include <functional>
#include <numbers>

#include "oracle/fine_modes.hpp"
#include "support/plan.hpp"

namespace tests_of_modes_modes {

using namespace corvex;
using namespace corvex::literals;
using std::numbers::pi;

namespace {

constexpr double closed_form = 1e-8;

struct Bar {
  double L = 3, E = 210e9, G = 0, EI = 0, GA = 0, m = 0, EA = 0, rotary = 0;
};

// A column or beam of so many pieces, plane, without shear if not asked for.
Structure bar(int pieces, bool shear, Bar& b) {
  Structure s = Structure::plane("bar");
  s.analysis().shear = shear;
  const SectionId tube = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm});
  std::vector<PointId> points;
  for (int i = 0; i <= pieces; ++i)
    points.push_back(s.point("p" + std::to_string(i), 0_m, Length::si(b.L * i / pieces)));
  s.member("bar", points, {.section = tube, .material = "S235"});
  const SectionProperties& p = s.sections()[0].section.properties();
  const Material& steel = s.materials()[0];
  b.E = steel.E.si(), b.G = steel.shear_modulus().si();
  b.EI = b.E * p.Iz.si(), b.EA = b.E * p.A.si(), b.GA = b.G * p.Ay.si();
  b.m = steel.density->si() * p.A.si(), b.rotary = steel.density->si() * p.Iz.si();
  return s;
}
PointId last(const Structure& s) {
  return PointId(s.points().size() - 1);
}

double root(const std::function<double(double)>& f, double low, double high) {
  const double at_low = f(low);
  for (int i = 0; i < 200; ++i) {
    const double middle = (low + high) / 2;
    ((f(middle) > 0) == (at_low > 0) ? low : high) = middle;
  }
  return (low + high) / 2;
}
// The first roots of f in steps that no two of them share.
std::vector<double> roots(const std::function<double(double)>& f, double step, std::size_t count) {
  std::vector<double> all;
  for (double x = step; all.size() < count; x += step)
    if ((f(x) > 0) != (f(x + step) > 0)) all.push_back(root(f, x, x + step));
  return all;
}

Modes found(const Structure& s, const ModesOptions& o) {
  const auto m = modes(s, o);
  if (!m) FAIL(m.error().front().text);
  for (const Problem& p : m->notes) FAIL(p.text);
  return *m;
}
std::vector<double> frequencies(const Structure& s, std::size_t count, const std::string& under = {}) {
  std::vector<double> all;
  for (const VibrationMode& m : found(s, {.vibration = count, .under = under}).vibration)
    all.push_back(m.frequency.si());
  REQUIRE(all.size() == count);
  return all;
}
std::vector<double> factors(const Structure& s, const std::string& load_case, std::size_t count) {
  std::vector<double> all;
  const Modes m = found(s, {.buckling = {{load_case, count}}});
  for (const BucklingMode& one : m.buckling.front().modes) all.push_back(one.factor);
  return all;
}

}  // namespace

TEST_CASE("Euler's four columns, with any number of points on them, and Engesser's with shear") {
  const double tan_root = root([](double x) { return std::sin(x) - x * std::cos(x); }, 4.4, 4.6);
  const double half_waves[] = {0.5, 1, tan_root / pi, 2};
  for (const bool shear : {false, true})
    for (const int pieces : {1, 2, 5})
      for (int kind = 0; kind < 4; ++kind) {
        // The section of Engesser's formula is that of a column whose shear force follows from its slope: it holds for
        // ends that are hinged, clamped on both sides or free.
        if (shear && kind == 2) continue;
        Bar b;
        Structure s = bar(pieces, shear, b);
        s.support(PointId(0), kind == 1 ? Support::pinned() : Support::fixed());
        if (kind == 1 || kind == 2) s.support(last(s), Support::hold({Dof::x}));
        if (kind == 3) s.support(last(s), Support::hold({Dof::x, Dof::rz}));
        s.load_case("load").at(last(s), Force{.y = -10_kN});
        const double k = half_waves[kind] * pi / b.L, euler = b.EI * k * k;
        const double critical = shear ? euler / (1 + euler / b.GA) : euler;
        INFO(kind << " in " << pieces << " pieces");
        CHECK(factors(s, "load", 1).at(0) * 1e4 == Approx(critical).epsilon(closed_form));
      }
}

TEST_CASE("A column buckles under its own weight, on a spring, and not when it is pulled") {
  Bar b;
  Structure s = bar(1, false, b);
  s.support(PointId(0), Support::fixed());
  s.load_case("weight").gravity();
  // q L³/EI is 9/4 times the square of the first zero of the Bessel function of order −1/3.
  const double zero = root(
      [](double x) {
        double sum = 0, term = 1;
        for (int i = 0; i < 60; ++i) {
          sum += term;
          term *= -x * x / 4 / ((i + 1.0) * (i + 1.0 - 1.0 / 3));
        }
        return sum;
      },
      1.5, 2.2);
  const double q = b.m * 9.80665;
  CHECK(factors(s, "weight", 1).at(0) * q * std::pow(b.L, 3) / b.EI == Approx(2.25 * zero * zero).epsilon(closed_form));

  // A stiff short column on a turning spring c: between c/L and that of the clamped one, tan(kL) kL = c L/EI.
  const double c = 5e4;
  Structure sprung = bar(1, false, b);
  sprung.support(PointId(0), Support::pinned().spring({.rz = TurningStiffness::si(c)}));
  sprung.load_case("load").at(last(sprung), Force{.y = -1_kN});
  const double kL = root([&](double x) { return x * std::sin(x) - c * b.L / b.EI * std::cos(x); }, 0.01, pi / 2);
  CHECK(factors(sprung, "load", 1).at(0) * 1e3 == Approx(b.EI * kL * kL / b.L / b.L).epsilon(closed_form));

  Structure pulled = bar(1, false, b);
  pulled.support(PointId(0), Support::fixed());
  pulled.load_case("load").at(last(pulled), Force{.y = 1_kN});
  CHECK(factors(pulled, "load", 2).empty());
}

TEST_CASE("Portals sway: with hinged feet and with fixed ones") {
  for (const bool fixed : {false, true}) {
    Structure s = Structure::plane("portal");
    s.analysis().shear = false;
    // So stout that nothing stretches, as in the closed form.
    const SectionId tube = s.section("stout", GivenProperties{.A = Area::si(100), .Iz = SecondMoment::si(5e-7)});
    const MemberOptions o{.section = tube, .material = "S235"};
    const double h = 3, L = 4;
    const PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, 3_m), c = s.point("C", 4_m, 3_m),
                  d = s.point("D", 4_m, 0_m);
    s.member("left", {a, b}, o), s.member("beam", {b, c}, o), s.member("right", {d, c}, o);
    for (const PointId p : {a, d}) s.support(p, fixed ? Support::fixed() : Support::pinned());
    s.load_case("roof").at(b, Force{.y = -1_kN}).at(c, Force{.y = -1_kN});
    // Slope deflection with stability functions (Timoshenko and Gere, Theory of Elastic Stability, art. 2.4): the beam
    // holds each head with 6 EI/L; a leg that sways has tan(kh)·kh = 6 h/L with a hinged foot, and
    // tan(kh)/kh = −L/(6 h) with a fixed one.
    const double ratio = 6 * h / L;
    const double kh =
        fixed ? root([&](double x) { return std::sin(x) * ratio + x * std::cos(x); }, pi / 2 + 1e-6, pi - 1e-9)
              : root([&](double x) { return x * std::sin(x) - ratio * std::cos(x); }, 1e-6, pi / 2 - 1e-9);
    const double EI = 210e9 * 5e-7;
    CHECK(factors(s, "roof", 1).at(0) * 1e3 == Approx(EI * kh * kh / h / h).epsilon(closed_form));
  }
}

TEST_CASE("Beams of all end conditions: ten frequencies each") {
  struct Ends {
    const char* name;
    std::function<double(double)> equation;  // divided by cosh
    Support start, end;
  };
  const Support slide = Support::hold({Dof::y});  // along the bar only
  const Ends all[] = {
      {"cantilever", [](double x) { return std::cos(x) + 1 / std::cosh(x); }, Support::fixed(), slide},
      {"clamped", [](double x) { return std::cos(x) - 1 / std::cosh(x); }, Support::fixed(), Support::fixed()},
      {"propped", [](double x) { return std::sin(x) - std::cos(x) * std::tanh(x); }, Support::fixed(),
       Support::pinned()},
      {"hinged", [](double x) { return std::sin(x); }, Support::pinned(), Support::pinned()}};
  for (const Ends& e : all)
    for (const int pieces : {1, 3}) {
      Bar b;
      Structure s = bar(pieces, false, b);
      // Held along the bar at every point, so that it swings across only.
      for (std::size_t i = 1; i + 1 < s.points().size(); ++i) s.support(PointId(i), slide);
      s.support(PointId(0), e.start);
      s.support(last(s), e.end);
      INFO(e.name << " in " << pieces << " pieces");
      // Movements along single pieces come between.
      const std::vector<double> got = frequencies(s, 24);
      for (const double x : roots(e.equation, 0.3, 10)) {
        const double f = x * x / b.L / b.L * std::sqrt(b.EI / b.m) / (2 * pi);
        const auto nearest = *std::min_element(got.begin(), got.end(),
                                               [&](double p, double q) { return std::abs(p - f) < std::abs(q - f); });
        CHECK(nearest == Approx(f).epsilon(closed_form));
      }
    }
}

TEST_CASE("Timoshenko's simply supported beam with rotary inertia, in both of its spectra") {
  Bar b;
  b.L = 0.4;
  Structure s = bar(1, true, b);
  s.support(PointId(0), Support::pinned());
  s.support(last(s), Support::pinned());
  const std::vector<double> got = frequencies(s, 12);
  for (int n = 1; n <= 4; ++n) {
    // m ρI/GA ω⁴ − (m + k² (ρI + m EI/GA)) ω² + EI k⁴ = 0
    const double k = n * pi / b.L, A = b.m * b.rotary / b.GA, B = b.m + k * k * (b.rotary + b.m * b.EI / b.GA);
    const double w2 = (B - std::sqrt(B * B - 4 * A * b.EI * std::pow(k, 4))) / (2 * A), f = std::sqrt(w2) / (2 * pi);
    CHECK(*std::min_element(got.begin(), got.end(), [&](double p, double q) {
      return std::abs(p - f) < std::abs(q - f);
    }) == Approx(f).epsilon(closed_form));
  }
}

TEST_CASE("A mass at the tip, a rod along and in torsion, two masses on springs, a bar that is pulled or pressed") {
  Bar b;
  Structure s = bar(2, false, b);
  s.support(PointId(0), Support::fixed());
  for (const std::size_t i : {1, 2}) s.support(PointId(i), Support::hold({Dof::y}));
  const double tip = 20;
  s.point_mass(last(s), Mass::si(tip));
  const double mu = tip / (b.m * b.L);
  const auto equation = [&](double x) {
    return 1 / std::cosh(x) + std::cos(x) + mu * x * (std::cos(x) * std::tanh(x) - std::sin(x));
  };
  const double x = roots(equation, 0.2, 1).at(0);
  CHECK(frequencies(s, 1).at(0) == Approx(x * x / b.L / b.L * std::sqrt(b.EI / b.m) / (2 * pi)).epsilon(closed_form));

  // Held across: c/4L along, and in torsion a round bar of the same kind with the speed of shear waves.
  Structure rod = Structure::space("rod");
  const auto p = rod.point("A", 0_m, 0_m, 0_m), q = rod.point("B", 1_m, 0_m, 0_m);
  rod.member("rod", {p, q}, {.section = rod.section("bar", RoundBar{.diameter = 200_mm}), .material = "S235"});
  rod.support(p, Support::fixed());
  rod.support(q, Support::hold({Dof::y, Dof::z, Dof::ry, Dof::rz}));
  const std::vector<double> got = frequencies(rod, 8);
  const double E = 210e9, G = rod.materials()[0].shear_modulus().si(), density = rod.materials()[0].density->si();
  for (const double speed : {std::sqrt(E / density), std::sqrt(G / density)}) {
    const double f = speed / 4;
    CHECK(*std::min_element(got.begin(), got.end(), [&](double m, double n) {
      return std::abs(m - f) < std::abs(n - f);
    }) == Approx(f).epsilon(closed_form));
  }

  // m1 = 2, m2 = 3 between three springs, along x; links without mass join nothing that swings below.
  Structure masses = Structure::plane("masses");
  Material light = material("S235");
  light.density = Density::si(1e-9);
  const auto one = masses.point("1", 0_m, 0_m), two = masses.point("2", 1_m, 0_m);
  masses.member(
      "link", {one, two},
      {.section = masses.section("s", GivenProperties{.A = Area::si(1e4 / 210e9), .Iz = SecondMoment::si(1e-3)}),
       .material = light,
       .kind = MemberKind::link});
  for (const PointId i : {one, two}) masses.support(i, Support::hold({Dof::y}).spring({.x = Stiffness::si(2e4)}));
  masses.point_mass(one, Mass::si(2)), masses.point_mass(two, Mass::si(3));
  const double k = 2e4, between = 1e4;
  // 2·3 ω⁴ − ((k + c)(2 + 3)) ω² + (k + c)² − c² = 0
  const double B = (k + between) * 5, C = (k + between) * (k + between) - between * between;
  const std::vector<double> two_masses = frequencies(masses, 2);
  for (int i = 0; i < 2; ++i) {
    const double w2 = (B + (i == 0 ? -1 : 1) * std::sqrt(B * B - 24 * C)) / 12;
    CHECK(two_masses[static_cast<std::size_t>(i)] == Approx(std::sqrt(w2) / (2 * pi)).epsilon(closed_form));
  }

  // Under an axial force the first frequency of a hinged bar is √(1 + N/Pe) times as high.
  for (const double force : {-0.6, 0.8}) {
    Bar c;
    Structure column = bar(1, false, c);
    column.support(PointId(0), Support::pinned());
    column.support(last(column), Support::hold({Dof::x}));
    const double euler = c.EI * pi * pi / c.L / c.L;
    column.load_case("force").at(last(column), Force{.y = ForceSize::si(force * euler)});
    const double f = pi / 2 / c.L / c.L * std::sqrt(c.EI / c.m);
    CHECK(frequencies(column, 1, "force").at(0) == Approx(f * std::sqrt(1 + force)).epsilon(closed_form));
  }
  Bar c;
  Structure over = bar(1, false, c);
  over.support(PointId(0), Support::pinned());
  over.support(last(over), Support::hold({Dof::x}));
  over.load_case("force").at(last(over), Force{.y = -200_kN});
  const auto buckled = modes(over, {.vibration = 1, .under = "force"});
  REQUIRE(!buckled);
  CHECK(buckled.error().front().text.find("buckles") != std::string::npos);
}

TEST_CASE("Free structures tell their free movements, and modes that are there twice are found twice") {
  Bar b;
  Structure s = bar(2, false, b);
  const Modes free = found(s, {.vibration = 4});
  std::size_t still = 0;
  for (const VibrationMode& m : free.vibration) still += m.is_free;
  CHECK(still == 3);
  const double x = root([](double v) { return std::cos(v) - 1 / std::cosh(v); }, 4, 5);
  CHECK(free.vibration[3].frequency.si() ==
        Approx(x * x / b.L / b.L * std::sqrt(b.EI / b.m) / (2 * pi)).epsilon(closed_form));

  Structure mast = Structure::space("mast");
  const auto foot = mast.point("A", 0_m, 0_m, 0_m), head = mast.point("B", 0_m, 0_m, 3_m);
  mast.member("mast", {foot, head},
              {.section = mast.section("t", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = "S235"});
  mast.support(foot, Support::fixed());
  mast.load_case("load").at(head, Force{.z = -10_kN});
  const Modes m = found(mast, {.vibration = 4, .buckling = {{"load", 2}}});
  CHECK(m.vibration[0].frequency.si() == Approx(m.vibration[1].frequency.si()).epsilon(1e-9));
  CHECK(m.vibration[2].frequency.si() == Approx(m.vibration[3].frequency.si()).epsilon(1e-9));
  CHECK(m.buckling[0].modes[0].factor == Approx(m.buckling[0].modes[1].factor).epsilon(1e-9));
  CHECK(m.vibration[0].effective_mass_x + m.vibration[1].effective_mass_x ==
        Approx(m.vibration[0].effective_mass_y + m.vibration[1].effective_mass_y));
  // A hinged link between two hinges buckles by itself.
  Structure prop = Structure::plane("prop");
  const auto p = prop.point("A", 0_m, 0_m), q = prop.point("B", 0_m, 2_m);
  prop.member("prop", {p, q},
              {.section = prop.section("t", SquareTube{.width = 30_mm, .wall = 2_mm}),
               .material = "S235",
               .kind = MemberKind::link});
  prop.support(p, Support::pinned());
  prop.support(q, Support::hold({Dof::x}));
  prop.load_case("load").at(q, Force{.y = -1_kN});
  const CaseBuckling buckling = found(prop, {.buckling = {{"load", 1}}}).buckling.front();
  const double EI = 210e9 * prop.sections()[0].section.area_properties().Iz.si();
  CHECK(buckling.modes.at(0).factor * 1e3 == Approx(EI * pi * pi / 4).epsilon(closed_form));
  REQUIRE(buckling.modes.at(0).members.size() == 1);
  CHECK(buckling.modes.at(0).members.front().effective_length.si() == Approx(2).epsilon(closed_form));
}

TEST_CASE("A mass with an arm and an inertia turns with its point") {
  Structure s = Structure::plane("mast");
  s.analysis().shear = false;
  Material light = *find_material("S235");
  light.name = "light", light.density = Density::si(1e-6);
  const auto foot = s.point("A", 0_m, 0_m), head = s.point("B", 0_m, 2_m);
  s.member("mast", {foot, head},
           {.section = s.section("t", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = light});
  s.support(foot, Support::fixed());
  const double m = 80, J = 7, a = 0.6, L = 2, EI = light.E.si() * s.sections()[0].section.area_properties().Iz.si();
  s.point_mass(head, 80_kg, {.y = 600_mm, .about_z = 7 * units::kg_m2});
  // Of the movement u and the turn θ = u' of the head: K = EI [12/L³ −6/L²; −6/L² 4/L], M = [m ma; ma J + ma²].
  const double k11 = 12 * EI / (L * L * L), k12 = -6 * EI / (L * L), k22 = 4 * EI / L;
  const double m11 = m, m12 = m * a, m22 = J + m * a * a;
  const double A = m11 * m22 - m12 * m12, B = -(k11 * m22 + k22 * m11 - 2 * k12 * m12), C = k11 * k22 - k12 * k12;
  const double low = (-B - std::sqrt(B * B - 4 * A * C)) / (2 * A),
               high = (-B + std::sqrt(B * B - 4 * A * C)) / (2 * A);
  // (The second of the three is that of the mass along the mast.)
  const std::vector<double> found = frequencies(s, 2);
  CHECK(found[0] == Approx(std::sqrt(low) / (2 * pi)).epsilon(1e-7));
  const std::vector<double> three = frequencies(s, 3);
  CHECK(std::any_of(three.begin(), three.end(),
                    [&](double f) { return f == Approx(std::sqrt(high) / (2 * pi)).epsilon(1e-7); }));

  // Under its weight on the arm the mast buckles sooner: that of a column with a rigid end.
  s.load_case("weight").gravity();
  const double factor = factors(s, "weight", 1).front();
  const double k = root([&](double v) { return std::cos(v * L) - a * v * std::sin(v * L); }, 0.01, 0.75);
  CHECK(factor * m * gn.si() == Approx(k * k * EI).epsilon(1e-6));
}

TEST_CASE("A column with a rigid end buckles sooner than without the turn of its arm") {
  Structure s = Structure::plane("arm");
  s.analysis().shear = false;
  const auto foot = s.point("A", 0_m, 0_m), head = s.point("B", 0_m, 3_m);
  s.member("column", {foot, head},
           {.section = s.section("t", SquareTube{.width = 60_mm, .wall = 4_mm}),
            .material = "S235",
            .offset = {.end = {.y = -1_m}}});
  s.support(foot, Support::fixed());
  s.load_case("load").at(head, Force{.y = -1_N});
  const double EI = 210e9 * s.sections()[0].section.area_properties().Iz.si();
  const double k = root([](double v) { return std::cos(2 * v) - v * std::sin(2 * v); }, 0.01, 0.75);
  CHECK(factors(s, "load", 1).front() == Approx(k * k * EI).epsilon(closed_form));
}

TEST_CASE("200 random frames swing as fine elements say, and buckle as finer ones do") {
#ifdef CORVEX_SHORT_ROWS
  constexpr unsigned frames = 5, buckled = 2;
#else
  constexpr unsigned frames = 100, buckled = 12;
#endif
  std::size_t frequencies_seen = 0, factors_seen = 0;
  for (unsigned seed = 0; seed < frames; ++seed)
    for (const bool plane : {true, false}) {
      INFO("seed " << seed << (plane ? " plane" : " space"));
      const Structure s = test::build(test::random_plan(seed, plane));
      const Solution solution = solve(s);
      if (!solution.ok()) continue;
      const Modes m = found(s, {.vibration = 4, .buckling = {{solution[0].name(), 2}}});
      std::vector<double> frequency, factor;
      for (const VibrationMode& one : m.vibration) frequency.push_back(one.frequency.si());
      for (const BucklingMode& one : m.buckling.front().modes) factor.push_back(one.factor);
      // Elements stiffen: their values lie above, by what so few of them are off.
      const std::vector<double> fine = test::fine_frequencies(s, 3, 4);
      REQUIRE(fine.size() == frequency.size());
      for (std::size_t i = 0; i < fine.size(); ++i) {
        CHECK(fine[i] >= frequency[i] * (1 - 1e-6));
        CHECK(fine[i] <= frequency[i] * 1.02);
      }
      frequencies_seen += fine.size();
      if (seed >= buckled) continue;
      // Elements see a jump of the axial force inside them at their five places only.
      const std::vector<double> finer = test::fine_factors(solution, 0, 14, 2);
      REQUIRE(finer.size() == factor.size());
      for (std::size_t i = 0; i < finer.size(); ++i) CHECK(finer[i] == Approx(factor[i]).epsilon(0.05));
      factors_seen += finer.size();
    }
  CHECK(frequencies_seen > 6 * frames);
  CHECK(factors_seen > 3 * buckled);
}

TEST_CASE("Below a bound random frames have as many modes as a dense model of fine elements") {
#ifdef CORVEX_SHORT_ROWS
  constexpr unsigned frames = 3;
#else
  constexpr unsigned frames = 20;
#endif
  // Of fine elements the values lie a little above. A bound is set in the middle of a gap that is much wider.
  constexpr double gap = 1.15;
  const auto below = [](const std::vector<double>& all, double bound) {
    return std::count_if(all.begin(), all.end(), [&](double v) { return v < bound; });
  };
  int bounds = 0;
  for (unsigned seed = 300; seed < 300 + frames; ++seed)
    for (const bool plane : {true, false}) {
      INFO("seed " << seed << (plane ? " plane" : " space"));
      const Structure s = test::build(test::random_plan(seed, plane));
      const Solution solution = solve(s);
      if (!solution.ok()) continue;
      // Elements see the course of an axial force at few places, and higher factors need many of them.
      const std::size_t buckling = plane ? 4 : 2;
      const Modes m = found(s, {.vibration = 16, .buckling = {{solution[0].name(), buckling}}});
      std::vector<double> frequency, factor;
      for (const VibrationMode& one : m.vibration) frequency.push_back(one.frequency.si());
      for (const BucklingMode& one : m.buckling.front().modes) factor.push_back(one.factor);
      for (const auto& [ours, dense] : {std::pair{frequency, test::fine_frequencies(s, 6, 30)},
                                        {factor, test::fine_factors(solution, 0, plane ? 24 : 10, 8)}})
        for (std::size_t i = 0; i + 1 < ours.size(); ++i) {
          if (ours[i + 1] < gap * ours[i]) continue;
          const double bound = std::sqrt(ours[i] * ours[i + 1]);
          INFO("below " << bound);
          CHECK(below(dense, bound) == static_cast<std::ptrdiff_t>(i + 1));
          ++bounds;
        }
    }
  CHECK(bounds > 4 * static_cast<int>(frames));
}

TEST_CASE("A mass on a short angle swings as statics gives way under it, shear of both directions coupled") {
  Structure s = Structure::space("angle");
  Material light = *find_material("S235");
  light.name = "light", light.density = Density::si(1e-7);
  const SectionId angle = s.section("angle", AngleProfile{.height = 100_mm, .width = 60_mm, .wall = 9_mm});
  const PointId a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 300_mm, 0_m, 0_m);
  s.member("arm", {a, b}, {.section = angle, .material = light});
  s.support(a, Support::fixed());
  s.point_mass(b, Mass::si(1000));
  s.load_case("y").at(b, Force{.y = 1_N});
  s.load_case("z").at(b, Force{.z = 1_N});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  const Displacement y = solution["y"].displacement("B"), z = solution["z"].displacement("B");
  // The eigenvalues of the mass times the flexibilities across are 1/ω².
  const double sum = 1000 * (y.y.si() + z.z.si()), product = 1e6 * (y.y.si() * z.z.si() - y.z.si() * z.y.si());
  const double root = std::sqrt(sum * sum / 4 - product);
  const std::vector<double> f = frequencies(s, 2);
  CHECK(f[0] == Approx(1 / std::sqrt(sum / 2 + root) / (2 * pi)).epsilon(closed_form));
  CHECK(f[1] == Approx(1 / std::sqrt(sum / 2 - root) / (2 * pi)).epsilon(closed_form));
}

}  // namespace tests_of_modes_modes
