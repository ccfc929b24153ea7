// What people read: what governs first, short, once, in the words of the trade.
#include <cmath>
#include <map>
#include <regex>
#include <sstream>

#include "support/near.hpp"
#include "support/program.hpp"

namespace tests_of_program_outputs {

using namespace corvex::test;
using Catch::Matchers::Contains;
using nlohmann::json;

namespace {

constexpr const char* truss = R"(
corvex: 1
title: bay
units: {force: kN, length: m}
points: {A: [0, 0], B: [2, 0], C: [2, 1.5]}
sections: {rod: {shape: round bar, diameter: 20 mm}}
defaults: {section: rod, material: S235, kind: link}
members: {chord: {through: [A, B]}, tie: {through: [A, C]}, post: {through: [B, C]}}
supports: {A: pinned, B: fixed}
loads: {wind: [{at: C, force: {x: 6, down: 8}}]}
)";

std::string many_combinations() {
  std::string text = R"(
corvex: 1
points: {A: [0, 0], B: [2 m, 0]}
sections: {t: SHS 60x60x4}
members: {beam: {through: [A, B], section: t, material: S235}}
supports: {A: pinned, B: roller}
loads:
  dead: [{on: beam, line: {down: 1 kN/m}}]
  live: [{on: beam, at: 1 m, force: {down: 2 kN}}]
combinations:
)";
  for (int i = 1; i <= 24; ++i)
    text += "  k" + std::to_string(i) + ": {dead: 1, live: " + std::to_string(0.1 * i) + "}\n";
  return text;
}

std::vector<std::string> lines(const std::string& text) {
  std::vector<std::string> all;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) all.push_back(line);
  return all;
}

