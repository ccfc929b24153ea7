// Any outline: closed forms, how errors shrink, what must not depend on how it is drawn or turned.
#include <algorithm>
#include <cmath>
#include <corvex/corvex.hpp>
#include <functional>
#include <numbers>

#include "support/near.hpp"

namespace tests_of_section_outlines {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;
using std::numbers::pi;

namespace {

Outline turned(const Outline& o, double angle, double dz = 0, double dy = 0) {
  const auto turn = [&](std::vector<Outline::Point> points) {
    for (auto& p : points) {
      const double z = p.z.si(), y = p.y.si();
      // From y towards z.
      p = {Length::si(z * std::cos(angle) + y * std::sin(angle) + dz),
           Length::si(y * std::cos(angle) - z * std::sin(angle) + dy)};
    }
    return points;
  };
  Outline r{.points = turn(o.points)};
  for (const auto& hole : o.holes) r.holes.push_back(turn(hole));
  return r;
}

const Outline angle{
    .points = {{0_mm, 0_mm}, {60_mm, 0_mm}, {60_mm, 8_mm}, {8_mm, 8_mm}, {8_mm, 100_mm}, {0_mm, 100_mm}}};

Outline ellipse(double a, double b, int corners) {
  Outline o;
  for (int i = 0; i < corners; ++i)
    o.points.push_back(
        {Length::si(a * std::cos(2 * pi * i / corners)), Length::si(b * std::sin(2 * pi * i / corners))});
  return o;
}

double worst_torsion(const Section& s) {
  return 1 / s.properties().Wt.si();
}

// J by finite differences of Prandtl's stress function on a grid: an oracle that has nothing in common with the solver.
// `inside` tells cells of a square grid of n × n; walls and holes follow the grid. The bore of a closed section is one
// unknown, found from the circulation of its rim.
double grid_torsion(int n, const std::function<bool(int, int)>& solid, double step) {
  // Nodes between cells: free where all four cells around are solid.
  std::vector<double> f(static_cast<std::size_t>((n + 1) * (n + 1)), 0.0);
  const auto at = [&](int i, int k) -> double& { return f[static_cast<std::size_t>(i * (n + 1) + k)]; };
  const auto free = [&](int i, int k) {
    return i > 0 && k > 0 && i < n && k < n && solid(i - 1, k - 1) && solid(i, k - 1) && solid(i - 1, k) && solid(i, k);
  };
  const double relax = 2 / (1 + std::sin(pi / n));
  for (int round = 0; round < 12 * n; ++round)
    for (int i = 1; i < n; ++i)
      for (int k = 1; k < n; ++k)
        if (free(i, k)) {
          const double next = (at(i - 1, k) + at(i + 1, k) + at(i, k - 1) + at(i, k + 1) + 2 * step * step) / 4;
          at(i, k) += relax * (next - at(i, k));
        }
  double sum = 0;
  for (const double v : f) sum += v;
  return 2 * sum * step * step;
}

}  // namespace

TEST_CASE("The triangle twists by its closed form") {
  // Equilateral, side a: J = √3 a⁴/80, τ = 20 T/a³ in the middle of the sides (Timoshenko and Goodier, art. 106).
  const double a = 0.08;
  const Section s =
      Outline{.points = {{0_m, 0_m}, {Length::si(a), 0_m}, {Length::si(a / 2), Length::si(a * std::sqrt(0.75))}}};
  CHECK(s.properties().J.si() == Approx(std::sqrt(3.0) * std::pow(a, 4) / 80).epsilon(1e-8));
  CHECK(worst_torsion(s) == Approx(20 / std::pow(a, 3)).epsilon(1e-4));
  CHECK(s.properties().Iz.si() == Approx(std::pow(a, 4) * std::sqrt(3.0) / 96));
  CHECK(s.properties().Iyz.si() == 0);
  CHECK(std::hypot(s.properties().shear_centre_y.si(), s.properties().shear_centre_z.si()) < 1e-8 * a);
}

TEST_CASE("Ellipses drawn with more corners come to the ellipse with the square of their number") {
  // J = π a³b³/(a² + b²), τ = 2T/(π a b²) at the end of the short axis (art. 105).
  const double a = 0.05, b = 0.02, exact = pi * std::pow(a * b, 3) / (a * a + b * b);
  double before = 0;
  for (const int corners : {24, 48, 96}) {
    const Section s = ellipse(a, b, corners);
    const double error = 1 - s.properties().J.si() / exact;
    CHECK(error > 0);
    if (before > 0) CHECK(before / error == Approx(4).epsilon(0.1));
    before = error;
  }
  CHECK(worst_torsion(ellipse(a, b, 96)) == Approx(2 / (pi * a * b * b)).epsilon(0.01));
}

TEST_CASE("The rectangle's torsion constant converges to the series") {
  const double h = GENERATE(0.02, 0.05, 0.2);
  const Outline drawn{.points = {{0_m, 0_m}, {20_mm, 0_m}, {20_mm, Length::si(h)}, {0_m, Length::si(h)}}};
  const double exact = Section(RectangularBar{Length::si(h), 20_mm}).properties().J.si();
  const auto error = [&](double fineness) {
    return std::abs(Section(drawn, fineness).properties().J.si() / exact - 1);
  };
  CHECK(error(1) < 2e-5);
  CHECK(error(3) < 1e-6);
  // Order two and more, from fineness 1 to 4.
  CHECK(error(4) < error(1) / 16);
  CHECK(Section(drawn).properties().Ay.si() == Approx(h * 0.02 * 5 / 6).epsilon(1e-6));
}

TEST_CASE("Two finenesses agree to five digits, whatever the shape") {
  const Shape shape =
      GENERATE(Shape(SquareTube{60_mm, 4_mm}), Shape(RectangularTube{200_mm, 100_mm, 5_mm, 10_mm}),
               Shape(IProfile{200_mm, 100_mm, 5.6_mm, 8.5_mm, 12_mm}), Shape(IProfile{200_mm, 100_mm, 5.6_mm, 8.5_mm}),
               Shape(Channel{200_mm, 80_mm, 6_mm, 11_mm, 13_mm}), Shape(AngleProfile{100_mm, 50_mm, 8_mm, 8_mm, 4_mm}),
               Shape(AngleProfile{100_mm, 50_mm, 8_mm}), Shape(Tee{100_mm, 100_mm, 11_mm, 11_mm, 11_mm}));
  const auto a = Section(shape).properties(), b = Section(shape, 2).properties();
  CHECK(a.J.si() == Approx(b.J.si()).epsilon(5e-5));
  CHECK(a.Ay.si() == Approx(b.Ay.si()).epsilon(1e-5));
  CHECK(a.Az.si() == Approx(b.Az.si()).epsilon(1e-5));
  CHECK(a.Wt.si() == Approx(b.Wt.si()).epsilon(0.025));
  CHECK((a.shear_centre_z - b.shear_centre_z).in(mm) == Approx(0).margin(1e-3));
  CHECK((a.shear_centre_y - b.shear_centre_y).in(mm) == Approx(0).margin(1e-3));
}

TEST_CASE("A built-in shape drawn as an outline has that shape's figures") {
  const auto [shape, drawn] = GENERATE(table<Shape, Outline>(
      {{AngleProfile{100_mm, 60_mm, 8_mm}, angle},
       {Tee{90_mm, 70_mm, 8_mm, 10_mm}, Outline{{{31_mm, 0_mm},
                                                 {39_mm, 0_mm},
                                                 {39_mm, 80_mm},
                                                 {70_mm, 80_mm},
                                                 {70_mm, 90_mm},
                                                 {0_mm, 90_mm},
                                                 {0_mm, 80_mm},
                                                 {31_mm, 80_mm}}}},
       {Channel{100_mm, 50_mm, 6_mm, 9_mm}, Outline{{{0_mm, 0_mm},
                                                     {0_mm, 100_mm},
                                                     {50_mm, 100_mm},
                                                     {50_mm, 91_mm},
                                                     {6_mm, 91_mm},
                                                     {6_mm, 9_mm},
                                                     {50_mm, 9_mm},
                                                     {50_mm, 0_mm}}}},
       {RectangularTube{80_mm, 40_mm, 4_mm}, Outline{{{0_mm, 0_mm}, {40_mm, 0_mm}, {40_mm, 80_mm}, {0_mm, 80_mm}},
                                                     {{{4_mm, 4_mm}, {36_mm, 4_mm}, {36_mm, 76_mm}, {4_mm, 76_mm}}}}},
       {IProfile{100_mm, 60_mm, 5_mm, 7_mm}, Outline{{{0_mm, 0_mm},
                                                      {60_mm, 0_mm},
                                                      {60_mm, 7_mm},
                                                      {32.5_mm, 7_mm},
                                                      {32.5_mm, 93_mm},
                                                      {60_mm, 93_mm},
                                                      {60_mm, 100_mm},
                                                      {0_mm, 100_mm},
                                                      {0_mm, 93_mm},
                                                      {27.5_mm, 93_mm},
                                                      {27.5_mm, 7_mm},
                                                      {0_mm, 7_mm}}}}}));
  const auto p = Section(shape).properties(), q = Section(drawn).properties();
  const auto d = Section(shape).details(), e = Section(drawn).details();
  CHECK(q.A.si() == near(p.A.si()));
  CHECK(q.Iz.si() == near(p.Iz.si()));
  CHECK(q.Iy.si() == near(p.Iy.si()));
  CHECK(q.Iyz.si() == Approx(p.Iyz.si()).margin(1e-9 * p.Iy.si()));
  CHECK(q.Wz.si() == near(p.Wz.si()));
  CHECK(q.J.si() == Approx(p.J.si()).epsilon(3e-5));
  CHECK(q.Ay.si() == Approx(p.Ay.si()).epsilon(1e-5));
  CHECK(q.Az.si() == Approx(p.Az.si()).epsilon(1e-5));
  CHECK(q.Wt.si() == Approx(p.Wt.si()).epsilon(2e-3));
  CHECK(q.shear_centre_z.si() == Approx(p.shear_centre_z.si()).margin(1e-6));
  CHECK(e.Cw.si() == Approx(d.Cw.si()).epsilon(3e-3));
  CHECK(e.plastic_z.si() == near(d.plastic_z.si()));
  CHECK(e.plastic_y.si() == near(d.plastic_y.si()));
  CHECK(Section(drawn).area_properties().centroid_z.si() == near(Section(shape).area_properties().centroid_z.si()));
}

TEST_CASE("Properties turn with the outline, and do not depend on where it lies or how it is numbered") {
  const double phi = GENERATE(0.3, 1.1, pi / 2, 2.5);
  const Section still(angle), moved(turned(angle, phi, 0.7, -0.4));
  const auto p = still.properties(), q = moved.properties();
  const double c = std::cos(phi), s = std::sin(phi);
  const double Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = p.Iyz.si();
  CHECK(q.A.si() == near(p.A.si()));
  CHECK(q.Iz.si() == Approx(Iz * c * c + Iy * s * s - 2 * Iyz * s * c).epsilon(1e-9));
  CHECK(q.Iy.si() == Approx(Iz * s * s + Iy * c * c + 2 * Iyz * s * c).epsilon(1e-9));
  CHECK(q.Iyz.si() == Approx((Iz - Iy) * s * c + Iyz * (c * c - s * s)).margin(1e-9 * Iz));
  CHECK(q.I1.si() == near(p.I1.si()));
  CHECK(q.I2.si() == near(p.I2.si()));
  CHECK(std::abs(std::sin(q.principal.si() - p.principal.si() - phi)) < 1e-9);
  CHECK(q.J.si() == Approx(p.J.si()).epsilon(1e-9));
  CHECK(q.A1.si() == Approx(p.A1.si()).epsilon(1e-5));
  CHECK(q.A2.si() == Approx(p.A2.si()).epsilon(1e-5));
  CHECK(q.Wt.si() == Approx(p.Wt.si()).epsilon(0.01));
  const double ys = p.shear_centre_y.si(), zs = p.shear_centre_z.si();
  CHECK(q.shear_centre_z.si() == Approx(zs * c + ys * s).margin(1e-7));
  CHECK(q.shear_centre_y.si() == Approx(ys * c - zs * s).margin(1e-7));
  CHECK(moved.details().Cw.si() == Approx(still.details().Cw.si()).epsilon(2e-3));

  Outline other = angle;
  std::reverse(other.points.begin(), other.points.end());
  std::rotate(other.points.begin(), other.points.begin() + 2, other.points.end());
  CHECK(Section(other).properties().J.si() == Approx(p.J.si()).epsilon(1e-9));
  CHECK(Section(other).properties().Iyz.si() == near(Iyz));
}

TEST_CASE("Inches or metres: figures grow with their power of size") {
  const double f = GENERATE(25.4, 1e-3);
  Outline large = angle;
  for (auto& p : large.points) p = {p.z * f, p.y * f};
  const auto p = Section(angle).properties(), q = Section(large).properties();
  CHECK(q.J.si() == Approx(p.J.si() * std::pow(f, 4)).epsilon(1e-9));
  CHECK(q.Wt.si() == Approx(p.Wt.si() * std::pow(f, 3)).epsilon(1e-9));
  CHECK(q.A1.si() == Approx(p.A1.si() * f * f).epsilon(1e-9));
  CHECK(Section(large).stress_map().points.size() == Section(angle).stress_map().points.size());
}

TEST_CASE("Thin walls: shear centre and warping as the textbooks have them") {
  SECTION("channel: e = 3 b²/(h + 6 b) outside of the web (Gere and Timoshenko, ch. 6)") {
    const double b = 0.1, h = 0.2, t = 0.0005;
    const Section s = Channel{
        .height = Length::si(h + t), .width = Length::si(b + t / 2), .web = Length::si(t), .flange = Length::si(t)};
    const double e = 3 * b * b / (h + 6 * b);
    const double web = -s.area_properties().centroid_z.si() + t / 2;
    CHECK(s.properties().shear_centre_z.si() - web == Approx(-e).epsilon(0.005));
    CHECK(s.properties().shear_centre_y.si() == Approx(0).margin(1e-9));
  }
  SECTION("I: Iy h²/4") {
    const double h = 0.2, t = 0.001;
    const Section s =
        IProfile{.height = Length::si(h + t), .width = 100_mm, .web = Length::si(t), .flange = Length::si(t)};
    CHECK(s.details().Cw.si() == Approx(s.properties().Iy.si() * h * h / 4).epsilon(1e-3));
  }
  SECTION("angle: the shear centre is where the middle lines meet, and hardly any warping is left") {
    const double t = 0.001;
    const Section s = AngleProfile{.height = 100_mm, .width = 60_mm, .wall = Length::si(t)};
    CHECK(s.properties().shear_centre_z.si() + s.area_properties().centroid_z.si() == Approx(t / 2).margin(2e-4));
    CHECK(s.properties().shear_centre_y.si() + s.area_properties().centroid_y.si() == Approx(t / 2).margin(2e-4));
    CHECK(s.details().Cw.si() == Approx(t * t * t * (std::pow(0.1, 3) + std::pow(0.06, 3)) / 36).epsilon(0.05));
  }
  SECTION("open walls twist with Σ b t³/3") {
    const double t = 0.001;
    const Section s = AngleProfile{.height = 100_mm, .width = 60_mm, .wall = Length::si(t)};
    CHECK(s.properties().J.si() == Approx((0.1 + 0.06 - t) * t * t * t / 3).epsilon(0.005));
    // Near the corner the wall is in effect thicker.
    CHECK(worst_torsion(s) > t / s.properties().J.si() * 0.99);
    CHECK(worst_torsion(s) < t / s.properties().J.si() * 1.1);
  }
}

TEST_CASE("A tube that is slit open twists like its wall unrolled, closed like Bredt's") {
  const double r = 0.05, t = 0.002, gap = 0.0005;
  Outline slit;
  const int pieces = 60;
  const double open = gap / r;
  for (int i = 0; i <= pieces; ++i) {
    const double a = open / 2 + (2 * pi - open) * i / pieces;
    slit.points.push_back({Length::si((r + t / 2) * std::cos(a)), Length::si((r + t / 2) * std::sin(a))});
  }
  for (int i = pieces; i >= 0; --i) {
    const double a = open / 2 + (2 * pi - open) * i / pieces;
    slit.points.push_back({Length::si((r - t / 2) * std::cos(a)), Length::si((r - t / 2) * std::sin(a))});
  }
  const Section s(slit);
  const double u = 2 * pi * r;
  CHECK(s.properties().J.si() == Approx(u * t * t * t / 3).epsilon(0.02));
  CHECK(worst_torsion(s) == Approx(t / s.properties().J.si()).epsilon(0.05));
  // The shear centre lies beyond the side opposite to the slit, two radii from the middle.
  CHECK(s.properties().shear_centre_z.si() == Approx(-2 * r).epsilon(0.01));
  const Section closed = RoundTube{.diameter = Length::si(2 * r + t), .wall = Length::si(t)};
  const double Am = pi * r * r;
  CHECK(closed.properties().J.si() == Approx(4 * Am * Am * t / u).epsilon(1e-3));
  CHECK(std::abs(closed.stress_map().points.front().t) == Approx(1 / (2 * Am * t)).epsilon(0.03));
}

TEST_CASE("A stress function on a grid gives the same torsion") {
  // Sides of 40 cells; error of the grid at re-entrant corners below 1 %.
  const int n = 80;
  const double step = 0.1 / n;
  const auto angle_cells = [&](int i, int k) { return i < n / 4 || k < n / 4; };
  const Section s = AngleProfile{.height = 100_mm, .width = 100_mm, .wall = 25_mm};
  const double coarse = grid_torsion(n, angle_cells, step);
  CHECK(s.properties().J.si() == Approx(coarse).epsilon(0.01));
  const auto square_cells = [](int, int) { return true; };
  CHECK(Section(RectangularBar{100_mm, 100_mm}).properties().J.si() ==
        Approx(grid_torsion(n, square_cells, step)).epsilon(1e-3));
}

TEST_CASE("Plastic moduli of whole sections") {
  CHECK(Section(RectangularBar{80_mm, 20_mm}).details().plastic_z.in(cm3) == near(32.0));
  CHECK(Section(RectangularBar{80_mm, 20_mm}).details().plastic_y.in(cm3) == near(8.0));
  CHECK(Section(RoundBar{60_mm}).details().plastic_z.in(cm3) == near(36.0));  // D³/6
  CHECK(Section(RoundTube{60_mm, 5_mm}).details().plastic_y.in(cm3) == near((216.0 - 125) / 6));
  // A tee whose flange alone is half of the area.
  const Section tee = Tee{.height = 110_mm, .width = 100_mm, .web = 10_mm, .flange = 10_mm};
  CHECK(tee.details().plastic_z.in(cm3) == near(10 * 0.5 + 10 * 5.0));
}

TEST_CASE("Hundred members of one section solve it once: copies share what was worked out") {
  const Section one = IProfile{200_mm, 100_mm, 5.6_mm, 8.5_mm, 12_mm};
  const Section other = one;  // NOLINT: a copy is meant
  CHECK(&one.properties() == &other.properties());
  CHECK(&one.stress_map() == &other.stress_map());
  CHECK(&one.details() == &other.details());
}

TEST_CASE("Outlines that cannot be are told with the place") {
  const auto text = [](const Outline& o) {
    const auto faults = check(o);
    REQUIRE(faults.size() == 1);
    return faults[0].dimension + ": " + faults[0].text;
  };
  CHECK(text({}) == "points: the outline needs at least three points");
  CHECK(text({{{0_mm, 0_mm}, {10_mm, 0_mm}, {0_mm, 10_mm}, {10_mm, 10_mm}}}) ==
        "points: sides 2 and 4 of the outline meet near (10, 0) mm");
  CHECK(text({{{0_mm, 0_mm}, {10_mm, 0_mm}, {10_mm, 0_mm}, {10_mm, 10_mm}}}) ==
        "points: point 2 of the outline coincides with the next one, at (10, 0) mm");
  CHECK(text({{{0_mm, 0_mm}, {10_mm, 0_mm}, {10_mm, 10_mm}, {0_mm, 0_mm}}}) ==
        "points: the last point of the outline is its first one again; the ring closes by itself");
  CHECK(text({{{0_mm, 0_mm}, {20_mm, 0_mm}, {10_mm, 0_mm}, {10_mm, 10_mm}}}) ==
        "points: the outline turns back on itself at (20, 0) mm");
  const std::vector<Outline::Point> square{{0_mm, 0_mm}, {10_mm, 0_mm}, {10_mm, 10_mm}, {0_mm, 10_mm}};
  CHECK(text({square, {{{20_mm, 1_mm}, {22_mm, 1_mm}, {22_mm, 3_mm}}}}) ==
        "holes: hole 1 does not lie within the outline");
  CHECK(text({square, {{{8_mm, 1_mm}, {12_mm, 1_mm}, {12_mm, 3_mm}}}}) ==
        "holes: hole 1 meets the outline near (8, 1) mm");
  CHECK(text({square, {{{2_mm, 2_mm}, {8_mm, 2_mm}, {8_mm, 8_mm}}, {{6_mm, 4_mm}, {7_mm, 4_mm}, {7_mm, 5_mm}}}}) ==
        "holes: hole 2 lies within hole 1");
  CHECK(check(Outline{square, {{{2_mm, 2_mm}, {8_mm, 2_mm}, {8_mm, 8_mm}}}}).empty());
}

TEST_CASE("Radii that do not fit are told") {
  const auto fault = [](const Shape& s) {
    const auto faults = check(s);
    REQUIRE(faults.size() == 1);
    return faults[0].dimension;
  };
  CHECK(fault(SquareTube{.width = 60_mm, .wall = 4_mm, .corner = 31_mm}) == "corner");
  CHECK(fault(IProfile{200_mm, 100_mm, 5.6_mm, 8.5_mm, 60_mm}) == "root");
  CHECK(fault(IProfile{200_mm, 100_mm, 120_mm, 8.5_mm}) == "web");
  CHECK(fault(IProfile{200_mm, 100_mm, 5_mm, 100_mm}) == "flange");
  CHECK(fault(Channel{100_mm, 50_mm, 6_mm, 9_mm, 45_mm}) == "root");
  CHECK(fault(AngleProfile{50_mm, 50_mm, 5_mm, 7_mm, 6_mm}) == "toe");
  CHECK(fault(AngleProfile{50_mm, 30_mm, 30_mm}) == "wall");
  CHECK(fault(Tee{100_mm, 100_mm, 11_mm, 100_mm}) == "flange");
  CHECK(fault(Tee{100_mm, 100_mm, 11_mm, 11_mm, -1_mm}) == "root");
}

TEST_CASE("Warping constants of closed, solid and open outlines are converged") {
  const Shape shape =
      GENERATE(Shape(RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 5_mm, .corner = 7.5_mm}),
               Shape(SquareTube{.width = 60_mm, .wall = 4_mm}), Shape(RectangularBar{.height = 60_mm, .width = 20_mm}),
               Shape(Outline{.points = {{0_mm, 0_mm}, {60_mm, 0_mm}, {30_mm, 50_mm}}}),
               Shape(IProfile{.height = 200_mm, .width = 100_mm, .web = 5.6_mm, .flange = 8.5_mm, .root = 12_mm}),
               Shape(AngleProfile{.height = 100_mm, .width = 50_mm, .wall = 8_mm, .root = 8_mm, .toe = 4_mm}));
  INFO(name(shape));
  CHECK(Section(shape).details().Cw.si() == Approx(Section(shape, 3).details().Cw.si()).epsilon(1e-4));
}

