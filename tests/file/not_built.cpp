// Keys of the format that cannot be used yet say so: "not built yet", never "unknown".
#include "support/text.hpp"

using namespace corvex;
using Catch::Matchers::Contains;
using corvex::test::refusal;

TEST_CASE("Keys that are not built yet") {
  const auto [what, by, name] = GENERATE(table<std::string, std::string, std::string>({
      {"corvex: 1", "combinations: {service: {push: 1}}", "'combinations'"},
      {"corvex: 1", "limits: [{safety: 1.5}]", "'limits'"},
      {"corvex: 1", "accept: []", "'accept'"},
      {"corvex: 1", "variants: {}", "'variants'"},
  }));
  const std::string text = refusal(corvex::test::replaced(corvex::test::sound, what, by));
  INFO(text);
  CHECK_THAT(text, Contains("not built yet") && Contains(name));
  CHECK_THAT(text, !Contains("is not a"));
}
