// Words that engineers type are answered with those of the model file.
#include "support/text.hpp"

namespace tests_of_file_words {

using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

std::string with(const std::string& from, const std::string& to) {
  std::string text = R"(corvex: 1
points: {A: [0, 0], B: [2 m, 0]}
sections: {t: {shape: square tube, width: 60 mm, wall: 4 mm}}
members: {b: {through: [A, B], section: t, material: S235, kind: beam}}
supports: {A: pinned, B: roller}
loads: {l: [{on: b, line: {down: 2 kN/m}}]}
)";
  const std::size_t at = text.find(from);
  REQUIRE(at != std::string::npos);
  return refusal(text.replace(at, from.size(), to));
}

}  // namespace

TEST_CASE("Synonyms of keys, words and names") {
  CHECK_THAT(with("points:", "nodes:"),
             Contains("'nodes' is not a key of a model; did you mean 'points'?") && !Contains("needs 'points'"));
  CHECK_THAT(with("members:", "elements:"), Contains("did you mean 'members'?"));
  CHECK_THAT(with("supports:", "restraints:"), Contains("did you mean 'supports'?"));
  CHECK_THAT(with("line:", "udl:"), Contains("'udl' is not a key of a load; did you mean 'line'?"));
  CHECK_THAT(with("line: {down: 2 kN/m}", "distributed: {down: 2 kN/m}"), Contains("did you mean 'line'?"));
  CHECK_THAT(with("line: {down: 2 kN/m}", "temperature: 30 K"), Contains("did you mean 'heat'?"));
  CHECK_THAT(with("wall:", "thickness:"), Contains("did you mean 'wall'?") && !Contains("needs 'wall'"));
  CHECK_THAT(with("square tube", "pipe"), Contains("'pipe' is not a shape; did you mean 'round tube'?"));
  CHECK_THAT(with("kind: beam", "kind: truss"), Contains("did you mean 'link'?"));
  CHECK_THAT(with("A: pinned", "A: clamped"), Contains("did you mean 'fixed'?"));
  CHECK_THAT(with("S235", "steel"), Contains("there is no material 'steel'; did you mean 'S235' or 'S275' or 'S355'?"));
  CHECK_THAT(with("S235", "St37"), Contains("did you mean 'S235'?"));
  CHECK_THAT(with("S235", "A500"), Contains("did you mean 'A500 B' or 'A500 C'?"));
  CHECK_THAT(with("S235", "unobtainium"), Contains("there are: S235"));
}

TEST_CASE("A decimal comma and a list before the colon are told as what they are") {
  CHECK_THAT(with("2 kN/m", "2,5 kN/m"), Contains("decimals are written with a point"));
  CHECK_THAT(with("A: pinned", "[A, B]: pinned"), Contains("several names are separated by commas"));
}

TEST_CASE("A hand value under the name of a unit is one mistake, and another name is proposed") {
  const std::string told = refusal(R"(corvex: 1
points: {A: [0, 0], B: [2 m, 0]}
sections: {t: SHS 60x60x4}
members: {b: {through: [A, B], section: t, material: S235}}
supports: {A: pinned, B: roller}
loads: {l: [{on: b, line: {down: 2 kN/m}}]}
hand: {let: {m: 3 kN, twice: 2*m}, expect: [{reaction: A, part: y, is: m + 1 kN}]}
)");
  CHECK(std::count(told.begin(), told.end(), '\n') == 1);
  CHECK_THAT(told, Contains("'m' is a unit; another name is needed, for example 'm_1'"));
}

}  // namespace tests_of_file_words
