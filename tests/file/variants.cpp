// Changes of a model for one call: variants as merge patches, values by JSON Pointer, parameters. A changed model gives
// what the same model gives when it is written out.
#include <corvex/export.hpp>
#include <corvex/file.hpp>

#include "support/text.hpp"
#include "support/trestle.hpp"

namespace tests_of_file_variants {

using namespace corvex;
using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

const std::string limited_trestle = trestle + "limits: [{safety: 1.5}]\n";

std::string results(const Model& model) {
  const Solution solution = solve(model.structure);
  REQUIRE(solution.ok());
  return results_json({.solution = solution});
}

ModelDocument document(const std::string& variants = "") {
  const auto d = read_document_text(limited_trestle + variants, "model.yaml");
  REQUIRE(d);
  return *d;
}

Model built(const ModelDocument& d, const Overrides& overrides) {
  const auto model = build(d, overrides);
  if (!model) FAIL(describe(model.error().front()));
  return *model;
}

std::string refused(const ModelDocument& d, const Overrides& overrides) {
  const auto model = build(d, overrides);
  REQUIRE_FALSE(model);
  return describe(model.error().front());
}

}  // namespace

TEST_CASE("A variant gives what the model gives when the change is written out") {
  struct Case {
    std::string patch, from, to;
  };
  for (const Case& c : std::vector<Case>{
           {"{parameters: {wall: 6 mm}}", "wall: 4 mm", "wall: 6 mm"},
           {"{sections: {rail: SHS 80x80x4}}", "rail: RHS 80x40x4", "rail: SHS 80x80x4"},
           {"{sections: {leg: {width: 70 mm}}}", "width: 60 mm", "width: 70 mm"},
           {"{members: {rail: {hinge: both}}}", "through: [B, C, D], section",
            "through: [B, C, D], hinge: both, section"},
           // Lists are replaced as a whole; null removes; what was no map becomes one.
           {"{loads: {product: [{at: C, force: {down: 5}}]}}",
            "[{at: C, force: {down: 3.2}}, {on: rail, line: {down: 0.8 kN/m}}]", "[{at: C, force: {down: 5}}]"},
           {"{loads: {push: null}}", "  push: [{at: B, force: {x: 0.3}}]\n", ""},
           {"{loads: {push: ~}}", "  push: [{at: B, force: {x: 0.3}}]\n", ""},
           {"{loads: {push: }}", "  push: [{at: B, force: {x: 0.3}}]\n", ""},
           {"{sections: {rail: {shape: round tube, diameter: 76 mm, wall: 4 mm}}}", "rail: RHS 80x40x4",
            "rail: {shape: round tube, diameter: 76 mm, wall: 4 mm}"},
           {"{supports: {A: pinned}, analysis: {shear: off}}", "supports: {A: fixed, E: fixed}",
            "supports: {A: pinned, E: fixed}\nanalysis: {shear: off}"}}) {
    INFO(c.patch);
    const ModelDocument d = document("variants:\n  other: " + c.patch + "\n");
    const auto written = read_model_text(replaced(limited_trestle, c.from, c.to), "written.yaml");
    REQUIRE(written);
    CHECK(results(built(d, {.variant = "other"})) == results(*written));
    // The model as it stands is not touched.
    CHECK(results(built(d, {})) == results(*read_model_text(limited_trestle, "model.yaml")));
    CHECK(d.variants() == std::vector<std::string>{"other"});
  }
}

TEST_CASE("Values by JSON Pointer give what the model gives when they are written out") {
  struct Case {
    std::string pointer, value, from, to;
  };
  for (const Case& c : std::vector<Case>{
           {"/sections/leg", "SHS 80x80x4", "leg:  {shape: square tube, width: 60 mm, wall: wall}", "leg: SHS 80x80x4"},
           {"/sections/leg/width", "70 mm", "width: 60 mm", "width: 70 mm"},
           {"/members/rail/hinge", "start", "through: [B, C, D], section", "through: [B, C, D], hinge: start, section"},
           {"/members/left leg/material", "S355", "through: [A, B], section: leg, material: S235",
            "through: [A, B], section: leg, material: S355"},
           {"/loads/product/0/force/down", "5", "down: 3.2", "down: 5"},
           {"/loads/product/1/line", "{down: 1 kN/m}", "line: {down: 0.8 kN/m}", "line: {down: 1 kN/m}"},
           {"/loads/push/-", "{at: D, force: {x: 0.1}}", "[{at: B, force: {x: 0.3}}]",
            "[{at: B, force: {x: 0.3}}, {at: D, force: {x: 0.1}}]"},
           {"/points/C/0", "span/3", "C: [span/2, 900]", "C: [span/3, 900]"},
           {"/supports/A", "pinned", "A: fixed", "A: pinned"}}) {
    INFO(c.pointer);
    const auto written = read_model_text(replaced(limited_trestle, c.from, c.to), "written.yaml");
    REQUIRE(written);
    CHECK(results(built(document(), {.set = {{c.pointer, c.value}}})) == results(*written));
  }
}

