// What was computed for a section is kept while it is used.
#include "section/remembered.hpp"

#include <catch2/catch.hpp>

namespace tests_of_remembered_sections {

using namespace corvex;

namespace {

std::shared_ptr<const section::Worked> bar(int micrometres) {
  return section::remembered(RoundBar{.diameter = Length::si(0.01 + 1e-6 * micrometres)}, 1, {});
}

}  // namespace

TEST_CASE("A section that is used again and again is kept, whatever comes between") {
  const auto first = bar(0);
  for (int i = 1; i <= 3000; ++i) {
    bar(i);
    if (i % 100 == 0) REQUIRE(bar(0) == first);
  }
}

TEST_CASE("Sections that are not used any more are forgotten") {
  const std::weak_ptr<const section::Worked> early = bar(10001);
  for (int i = 0; i < 2000; ++i) bar(20000 + i);
  CHECK(early.expired());
}

}  // namespace tests_of_remembered_sections