std::size_t columns(const std::string& line) {
  return static_cast<std::size_t>(
      std::count_if(line.begin(), line.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

std::string printed(const std::string& model, const std::string& arguments, const std::string& environment = "") {
  const Folder folder;
  folder.write("m.yaml", model);
  const Outcome o = folder.run(arguments, "", environment);
  INFO(o.err);
  REQUIRE(o.status == 0);
  return o.out;
}

}  // namespace

TEST_CASE("Of 24 combinations what governs comes first, and the rest is short") {
  const std::string out = printed(many_combinations(), "solve m.yaml");
  INFO(out);
  const auto all = lines(out);
  CHECK(all.size() < 70);
  CHECK_THAT(all[3], Contains("governing: safety factor") && Contains("of 'beam' at 1") && Contains("in 'k24'"));
  CHECK(out.find("k24:") < out.find("k23:"));
  CHECK_THAT(out, Contains("and 16 cases with lower utilisation: --all"));
  CHECK(out.find("k3:") == std::string::npos);
  const std::string whole = printed(many_combinations(), "solve m.yaml --all");
  CHECK_THAT(whole, Contains("k3:") && Contains("== k3 =="));
  CHECK_THAT(printed(many_combinations(), "solve m.yaml --case envelope"),
             Contains("envelope of 24 combinations") && !Contains("k3:") && !Contains("== k"));
}

TEST_CASE("The reactions of few cases stand in one table, each with its sum") {
  const Folder folder;
  const std::string out = folder.run("solve '" CORVEX_EXAMPLES "/cider-works/conveyor-trestle.yaml'").out;
  const std::size_t first = out.find("\nReactions, global axes\n");
  REQUIRE(first != std::string::npos);
  CHECK(out.find("\nReactions, global axes\n", first + 1) == std::string::npos);
  const std::string table = out.substr(first, out.find("All tables", first) - first);
  CHECK_THAT(table, Contains("A      product") && Contains("sum    product") && Contains("loads  product") &&
                        Contains("weight"));
}

TEST_CASE("A truss has one row a bar: length, area, N with its word, stress, safety, utilisation") {
  const std::string out = printed(truss, "solve m.yaml");
  INFO(out);
  CHECK_THAT(out, Contains("Bars\n") && !Contains("Internal forces") && !Contains("about z") && !Contains("Mz"));
  CHECK(std::regex_search(out, std::regex("tie +2\\.500 +3\\.142 +7\\.500 +tension")));
  CHECK(std::regex_search(out, std::regex("post +1\\.500 +3\\.142 +-12\\.50 +compression +-39\\.79 +5\\.65 +17\\.7")));
  // For other programs they stay in the tables of all members.
  const Folder folder;
  folder.write("m.yaml", truss);
  REQUIRE(folder.run("solve m.yaml --csv t").status == 0);
  CHECK_THAT(folder.content("t/internal-forces.csv"), Contains("post,N,-12.5,0,B,-12.5,0,B,compression"));
}

TEST_CASE("What is the same all along a member is told once") {
  const std::string out = printed(many_combinations(), "solve m.yaml --case k1");
  CHECK(std::regex_search(out, std::regex("beam +N +kN +0 *\n")));
  const std::string gantry = printed(R"(
corvex: 1
points: {A: [0, 0], B: [0, 2 m], C: [1 m, 2 m]}
sections: {t: SHS 60x60x4}
members: {post: {through: [A, B], section: t, material: S235}, arm: {through: [B, C], section: t, material: S235}}
supports: {A: fixed}
loads: {hoist: [{at: C, force: {down: 2 kN}}]}
)",
                                     "solve m.yaml");
  INFO(gantry);
  CHECK(std::regex_search(gantry, std::regex("post +N +kN +-2\\.000 *\n")));
}

TEST_CASE("At 80 columns the verdict of a hand value stands above its formula, and a file keeps to 100") {
  const Folder folder;
  const std::string narrow =
      folder.run("verify '" CORVEX_EXAMPLES "/cider-works/conveyor-trestle.yaml'", "", "COLUMNS=80").out;
  const auto all = lines(narrow);
  std::size_t formulas = 0;
  for (std::size_t i = 1; i < all.size(); ++i) {
    CHECK(columns(all[i]) <= 80);
    if (all[i] == "with") break;
    if (all[i].rfind("      ", 0) != 0 || all[i - 1].rfind("      ", 0) == 0) continue;
    INFO(all[i]);
    CHECK_THAT(all[i - 1], Contains("agrees"));
    ++formulas;
  }
  CHECK(formulas == 10);
  REQUIRE(
      folder.run("solve '" CORVEX_EXAMPLES "/cider-works/tank-skid.yaml' -o out.txt", "", "env -u COLUMNS").status ==
      0);
  for (const std::string& line : lines(folder.content("out.txt"))) {
    INFO(line);
    CHECK(columns(line) <= 100);
  }
}

TEST_CASE("The forces of member ends cancel with the loads and reactions at every joint") {
  const Folder folder;
  for (const char* name : {"press-frame", "agitator-bracket", "conveyor-trestle"}) {
    INFO(name);
    const std::string model = "'" CORVEX_EXAMPLES "/cider-works/" + std::string(name) + ".yaml'";
    REQUIRE(folder.run("solve " + model + " --ends --csv " + name + " --units 'm, N'").status == 0);
    const json j = json::parse(folder.run("solve " + model + " --json").out);
    std::map<std::pair<std::string, std::string>, std::vector<double>> sums;
    double size = 0;
    std::size_t rows = 0;
    for (const std::string& line : lines(folder.content(std::string(name) + "/ends.csv"))) {
      std::vector<std::string> cells;
      std::istringstream in(line);
      for (std::string cell; std::getline(in, cell, ',');) cells.push_back(cell);
      if (cells[0] == "case") continue;
      ++rows;
      std::vector<double>& sum = sums[{cells[0], cells[3]}];
      sum.resize(cells.size() - 4);
      for (std::size_t k = 4; k < cells.size(); ++k)
        sum[k - 4] += std::stod(cells[k]), size = std::max(size, std::abs(sum[k - 4]));
    }
    CHECK(rows > 3);
    // Where a support stands and no load acts on the point itself, the members give it just what it gives back.
    std::size_t compared = 0;
    for (const auto& [where, sum] : sums) {
      const auto& reactions = j["cases"][where.first]["reactions"];
      if (!reactions.contains(where.second)) continue;
      const auto& r = reactions[where.second];
      ++compared;
      CHECK(std::abs(sum[0] + r["x"].get<double>()) < 1e-9 * size);
      CHECK(std::abs(sum[1] + r["y"].get<double>()) < 1e-9 * size);
      if (sum.size() == 6)
        for (std::size_t k = 0; k < 3; ++k)
          CHECK(std::abs(sum[3 + k] + r[std::string("m") + "xyz"[k]].get<double>()) < 1e-9 * size);
      else
        CHECK(std::abs(sum[2] + r["mz"].get<double>()) < 1e-9 * size);
    }
    CHECK(compared > 0);
  }
}

TEST_CASE("The model as read, stress by face, and a record, each on request") {
  const std::string model = many_combinations();
  const std::string read = printed(model, "solve m.yaml --model --case k1");
  CHECK_THAT(read, Contains("== model ==") && Contains("beam") && Contains("S235") && Contains("Sums of the loads") &&
                       Contains("Bill of materials"));
  CHECK(std::regex_search(read, std::regex("t +S235 +1 +2\\.000 +13\\.4")));
  CHECK_THAT(printed(model, "solve m.yaml --case k1"), !Contains("== model =="));
  const std::string faces = printed(model, "solve m.yaml --faces --case k24 --units 'm, N'");
  CHECK(std::regex_search(faces, std::regex("beam +\\+y +0 +-(\\d+\\.\\d+)")));
  const std::string record = printed(model, "solve m.yaml --record --case k1");
  CHECK(std::regex_search(record,
                          std::regex("corvex \\d+\\.\\d+\\.\\d+, m\\.yaml, \\d{4}-\\d\\d-\\d\\d \\d\\d:\\d\\d\n")));
  const Folder folder;
  folder.write("m.yaml", model);
  CHECK(json::parse(folder.run("solve m.yaml --json --record").out)["record"].get<std::string>().find("m.yaml") !=
        std::string::npos);
  CHECK(!json::parse(folder.run("solve m.yaml --json").out).contains("record"));
}

TEST_CASE("A trace tells both sides of a jump, load places, zero moments, rotations and shear stress") {
  const std::string model = R"(
corvex: 1
units: {length: m, force: kN}
points: {A: [0, 0], B: [4, 0], C: [5, 0]}
sections: {t: RHS 100x50x5}
members: {beam: {through: [A, B, C], section: t, material: S235}}
supports: {A: pinned, B: roller}
loads: {crane: [{on: beam, at: 1, force: {down: 4}}, {at: C, force: {down: 3}}]}
)";
  const Folder folder;
  folder.write("m.yaml", model);
  const json steps = json::parse(folder.run("trace m.yaml beam --steps 6 --json").out)["places"];
  std::vector<std::pair<double, double>> shear;
  for (const auto& p : steps)
    if (std::abs(p["at"].get<double>() - 1) < 1e-9) shear.emplace_back(p["shear_y"], p["rotation_z"]);
  REQUIRE(shear.size() == 2);
  CHECK(shear[0].first - shear[1].first == Approx(4000));
  CHECK(shear[0].second == Approx(shear[1].second));
  const json places = json::parse(folder.run("trace m.yaml beam --json").out)["places"];
  std::map<double, std::string> words;
  for (const auto& p : places)
    for (const auto& w : p.value("extremes", json::array())) words[p["at"]] += w.get<std::string>() + ";";
  // M = 0 where RA·x − 4 (x − 1) = 0.
  const double RA = (4.0 * 3 - 3) / 4, zero = 4 / (4 - RA);
  bool found = false, load = false;
  for (const auto& p : places) {
    const double at = p["at"];
    load = load || std::abs(at - 1) < 1e-9;
    if (std::abs(at - zero) < 1e-9) found = words[at].find("moment_z zero") != std::string::npos;
  }
  CHECK(found);
  CHECK(load);
  const std::string text = folder.run("trace m.yaml beam").out;
  CHECK_THAT(text, Contains("rot. z") && Contains("shear") && Contains("Mz = 0"));
  // A place in percent where nothing jumps is told once.
  const json twice = json::parse(folder.run("trace m.yaml beam --at '75 %,50 %' --json").out)["places"];
  CHECK(twice.size() == 2);
}

