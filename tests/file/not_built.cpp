// Keys of the format that cannot be used yet say so: "not built yet", never "unknown"; what they do not touch is
// solved.
#include "support/text.hpp"

using namespace corvex;
using namespace corvex::units;
using Catch::Matchers::Contains;
using namespace corvex::test;

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
