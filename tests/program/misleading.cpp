// What once ended with 0 and said nothing: an output over its own input, a limit that nobody evaluated, text under the
// name of another kind of file, a compressed bar beside a hand value in tension.
#include <catch2/catch.hpp>

#include "support/program.hpp"

namespace tests_of_program_misleading {

using Catch::Matchers::Contains;
using corvex::test::Folder;
using corvex::test::Outcome;
using Json = nlohmann::json;

namespace {

const std::string model = R"(corvex: 1
title: Strut
units: {length: mm, force: kN}
sections: {tube: SHS 40x40x3}
points: {A: [0, 0], B: [0, 1000], C: [800, 0]}
members:
  strut: {through: [A, B], section: tube, material: S235}
  stay: {through: [C, B], section: tube, material: S235, kind: link}
supports: {A: pinned, C: pinned}
loads: {crate: [{at: B, force: {down: 12}}]}
)";

}  // namespace

TEST_CASE("No verb writes over what it reads") {
  const Folder folder;
  folder.write("model.yaml", model);
  folder.write("in tables.yaml",
               "units: {length: mm, force: kN}\nsections: {tube: SHS 40x40x3}\n"
               "points: {A: [0, 0], B: [0, 1000]}\ntables: {members: stress.csv}\n"
               "supports: {A: fixed}\nloads: {crate: [{at: B, force: {down: 12}}]}\n");
  const std::string table = "name,from,to,section,material\nstrut,A,B,tube,S235\n";
  folder.write("stress.csv", table);
  std::filesystem::create_symlink("model.yaml", folder.path() / "other name.txt");
  for (const char* call : {"solve model.yaml -o model.yaml", "verify model.yaml -o model.yaml",
                           "trace model.yaml strut -o model.yaml", "catalogue model.yaml -o model.yaml",
                           "solve model.yaml --format json -o ./model.yaml", "solve model.yaml -o 'other name.txt'",
                           "solve 'in tables.yaml' -o stress.csv", "solve 'in tables.yaml' --csv ."}) {
    const Outcome o = folder.run(call);
    INFO(call << ": " << o.err);
    CHECK(o.status == 2);
    CHECK(folder.content("model.yaml") == model);
    CHECK(folder.content("stress.csv") == table);
  }
  CHECK_THAT(folder.run("solve model.yaml -o 'other name.txt'").err,
             Contains("-o 'other name.txt' would overwrite 'model.yaml', which this command reads"));
}

TEST_CASE("A file's name that ends like another kind of file is refused") {
  const Folder folder;
  folder.write("model.yaml", model);
  for (const char* name : {"r.pdf", "r.html", "r.docx", "r.JSON", "r.xls", "r.yaml", "r.svg", "r.cvs"}) {
    const Outcome o = folder.run(std::string("solve model.yaml -o ") + name);
    INFO(o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains("cannot be written: a file ends with .txt, .md, .csv, .json, .xlsx"));
    CHECK_FALSE(folder.has(name));
  }
  CHECK_THAT(folder.run("solve model.yaml -o r.JSON").err, Contains("did you mean '.json'?"));
  CHECK_THAT(folder.run("solve model.yaml -o r.cvs").err, Contains("did you mean '.csv'?"));
  for (const char* call : {"-o r.txt", "-o r", "-o r.md", "-o r.json", "-o r.xlsx", "-o r.dat --format csv"})
    CHECK(folder.run(std::string("solve model.yaml ") + call).status == 0);
}

TEST_CASE("A limit that nobody evaluated is not met, and the status says so") {
  const Folder folder;
  folder.write("model.yaml", model + "limits: [{buckling: 3, on: strut}, {safety: 1.5}]\n");
  for (const char* how : {"", " --member strut", " --point B", " -o r.txt", " --json", " --format csv"}) {
    const Outcome o = folder.run(std::string("solve model.yaml") + how);
    INFO(how << o.err);
    CHECK(o.status == 1);
    CHECK_THAT(o.err,
               Contains("limit not checked: critical load factor of the structure: load factors are those of the structure"));
  }
  const Outcome o = folder.run("solve model.yaml");
  CHECK_THAT(o.out, Contains("Limits: 1 of 3 NOT CHECKED") && !Contains("Limits: all"));
  const Json limits = Json::parse(folder.run("solve model.yaml --json").out)["limits"];
  CHECK(limits[0]["met"].is_null());
  CHECK(limits[1]["met"] == true);
}

TEST_CASE("What makes the status 1 is said on standard error, whatever is shown") {
  const Folder folder;
  folder.write("model.yaml", model + "limits: [{safety: 20}]\nhand: {expect: [{reaction: A, part: y, is: 11}]}\n");
  for (const char* how : {"", " --member stay", " --point B", " -o r.txt", " --json"}) {
    const Outcome o = folder.run(std::string("solve model.yaml") + how);
    INFO(how << o.err);
    CHECK(o.status == 1);
    CHECK_THAT(o.err, Contains("limit exceeded: safety factor of 'strut' in 'crate': 8.") && Contains("at least 20"));
    CHECK_THAT(o.err, Contains("hand value differs: reaction A y in 'crate': 11.00 kN by hand, 12.00 kN computed"));
  }
}

