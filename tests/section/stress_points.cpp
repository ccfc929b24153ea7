// Where stress is evaluated, and the shear stress there: against V S/(I b) and T worked out by hand.
#include <algorithm>
#include <cmath>
#include <corvex/section.hpp>

#include "support/near.hpp"

namespace tests_of_section_stress_points {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

namespace {

// The sample nearest to a place.
const StressPoint& at(const StressMap& map, double y, double z) {
  const auto nearer = [&](const StressPoint& a, const StressPoint& b) {
    return std::hypot(a.y - y, a.z - z) < std::hypot(b.y - y, b.z - z);
  };
  return *std::min_element(map.points.begin(), map.points.end(), nearer);
}

}  // namespace

TEST_CASE("A rectangle: three halves of the mean shear at its axis, none at the corners") {
  const auto map = Section(RectangularBar{.height = 80_mm, .width = 30_mm}).stress_map();
  CHECK(std::abs(at(map, 0, 0.015).vy) == near(1.5 / (0.08 * 0.03)));
  CHECK(std::abs(at(map, 0.04, 0).vz) == near(1.5 / (0.08 * 0.03)));
  CHECK(at(map, 0.04, 0.015).vy == 0);
  CHECK(at(map, 0.04, 0.015).t == 0);
  // Torsion runs round: opposite on opposite sides, larger on the long ones.
  const auto upwards = [&](double y, double z) { return at(map, y, z).t * at(map, y, z).direction_y; };
  const auto to_the_right = [&](double y, double z) { return at(map, y, z).t * at(map, y, z).direction_z; };
  CHECK(upwards(0, 0.015) == near(-upwards(0, -0.015)));
  CHECK(to_the_right(0.04, 0) == near(-to_the_right(-0.04, 0)));
  CHECK(std::abs(at(map, 0, 0.015).t) > std::abs(at(map, 0.04, 0).t));
  // From y towards z: on the +z side downwards, on top to the right.
  CHECK(at(map, 0, 0.015).t * at(map, 0, 0.015).direction_y < 0);
  CHECK(at(map, 0.04, 0).t * at(map, 0.04, 0).direction_z > 0);
  // The force on the face along +x is −V.
  CHECK(at(map, 0, 0.015).vy * at(map, 0, 0.015).direction_y < 0);
}

TEST_CASE("A rectangle drawn as an outline has the stresses of the series") {
  const Section bar = RectangularBar{.height = 80_mm, .width = 30_mm};
  const Section drawn = Outline{.points = {{0_mm, 0_mm}, {30_mm, 0_mm}, {30_mm, 80_mm}, {0_mm, 80_mm}}};
  for (const auto& [y, z] : {std::pair(0.0, 0.015), {0.0, -0.015}, {0.04, 0.0}, {-0.04, 0.0}, {0.04, 0.015}}) {
    const StressPoint& p = at(bar.stress_map(), y, z);
    const StressPoint& q = at(drawn.stress_map(), p.y, p.z);
    const double way = p.direction_y * q.direction_y + p.direction_z * q.direction_z;
    const double scale = 1 / bar.properties().A.si(), twist = 1 / bar.properties().Wt.si();
    // Samples of both need not stand at the very same place.
    CHECK(q.vy * way == Approx(p.vy).margin(1e-2 * scale));
    CHECK(q.vz * way == Approx(p.vz).margin(1e-2 * scale));
    CHECK(q.t * way == Approx(p.t).margin(2e-2 * twist));
  }
  CHECK(drawn.properties().Wt.si() == Approx(bar.properties().Wt.si()).epsilon(1e-3));
}

TEST_CASE("A tube: the webs bear the shear, and torsion flows round the wall") {
  const double h = 0.12, w = 0.06, t = 0.005;
  const Section tube = RectangularTube{.height = Length::si(h), .width = Length::si(w), .wall = Length::si(t)};
  const auto& map = tube.stress_map();
  const double Iz = tube.properties().Iz.si();
  // V S/(I b) is the mean over both webs exactly; outside and inside differ from it by little, to either side.
  const double half = w * t * (h - t) / 2 + 2 * t * std::pow(h / 2 - t, 2) / 2;
  const double mean = half / (Iz * 2 * t);
  const double outside = std::abs(at(map, 0, w / 2).vy), inside = std::abs(at(map, 0, w / 2 - t).vy);
  CHECK((outside + inside) / 2 == Approx(mean).epsilon(2e-3));
  CHECK(outside == Approx(mean).epsilon(0.02));
  // Bredt's T/(2 Am t) on the middle line, and the open wall's T t/J more on the outside, as much less inside.
  const double Am = (h - t) * (w - t), J = tube.properties().J.si();
  const double out = std::abs(at(map, 0, w / 2).t), in = std::abs(at(map, 0, w / 2 - t).t);
  CHECK((out + in) / 2 == Approx(1 / (2 * Am * t)).epsilon(6e-3));
  CHECK(out - in == Approx(2 * t / J).epsilon(0.02));
  const auto thin = Section(RectangularTube{.height = 120_mm, .width = 60_mm, .wall = 0.2_mm}).stress_map();
  CHECK(std::abs(at(thin, 0, 0.03).t) == Approx(1 / (2 * 0.1198 * 0.0598 * 0.0002)).epsilon(0.006));
}

TEST_CASE("An I profile: no shear at its corners, V S/(I b) in its web") {
  const Section ipe = IProfile{.height = 200_mm, .width = 100_mm, .web = 5.6_mm, .flange = 8.5_mm, .root = 12_mm};
  const auto& map = ipe.stress_map();
  for (const double y : {0.1, -0.1})
    for (const double z : {0.05, -0.05}) {
      CHECK(at(map, y, z).vy == 0);
      CHECK(at(map, y, z).t == 0);
    }
  const auto& p = ipe.properties();
  CHECK(std::abs(at(map, 0, 0.0028).vy) ==
        Approx(ipe.details().plastic_z.si() / 2 / (p.Iz.si() * 0.0056)).epsilon(1e-3));
  CHECK(std::abs(at(map, 0, 0.0028).t) == Approx(0.0056 / p.J.si()).epsilon(0.01));
  CHECK(std::abs(at(map, 0.1, 0).t) > 0.0085 / p.J.si());
  // The fillets belong to the outline: torsion is largest in them.
  const auto steepest = [](const StressPoint& a, const StressPoint& b) { return std::abs(a.t) < std::abs(b.t); };
  const StressPoint& most = *std::max_element(map.points.begin(), map.points.end(), steepest);
  CHECK(std::hypot(std::abs(most.y) - (0.1 - 0.0085 - 0.012), std::abs(most.z) - 0.0148) == near(0.012));
  CHECK(p.Wt.si() == Approx(1 / std::abs(most.t)).epsilon(1e-2));
}

TEST_CASE("Round sections: the exact shear of the ring at its rim, no shear across it") {
  const auto most = [](const Section& s) {
    double v = 0;
    for (const StressPoint& p : s.stress_map().points) v = std::max(v, std::abs(p.vy));
    return v * s.properties().A.si();
  };
  // The solid bar bears 1.5 V/A in its middle (tests/result/worst_stress.cpp) and V/A at its rim.
  const Section bar = RoundBar{.diameter = 40_mm};
  CHECK(most(bar) == near(1));
  CHECK(std::abs(bar.stress_map().points.front().t) == near(0.02 / bar.properties().J.si()));
  CHECK(bar.properties().Ay.si() == near(bar.properties().A.si() * 6 / 7));
  // τ = (3 R² + r²)/4 · V/I at the bore.
  const double R = 0.03, r = 0.02;
  const Section ring = RoundTube{.diameter = 60_mm, .wall = 10_mm};
  CHECK(most(ring) == near((3 * R * R + r * r) / 4 / ring.properties().Iz.si() * ring.properties().A.si()));
  CHECK(most(RoundTube{.diameter = 1000_mm, .wall = 1_mm}) == Approx(2).epsilon(2e-3));
}

}  // namespace tests_of_section_stress_points
