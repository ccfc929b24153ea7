// The worst place of a section, against closed forms.
#include <cmath>
#include <corvex/corvex.hpp>
#include <numbers>

#include "support/near.hpp"

namespace tests_of_result_worst_stress {

using namespace corvex;
using namespace corvex::test;
using namespace corvex::literals;
using namespace corvex::units;

namespace {

// What a section tells of six forces at the tip of a cantilever: with the signs of docs/theory.md.
struct Forces {
  double N = 0, Vy = 0, Vz = 0, T = 0, My = 0, Mz = 0;
};
StressExtreme worst(const Section& section, const Forces& f) {
  Structure s = Structure::space("tip");
  const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 1_m, 0_m, 0_m);
  s.member("arm", {a, b}, {.section = s.section("own", section), .material = material("S355")});
  s.support(a, Support::fixed());
  const Axes axes = local_axes(s, s.members()[0]);
  const Vector force = axes.global({f.N, -f.Vy, -f.Vz}), moment = axes.global({f.T, -f.My, f.Mz});
  s.load_case("tip")
      .at(b, Force{ForceSize::si(force.x), ForceSize::si(force.y), ForceSize::si(force.z)})
      .at(b, Moment{MomentSize::si(moment.x), MomentSize::si(moment.y), MomentSize::si(moment.z)});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  return *solution[0]["arm"].von_mises_at(1_m, Side::before);
}
double worst_value(const Section& section, const Forces& f) {
  return worst(section, f).value.si();
}

// Saint-Venant's series of a rectangle of half sides a ≤ b: stress on the long side at the distance y from its middle,
// and in the middle of the short side.
double short_middle(double a, double b, double T);
double long_side(double a, double b, double y, double T) {
  constexpr double pi = std::numbers::pi;
  double J = 0, sum = 0;
  for (int n = 1; n < 2001; n += 2) {
    J += std::tanh(n * pi * b / (2 * a)) / std::pow(n, 5);
    const double k = n * pi / (2 * a);
    const double term = (std::exp(-k * (b - y)) + std::exp(-k * (b + y))) / (1 + std::exp(-2 * k * b)) / (n * n);
    sum += term;
    if (n > 41 && term < 1e-12) break;
  }
  J = 16 * a * a * a * b / 3 * (1 - 192 * a / (std::pow(pi, 5) * b) * J);
  return T / J * (2 * a - 16 * a / (pi * pi) * sum);
}

double short_middle(double a, double b, double T) {
  constexpr double pi = std::numbers::pi;
  double sum = 0, alternating = 0, sign = 1;
  for (int n = 1; n < 4001; n += 2, sign = -sign) {
    const double t = std::tanh(n * pi * b / (2 * a));
    sum += t / std::pow(n, 5);
    alternating += sign * t / (static_cast<double>(n) * n);
  }
  const double J = 16 * a * a * a * b / 3 * (1 - 192 * a / (std::pow(pi, 5) * b) * sum);
  return T / J * 16 * a / (pi * pi) * alternating;
}

}  // namespace

TEST_CASE("Rectangles of 1 : 1 to 1 : 100 bent and twisted: the worst place of the long side, by the series") {
  for (const double ratio : {1.0, 1.5, 2.0, 5.0, 20.0, 100.0})
    for (const double share : {0.3, 1.0, 3.0}) {
      const double a = 0.0025, b = a * ratio;
      const Section bar = RectangularBar{.height = Length::si(2 * b), .width = Length::si(2 * a)};
      const double Mz = 100, I = 2 * a * std::pow(2 * b, 3) / 12, bend = Mz * b / I;
      const double T = share * bend / (std::sqrt(3.0) * long_side(a, b, 0, 1));
      double most = std::hypot(bend, std::sqrt(3.0) * short_middle(a, b, T));
      for (int i = 0; i <= 2000; ++i) {
        const double y = b * i / 2000, sigma = bend * y / b, tau = long_side(a, b, std::min(y, b * (1 - 1e-9)), T);
        most = std::max(most, std::sqrt(sigma * sigma + 3 * tau * tau));
      }
      INFO(ratio << " " << share);
      CHECK(worst_value(bar, {.T = T, .Mz = Mz}) == Approx(most).epsilon(1e-3));
      // The same lying.
      CHECK(worst_value(RectangularBar{.height = Length::si(2 * a), .width = Length::si(2 * b)}, {.T = T, .My = Mz}) ==
            Approx(most).epsilon(1e-3));
    }
}