TEST_CASE("Stress beyond the strength deserves a word without a limit too") {
  const Folder folder;
  std::string heavy = model;
  heavy.replace(heavy.find("down: 12}"), 9, "down: 200}");
  folder.write("model.yaml", heavy);
  const Outcome o = folder.run("solve model.yaml");
  CHECK(o.status == 0);
  CHECK_THAT(o.err, Contains("warning: in case 'crate' the stress in 'strut' is above the strength of its material: "
                             "safety factor 0.494"));
  folder.write("model.yaml", heavy + "limits: [{safety: 0.3}]\n");
  CHECK_THAT(folder.run("solve model.yaml").err, !Contains("[over-strength]"));
}

TEST_CASE("Notes go to standard error in every form, and JSON carries them") {
  const Folder folder;
  std::string noted = model;
  noted.replace(noted.find("C: [800, 0]"), 11, "C: [800, 0], idle: [5, 5]");
  folder.write("model.yaml", noted);
  for (const char* form : {"", " --format markdown", " --format csv", " --json", " -o r.xlsx"}) {
    const Outcome o = folder.run(std::string("solve model.yaml") + form);
    INFO(form << o.err);
    CHECK_THAT(o.err, Contains("model.yaml:5:48: warning: no member has point 'idle'"));
    if (std::string(form) != " --json") CHECK_THAT(o.out, !Contains("note"));
  }
  const Json findings = Json::parse(folder.run("solve model.yaml --json").out)["findings"];
  REQUIRE(findings.size() == 1);
  CHECK(findings[0]["severity"] == "warning");
  CHECK(findings[0]["line"] == 5);
  CHECK(findings[0]["on"] == Json::array({"idle"}));
}

TEST_CASE("A bar in compression does not agree with a hand value in tension") {
  const Folder folder;
  const auto verified = [&](const std::string& expectation) {
    folder.write("model.yaml", model + "hand: {expect: [" + expectation + "]}\n");
    return folder.run("verify model.yaml");
  };
  CHECK(verified("{axial: strut, is: -12}").status == 0);
  const Outcome o = verified("{axial: strut, is: 12}");
  CHECK(o.status == 1);
  CHECK_THAT(o.out, Contains("same magnitude, opposite sign; take: size compares magnitudes"));
  CHECK(verified("{axial: strut, take: size, is: 12}").status == 0);
}

TEST_CASE("What is chosen by name is shown without the sums and the hand calculation of all") {
  const Folder folder;
  folder.write("model.yaml", model + "hand: {expect: [{reaction: A, part: y, is: 12}]}\n");
  const std::string both = folder.run("solve model.yaml --member strut --point A").out;
  CHECK_THAT(both,
             Contains("Reactions, global axes\n") && Contains("Internal forces") && !Contains("Hand calculation"));
  CHECK_THAT(both, !Contains("  sum ") && !Contains("  loads "));
  const std::string free = folder.run("solve model.yaml --point B").out;
  CHECK_THAT(free, Contains("Displacements") && !Contains("Reactions, global axes\n"));
  CHECK_THAT(folder.run("solve model.yaml").out, Contains("  sum ") && Contains("Hand calculation"));
}

TEST_CASE("The area for shear deformation is not the plastic shear area of section tables") {
  const Folder folder;
  const std::string out = folder.run("catalogue 'IPE 200'").out;
  CHECK_THAT(out, Contains("shear area, along y") && !Contains("Av,z"));
}

TEST_CASE("Directions of the summary come from the component that they name") {
  const Folder folder;
  std::string pushed = model;
  pushed.replace(pushed.find("kind: link"), 10, "kind: beam");
  pushed.replace(pushed.find("{down: 12}"), 10, "{down: 12, x: 0.004}");
  folder.write("model.yaml", pushed);
  const Json b = Json::parse(folder.run("solve model.yaml --json").out)["cases"]["crate"]["displacements"]["B"];
  const std::string down = fmt::format("{:#.4g}", -b["y"].get<double>() * 1e3);
  CHECK_THAT(folder.run("solve model.yaml").out, Contains("crate: largest displacement ") && Contains(" mm down"));
  const std::string out = folder.run("solve model.yaml").out;
  INFO(out << down);
  CHECK((out.find(down + " mm down") != std::string::npos || out.find("in strut") != std::string::npos));
}

TEST_CASE("The earlier name of --places is answered with the present one") {
  const Folder folder;
  folder.write("model.yaml", model);
  const Outcome o = folder.run("solve model.yaml --json --stations 5");
  CHECK(o.status == 2);
  CHECK_THAT(o.err, Contains("--places"));
  CHECK(Json::parse(folder.run("solve model.yaml --json --places 5").out)["version"] == 2);
  CHECK_THAT(folder.run("solve --help").out, !Contains("--stations"));
}

}  // namespace tests_of_program_misleading
