// The JSON Schema of the model file: it accepts what the program reads, and refuses what it refuses.
#include "support/schema.hpp"

#include <filesystem>
#include <fstream>
#include <set>
#include <sstream>

#include "support/plan.hpp"
#include "support/program.hpp"
#include "support/text.hpp"
#include "support/yaml.hpp"

namespace tests_of_file_schema {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;
using Json = nlohmann::json;
namespace fs = std::filesystem;

namespace {

const fs::path source = CORVEX_SOURCE;

void check_accepted(const Schema& schema, const std::string& name, const std::string& model) {
  const std::string why = schema.refusal(yaml_as_json(model));
  INFO(name << "\n" << why);
  CHECK(why.empty());
}

std::vector<std::string> page_models() {
  std::vector<std::string> all;
  std::istringstream in(content_of(source / "docs/model-file.md"));
  std::string line;
  bool inside = false;
  while (std::getline(in, line)) {
    if (line == "```yaml")
      all.emplace_back(), inside = true;
    else if (line == "```")
      inside = false;
    else if (inside)
      all.back() += line + "\n";
  }
  return all;
}

// Names of all keys that the schema knows.
void collect(const Json& j, std::set<std::string>& keys) {
  if (j.is_array())
    for (const Json& e : j) collect(e, keys);
  if (!j.is_object()) return;
  for (const auto& [name, value] : j.items()) {
    if (name == "properties" && value.is_object())
      for (const auto& [key, what] : value.items()) keys.insert(key);
    collect(value, keys);
  }
}

// A model in which everything can be broken.
const std::string whole = R"(corvex: 1
title: Whole
units: {length: mm, force: kN, moment: kN*mm, line: kN/mm}
up: z
analysis: {shear: off}
parameters: {a: 2 m}
materials: {steel: {like: S235, yield: 225 MPa}}
sections: {tube: {shape: square tube, width: 60 mm, wall: 4 mm}, given: {shape: properties, A: 3 cm^2}}
points: {A: [0, 0, 0], B: {from: A, by: [0, 0, a]}, C: {between: [A, B], at: 50 %}, D: {mirror: B, about: {x: 1 m}}, E: {repeat: A, count: 2, by: [0, 1 m, 0]}}
members:
  post: {through: [A, C, B], section: tube, material: steel}
  bar: {each: [[B, D]], section: given, material: steel, kind: link, acts: tension}
  leg: {through: [A, D], section: tube, material: steel}
  more: {repeat: leg, count: 1, points: [E]}
supports: {A: fixed, D: {hold: [x, y, z]}, E.1: {hold: [[0, 1, 1]], spring: {x: 5 N/mm}}, E.2: pinned}
masses: {B: 20 kg}
loads:
  push:
    - {at: B, force: {x: 2}}
    - {on: post, at: 1 m, moment: {y: 1 kN*m}}
    - {on: post, line: {x: [1, 2]}, from: 0, to: 50 %, per: length}
    - {on: [post], spread: {x: 2}, axes: member}
    - {on: post, heat: {plus-y: 3 K, minus-y: 0}}
    - {on: bar, shorten: 1}
    - {at: D, settle: {down: 1}}
    - {gravity: down}
combinations: {service: {push: 1.5}}
limits: [{safety: 1.5}, {sag: 1/300, on: post}]
hand:
  let: {P: 2 kN}
  expect: [{reaction: A, part: x, case: push, is: P, within: 100 kN}]
variants: {thin: {sections: {tube: {wall: 3 mm}}}}
)";

struct Broken {
  std::string what, by;
};
const std::vector<Broken> broken = {
    {"corvex: 1", "corvex: 2"},
    {"title: Whole", "tittle: Whole"},
    {"title: Whole", "title: [Whole]"},
    {"{length: mm, force: kN, moment: kN*mm, line: kN/mm}", "mm"},
    {"{length: mm, force: kN, moment: kN*mm, line: kN/mm}", "{lenght: mm, force: kN}"},
    {"{length: mm, force: kN, moment: kN*mm, line: kN/mm}", "{length: [mm], force: kN}"},
    {"up: z", "up: x"},
    {"{shear: off}", "{shear: none}"},
    {"{shear: off}", "{sheer: off}"},
    {"{a: 2 m}", "[a, 2 m]"},
    {"{a: 2 m}", "{a: [2 m]}"},
    {"{like: S235, yield: 225 MPa}", "{yield: 225 MPa}"},
    {"{like: S235, yield: 225 MPa}", "{like: S235, yeild: 225 MPa}"},
    {"shape: square tube", "shape: square tub"},
    {"wall: 4 mm}", "thickness: 4 mm}"},
    {"width: 60 mm, wall: 4 mm", "width: 60 mm"},
    {"width: 60 mm, wall: 4 mm", "diameter: 60 mm, wall: 4 mm"},
    {"{shape: properties, A: 3 cm^2}", "{shape: properties, Iz: 3 cm^4}"},
    {"{shape: properties, A: 3 cm^2}", "{A: 3 cm^2}"},
    {"A: [0, 0, 0]", "A: [0]"},
    {"A: [0, 0, 0]", "A: [0, 0, 0, 0]"},
    {"A: [0, 0, 0]", "A: 0"},
    {"A: [0, 0, 0]", "all: [1, 1, 1], A: [0, 0, 0]"},
    {"{from: A, by: [0, 0, a]}", "{from: A}"},
    {"{from: A, by: [0, 0, a]}", "{from: A, by: [0, 0, a], at: 3}"},
    {"{from: A, by: [0, 0, a]}", "{form: A, by: [0, 0, a]}"},
    {"{between: [A, B], at: 50 %}", "{between: [A, B]}"},
    {"{between: [A, B], at: 50 %}", "{between: [A, B, A], at: 50 %}"},
    {"about: {x: 1 m}", "about: {w: 1 m}"},
    {"about: {x: 1 m}", "about: {x: 1 m, y: 1 m}"},
    {"count: 2, by: [0, 1 m, 0]", "count: 2"},
    {"through: [A, C, B]", "through: A"},
    {"{through: [A, C, B], section: tube, material: steel}", "{section: tube, material: steel}"},
    {"{through: [A, C, B], section: tube, material: steel}", "{through: [A, C, B], material: steel}"},
    {"{through: [A, C, B], section: tube, material: steel}", "{through: [A, C, B], section: tube}"},
    {"kind: link", "kind: rod"},
    {"acts: tension", "acts: pull"},
    {"{through: [A, C, B], ", "{through: [A, C, B], hinge: middle, "},
    {"{through: [A, C, B], ", "{through: [A, C, B], release: {start: [moment-x]}, "},
    {"{through: [A, C, B], ", "{through: [A, C, B], release: [moment-y], "},
    {"{through: [A, C, B], ", "{through: [A, C, B], offset: {start: 4 mm}, "},
    {"{through: [A, C, B], ", "{through: [A, C, B], each: [[A, B]], "},
    {"each: [[B, D]]", "each: [B, D]"},
    {"count: 1, points: [E]", "count: 1"},
    {"A: fixed", "A: fixt"},
    {"{hold: [x, y, z]}", "{hold: [x, w]}"},
    {"{hold: [x, y, z]}", "{hold: []}"},
    {"{hold: [x, y, z]}", "{}"},
    {"spring: {x: 5 N/mm}", "spring: 5 N/mm"},
    {"spring: {x: 5 N/mm}", "spring: {w: 5 N/mm}"},
    {"masses: {B: 20 kg}", "masses: [B]"},
    {"{at: B, force: {x: 2}}", "{at: B}"},
    {"{at: B, force: {x: 2}}", "{at: B, forse: {x: 2}}"},
    {"{at: B, force: {x: 2}}", "{at: B, force: 2 kN}"},
    {"{at: B, force: {x: 2}}", "{at: B, force: {left: 2}}"},
    {"{at: B, force: {x: 2}}", "{at: B, force: {size: 2}}"},
    {"{at: B, force: {x: 2}}", "{at: B, force: {x: 2}, from: 3}"},
    {"line: {x: [1, 2]}", "line: {x: [1, 2, 3]}"},
    {"per: length", "per: roof"},
    {"heat: {plus-y: 3 K, minus-y: 0}", "heat: {plus-y: 3 K}"},
    {"heat: {plus-y: 3 K, minus-y: 0}", "heat: {plus-y: 3 K, minus-z: 0}"},
    {"{on: bar, shorten: 1}", "{at: B, shorten: 1}"},
    {"settle: {down: 1}", "settle: {sideways: 1}"},
    {"{gravity: down}", "{gravity: up}"},
    {"{gravity: down}", "{gravity: down, on: post}"},
    {"{reaction: A, part: x,", "{reaction: A, part: q,"},
    {"{reaction: A, part: x,", "{reaktion: A, part: x,"},
    {", is: P, within", ", within"},
    {"let: {P: 2 kN}", "lets: {P: 2 kN}"},
    {"supports: {A: fixed, D: {hold: [x, y, z]}, E.1: {hold: [[0, 1, 1]], spring: {x: 5 N/mm}}, E.2: pinned}\n", ""},
};

}  // namespace

