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
  CHECK(std::abs(at(map, 0, 0.015).vy) == near(1.5 / (0.08 * 0.03)));
  CHECK(std::abs(at(map, 0.04, 0).vz) == near(1.5 / (0.08 * 0.03)));
  CHECK(at(map, 0.04, 0.015).vy == 0);
  CHECK(at(map, 0.04, 0.015).t == 0);
  // Torsion runs round: opposite on opposite sides, larger on the long ones.
  CHECK(at(map, 0, 0.015).t == near(-at(map, 0, -0.015).t));
  CHECK(at(map, 0.04, 0).t == near(-at(map, -0.04, 0).t));
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
  for (const StressPoint& p : bar.stress_map().points) {
    const StressPoint& q = at(drawn.stress_map(), p.y, p.z);
    const double way = p.direction_y * q.direction_y + p.direction_z * q.direction_z;
    const double scale = 1 / bar.properties().A.si(), twist = 1 / bar.properties().Wt.si();
    CHECK(q.vy * way == Approx(p.vy).margin(1e-4 * scale));
    CHECK(q.vz * way == Approx(p.vz).margin(1e-4 * scale));
    CHECK(q.t * way == Approx(p.t).margin(4e-3 * twist));
  }
  CHECK(drawn.properties().Wt.si() == Approx(bar.properties().Wt.si()).epsilon(5e-3));
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

TEST_CASE("Of an I profile the points are its corners, the feet of its fillets and where the axes cross it") {
  const Section ipe = IProfile{.height = 200_mm, .width = 100_mm, .web = 5.6_mm, .flange = 8.5_mm, .root = 12_mm};
  const auto& map = ipe.stress_map();
  for (const double y : {0.1, -0.1})
    for (const double z : {0.05, -0.05}) {
      CHECK(at(map, y, z).vy == 0);
      CHECK(at(map, y, z).t == 0);
    }
  // Hand formulas: the web carries V S/(I tw); the flange of thickness t twists with T t/J.
  const auto& p = ipe.properties();
  CHECK(std::abs(at(map, 0, 0.0028).vy) ==
        Approx(ipe.details().plastic_z.si() / 2 / (p.Iz.si() * 0.0056)).epsilon(1e-3));
  CHECK(std::abs(at(map, 0, 0.0028).t) == Approx(0.0056 / p.J.si()).epsilon(0.01));
  CHECK(std::abs(at(map, 0.1, 0).t) > 0.0085 / p.J.si());
  at(map, 0.1 - 0.0085 - 0.012, 0.0028);
  at(map, 0.1 - 0.0085, 0.0028 + 0.012);
}

TEST_CASE("Round sections: 4/3 of the mean shear solid, twice the mean in a thin ring") {
  const Section bar = RoundBar{.diameter = 40_mm};
  CHECK(bar.stress_map().kind == StressMap::Kind::rim);
  CHECK(bar.stress_map().shear_peak * bar.properties().A.si() == near(4.0 / 3));
  CHECK(bar.stress_map().torsion_rim == near(0.02 / bar.properties().J.si()));
  const Section ring = RoundTube{.diameter = 1000_mm, .wall = 1_mm};
  CHECK(ring.stress_map().shear_peak * ring.properties().A.si() == Approx(2).epsilon(1e-5));
}