TEST_CASE("The rotation of a section is the slope less the shear strain, and shear stress of torsion is T/Wt") {
  const Folder folder;
  folder.write("m.yaml", R"(
corvex: 1
up: z
points: {A: [0, 0, 0], B: [1 m, 0, 0]}
sections: {tube: {shape: round tube, diameter: 60 mm, wall: 4 mm}}
members: {shaft: {through: [A, B], section: tube, material: S235}}
supports: {A: fixed}
loads: {twist: [{at: B, moment: {x: 500 N*m}}], bend: [{at: B, force: {down: 1 kN}}]}
)");
  const json j = json::parse(folder.run("solve m.yaml --json").out);
  const double R = 0.03, r = 0.026, J = M_PI / 2 * (std::pow(R, 4) - std::pow(r, 4)), I = J / 2, E = 210e9, G = E / 2.6;
  CHECK(j["cases"]["twist"]["members"]["shaft"]["shear_stress"]["max"]["value"].get<double>() ==
        near(500 * R / J, 1e-6));
  const json end = json::parse(folder.run("trace m.yaml shaft --case bend --at B --json").out)["places"][0];
  CHECK(end["rotation_z"].get<double>() == near(-1000 / (2 * E * I)));
  const json twisted = json::parse(folder.run("trace m.yaml shaft --case twist --at B --json").out)["places"][0];
  CHECK(std::abs(twisted["twist"].get<double>()) == near(500 / (G * J)));
}

