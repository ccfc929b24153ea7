// Keys of the format that cannot be used yet say so: "not built yet", never "unknown".
#include "support/text.hpp"

using namespace corvex;
using Catch::Matchers::Contains;
using corvex::test::refusal;

TEST_CASE("Keys that are not built yet") {
  const auto [what, by, name] = GENERATE(table<std::string, std::string, std::string>({
      {"corvex: 1", "tables: {points: points.csv}", "'tables'"},
      {"corvex: 1", "masses: {B: 20 kg}", "'masses'"},
      {"corvex: 1", "combinations: {service: {push: 1}}", "'combinations'"},
      {"corvex: 1", "limits: [{safety: 1.5}]", "'limits'"},
      {"corvex: 1", "accept: []", "'accept'"},
      {"corvex: 1", "variants: {}", "'variants'"},
      {"[0, 900]", "{from: A, by: [0, 900]}", "'from'"},
      {"[0, 900]", "{between: [A, A], at: 50 %}", "'between'"},
      {"[0, 900]", "{mirror: A, about: {x: 2 m}}", "'mirror'"},
      {"[0, 900]", "{repeat: A, count: 2, by: [0, 1]}", "'repeat'"},
      {"through: [A, B]", "each: [[A, B]]", "'each'"},
      {"S235}", "S235, release: {start: [moment-z]}}", "'release'"},
      {"S235}", "S235, offset: {start: [0, 40 mm]}}", "'offset'"},
      {"S235}", "S235, acts: tension}", "'acts'"},
      {"A: fixed", "A: {spring: {y: 5 N/mm}}", "'spring'"},
      {"A: fixed", "A: {hold: [[0.6, 0.8]]}", "along a vector"},
      {"{x: 2}", "{size: 10 kN, angle: -60 deg}", "'size'"},
      {"{x: 2}", "{size: 10 kN, toward: A}", "'toward'"},
      {"{x: 2}", "{x: 2, axes: member}", "'axes'"},
      {"at: B, force: {x: 2}", "on: post, spread: {down: 500 N}", "'spread'"},
      {"at: B, force: {x: 2}", "on: post, heat: 60 K", "'heat'"},
      {"at: B, force: {x: 2}", "on: post, shorten: 2 mm", "'shorten'"},
      {"at: B, force: {x: 2}", "at: A, settle: {down: 3 mm}", "'settle'"},
      {"at: B, force: {x: 2}", "on: post, line: {down: 1 kN/m}, per: plan", "'per'"},
  }));
  const std::string text = refusal(corvex::test::replaced(corvex::test::sound, what, by));
  INFO(text);
  CHECK_THAT(text, Contains("not built yet") && Contains(name));
  CHECK_THAT(text, !Contains("is not a"));
}
