// What the program prints: read back and held against the results as JSON, in any units and digits.
#include <catch2/catch.hpp>

#include "support/program.hpp"

namespace tests_of_program_output {

using Catch::Matchers::Contains;
using corvex::test::Folder;
using corvex::test::Outcome;
using Json = nlohmann::json;

namespace {

const std::string frame = R"(
sections:
  leg: {shape: square tube, width: 60 mm, wall: 4 mm}
  rod: {shape: round bar, diameter: 12 mm}
points: {A: [0, 0], B: [0, 900 mm], C: [1.2 m, 900 mm], D: [2.4 m, 900 mm], E: [2.4 m, 0]}
members:
  left leg: {through: [A, B], section: leg, material: S235}
  rail: {through: [B, C, D], section: leg, material: S235}
  right leg: {through: [E, D], section: leg, material: S235}
  brace: {through: [A, C], section: rod, material: S235, kind: link}
supports: {A: fixed, E: fixed}
loads:
  product: [{at: C, force: {down: 3.2 kN}}, {at: B, force: {x: 400 N}}]
  weight: [{gravity: down}]
)";

}  // namespace

TEST_CASE("The first lines say how it bends, what is worst, and that it balances") {
  const Folder folder;
  folder.write("frame.yaml", "title: Trestle\nunits: {length: mm, force: kN}" + frame);
  const Outcome o = folder.run("solve frame.yaml");
  CHECK_THAT(o.out, Contains("Trestle\nplane, 5 points, 4 members, "));
  CHECK_THAT(o.out, Contains("product: largest displacement ") && Contains(" mm down and ") && Contains(" mm to the right, ") &&
                        Contains(" mm in total, in 'rail' at ") && Contains("; largest stress ") &&
                        Contains("; equilibrium satisfied\n"));
  CHECK_THAT(o.out, Contains("N + is tension."));
  // The brace is a link with its own weight, and a thin rod that is pressed: each said once, where the file names it.
  CHECK_THAT(o.err, Contains("frame.yaml:11:3: warning: in case 'product' 'brace' is in compression with") &&
                        Contains("frame.yaml:11:3: note: 'brace': loads on a link") &&
                        Contains("warning: in case 'product' the critical load factor in the plane is "));
  CHECK_THAT(o.out, !Contains("note:"));
  CHECK(std::count(o.err.begin(), o.err.end(), '\n') == 3);
}

TEST_CASE("No rounding noise and no powers of ten are printed") {
  const Folder folder;
  folder.write("frame.yaml", "units: {length: mm, force: kN}" + frame);
  const std::string text = folder.run("solve frame.yaml").out;
  for (const char* noise : {"e-", "e+", "nan", "inf", "-0 ", "-0\n"}) CHECK_THAT(text, !Contains(noise));
}

TEST_CASE("Digits are as many as asked for") {
  const Folder folder;
  folder.write("frame.yaml", "units: {length: mm, force: kN}" + frame);
  CHECK_THAT(folder.run("solve frame.yaml --digits 2").out, Contains("-3.2\n") || Contains("-3.2 "));
  CHECK_THAT(folder.run("solve frame.yaml --digits 7").out, Contains("-3.200000"));
}

TEST_CASE("Overstressed material is said to be so in the first line") {
  const Folder folder;
  std::string heavy = "units: {length: mm, force: kN}" + frame;
  heavy.replace(heavy.find("3.2 kN"), 6, "99 kN ");
  folder.write("frame.yaml", heavy);
  CHECK_THAT(folder.run("solve frame.yaml").out, Contains("above the strength of the material"));
}

TEST_CASE("Models come from standard input, results go to a file, from any folder") {
  const Folder folder;
  const std::string model = "units: {length: mm, force: kN}" + frame;
  folder.write("frame.yaml", model);
  const Outcome file = folder.run("solve frame.yaml"), piped = folder.run("solve -", model);
  CHECK(piped.status == 0);
  CHECK(piped.out.size() > 500);
  const Outcome written = folder.run("solve frame.yaml -o result.txt");
  CHECK(written.status == 0);
  CHECK(written.out.empty());
  CHECK(folder.content("result.txt") == file.out);
  CHECK_FALSE(folder.has("result.txt.part"));
  const Outcome far = folder.run("solve '" + (folder.path() / "frame.yaml").string() + "' --json", "", "cd / &&");
  CHECK(far.status == 0);
  CHECK(far.out == folder.run("solve frame.yaml --json").out);
}

TEST_CASE("A device is written to and not replaced, a link stays one, an old file is replaced whole") {
  const Folder folder;
  folder.write("frame.yaml", "units: {length: mm, force: kN}" + frame);
  CHECK(folder.run("solve frame.yaml -o /dev/null").status == 0);
  CHECK(std::filesystem::is_character_file("/dev/null"));
  folder.write("old.txt", "old");
  std::filesystem::create_symlink(folder.path() / "old.txt", folder.path() / "link.txt");
  CHECK(folder.run("solve frame.yaml -o link.txt").status == 0);
  CHECK(std::filesystem::is_symlink(folder.path() / "link.txt"));
  CHECK(folder.content("old.txt") == folder.run("solve frame.yaml").out);
}

TEST_CASE("With --json notes go to standard error, and places are exactly as many as asked for") {
  const Folder folder;
  folder.write("frame.yaml", "units: {length: mm, force: kN}" + frame);
  const Outcome o = folder.run("solve frame.yaml --json --places 2");
  CHECK_THAT(o.err, Contains("note: 'brace'"));
  const Json j = Json::parse(o.out);
  for (const auto& [name, c] : j["cases"].items())
    for (const auto& [member, m] : c["members"].items()) {
      if (name == "envelope") continue;
      REQUIRE(m["places"].size() == 2);
      CHECK(m["places"][0]["at"] == 0.0);
      CHECK(m["places"][1]["at"] == m["length"]);
    }
}

TEST_CASE("The same input gives the same bytes") {
  const Folder folder;
  folder.write("frame.yaml", "units: {length: mm, force: kN}" + frame);
  CHECK(folder.run("solve frame.yaml --json --places 7").out == folder.run("solve frame.yaml --json --places 7").out);
}

TEST_CASE("Help and version are for standard output") {
  const Folder folder;
  CHECK_THAT(folder.run("--help").out, Contains("solve") && Contains("demo"));
  CHECK_THAT(folder.run("solve --help").out, Contains("--json") && Contains("--places"));
  CHECK_THAT(folder.run("--version").out, Contains("corvex 0."));
}

}  // namespace tests_of_program_output