TEST_CASE("Flats that were 7 to 29 % too safe") {
  const Section flat = RectangularBar{.height = 100_mm, .width = 5_mm};
  const StressExtreme all = worst(flat, {.T = 41.937, .My = 16.667, .Mz = 500});
  CHECK(all.value.in(MPa) == Approx(128.2).epsilon(2e-3));
  CHECK(std::abs(all.y->in(mm)) == Approx(44).epsilon(0.02));
  CHECK(std::abs(all.z->in(mm)) == Approx(2.5));
  CHECK(worst_value(flat, {.T = 69.895, .Mz = 833.333}) == Approx(171.7e6).epsilon(1e-3));
}

TEST_CASE("Square and round bars bear 1.5 V/A in their middle, whatever the direction of V") {
  const double V = 10e3;
  for (int i = 0; i < 24; ++i) {
    const double angle = i * std::numbers::pi / 12, Vy = V * std::cos(angle), Vz = V * std::sin(angle);
    const double square = 1.5 * V / (0.03 * 0.03), round = 1.5 * V / (std::numbers::pi * 0.02 * 0.02);
    const StressExtreme s = worst(RectangularBar{.height = 30_mm, .width = 30_mm}, {.Vy = Vy, .Vz = Vz}),
                        r = worst(RoundBar{.diameter = 40_mm}, {.Vy = Vy, .Vz = Vz});
    CHECK(s.value.si() == Approx(std::sqrt(3.0) * square).epsilon(1e-9));
    CHECK(r.value.si() == Approx(std::sqrt(3.0) * round).epsilon(1e-9));
    CHECK(std::hypot(r.y->si(), r.z->si()) < 1e-9);
  }
}

TEST_CASE("Tubes of every wall bear the shear of the exact ring at their bore, and torsion at their rim") {
  for (const double r : {0.001, 0.005, 0.01, 0.015, 0.02, 0.025, 0.029}) {
    const double R = 0.03, V = 10e3, I = std::numbers::pi / 4 * (std::pow(R, 4) - std::pow(r, 4));
    const Section tube = RoundTube{.diameter = Length::si(2 * R), .wall = Length::si(R - r)};
    const double bore = (3 * R * R + r * r) / 4 * V / I;
    INFO(r);
    const StressExtreme w = worst(tube, {.Vy = V * 0.6, .Vz = V * 0.8});
    CHECK(w.value.si() == Approx(std::sqrt(3.0) * bore).epsilon(2e-5));
    CHECK(std::hypot(w.y->si(), w.z->si()) == Approx(r).epsilon(1e-6));
    CHECK(worst_value(tube, {.T = 500}) == near(std::sqrt(3.0) * 500 * R / (2 * I)));
    // All at once on a dense grid of the exact field.
    const Forces f{.N = 20e3, .Vy = 9e3, .Vz = -4e3, .T = 150, .My = 60, .Mz = -90};
    double most = 0;
    for (int i = 0; i <= 60; ++i)
      for (int k = 0; k < 720; ++k) {
        const double rho = r + (R - r) * i / 60, angle = k * std::numbers::pi / 360, c = std::cos(angle),
                     s = std::sin(angle);
        const double g = 3 * (R * R + r * r) / 8 * rho + 3 * R * R * r * r / (8 * rho) - std::pow(rho, 3) / 8;
        const double dg = 3 * (R * R + r * r) / 8 - 3 * R * R * r * r / (8 * rho * rho) - 3 * rho * rho / 8;
        const double sigma = f.N / tube.area().si() - (f.Mz * rho * c + f.My * rho * s) / I;
        // −V on the face; θ from y towards z.
        const double along_r = -(f.Vy * c + f.Vz * s) * dg / I;
        const double along_angle = -(-f.Vy * s + f.Vz * c) * g / rho / I + f.T * rho / (2 * I);
        most = std::max(most, sigma * sigma + 3 * (along_r * along_r + along_angle * along_angle));
      }
    CHECK(worst_value(tube, f) == Approx(std::sqrt(most)).epsilon(3e-4));
    CHECK(worst_value(tube, f) >= std::sqrt(most) * (1 - 1e-5));
  }
}

