// Where stress is evaluated, and the shear stress there: against V S/(I b) and T worked out by hand.
#include <cmath>
#include <corvex/section.hpp>

#include "support/near.hpp"

using namespace corvex;
using namespace corvex::literals;
using corvex::test::near;

namespace {

const StressPoint& at(const StressMap& map, double y, double z) {
  for (const StressPoint& p : map.points)
    if (std::abs(p.y - y) < 1e-12 && std::abs(p.z - z) < 1e-12) return p;
  FAIL("no point of stress at " << y << ", " << z);
  return map.points.front();
}

}  // namespace

TEST_CASE("A rectangle: three halves of the mean shear at its axis, none at the corners") {
  const auto map = Section(RectangularBar{.height = 80_mm, .width = 30_mm}).stress_map();
  CHECK(map.points.size() == 8);
  CHECK(at(map, 0, 0.015).vy == near(1.5 / (0.08 * 0.03)));
  CHECK(at(map, 0.04, 0).vz == near(1.5 / (0.08 * 0.03)));
  CHECK(at(map, 0.04, 0.015).vy == 0);
  CHECK(at(map, 0.04, 0.015).ty == 0);
  // Torsion runs round: opposite on opposite sides, larger on the long ones.
  CHECK(at(map, 0, 0.015).ty == near(-at(map, 0, -0.015).ty));
  CHECK(at(map, 0.04, 0).tz == near(-at(map, -0.04, 0).tz));
  CHECK(std::abs(at(map, 0, 0.015).ty) > std::abs(at(map, 0.04, 0).tz));
}

TEST_CASE("A tube: the webs bear the shear, and torsion flows round the wall") {
  const double h = 0.12, w = 0.06, t = 0.005;
  const Section tube = RectangularTube{.height = Length::si(h), .width = Length::si(w), .wall = Length::si(t)};
  const auto map = tube.stress_map();
  const double Iz = tube.properties().Iz.si();
  const double flange = w * t * (h - t) / 2;
  const double half = flange + 2 * t * std::pow(h / 2 - t, 2) / 2;
  CHECK(at(map, 0, w / 2).vy == near(half / (Iz * 2 * t)));
  CHECK(at(map, h / 2 - t, w / 2).vy == near(flange / (Iz * 2 * t)));
  const double Am = (h - t) * (w - t), u = 2 * (h + w - 2 * t), J = tube.properties().J.si();
  // Bredt's T/(2 Am t) on the middle line, and the open wall's T t/J on its surface.
  CHECK(std::abs(at(map, 0, w / 2).ty) == near((2 * Am / u + t) / J));
  // In a thin wall Bredt's flow is all there is.
  const auto thin = Section(RectangularTube{.height = 120_mm, .width = 60_mm, .wall = 0.2_mm}).stress_map();
  CHECK(std::abs(at(thin, 0, w / 2).ty) == Approx(1 / (2 * 0.1198 * 0.0598 * 0.0002)).epsilon(0.01));
}

TEST_CASE("Round sections: 4/3 of the mean shear solid, twice the mean in a thin ring") {
  const Section bar = RoundBar{.diameter = 40_mm};
  CHECK(bar.stress_map().kind == StressMap::Kind::rim);
  CHECK(bar.stress_map().shear_peak * bar.properties().A.si() == near(4.0 / 3));
  CHECK(bar.stress_map().torsion_rim == near(0.02 / bar.properties().J.si()));
  const Section ring = RoundTube{.diameter = 1000_mm, .wall = 1_mm};
  CHECK(ring.stress_map().shear_peak * ring.properties().A.si() == Approx(2).epsilon(1e-5));
}
