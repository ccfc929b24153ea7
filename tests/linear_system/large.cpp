// Structures of every size, so that each way of factorising meets closed forms: dense up to about 100
// degrees of freedom, simplicial to about 1,000, multifrontal beyond.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_linear_system_large {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

TEST_CASE("A cantilever of many pieces is the same cantilever") {
  const int pieces = GENERATE(1, 20, 60, 200, 700, 2000);
  const bool whole = GENERATE(true, false);
  Structure structure = Structure::space("cantilever");
  structure.analysis().shear = false;
  const Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  const auto section = structure.section("tube", tube);
  const MemberOptions o{.section = section, .material = material("S235")};
  std::vector<PointId> points;
  for (int i = 0; i <= pieces; ++i)
    points.push_back(structure.point("P" + std::to_string(i), Length::si(3.0 * i / pieces), 0_m, 0_m));
  if (whole) {
    structure.member("beam", points, o);
  } else {
    for (int i = 0; i < pieces; ++i) structure.member("beam" + std::to_string(i), {points[i], points[i + 1]}, o);
  }
  structure.support(points.front(), Support::fixed());
  structure.load_case("tip").at(points.back(), Force{.y = 300_N, .z = -1_kN}).at(points.back(), Moment{.x = 40_N_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  const auto& p = tube.properties();
  const Displacement d = s[0].displacement(points.back());
  CHECK(d.z.si() == near(-1000 * 9.0 / (210e9 * p.Iz.si())));
  CHECK(d.y.si() == near(300 * 9.0 / (210e9 * p.Iy.si())));
  CHECK(d.rx.si() == near(40 * 3.0 / (210e9 / 2.6 * p.J.si())));
  CHECK(s[0].reaction(points.front()).my.si() == near(-3000));
  CHECK(s[0].balance().error < 1e-9);
}

namespace {

// A tower of square bays, every joint rigid, the feet fixed; loads on its top.
Structure tower(int width, int storeys) {
  Structure structure = Structure::space("tower");
  const auto section = structure.section("leg", SquareTube{.width = 60_mm, .wall = 4_mm});
  const MemberOptions o{.section = section, .material = material("S235")};
  const auto at = [&](int i, int j, int k) {
    return PointId{static_cast<std::size_t>((k * (width + 1) + j) * (width + 1) + i)};
  };
  for (int k = 0; k <= storeys; ++k)
    for (int j = 0; j <= width; ++j)
      for (int i = 0; i <= width; ++i)
        structure.point("P" + std::to_string(i) + "." + std::to_string(j) + "." + std::to_string(k), Length::si(i),
                        Length::si(j), Length::si(k));
  int n = 0;
  const auto join = [&](PointId a, PointId b) { structure.member("m" + std::to_string(n++), {a, b}, o); };
  for (int k = 0; k <= storeys; ++k)
    for (int j = 0; j <= width; ++j)
      for (int i = 0; i <= width; ++i) {
        if (k == 0) structure.support(at(i, j, k), Support::fixed());
        if (k < storeys) join(at(i, j, k), at(i, j, k + 1));
        if (k > 0 && i < width) join(at(i, j, k), at(i + 1, j, k));
        if (k > 0 && j < width) join(at(i, j, k), at(i, j + 1, k));
      }
  structure.load_case("a").at(at(0, 0, storeys), Force{.x = 1_kN, .y = 200_N});
  structure.load_case("b").at(at(width, width, storeys), Force{.y = 1_kN, .z = -3_kN});
  return structure;
}

}  // namespace

TEST_CASE("Towers balance and are reciprocal at any size") {
  const auto size = GENERATE(table<int, int>({{1, 3}, {2, 6}, {3, 20}, {4, 60}}));
  const int width = std::get<0>(size), storeys = std::get<1>(size);
  const Structure structure = tower(width, storeys);
  const Solution s = solve(structure);
  REQUIRE(s.ok());
  CHECK(s["a"].balance().error < 1e-9);
  CHECK(s["b"].balance().error < 1e-9);
  const auto name = [&](int i, int j) {
    return "P" + std::to_string(i) + "." + std::to_string(j) + "." + std::to_string(storeys);
  };
  // Work of the forces of one case along the movements of the other.
  const Displacement ab = s["b"].displacement(name(0, 0)), ba = s["a"].displacement(name(width, width));
  CHECK(1000 * ab.x.si() + 200 * ab.y.si() == Approx(1000 * ba.y.si() - 3000 * ba.z.si()).epsilon(1e-9));
}

TEST_CASE("Many cases solved together are each the same alone") {
  Structure structure = tower(2, 12);
  for (int c = 0; c < 40; ++c)
    structure.load_case("case " + std::to_string(c))
        .at(PointId{static_cast<std::size_t>(20 + 2 * c)}, Force{.x = Length::si(1 + c) * 1_kN / 1_m});
  const Solution all = solve(structure);
  REQUIRE(all.ok());
  Structure one = tower(2, 12);
  one.load_case("case 17").at(PointId{20 + 2 * 17}, Force{.x = 18_kN});
  const Solution alone = solve(one);
  REQUIRE(alone.ok());
  CHECK(all["case 17"].displacement(PointId{100}).x.si() == near(alone["case 17"].displacement(PointId{100}).x));
}

TEST_CASE("Chains of thousands of pieces keep their digits, or are refused") {
  const auto [pieces, holds] = GENERATE(table<int, bool>({{1000, true}, {5000, true}, {30000, false}}));
  Structure structure = Structure::plane("chain");
  structure.analysis().shear = false;
  const Section tube = SquareTube{.width = 60_mm, .wall = 4_mm};
  const auto section = structure.section("tube", tube);
  std::vector<PointId> points;
  for (int i = 0; i <= pieces; ++i)
    points.push_back(
        structure.point("P" + std::to_string(i), Length::si(3.0 * i / pieces), Length::si(2.0 * i / pieces)));
  structure.member("beam", points, {.section = section, .material = material("S235")});
  structure.support(points.front(), Support::fixed());
  structure.load_case("tip").at(points.back(), Moment{.z = 1_kN_m});
  const Solution s = solve(structure);
  REQUIRE(s.ok() == holds);
  if (holds)
    CHECK(s[0].displacement(points.back()).rz.si() ==
          Approx(1000 * std::sqrt(13.0) / (210e9 * tube.properties().Iz.si())).epsilon(1e-6));
  else
    CHECK_THAT(s.problems()[0].text, Catch::Matchers::Contains("no digit is reliable"));
}

}  // namespace tests_of_linear_system_large