TEST_CASE("Equilateral triangle and ellipse under torsion and bending") {
  SECTION("triangle: stress function of three lines") {
    // Height 3c: τ is largest in the middle of each side, 15√3 T/(2·…): τ = 20 T/a³ with the side a.
    const double a = 0.06, h = a * std::sqrt(3.0) / 2;
    const Section triangle =
        Outline{.points = {{0_mm, 0_mm}, {Length::si(a), 0_mm}, {Length::si(a / 2), Length::si(h)}}};
    CHECK(worst_value(triangle, {.T = 100}) == Approx(std::sqrt(3.0) * 20 * 100 / std::pow(a, 3)).epsilon(1e-3));
    // Prandtl's function is the product of the distances from the sides; σ by bending about z.
    const double I = a * std::pow(h, 3) / 36, T = 100, Mz = 150;
    double most = 0;
    for (int i = 1; i < 4000; ++i) {
      // The lower side: the gradient is the product of the other two distances.
      const double z = a * i / 4000, d1 = z * std::sqrt(3.0) / 2, d2 = (a - z) * std::sqrt(3.0) / 2;
      const double tau = 20 * T / std::pow(a, 3) * d1 * d2 / (3 * a * a / 16), sigma = Mz * (h / 3) / I;
      most = std::max(most, std::sqrt(sigma * sigma + 3 * tau * tau));
      // A sloping side, by its distance from the apex.
      const double slope_y = 2 * h / 3 - h * i / 4000, tau_slope = tau, bend = Mz * slope_y / I;
      most = std::max(most, std::sqrt(bend * bend + 3 * tau_slope * tau_slope));
    }
    CHECK(worst_value(triangle, {.T = T, .Mz = Mz}) == Approx(most).epsilon(1e-3));
  }
  SECTION("ellipse: τ = 2T/(πab)·√(y²/a⁴ + z²/b⁴) on the outline") {
    const double a = 0.05, b = 0.03, T = 1000, Mz = 900, My = 400;  // half axes along y and z
    Outline drawn;
    constexpr int n = 200;
    for (int i = 0; i < n; ++i) {
      const double angle = 2 * std::numbers::pi * i / n;
      drawn.points.push_back({Length::si(b * std::cos(angle)), Length::si(a * std::sin(angle))});
    }
    const double pi = std::numbers::pi, Iz = pi * std::pow(a, 3) * b / 4, Iy = pi * a * std::pow(b, 3) / 4;
    for (const double bend : {0.0, 0.3, 1.0}) {
      double most = 0;
      for (int i = 0; i < 20000; ++i) {
        const double t = 2 * pi * i / 20000, y = a * std::sin(t), z = b * std::cos(t);
        const double tau = 2 * T / (pi * a * b) * std::hypot(y / (a * a), z / (b * b));
        const double sigma = bend * (Mz * y / Iz + My * z / Iy);
        most = std::max(most, std::sqrt(sigma * sigma + 3 * tau * tau));
      }
      CHECK(worst_value(drawn, {.T = T, .My = bend * My, .Mz = bend * Mz}) == Approx(most).epsilon(1e-3));
    }
  }
}