TEST_CASE("A variant, then values by pointer, then parameters") {
  const ModelDocument d = document("variants: {other: {sections: {rail: SHS 80x80x4}, parameters: {wall: 5 mm}}}\n");
  const Model m =
      built(d, {.parameters = {{"wall", "6 mm"}}, .variant = "other", .set = {{"/sections/rail", "SHS 100x100x4"}}});
  const auto written = read_model_text(
      replaced(replaced(limited_trestle, "wall: 4 mm", "wall: 6 mm"), "rail: RHS 80x40x4", "rail: SHS 100x100x4"),
      "written.yaml");
  CHECK(results(m) == results(*written));
}

TEST_CASE("Names with a slash or a tilde are written with ~1 and ~0") {
  const std::string odd = replaced(replaced(limited_trestle, "  rail: RHS 80x40x4", "  a/b~c: RHS 80x40x4"),
                                   "section: rail", "section: a/b~c");
  const auto d = read_document_text(odd, "model.yaml");
  REQUIRE(d);
  CHECK(built(*d, {.set = {{"/sections/a~1b~0c", "SHS 80x80x4"}}}).structure.sections()[1].designation ==
        "SHS 80x80x4");
}

TEST_CASE("A change that fits nothing says where, with the nearest name") {
  const ModelDocument d = document(
      "variants:\n  thick: {parameters: {wall: 6 mm}}\n  wrong: {sections: {leg: {wal: 3 mm}}}\n"
      "  no map: 5\n");
  CHECK_FALSE(build(d, {}));  // a variant that is no map is a mistake of the file
  const ModelDocument sound =
      document("variants:\n  thick: {parameters: {wall: 6 mm}}\n  wrong: {sections: {leg: {wal: 3 mm}}}\n");
  CHECK_THAT(refused(sound, {.variant = "thik"}), Contains("there is no variant 'thik'; did you mean 'thick'?"));
  CHECK_THAT(refused(document(), {.variant = "thik"}), Contains("the file has no variants"));
  CHECK_THAT(
      refused(sound, {.variant = "wrong"}),
      Contains("model.yaml:20:28: error: variant 'wrong': 'wal' is not a key of a square tube; did you mean 'wall'?"));
  const auto set = [&](const std::string& pointer, const std::string& value = "x") {
    return refused(sound, {.set = {{pointer, value}}});
  };
  CHECK_THAT(set("/sections/lag"), Contains("set /sections/lag: there is no 'lag' in /sections; did you mean 'leg'?"));
  CHECK_THAT(set("/section/leg"), Contains("there is no 'section' in the model; did you mean 'sections'?"));
  CHECK_THAT(set("/loads/product/2"), Contains("'2' is not an entry of /loads/product, which is a list of 2"));
  CHECK_THAT(set("/loads/product/first"), Contains("'first' is not an entry"));
  CHECK_THAT(set("/title/x"), Contains("/title is 'Trestle' and has no 'x'"));
  CHECK_THAT(set("sections/leg"), Contains("a pointer begins with a slash"));
  CHECK_THAT(set("/sections/leg", "[1, 2"), Contains("set /sections/leg: not valid YAML"));
  CHECK_THAT(set("/sections/leg", "SHS 80x80x"), Contains("set /sections/leg: 'SHS 80x80x' is not a designation"));
  CHECK_THAT(set("/members/rail/hinges", "both"),
             Contains("'hinges' is not a key of member 'rail'; did you mean 'hinge'?"));
}

TEST_CASE("A variant has no variants of its own") {
  const auto model = read_model_text(limited_trestle + "variants: {a: {variants: {b: {}}}}\n", "model.yaml");
  REQUIRE_FALSE(model);
  CHECK_THAT(describe(model.error().front()),
             Contains("model.yaml:18:16: error: a variant has no variants of its own"));
}

}  // namespace tests_of_file_variants
