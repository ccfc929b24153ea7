// A structure that is read and the same one built by a program's own calls answer with the same bytes.
#include <corvex/export.hpp>

#include "support/plan.hpp"
#include "support/schema.hpp"
#include "support/text.hpp"

namespace tests_of_file_same_bytes {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

TEST_CASE("Files and calls give the same bytes of JSON") {
  for (const bool plane : {true, false})
    for (unsigned seed = 2000; seed < 2040; ++seed) {
      INFO((plane ? "plane" : "space") << " frame " << seed);
      const Plan plan = rich_plan(seed, plane);
      const Solution from_file = solve(read(model_file(plan, "m", "N", "N*m")).structure),
                     from_calls = solve(build(plan));
      REQUIRE(from_file.ok());
      REQUIRE(from_calls.ok());
      const std::string a = results_json({.solution = from_file}, {.places = 5}),
                        b = results_json({.solution = from_calls}, {.places = 5});
      check_results(a);
      CHECK(a.size() > 1000);
      CHECK(a == b);
    }
}

}  // namespace tests_of_file_same_bytes
