// The members' own axes: y is up, for vertical members it is global x; roll turns y and z about x.
#include <cmath>
#include <corvex/structure.hpp>

#include "support/near.hpp"

namespace tests_of_structure_axes {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;

namespace {

Axes axes(const Vector& along, double roll = 0, Up up = Up::z, bool plane = false) {
  Structure s = plane ? Structure::plane("axes") : Structure::space("axes", up);
  const auto a = s.point("A", 1_m, 2_m, plane ? 0_m : 3_m);
  const auto b = s.point("B", Length::si(1 + along.x), Length::si(2 + along.y), Length::si((plane ? 0 : 3) + along.z));
  const auto section = s.section("bar", RoundBar{.diameter = 20_mm});
  const auto m = s.member("m", {a, b}, {.section = section, .material = material("S235"), .roll = Angle::si(roll)});
  return local_axes(s, s[m]);
}

void check(const Vector& v, const Vector& expected) {
  INFO(v.x << " " << v.y << " " << v.z << " expected " << expected.x << " " << expected.y << " " << expected.z);
  CHECK(length(v - expected) < 1e-14);
}

}  // namespace

TEST_CASE("In the plane y is up, whichever way the member was drawn") {
  check(axes({2, 0, 0}, 0, Up::y, true).y, {0, 1, 0});
  check(axes({2, 0, 0}, 0, Up::y, true).z, {0, 0, 1});
  check(axes({-2, 0, 0}, 0, Up::y, true).y, {0, 1, 0});
  check(axes({-2, 0, 0}, 0, Up::y, true).z, {0, 0, -1});
  check(axes({0, 3, 0}, 0, Up::y, true).y, {1, 0, 0});
  check(axes({0, -3, 0}, 0, Up::y, true).y, {1, 0, 0});
  check(axes({3, 4, 0}, 0, Up::y, true).y, {-0.8, 0.6, 0});
}

TEST_CASE("In space y is up made square to the member") {
  check(axes({1, 0, 0}).y, {0, 0, 1});
  check(axes({1, 0, 0}).z, {0, -1, 0});
  check(axes({0, 1, 0}).y, {0, 0, 1});
  check(axes({0, 0, 1}).y, {1, 0, 0});
  check(axes({0, 0, -1}).y, {1, 0, 0});
  check(axes({3, 0, 4}).y, {-0.8, 0, 0.6});
  check(axes({1, 0, 0}, 0, Up::y).y, {0, 1, 0});
  check(axes({0, 1, 0}, 0, Up::y).y, {1, 0, 0});
}

TEST_CASE("Within one degree of vertical a member counts as vertical") {
  const double inside = std::tan(0.99 * 3.14159265358979 / 180), outside = std::tan(1.01 * 3.14159265358979 / 180);
  CHECK(axes({0, inside, 1}).y.x == Approx(1));
  CHECK(axes({0, outside, 1}).y.x == Approx(0).margin(1e-12));
  CHECK(axes({0, outside, 1}).y.y == Approx(-1).epsilon(1e-3));
}

TEST_CASE("Roll turns y towards z") {
  const double quarter = 1.5707963267948966;
  check(axes({1, 0, 0}, quarter).y, {0, -1, 0});
  check(axes({1, 0, 0}, quarter).z, {0, 0, -1});
  check(axes({1, 0, 0}, 2 * quarter).y, {0, 0, -1});
  const Axes a = axes({1, 0, 0}, 0.3);
  check(a.y, {0, -std::sin(0.3), std::cos(0.3)});
}

TEST_CASE("The axes are square and right-handed for any direction") {
  for (int i = 0; i < 200; ++i) {
    const double u = std::sin(i * 1.7), v = std::cos(i * 2.3), w = std::sin(i * 0.9 + 1);
    const Axes a = axes({u, v, w}, i * 0.1);
    CHECK(length(a.x) == Approx(1));
    CHECK(length(a.y) == Approx(1));
    CHECK(dot(a.x, a.y) == Approx(0).margin(1e-14));
    check(cross(a.x, a.y), a.z);
    const Vector g{1, -2, 3};
    check(a.global(a.local(g)), g);
  }
}

}  // namespace tests_of_structure_axes