TEST_CASE("The worst stress does not depend on how an outline is drawn") {
  const Forces f{.N = 8e3, .Vy = 6e3, .Vz = -3e3, .T = 60, .My = 120, .Mz = 250};
  const std::vector<std::pair<double, double>> corners{{0, 0},  {40, 0},  {40, 6},  {5, 6},
                                                       {5, 60}, {20, 60}, {20, 65}, {0, 65}};
  const auto section = [](const std::vector<std::pair<double, double>>& at, double turn = 0) {
    Outline o;
    const double c = std::cos(turn), s = std::sin(turn);
    for (const auto& [z, y] : at)
      o.points.push_back({Length::si((c * z - s * y) / 1e3), Length::si((s * z + c * y) / 1e3)});
    return Section(o);
  };
  const double value = worst_value(section(corners), f);
  SECTION("collinear points") {
    auto more = corners;
    more.insert(more.begin() + 1, {{7, 0}, {11.3, 0}, {30, 0}});
    more.push_back({0, 31});
    more.push_back({0, 17.7});
    CHECK(worst_value(section(more), f) == Approx(value).epsilon(1e-9));
  }
  SECTION("another first corner, the other sense") {
    auto turned = corners;
    std::rotate(turned.begin(), turned.begin() + 3, turned.end());
    CHECK(worst_value(section(turned), f) == Approx(value).epsilon(1e-6));
    std::reverse(turned.begin(), turned.end());
    CHECK(worst_value(section(turned), f) == Approx(value).epsilon(1e-6));
  }
  SECTION("turned together with its loads") {
    for (const double turn : {0.3, 1.1, 2.0, 3.5}) {
      // z to the right and y up turn by +turn; a vector of components (y, z) turns with them.
      const double c = std::cos(turn), s = std::sin(turn);
      const auto turned = [&](double y, double z) { return std::pair(c * y + s * z, c * z - s * y); };
      const auto [Vy, Vz] = turned(f.Vy, f.Vz);
      const auto [Mz, My] = turned(f.Mz, f.My);
      CHECK(worst_value(section(corners, turn), {f.N, Vy, Vz, f.T, My, Mz}) == Approx(value).epsilon(1e-3));
    }
  }
  SECTION("arcs drawn finer") {
    const auto rounded = [](int steps) {
      Outline o;
      const double pi = std::numbers::pi;
      for (const auto& [z, y, from] :
           {std::tuple(20.0, -20.0, -0.5), {20.0, 20.0, 0.0}, {-20.0, 20.0, 0.5}, {-20.0, -20.0, 1.0}})
        for (int i = 0; i <= steps; ++i) {
          const double angle = pi * (from + 0.5 * i / steps);
          o.points.push_back(
              {Length::si((z + 12 * std::cos(angle)) / 1e3), Length::si((y + 20 * std::sin(angle)) / 1e3)});
        }
      return Section(o);
    };
    const double fine = worst_value(rounded(48), f);
    CHECK(worst_value(rounded(24), f) == Approx(fine).epsilon(1e-3));
    CHECK(worst_value(rounded(96), f) == Approx(fine).epsilon(1e-3));
  }
}

TEST_CASE("Along the member the worst place is a root") {
  // A flat on two supports under a line load, twisted: the worst place wanders from the middle of the long side at the
  // ends to its edge at midspan; every place of the member is at most as bad as what is told.
  Structure s = Structure::space("span");
  const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 1_m, 0_m, 0_m);
  const auto m = s.member("flat", {a, b},
                          {.section = s.section("flat", Section(RectangularBar{.height = 60_mm, .width = 8_mm})),
                           .material = material("S355")});
  s.support(a, Support::hold({Dof::x, Dof::y, Dof::z, Dof::rx}));
  s.support(b, Support::hold({Dof::y, Dof::z}));
  s.load_case("both")
      .line(m, LineForce{.z = -3_kN_per_m}, LineForce{.y = 0.1_kN_per_m, .z = -1_kN_per_m})
      .at(b, Moment{.x = 60_N_m});
  const Solution solution = solve(s);
  INFO((solution.ok() ? "" : solution.problems().front().text));
  REQUIRE(solution.ok());
  const MemberResult r = solution[0]["flat"];
  const StressExtreme worst = *r.von_mises();
  double most = 0;
  for (int i = 0; i <= 500; ++i) most = std::max(most, r.von_mises_at(Length::si(i / 500.0))->value.si());
  CHECK(worst.value.si() >= most * (1 - 1e-9));
  CHECK(worst.value.si() == Approx(most).epsilon(1e-4));
}

