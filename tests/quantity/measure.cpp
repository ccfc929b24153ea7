// Quantities whose dimension is part of their type, and those that know it at run time.
#include <corvex/quantity.hpp>

#include "support/near.hpp"

namespace tests_of_quantity_measure {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

namespace {

template <class A, class B>
concept Adds = requires(A a, B b) {
  a + b;
};
template <class A, class B>
concept Compares = requires(A a, B b) {
  a < b;
};

}  // namespace

TEST_CASE("What does not add does not compile") {
  STATIC_REQUIRE(Adds<Length, Length>);
  STATIC_REQUIRE_FALSE(Adds<Length, ForceSize>);
  STATIC_REQUIRE_FALSE(Adds<Length, double>);
  STATIC_REQUIRE_FALSE(Compares<Length, Angle>);
  STATIC_REQUIRE_FALSE(std::is_convertible_v<double, Length>);
  STATIC_REQUIRE(std::is_same_v<decltype(3_kN * 2_m), MomentSize>);
  STATIC_REQUIRE(std::is_same_v<decltype(3_kN / 2_m), LineForceSize>);
  STATIC_REQUIRE(std::is_same_v<decltype(3_kN / 2_kN), double>);
  STATIC_REQUIRE(std::is_same_v<decltype(3_kN / (2_m * 1_m)), Stress>);
}

TEST_CASE("Numbers go in and out in any unit") {
  CHECK((2.4_m).in(mm) == near(2400));
  CHECK((3.2_kN * 2.4_m / 4).in(N_m) == near(1920));
  CHECK((1_inch).in(mm) == near(25.4));
  CHECK((1_lbf).in(N) == near(4.4482216152605));
  CHECK((180_deg).si() == near(3.14159265358979323846));
  CHECK(-3.2_kN + 1_kN == -2.2_kN);
  CHECK(2_m > 1999_mm);
  Length sum = 1_m;
  sum += 20_cm;
  sum -= 5_mm;
  CHECK(sum.si() == near(1.195));
}

TEST_CASE("A quantity answers only in a unit of its own kind") {
  const Quantity q(3.2_kN * 2_m);
  CHECK(q.in(kN_m) == near(6.4));
  CHECK_THROWS_AS(q.in(m), std::invalid_argument);
  CHECK(name(q.dimension) == "a moment");
  CHECK(name(power(dimension::length, 5)) == "m^5");
  CHECK(name(dimension::stress / dimension::length) == "kg/(m^2*s^2)");
  CHECK(compatible(dimension::moment, dimension::moment / dimension::angle));
  CHECK(name(Dimension::of(2, 1, -2, 0, -1)) == "a moment");
}

}  // namespace tests_of_quantity_measure
