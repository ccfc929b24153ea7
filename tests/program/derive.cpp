// `derive` as a user meets it: every form, what is chosen, what is refused.
#include <catch2/catch.hpp>
#include <pugixml.hpp>

#include "support/program.hpp"
#include "support/trestle.hpp"

namespace tests_of_program_derive {

using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

std::size_t count(const std::string& text, const std::string& word) {
  std::size_t n = 0;
  for (std::size_t at = 0; (at = text.find(word, at)) != std::string::npos; at += word.size()) ++n;
  return n;
}

const std::string beam = R"model(corvex: 1
title: Hoist beam
points: {A: [0 m, 0 m], B: [4 m, 0 m]}
sections: {tube: RHS 120x80x5}
members: {beam: {through: [A, B], section: tube, material: S235}}
supports: {A: pinned, B: roller}
loads:
  hoist: [{on: beam, at: 1 m, force: {down: 8 kN}}, {on: beam, line: {down: 0.5 kN/m}}]
)model";

}  // namespace

TEST_CASE("A beam is derived line by line, as it stands in a textbook") {
  const Folder folder;
  folder.write("beam.yaml", beam);
  const Outcome run = folder.run("derive beam.yaml");
  INFO(run.err);
  REQUIRE(run.status == 0);
  for (const char* line :
       {"the structure is statically determinate", "moments about A: B_y·4 m - P1·1 m - q1·4 m·2 m = 0",
        "B_y = (8 kN·1 m + 0.5 kN/m·4 m·2 m)/4 m = 3 kN", "A_y = (8 kN·3 m + 0.5 kN/m·4 m·2 m)/4 m = 7 kN",
        "V(x) = 7 kN - 0.5 kN/m·x", "M(x) = 7 kN·x - 0.5 kN/m/2·x²", "= 6.75 kN·m", "share of bending",
        "share of shear", "safety factor against yielding", "Derived values compared with those of the stiffness method"})
    CHECK_THAT(run.out, Contains(line));
  // A formula of the derivation can be read as a hand value.
  folder.write("hand.yaml", beam + R"model(hand:
  expect: [{reaction: B, part: y, is: (8 kN·1 m + 0.5 kN/m·4 m·2 m)/4 m, within: 1e-9}]
)model");
  CHECK(folder.run("verify hand.yaml").status == 0);
}

TEST_CASE("A derivation in every form, brief, and of what is chosen") {
  const Folder folder;
  folder.write("trestle.yaml", trestle);
  const Outcome text = folder.run("derive trestle.yaml --case product");
  INFO(text.err);
  REQUIRE(text.status == 0);
  CHECK_THAT(text.out, Contains("== State 1: X1 = 1 alone =="));
  CHECK_THAT(text.out, Contains("sum = S0 + X1·S1 + X2·S2 + X3·S3"));
  const Outcome brief = folder.run("derive trestle.yaml --case product --brief");
  REQUIRE(brief.status == 0);
  CHECK(3 * count(brief.out, "\n") < 2 * count(text.out, "\n"));
  CHECK_THAT(brief.out, Contains("X1 = "));
  // No chapter is empty.
  CHECK_THAT(text.out, Contains("== Check: "));
  CHECK_THAT(brief.out, !Contains("==\n\n=="));

  const Outcome chosen = folder.run("derive trestle.yaml --case product --member rail --point C");
  REQUIRE(chosen.status == 0);
  CHECK_THAT(chosen.out, Contains("Point C:"));
  CHECK_THAT(chosen.out, Contains("of rail, from"));
  CHECK(chosen.out.find("of left leg, from") == std::string::npos);

  const Outcome json = folder.run("derive trestle.yaml --case product --json");
  REQUIRE(json.status == 0);
  const auto j = nlohmann::json::parse(json.out);
  CHECK(j["format"] == "corvex-derivation");
  CHECK(j["count"]["degree"] == 3);
  CHECK(j["redundants"].size() == 3);
  CHECK(j["chapters"].size() > 8);
  for (const auto& pair : j["both_ways"]) CHECK(std::abs(pair["difference"].get<double>()) < 1e-9);

  CHECK(folder.run("derive trestle.yaml --case product -o derivation.md").status == 0);
  CHECK_THAT(folder.content("derivation.md"), Contains("## State 1: X1 = 1 alone"));
  CHECK(folder.run("derive trestle.yaml --case product -o derivation.pdf").status == 0);
  CHECK(folder.content("derivation.pdf").rfind("%PDF", 0) == 0);
  CHECK(folder.run("derive trestle.yaml --case product -o derivation.html").status == 0);
  const std::string html = folder.content("derivation.html");
  pugi::xml_document page;
  REQUIRE(page.load_buffer(html.data(), html.size(), pugi::parse_default | pugi::parse_doctype));
  CHECK(page.select_nodes("//math").size() > 100);
  CHECK(page.select_nodes("//svg").size() > 10);
  CHECK(page.select_nodes("//script").empty());
  // The same input gives the same bytes.
  CHECK(folder.run("derive trestle.yaml --case product -o again.html").status == 0);
  CHECK(folder.content("again.html") == html);
  CHECK(folder.run("derive trestle.yaml -o trestle.yaml").status == 2);
}

TEST_CASE("A report has the derivation where it is asked for") {
  const Folder folder;
  folder.write("beam.yaml", beam);
  REQUIRE(folder.run("report beam.yaml -o with.md --parts summary,derivation").status == 0);
  CHECK_THAT(folder.content("with.md"), Contains("B_y = (8 kN·1 m + 0.5 kN/m·4 m·2 m)/4 m = 3 kN"));
  REQUIRE(folder.run("report beam.yaml -o without.md").status == 0);
  CHECK(folder.content("without.md").find("B_y = ") == std::string::npos);
}

}  // namespace tests_of_program_derive
