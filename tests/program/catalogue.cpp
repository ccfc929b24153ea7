// `corvex catalogue`: lists, searches, sections and materials, in each form.
#include <cmath>
#include <corvex/catalogue.hpp>
#include <sstream>

#include "support/near.hpp"
#include "support/program.hpp"

namespace tests_of_program_catalogue {

using Catch::Matchers::Contains;
using corvex::test::Folder;
using corvex::test::near;
using Json = nlohmann::json;

namespace {

std::vector<std::string> lines(const std::string& text) {
  std::vector<std::string> all;
  std::stringstream in(text);
  for (std::string line; std::getline(in, line);) all.push_back(line);
  return all;
}

const std::string model =
    "corvex: 1\nunits: {length: mm, force: kN}\nsections:\n  rail: {shape: rectangular tube, height: 80 mm, width: 40 mm, wall: 4 mm}\n"
    "  tie: SHS 61x61x4\npoints: {A: [0, 0], B: [900, 0]}\nmembers:\n  beam: {through: [A, B], section: rail, material: S235}\n"
    "  rod: {through: [A, B], section: tie, material: S235}\nsupports: {A: pinned, B: roller}\nloads: {push: [{at: B, force: {down: 1}}]}\n";

}  // namespace

TEST_CASE("One profile with every figure, under both naming habits") {
  const Folder folder;
  const auto o = folder.run("catalogue 'IPE 200'");
  CHECK(o.status == 0);
  CHECK(o.err.empty());
  CHECK_THAT(o.out, Contains("IPE 200, EN 10365\n") &&
                        Contains("i profile: height 200 mm, width 100 mm, web 5.6 mm, flange 8.5 mm, root 12 mm\n") &&
                        Contains("22.36 kg/m of steel"));
  // Figure for figure what the library says, to four digits, with the tables' name beside.
  const auto p = corvex::profile("IPE 200");
  for (const corvex::SectionFigure& f : corvex::section_figures()) {
    INFO(f.name);
    bool found = false;
    for (const std::string& line : lines(o.out)) {
      if (line.find("  " + f.name + " ") == std::string::npos ||
          line.find(" " + f.table_name + " ") == std::string::npos)
        continue;
      found = true;
    }
    CHECK(found == f.value(p->section).has_value());
  }
  CHECK_THAT(o.out, Contains("Iz              Iy          1943      cm⁴") && Contains("It = 6.980 cm⁴"));
}

TEST_CASE("The same as JSON and CSV, in SI units and in the tables'") {
  const Folder folder;
  const Json j = Json::parse(folder.run("catalogue 'IPE 200' 'SHS 61x61x4' --json").out);
  CHECK(j["format"] == "corvex-catalogue");
  REQUIRE(j["profiles"].size() == 2);
  const auto p = corvex::profile("IPE 200");
  for (const corvex::SectionFigure& f : corvex::section_figures()) {
    INFO(f.name);
    const Json& there = j["profiles"][0][f.name];
    const auto value = f.value(p->section);
    REQUIRE(there.is_null() == !value.has_value());
    if (value) CHECK(there.get<double>() == near(*value));
  }
  CHECK(j["profiles"][1]["listed"] == false);
  CHECK_THAT(j["profiles"][1]["note"].get<std::string>(), Contains("SHS 60x60x4"));
  const auto csv = lines(folder.run("catalogue 'IPE 200' --format csv").out);
  REQUIRE(csv.size() == 2);
  CHECK_THAT(csv[0], Contains("designation,standard,mass per metre [kg/m],height [mm]") && Contains("Iz [cm⁴]"));
  CHECK_THAT(csv[1], Contains("IPE 200,EN 10365,22.36") && Contains(",1943.1683,"));
}

TEST_CASE("A search lists what lies within its bounds, the lightest first") {
  const Folder folder;
  const auto o = folder.run("catalogue --series SHS --min-Iz '200 cm^4' --max-height '100 mm' --sort mass");
  CHECK(o.status == 0);
  const auto text = lines(o.out);
  REQUIRE(text.size() > 10);
  CHECK_THAT(text[0], Contains("profile") && Contains("mass") && Contains("Iz"));
  CHECK_THAT(text[2], Contains("SHS 100x100x4 ") && Contains("226.4"));
  const Json j =
      Json::parse(folder.run("catalogue --series SHS,RHS --min-Iz '200 cm^4' --max-mass '15 kg/m' --json").out);
  const auto found =
      corvex::search({.series = {"SHS", "RHS"}, .bounds = {{"Iz", 200e-8, {}}, {"mass", {}, 15.0}}, .sort = "mass"});
  REQUIRE(j["profiles"].size() == found.size());
  for (std::size_t i = 0; i < found.size(); ++i) CHECK(j["profiles"][i]["designation"] == found[i].designation);
  const auto none = folder.run("catalogue --series SHS --min-Iz '9 m^4'");
  CHECK(none.status == 1);
  CHECK(none.out == "No listed profile lies within these bounds.\n");
}

TEST_CASE("What there is: series and materials") {
  const Folder folder;
  const auto o = folder.run("catalogue");
  CHECK(o.status == 0);
  for (const corvex::ProfileSeries& s : corvex::profile_series())
    CHECK_THAT(o.out, Contains("\n  " + s.name + " ") && Contains(s.example));
  CHECK_THAT(o.out, Contains("S355") && Contains("6060-T66") && Contains("C24"));
  const Json j = Json::parse(folder.run("catalogue --json").out);
  CHECK(j["series"].size() == corvex::profile_series().size());
  CHECK(j["materials"].size() >= 20);
}

TEST_CASE("Materials, with strength by thickness and their notes") {
  const Folder folder;
  const auto o = folder.run("catalogue S355 6082-T6");
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Contains("S355, EN 10025-2") && Contains("40    345") && Contains("heat-affected zone"));
  const Json j = Json::parse(folder.run("catalogue S355 --json").out);
  CHECK(j["materials"][0]["by_thickness"][1]["yield"] == 345e6);
  CHECK_THAT(folder.run("catalogue S355 --format csv").out, Contains("\nS355,") && Contains(",40,345,470"));
}

