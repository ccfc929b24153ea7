// A structure as a model file, and a model file that is built again and again.
#include <corvex/export.hpp>
#include <filesystem>

#include "support/plan.hpp"
#include "support/text.hpp"

namespace tests_of_file_writing {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

std::string results(const Structure& s) {
  const Solution solution = solve(s);
  std::string why;
  for (const Problem& p : solution.problems()) why += describe(p) + "\n";
  INFO(why);
  REQUIRE(solution.ok());
  return results_json({.solution = solution}, {.places = 5});
}

std::string written(const Structure& s) {
  const auto text = model_text(s);
  std::string why;
  if (!text)
    for (const Problem& p : text.error()) why += describe(p) + "\n";
  INFO(why);
  REQUIRE(text.ok());
  return *text;
}

constexpr const char* frame = R"(
corvex: 1
parameters: {wall: 4 mm, span: 2 m}
points: {A: [0, 0], B: [span, 0]}
sections: {tube: {shape: square tube, width: 60 mm, wall: wall}}
members: {beam: {through: [A, B], section: tube, material: S235}}
supports: {A: pinned, B: roller}
loads: {load: [{on: beam, line: {down: 2 kN/m}}]}
hand: {let: {half: span/2}, expect: [{reaction: A, part: y, is: 2 kN/m*half}]}
)";

}  // namespace

TEST_CASE("A structure written as a model file reads back to the same bytes of results") {
  for (const bool plane : {true, false})
    for (unsigned seed = 7100; seed < 7160; ++seed) {
      INFO((plane ? "plane" : "space") << " frame " << seed);
      const Structure s = build(seed % 2 ? rich_plan(seed, plane) : random_plan(seed, plane));
      const std::string text = written(s);
      INFO(text);
      CHECK(results(read(text).structure) == results(s));
      // Written again it is the same text.
      CHECK(written(read(text).structure) == text);
    }
}

TEST_CASE("The models that ship, written and read, answer the same") {
  std::size_t seen = 0;
  for (const auto& entry : std::filesystem::directory_iterator(CORVEX_EXAMPLES "/cider-works")) {
    if (entry.path().extension() != ".yaml") continue;
    INFO(entry.path());
    const auto model = read_model(entry.path().string());
    REQUIRE(model.ok());
    ++seen;
    const std::string text = written(model->structure);
    INFO(text);
    CHECK(results(read(text).structure) == results(model->structure));
  }
  CHECK(seen >= 6);
}

TEST_CASE("What a model file cannot say is refused by name") {
  Structure s = Structure::plane("p");
  const PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 1_m, 0_m);
  Material own = material("S235");
  own.name = "mine";
  own.by_thickness.pop_back();
  s.member("m", {a, b}, {.section = s.section("t", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = own});
  s.support(a, Support::fixed());
  s.load_case("l").gravity();
  const auto text = model_text(s);
  REQUIRE(!text.ok());
  CHECK_THAT(describe(text.error().front()),
             Contains("material 'mine' has properties that a model file cannot express"));
  // A mistake in the description is told as `solve` would.
  s.change("m", {.section = SectionId(7), .material = "S235"});
  CHECK(!model_text(s).ok());
}

TEST_CASE("A document is read once and built with other parameters") {
  const auto document = read_document_text(frame, "frame.yaml");
  REQUIRE(document.ok());
  CHECK(document->parameters() == std::vector<std::pair<std::string, std::string>>{{"wall", "4 mm"}, {"span", "2 m"}});
  const auto plain = build(*document), thick = build(*document, {.parameters = {{"wall", "6 mm"}}}),
             longer = build(*document, {.parameters = {{"span", "2*1500 mm"}}});
  REQUIRE(plain.ok());
  REQUIRE(thick.ok());
  REQUIRE(longer.ok());
  CHECK(thick->structure.mass()->si() > 1.3 * plain->structure.mass()->si());
  CHECK(longer->structure.length_of(longer->structure.members()[0]) == 3.0);
  // The hand calculation goes by the same values.
  const Solution solution = solve(longer->structure);
  const auto hand = verify(solution, longer->hand);
  REQUIRE(hand.ok());
  CHECK(hand->all_agree());
  CHECK(hand->comparisons[0].hand.si == Approx(3000));
}

TEST_CASE("Parameters that a document does not have, and values that are none, are told") {
  const auto document = read_document_text(frame, "frame.yaml");
  const auto unknown = build(*document, {.parameters = {{"wal", "6 mm"}}}),
             nonsense = build(*document, {.parameters = {{"wall", "6 mmm"}}});
  REQUIRE(!unknown.ok());
  CHECK_THAT(describe(unknown.error().front()), Contains("there is no parameter 'wal'; did you mean 'wall'?"));
  REQUIRE(!nonsense.ok());
  CHECK_THAT(describe(nonsense.error().front()), Contains("frame.yaml:3") && Contains("'6 mmm', given for wall"));
}

TEST_CASE("The models to begin with are calls too") {
  for (const std::string& kind : starter_kinds()) {
    INFO(kind);
    const auto text = starter_model(kind);
    REQUIRE(text.has_value());
    CHECK(read_model_text(*text, kind).ok());
  }
  CHECK(!starter_model("bridge"));
}

}  // namespace tests_of_file_writing