TEST_CASE("Local shear stress converges as J does, at the feet of fillets and beside holes too") {
  const Shape shape =
      GENERATE(Shape(SquareTube{.width = 60_mm, .wall = 4_mm, .corner = 6_mm, .inside_corner = 4_mm}),
               Shape(RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm}),
               Shape(IProfile{.height = 200_mm, .width = 100_mm, .web = 5.6_mm, .flange = 8.5_mm, .root = 12_mm}),
               Shape(IProfile{.height = 100_mm, .width = 60_mm, .web = 5_mm, .flange = 7_mm}),
               Shape(AngleProfile{.height = 100_mm, .width = 50_mm, .wall = 8_mm, .root = 8_mm, .toe = 4_mm}),
               Shape(Channel{.height = 200_mm, .width = 75_mm, .web = 8.5_mm, .flange = 11.5_mm, .root = 11.5_mm}),
               // A tee with a hole in its web.
               Shape(Outline{.points = {{-5_mm, 0_mm},
                                        {5_mm, 0_mm},
                                        {5_mm, 50_mm},
                                        {20_mm, 50_mm},
                                        {20_mm, 60_mm},
                                        {-20_mm, 60_mm},
                                        {-20_mm, 50_mm},
                                        {-5_mm, 50_mm}},
                             .holes = {{{-2_mm, 20_mm}, {2_mm, 20_mm}, {2_mm, 30_mm}, {-2_mm, 30_mm}}}}));
  const Section plain(shape), fine(shape, 3);
  INFO(name(shape));
  CHECK(plain.properties().Wt.si() == Approx(fine.properties().Wt.si()).epsilon(1e-3));
  for (const Forces& f : {Forces{.Vy = 1e3}, {.Vz = 1e3}, {.Vy = 1e3, .Vz = -700, .T = 5}})
    CHECK(worst_value(plain, f) == Approx(worst_value(fine, f)).epsilon(1e-3));
}

TEST_CASE("The worst place along members whose torsion changes too is at least as bad as every place looked at") {
  const Section section =
      GENERATE(Section(Channel{.height = 200_mm, .width = 75_mm, .web = 8.5_mm, .flange = 11.5_mm, .root = 11.5_mm}),
               Section(AngleProfile{.height = 100_mm, .width = 50_mm, .wall = 8_mm, .root = 8_mm, .toe = 4_mm}),
               Section(SquareTube{.width = 60_mm, .wall = 4_mm, .corner = 6_mm, .inside_corner = 4_mm}),
               Section(RoundTube{.diameter = 60.3_mm, .wall = 3.2_mm}), Section(RoundBar{.diameter = 40_mm}));
  for (const double length : {0.15, 0.6, 3.0}) {
    INFO(length);
    Structure s = Structure::space("span");
    const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", Length::si(length), 0_m, 0_m);
    const auto m = s.member("beam", {a, b}, {.section = s.section("own", section), .material = material("S355")});
    s.support(a, Support::hold({Dof::x, Dof::y, Dof::z, Dof::rx}));
    s.support(b, Support::hold({Dof::y, Dof::z, Dof::rx}));
    s.load_case("line")
        .line(m, LineForce{.x = 2_kN_per_m, .z = -3_kN_per_m}, LineForce{.y = 1_kN_per_m, .z = -1_kN_per_m})
        .through(Through::at(20_mm, 35_mm));
    const Solution solution = solve(s);
    REQUIRE(solution.ok());
    const MemberResult r = solution[0]["beam"];
    double most = 0;
    for (int i = 0; i <= 400; ++i)
      most = std::max(most,
                      r.von_mises_at(Length::si(length * i / 400), i == 400 ? Side::before : Side::after)->value.si());
    CHECK(r.von_mises()->value.si() >= most * (1 - 5e-4));
    CHECK(r.von_mises()->value.si() <= most * 1.01);
  }
}

}  // namespace tests_of_result_worst_stress