TEST_CASE("The schema accepts every model that ships, every example of the page, and random frames of every kind") {
  const Schema schema("model.schema.json");
  int count = 0;
  for (const char* folder : {"examples/cider-works", "share/corvex/new"})
    for (const auto& entry : fs::directory_iterator(source / folder))
      if (entry.path().extension() == ".yaml") {
        check_accepted(schema, entry.path().string(), content_of(entry.path()));
        ++count;
      }
  for (const std::string& model : page_models()) check_accepted(schema, model, model), ++count;
  CHECK(count >= 20);
  for (const bool plane : {true, false})
    for (unsigned seed = 3000; seed < 3010; ++seed)
      check_accepted(schema, "random frame", model_file(rich_plan(seed, plane), "mm", "kN", "kN*m"));
  check_accepted(schema, "whole", whole);
}

TEST_CASE("The schema refuses broken models, as the program does") {
  const Schema schema("model.schema.json");
  CHECK(solve(read(whole).structure).ok());
  REQUIRE(broken.size() >= 60);
  for (const Broken& b : broken) {
    const std::string model = replaced(whole, b.what, b.by);
    INFO(b.what << " -> " << b.by);
    CHECK_FALSE(schema.refusal(yaml_as_json(model)).empty());
    const auto read = read_model_text(model, "model.yaml");
    CHECK_FALSE((read.ok() && read->structure.validate().empty()));
  }
}

