// choose against an exhaustive search with limits that the test evaluates by itself, from closed forms.
#include <cmath>
#include <corvex/corvex.hpp>
#include <numbers>
#include <random>

#include "support/near.hpp"
#include "support/rows.hpp"

namespace tests_of_study_choose {

using namespace corvex;
using namespace corvex::literals;
using std::numbers::pi;

namespace {

using Random = std::mt19937;
double between(Random& random, double a, double b) {
  return a + (b - a) * (static_cast<double>(random()) / 4294967296.0);
}

// A hinged column under a force and a distributed load across it, or a simple beam; in the plane, braced along its
// length or held at its ends alone.
struct Problem1 {
  bool column = false, braced = false;
  double L = 0, P = 0, q = 0, buckling = 0, sag = 0, frequency = 0;

  explicit Problem1(Random& random)
      : column(random() % 2),
        braced(random() % 2),
        L(between(random, 2, 6)),
        P(column ? between(random, 5e3, 60e3) : 0),
        q(between(random, 0.2e3, 2e3)),
        buckling(between(random, 1.5, 4)),
        sag(1 / between(random, 150, 400)),
        frequency(between(random, 2, 12)) {}

  Structure structure(const Profile& p) const {
    Structure s = Structure::plane("problem");
    const auto id = s.section("bar", p);
    const auto a = s.point("A", 0_m, 0_m),
               b = column ? s.point("B", 0_m, Length::si(L)) : s.point("B", Length::si(L), 0_m);
    s.member("bar", {a, b}, {.section = id, .material = material("S235")});
    s.support(a, Support::pinned());
    s.support(b, column ? Support::hold({Dof::x}) : Support::roller());
    if (braced) s.brace("bar");
    s.analysis().shear = false;
    LoadsOf loads = s.load_case("case");
    loads.at(b, Force{.y = ForceSize::si(-P)});
    loads.line(MemberId(0), column ? LineForce{.x = LineForceSize::si(q)} : LineForce{.y = LineForceSize::si(-q)});
    return s;
  }

  // By closed forms alone: Euler, the beam's deflection, Navier's stress, the beam's frequency. `margin` narrows or
  // widens each bound. Out of the plane: Euler about the weak axis and, of a uniform moment, M_cr: a lower bound.
  bool meets(const Profile& p, double margin) const {
    const SectionProperties& s = p.section.properties();
    const Material steel = material("S235");
    const double E = steel.E.si(), G = steel.shear_modulus().si(), A = s.A.si(), Iz = s.Iz.si(), Iy = s.Iy.si(),
                 m = 7850 * A, M = q * L * L / 8;
    const double in = P > 0 ? pi * pi * E * Iz / (L * L) / P : 1e9, low = std::min(Iz, Iy);
    double out = 1e9, f = pi / (2 * L * L) * std::sqrt(E * Iz / m);
    if (!braced) {
      const double Nz = pi * pi * E * Iy / (L * L), polar = (Iy + Iz) / A, Nt = G * s.J.si() / polar,
                   // The factor of a parabola of moments without warping.
          Mcr = 28.31 / (8 * pi) * pi / L * std::sqrt(E * Iy * G * s.J.si());
      // (1 − αP/Nz)(1 − αP/Nt) = (αM/Mcr)², by bisection.
      double a = 0, b = Nz / std::max(P, 1.0);
      b = std::min(b, 1e6);
      for (int i = 0; i < 200; ++i) {
        const double x = (a + b) / 2;
        ((1 - x * P / Nz) * (1 - x * P / Nt) > std::pow(x * M / Mcr, 2) ? a : b) = x;
      }
      out = a;
      f = pi / (2 * L * L) * std::sqrt(E * low / m);
    }
    const double deflection = 5 * q * std::pow(L, 4) / (384 * E * Iz) / L;
    const double stress = P / A + M / s.Wz.si();
    return std::min(in, out) >= buckling * margin && deflection * margin <= sag && f >= frequency * margin &&
           stress * margin <= 235e6 && P * margin <= pi * pi * E * low / (L * L);
  }
};

}  // namespace

TEST_CASE("choose takes the lightest of an exhaustive search, over 200 random problems") {
  Random random(99);
  // Tubes and round bars, whose warping is nothing: the closed forms hold.
  std::vector<Profile> profiles;
  for (const char* series : {"SHS", "CHS", "RHS"})
    for (const Profile& p : profiles_of(series))
      if (p.section.area_properties().height.si() <= 0.16) profiles.push_back(p);
  const int problems = test::rows(200, 40);
  int chosen = 0;
  for (int i = 0; i < problems; ++i) {
    INFO("problem " << i);
    const Problem1 problem(random);
    std::vector<Profile> some;
    for (int k = 0; k < 12; ++k) some.push_back(profiles[random() % profiles.size()]);
    Choosing wanted{.groups = {{.section = "bar", .from = some}},
                    .limits = {{.kind = Limit::Kind::buckling, .required = problem.buckling},
                               {.kind = Limit::Kind::sag, .required = problem.sag},
                               {.kind = Limit::Kind::frequency, .required = Frequency::si(problem.frequency)}},
                    .runners_up = 0,
                    .threads = 1};
    const auto choice = choose(problem.structure(some.front()), wanted);
    REQUIRE(choice.ok());
    double lightest_strict = 1e9, lightest_loose = 1e9;
    for (const Profile& p : some) {
      const double mass = p.section.area().si();
      if (problem.meets(p, 1.03)) lightest_strict = std::min(lightest_strict, mass);
      if (problem.meets(p, 0.98)) lightest_loose = std::min(lightest_loose, mass);
    }
    if (choice->found.empty()) {
      CHECK(lightest_strict == 1e9);
      continue;
    }
    ++chosen;
    const double mass = choice->found.front().mass.si() / (7850 * problem.L);
    // Never lighter than what meets the limits by the closed forms, nor heavier than what does with a margin.
    CHECK(mass >= lightest_loose * (1 - 1e-9));
    CHECK(mass <= lightest_strict * (1 + 1e-9));
  }
  CHECK(chosen > problems / 4);
}

}  // namespace tests_of_study_choose
