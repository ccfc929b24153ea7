// Limits and verdicts in words, and what counts as zero.
#include "format/verdicts.hpp"

#include <catch2/catch.hpp>

#include "format/sizes.hpp"

namespace tests_of_verdict_words {

using namespace corvex;

namespace {

Verdict verdict(Limit::Kind kind, const Quantity& required, bool at_least) {
  Verdict v;
  v.kind = kind;
  v.required = required;
  v.at_least = at_least;
  return v;
}

}  // namespace

TEST_CASE("Values of limits are written as engineers write them") {
  const ModelUnits units;
  const Verdict sag = verdict(Limit::Kind::sag, Quantity(1.0 / 300, dimension::number), false);
  CHECK(format::required(sag, units, 4) == "1/300");
  CHECK(format::value(0.004, sag, units, 4) == "1/250");
  CHECK(format::unit_of(sag, units).text.empty());
  CHECK(std::string(format::relation(sag)) == "at most");
  const Verdict safety = verdict(Limit::Kind::safety, Quantity(1.5, dimension::number), true);
  CHECK(format::value(2.34567, safety, units, 5) == "2.35");
  CHECK(std::string(format::relation_sign(safety)) == "≥");
  const Verdict movement = verdict(Limit::Kind::movement, Quantity(0.005, dimension::length), false);
  CHECK(format::value(0.0025, movement, units, 4) == "2.500");
  CHECK(format::unit_of(movement, units).text == "mm");
  Verdict band = verdict(Limit::Kind::frequency, Quantity(5, Dimension::of(0, 0, -1)), true);
  band.band_end = Quantity(8, Dimension::of(0, 0, -1));
  CHECK(format::required(band, units, 4) == "5 to 8");
  CHECK(std::string(format::relation(band)) == "not in");
  Verdict stretch = sag;
  stretch.on = "rail";
  stretch.between = {"A", "B"};
  CHECK(format::subject(stretch) == "rail A-B");
}

TEST_CASE("Below a thousand-millionth of the largest of its kind a figure is zero") {
  const NamedUnit kN{"kN", 1e3};
  CHECK(format::clean(1e-6, kN, 1e4) == 0);
  CHECK(format::clean(-2e3, kN, 1e4) == -2);
  CHECK(format::clean(1e-4, kN, 1e4) == Approx(1e-7));
}

}  // namespace tests_of_verdict_words