TEST_CASE("The sections of a model") {
  const Folder folder;
  folder.write("frame.yaml", model);
  const auto all = folder.run("catalogue frame.yaml");
  CHECK(all.status == 0);
  CHECK_THAT(all.out, Contains("rail\nrectangular tube: height 80 mm") && Contains("tie, SHS 61x61x4") &&
                          Contains("note: not in the list"));
  const Json j = Json::parse(folder.run("catalogue frame.yaml rail --json").out);
  REQUIRE(j["profiles"].size() == 1);
  CHECK(j["profiles"][0]["Iz"].get<double>() == near((0.04 * std::pow(0.08, 3) - 0.032 * std::pow(0.072, 3)) / 12));
  const auto wrong = folder.run("catalogue frame.yaml rial");
  CHECK(wrong.status == 2);
  CHECK_THAT(wrong.err, Contains("the model has no section 'rial'; did you mean 'rail'?"));
}

TEST_CASE("A wrong call is told, and nothing printed") {
  const Folder folder;
  const auto [call, why] = GENERATE(table<std::string, std::string>(
      {{"'IPX 200'", "there is no series of profiles 'IPX'; did you mean 'IPE'?"},
       {"--series SSH", "there is no series of profiles 'SSH'; did you mean 'SHS'?"},
       {"--series SHS --min-Iz '200 cm^3'",
        "--min-Iz: a second moment of area was expected, for example '200 cm^4', but '200 cm^3' is"},
       {"--series SHS --min-Iz 200", "a second moment of area was expected"},
       {"--series SHS --min-Iz '200 cmm^4'", "'cmm' is not a unit"},
       {"--series SHS --sort weight", "'weight' is not a valid value"},
       {"--series SHS --material S999", "there is no material 'S999'"},
       {"'IPE 200' --series SHS", "not both"},
       {"'IPE 200' S355", "ask for one of them"},
       {"S356", "did you mean 'S355'?"},
       {"none.yaml", "none.yaml"},
       {"--format xml", "--format"}}));
  const auto o = folder.run("catalogue " + call);
  INFO(o.err);
  CHECK(o.status == 2);
  CHECK(o.out.empty());
  CHECK_THAT(o.err, Contains(why));
}

TEST_CASE("Inch sizes are printed in inches") {
  const Folder folder;
  const auto o = folder.run("catalogue 'SHS 4x4x1/4 in A500'");
  CHECK_THAT(o.out, Contains("width 4 in, wall 0.2325 in") && Contains("7.788    in⁴") &&
                        Contains("0.93 of the nominal wall"));
}

}  // namespace tests_of_program_catalogue