TEST_CASE("The schema refuses slips in the parts that are not built yet") {
  const Schema schema("model.schema.json");
  for (const Broken& b : std::vector<Broken>{{"{push: 1.5}", "[push]"},
                                             {"{push: 1.5}", "{}"},
                                             {"{safety: 1.5}", "{safty: 1.5}"},
                                             {"{safety: 1.5}", "{safety: 1.5, sag: 1/300}"},
                                             {"[{safety: 1.5}, {sag: 1/300, on: post}]", "{safety: 1.5}"},
                                             {"{thin: {sections:", "{thin: {section:"},
                                             {"{thin: {sections: {tube: {wall: 3 mm}}}}", "[thin]"}}) {
    INFO(b.what << " -> " << b.by);
    CHECK_FALSE(schema.refusal(yaml_as_json(replaced(whole, b.what, b.by))).empty());
  }
}

TEST_CASE("Every key of the schema stands on the page, and tells what it is") {
  const Schema schema("model.schema.json");
  std::set<std::string> keys;
  collect(schema.json(), keys);
  CHECK(keys.size() > 80);
  const std::string page = content_of(source / "docs/model-file.md");
  // Parts of which the page says only that they are to come.
  const std::set<std::string> later = {"safety", "movement", "buckling", "frequency"};
  for (const std::string& key : keys) {
    INFO(key);
    CHECK((later.count(key) == 1 || page.find(key) != std::string::npos));
  }
  for (const auto& [key, what] : schema.json()["properties"].items()) {
    INFO(key);
    CHECK(what.contains("description"));
  }
}

}  // namespace tests_of_file_schema