TEST_CASE("Pictures without --case are of the case that governs") {
  const Folder folder;
  folder.write("m.yaml", many_combinations());
  const std::string plain = folder.run("draw m.yaml --what moment").out;
  CHECK(plain == folder.run("draw m.yaml --what moment --case k24").out);
  CHECK(plain != folder.run("draw m.yaml --what moment --case k1").out);
  CHECK_THAT(folder.run("draw m.yaml --case k1,k2").err, Contains("a picture shows one load case"));
}

TEST_CASE("Hand values of some cases alone") {
  const Folder folder;
  const std::string model = "'" CORVEX_EXAMPLES "/cider-works/conveyor-trestle.yaml'";
  const Outcome o = folder.run("verify " + model + " --case push");
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Contains("all 2 values agree") && !Contains("product "));
  CHECK_THAT(folder.run("solve " + model + " --case push").out, Contains("all 2 values agree"));
  CHECK_THAT(folder.run("verify " + model + " --case pull").err,
             Contains("there is no load case or combination 'pull'"));
}

TEST_CASE("Numbers: ties are ties, and small ones look alike") {
  CHECK(corvex::number(1312.499999999999, 4) == corvex::number(1312.5, 4));
  CHECK(corvex::number(-0.00006264, 4) == "-6.264e-05");
  CHECK(corvex::number(2.188e-7, 4) == "2.188e-07");
  CHECK(corvex::number(0.0002188, 4) == "0.0002188");
}

TEST_CASE("Options and words that are misspelt are answered with the nearest, in one style") {
  const Folder folder;
  folder.write("m.yaml", truss);
  CHECK(folder.run("solve m.yaml --digts 3").err ==
        "corvex: error: '--digts' is not an option of solve; did you mean '--digits'? (see corvex --help)\n");
  CHECK_THAT(folder.run("solve m.yaml --foo").err, Contains("'--foo' is not an option of solve"));
  CHECK_THAT(folder.run("draw m.yaml --what momnt").err, Contains("did you mean 'moment'?"));
  CHECK_THAT(folder.run("solve m.yaml --digits 99").err, Contains("'99' is not an integer between 1 and 15"));
}

TEST_CASE("Profiles in inches have their mass in pounds a foot, and units of one's own") {
  const Folder folder;
  CHECK_THAT(folder.run("catalogue 'SHS 4x4x1/4 in'").out, Contains("lb/ft") && !Contains(" kg/m "));
  CHECK_THAT(folder.run("catalogue 'IPE 200' --units 'section: mm'").out, Contains("mm⁴"));
  CHECK_THAT(folder.run("catalogue 'IPE 200' --units 'section: mm' --json").err, Contains("JSON is in SI units"));
}

}  // namespace tests_of_program_outputs