TEST_CASE("An open wall thinner than 1/1000 of its length is warned of where it is twisted") {
  const auto told = [](Length wall) {
    Structure s = Structure::space("thin");
    const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 2_m, 0_m, 0_m);
    const auto section =
        s.section("thin", Section(IProfile{.height = 800_mm, .width = 300_mm, .web = wall, .flange = wall}));
    s.member("arm", {a, b}, {.section = section, .material = material("S235")});
    s.support(a, Support::fixed());
    s.load_case("tip").at(b, Moment{.x = 10_N_m});
    const Solution solution = solve(s);
    REQUIRE(solution.ok());
    for (const Problem& p : solution.notes())
      if (p.text.find("thinner than 1/1000") != std::string::npos) return true;
    return false;
  };
  CHECK(told(0.5_mm));
  CHECK_FALSE(told(5_mm));
}

TEST_CASE("Roots drawn by short lines give the figures of the rolled profile, whichever side is the heavier") {
  const IProfile rolled{.height = 100_mm, .width = 80_mm, .web = 6_mm, .flange = 8_mm, .root = 10_mm};
  // `wider`: of the upper flange, which takes one of the two lines of symmetry away.
  const auto drawn = [&](int chords, double wider) {
    Outline o;
    const auto add = [&](double z, double y) { o.points.push_back({Length::si(z), Length::si(y)}); };
    const double b = 0.04, h = 0.1, t = 0.008, w = 0.003, r = 0.01;
    const auto root = [&](double cz, double cy, double from) {
      for (int i = 0; i <= chords; ++i) {
        const double a = from - pi / 2 * i / chords;
        add(cz + r * std::cos(a), cy + r * std::sin(a));
      }
    };
    add(-b, 0), add(b, 0), add(b, t), root(w + r, t + r, -pi / 2), root(w + r, h - t - r, pi);
    add(b + wider, h - t), add(b + wider, h), add(-b - wider, h), add(-b - wider, h - t);
    root(-w - r, h - t - r, pi / 2), root(-w - r, t + r, 0), add(-b, t);
    return o;
  };
  const Section exact(rolled), fine(drawn(45, 0)), coarse(drawn(12, 0));
  for (const Section* s : {&fine, &coarse}) {
    const double close = s == &fine ? 3e-4 : 5e-3;
    CHECK(s->properties().J.si() == Approx(exact.properties().J.si()).epsilon(close));
    CHECK(s->properties().Ay.si() == Approx(exact.properties().Ay.si()).epsilon(close));
    CHECK(s->properties().Az.si() == Approx(exact.properties().Az.si()).epsilon(close));
    CHECK(worst_torsion(*s) == Approx(worst_torsion(exact)).epsilon(10 * close));
    // What is symmetric is so to the last digit.
    CHECK(s->properties().Iyz.si() == 0);
    CHECK(s->properties().shear_centre_y.si() == 0);
    CHECK(s->properties().shear_centre_z.si() == 0);
  }
  // Half as symmetric: the same as without any, which a corner moved by a hair takes away.
  const Outline half = drawn(45, 0.01);
  Outline hair = half;
  hair.points.front().z = hair.points.front().z + Length::si(1e-9);
  const SectionProperties a = Section(half).properties(), b = Section(hair).properties();
  CHECK(a.shear_centre_z.si() == 0);
  CHECK(a.shear_centre_y.si() == Approx(b.shear_centre_y.si()).epsilon(1e-4));
  CHECK(a.J.si() == Approx(b.J.si()).epsilon(1e-5));
  CHECK(a.Ay.si() == Approx(b.Ay.si()).epsilon(1e-5));
  CHECK(a.Az.si() == Approx(b.Az.si()).epsilon(1e-5));
  CHECK(worst_torsion(Section(half)) == Approx(worst_torsion(Section(hair))).epsilon(1e-3));
}

TEST_CASE("A square drawn hollow has the figures of the tube") {
  const auto square = [](double half) {
    const Length a = Length::si(half);
    return std::vector<Outline::Point>{{-a, -a}, {a, -a}, {a, a}, {-a, a}};
  };
  const SectionProperties drawn = Section(Outline{.points = square(0.03), .holes = {square(0.026)}}).properties(),
                          tube = Section(SquareTube{.width = 60_mm, .wall = 4_mm}).properties();
  CHECK(drawn.J.si() == Approx(tube.J.si()).epsilon(2e-5));
  CHECK(drawn.Ay.si() == Approx(tube.Ay.si()).epsilon(2e-5));
  CHECK(drawn.Az.si() == Approx(tube.Az.si()).epsilon(2e-5));
}

}  // namespace tests_of_section_outlines
