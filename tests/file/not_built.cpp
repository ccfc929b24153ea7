// Keys of the format that cannot be used yet say so: "not built yet", never "unknown"; what they do not touch is
// solved.
#include "support/text.hpp"

using namespace corvex;
using namespace corvex::units;
using Catch::Matchers::Contains;
using namespace corvex::test;

TEST_CASE("Keys that are not built yet") {
  const auto [key, value] = GENERATE(table<std::string, std::string>({{"accept", "[]"}, {"variants", "{}"}}));
  const Model model = read(replaced(sound, "corvex: 1", key + ": " + value));
  REQUIRE(model.notes.size() == 1);
  const std::string text = describe(model.notes[0]);
  INFO(text);
  CHECK_THAT(text, Contains("model.yaml:1:1: warning: '" + key + "' is not built yet: "));
  CHECK(solve(model.structure).ok());
}

TEST_CASE("A limit that is not built yet is told, the others are checked") {
  const Model model = read(replaced(sound, "corvex: 1", "limits: [{safety: 1.5}, {buckling: 3}]"));
  REQUIRE(model.notes.size() == 1);
  CHECK_THAT(describe(model.notes[0]), Contains("model.yaml:1:26: warning: 'buckling' is not built yet"));
  const auto check = check_limits(solve(model.structure), model.limits);
  REQUIRE(check.ok());
  // One that could not be evaluated is not met.
  CHECK(check->verdicts.back().state == Verdict::State::not_checked);
  CHECK(check->count(Verdict::State::met) == check->verdicts.size() - 1);
  CHECK_FALSE(check->all_met());
}
