// Full disks, links, devices, two writers, interruptions, memory that runs out, and outputs that other programs open.
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <fstream>

#include "support/program.hpp"
#include "support/rows.hpp"

namespace tests_of_program_hostile {

using namespace corvex::test;
using Catch::Matchers::Contains;
namespace fs = std::filesystem;

namespace {

constexpr const char* beam = R"(
corvex: 1
title: rail
units: {length: m, force: kN}
points: {A: [0, 0], B: [2, 0]}
sections: {t: SHS 60x60x4}
members: {beam: {through: [A, B], section: t, material: S235}}
supports: {A: pinned, B: roller}
loads: {x: [{on: beam, at: 1, force: {down: 1}}]}
hand: {let: {P: 1 kN}, expect: [{reaction: A, part: y, is: P/2}]}
limits: [{safety: 1.5}]
variants: {thicker: {sections: {t: SHS 60x60x5}}}
sweeps: {s: {vary: {/points/B/0: [2, 2.5, 3]}, show: [{safety: all}, {mass: total}]}}
choose: {t: {from: SHS, height: at most 50 mm}}
)";

struct Model : Folder {
  Model() { write("m.yaml", beam); }
};

// Files of the folder that nobody asked for.
std::vector<std::string> others(const Folder& folder, const std::vector<std::string>& known) {
  std::vector<std::string> all;
  for (const auto& entry : fs::directory_iterator(folder.path()))
    if (const std::string name = entry.path().filename(); std::find(known.begin(), known.end(), name) == known.end())
      all.push_back(name);
  return all;
}

// Whatever it is that stands there.
std::string raw(const Folder& folder, const std::string& name) {
  std::ifstream in(folder.path() / name, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

// With redirections of its own; what it tells.
std::pair<int, std::string> told(const Folder& folder, const std::string& arguments) {
  const int status = folder.run(arguments + " 2>err #").status;
  const std::string text = raw(folder, "err");
  fs::remove(folder.path() / "err");
  return {status, text};
}

const auto forms = {"o.txt", "o.md", "o.csv", "o.json", "o.xlsx"};

}  // namespace

TEST_CASE("Every form is written to a device, which stays one") {
  const Model folder;
  for (const std::string form : forms) {
    INFO(form);
    fs::remove(folder.path() / form);
    fs::create_symlink("/dev/null", folder.path() / form);
    CHECK(folder.run("solve m.yaml -o " + form).status == 0);
    CHECK(fs::is_symlink(folder.path() / form));
    CHECK(fs::is_character_file("/dev/null"));
  }
}

TEST_CASE("A device without room is told for every form") {
  const Model folder;
  for (const std::string form : forms) {
    fs::create_symlink("/dev/full", folder.path() / form);
    const Outcome o = folder.run("solve m.yaml -o " + form);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains("'" + form + "' cannot be written: the disk is full"));
  }
  for (const char* call : {"solve m.yaml", "inspect m.yaml", "compare m.yaml", "sweep m.yaml", "choose m.yaml",
                           "--help", "demo d", "new", "draw m.yaml", "catalogue"}) {
    const auto [status, text] = told(folder, std::string(call) + " > /dev/full");
    INFO(call);
    CHECK(status == 2);
    CHECK_THAT(text, Contains("standard output cannot be written"));
  }
}

TEST_CASE("Where the largest size of a file is reached the old file stays, and nothing is left beside it") {
  const Model folder;
  for (const std::string form : forms) {
    folder.write(form, "old");
    const Outcome o = folder.run("solve m.yaml -o " + form, "", "ulimit -f 1;");
    INFO(form);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(form == "o.xlsx" ? "not enough space" : "larger than is allowed"));
    CHECK_THAT(o.err, !Contains("[ERROR]"));
    CHECK(raw(folder, form) == "old");
  }
  CHECK(others(folder, {"m.yaml", "o.txt", "o.md", "o.csv", "o.json", "o.xlsx"}).empty());
}

TEST_CASE("CSV files of a folder are written all or none") {
  const Folder folder;
  std::string model = beam;
  model.replace(model.find("B: [2, 0]}"), 10, "B: [2, 0], more points beside: {repeat: B, count: 40, by: [1, 0]}}");
  folder.write("m.yaml", model);
  const Outcome o = folder.run("solve m.yaml --csv d", "", "ulimit -f 1;");
  CHECK(o.status == 2);
  CHECK(fs::is_empty(folder.path() / "d"));
  CHECK(folder.run("solve m.yaml --csv d").status == 0);
  CHECK(folder.has("d/reactions.csv"));
}

TEST_CASE("Mode, hard links and symbolic links of an old file are kept") {
  const Model folder;
  for (const std::string form : forms) {
    INFO(form);
    folder.write(form, "old");
    chmod((folder.path() / form).c_str(), 0600);
    CHECK(folder.run("solve m.yaml -o " + form).status == 0);
    struct stat s {};
    CHECK(stat((folder.path() / form).c_str(), &s) == 0);
    CHECK((s.st_mode & 07777) == 0600);
    CHECK(raw(folder, form) != "old");
    fs::create_hard_link(folder.path() / form, folder.path() / ("hard-" + form));
    folder.write(form, std::string(1 << 20, 'x'));
    CHECK(folder.run("solve m.yaml -o " + form).status == 0);
    CHECK(raw(folder, form) == raw(folder, "hard-" + form));
    CHECK(raw(folder, form).size() < (1 << 20));
    fs::remove(folder.path() / ("hard-" + form));
    // A link to a file that is not there yet.
    fs::remove(folder.path() / form);
    fs::create_symlink("new-" + form, folder.path() / form);
    CHECK(folder.run("solve m.yaml -o " + form).status == 0);
    CHECK(fs::is_symlink(folder.path() / form));
    CHECK(folder.has("new-" + form));
  }
}

TEST_CASE("A new file has the mode that the mask gives, and a file that must not be written is left") {
  const Model folder;
  CHECK(folder.run("solve m.yaml -o o.txt", "", "umask 027;").status == 0);
  struct stat s {};
  CHECK(stat((folder.path() / "o.txt").c_str(), &s) == 0);
  CHECK((s.st_mode & 07777) == 0640);
  if (geteuid() == 0) return;  // may write anything
  chmod((folder.path() / "o.txt").c_str(), 0444);
  CHECK_THAT(folder.run("solve m.yaml -o o.txt").err, Contains("no right to write"));
}

TEST_CASE("A file of the name that an unfinished one might have is nobody else's business") {
  const Model folder;
  folder.write("o.txt.part", "mine");
  CHECK(folder.run("solve m.yaml -o o.txt").status == 0);
  CHECK(raw(folder, "o.txt.part") == "mine");
  const std::string long_name = std::string(248, 'n') + ".txt";
  CHECK(folder.run("solve m.yaml -o " + long_name).status == 0);
  CHECK(folder.has(long_name));
  CHECK_THAT(folder.run("solve m.yaml -o n" + std::string(255, 'n') + ".txt").err, Contains("the name is too long"));
}

TEST_CASE("Of many writers of one file each writes all of it, and nothing is left beside it") {
  const Model folder;
  const Outcome once = folder.run("solve m.yaml -o once.json");
  REQUIRE(once.status == 0);
  // The shell that runs the program starts the others.
  const Outcome o = folder.run("solve m.yaml -o o.json", "",
                               "for i in 1 2 3 4 5 6 7 8 9 10 11 12; do '" CORVEX_PROGRAM
                               "' solve m.yaml -o o.json & done; trap wait EXIT;");
  CHECK(o.status == 0);
  CHECK(o.err.empty());
  CHECK(raw(folder, "o.json") == raw(folder, "once.json"));
  CHECK(others(folder, {"m.yaml", "o.json", "once.json"}).empty());
}

TEST_CASE("Killed at any moment by any signal, the program leaves the old file or the new one, and nothing else") {
  const Model folder;
  REQUIRE(folder.run("solve m.yaml -o whole.json").status == 0);
  const std::string whole = raw(folder, "whole.json");
  int old = 0;
  for (const char* signal : {"INT", "TERM", "HUP", "KILL"})
    for (int milliseconds = 2; milliseconds <= 40; milliseconds += 2) {
      folder.write("o.json", "old");
      folder.run(
          "solve m.yaml -o o.json", "",
          "timeout -s " + std::string(signal) + " 0.0" + (milliseconds < 10 ? "0" : "") + std::to_string(milliseconds));
      const std::string there = raw(folder, "o.json");
      CHECK((there == "old" || there == whole));
      old += there == "old";
    }
  CHECK(old > 0);
  CHECK(others(folder, {"m.yaml", "o.json", "whole.json"}).empty());
}

TEST_CASE("The demo leaves files alone that are not its own") {
  const Folder folder;
  fs::create_directory(folder.path() / "d");
  folder.write("d/index.html", "my page");
  const Outcome o = folder.run("demo d");
  CHECK(o.status == 2);
  CHECK_THAT(o.err, Contains("index.html' already exists"));
  CHECK(raw(folder, "d/index.html") == "my page");
  CHECK(others(folder, {"d"}).empty());
}

TEST_CASE("A model from a stranger reads no table outside its folder") {
  const Folder folder;
  fs::create_directory(folder.path() / "models");
  folder.write("secret.csv", "password is,pear\n1,2\n");
  for (const char* path : {"../secret.csv", "/etc/passwd", "link.csv"}) {
    folder.write("models/m.yaml", std::string("tables: {points: ") + path + "}\n" + beam);
    fs::remove(folder.path() / "models/link.csv");
    fs::create_symlink("../secret.csv", folder.path() / "models/link.csv");
    const Outcome o = folder.run("solve models/m.yaml");
    INFO(path);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains("outside the folder of the model") && !Contains("pear"));
  }
}

TEST_CASE("Tables are UTF-8, and their cells can be printed") {
  const Folder folder;
  folder.write("m.yaml",
               std::string(beam).replace(std::string(beam).find("points: {A"), 31, "tables: {points: p.csv}\n"));
  folder.write("p.csv", "name,x,y\nA,0,0\nTr\xe4ger,1,1\n");
  CHECK_THAT(folder.run("solve m.yaml").err, Contains("p.csv:3:3: error: the file is not UTF-8 text"));
  folder.write("p.csv", "name,x,y\nA,0,0\nB\x1b[2J,1,1\n");
  CHECK_THAT(folder.run("solve m.yaml").err,
             Contains("p.csv:3:1: error: this cell cannot be printed") && Contains("U+001B"));
}

TEST_CASE("What cannot be read, or has no end, is told in a moment") {
  const Folder folder;
  CHECK_THAT(folder.run("solve /dev/zero").err, Contains("larger than 256 MiB"));
  CHECK_THAT(folder.run("solve /proc/self/mem").err, Contains("cannot be read"));
  CHECK_THAT(folder.run("solve .").err, Contains("this is a folder"));
  CHECK_THAT(told(folder, "solve - <&-").second, Contains("it is closed"));
  std::ofstream(folder.path() / "large.yaml").close();
  fs::resize_file(folder.path() / "large.yaml", std::uintmax_t{3} << 30);
  CHECK_THAT(folder.run("solve large.yaml").err, Contains("larger than 256 MiB"));
}

TEST_CASE("Cells that a spreadsheet would take for formulas are texts, and Markdown shows names as they are") {
  const Folder folder;
  std::string model = beam;
  model.replace(model.find("is: P/2"), 7, "is: -P/2*-1, note: \"=HYPERLINK(1)\"");
  model.replace(model.find("beam: {through"), 4, "\"<b>|`a`&lt;[x](y)\"");
  model.replace(model.find("on: beam"), 8, "on: \"<b>|`a`&lt;[x](y)\"");
  folder.write("m.yaml", model);
  const Outcome csv = folder.run("verify m.yaml --format csv");
  REQUIRE(csv.status == 0);
  CHECK_THAT(csv.out, Contains("'-P/2*-1") && !Contains(",-P/2"));
  const Outcome markdown = folder.run("solve m.yaml --format markdown");
  CHECK_THAT(markdown.out, Contains("\\<b>\\|\\`a\\`\\&lt;\\[x](y)"));
}

TEST_CASE("Names of wide characters and of combined ones keep columns in line") {
  const Folder folder;
  std::string model = beam;
  model.replace(model.find("members: {beam:"), 15,
                "members: {\u6881\u4e00: {through: [A, B], section: t, material: S235}, "
                "be\u0301am: {through: [A, B], section: t, material: S235}, beam:");
  folder.write("m.yaml", model);
  const Outcome o = folder.run("solve m.yaml");
  REQUIRE(o.status == 0);
  // Each of them is four columns wide.
  for (const char* name : {"beam", "\u6881\u4e00", "be\u0301am"})
    CHECK_THAT(o.out, Contains("\n  " + std::string(name) + "    N   kN "));
}

#ifndef CORVEX_SHORT_ROWS  // under a sanitizer memory is not bounded
TEST_CASE("Memory that runs out is a message, for every verb and form") {
  const Model folder;
  for (const char* call : {"solve m.yaml",
                           "solve m.yaml --json",
                           "solve m.yaml -o o.xlsx",
                           "verify m.yaml",
                           "trace m.yaml beam",
                           "draw m.yaml -o o.svg",
                           "draw m.yaml -o o.png",
                           "draw m.yaml -o o.pdf",
                           "draw m.yaml --what deformed --animate -o o.gif",
                           "catalogue m.yaml",
                           "inspect m.yaml",
                           "compare m.yaml",
                           "compare m.yaml -o o.xlsx",
                           "sweep m.yaml",
                           "sweep m.yaml -o o.xlsx",
                           "sweep m.yaml -o o.png",
                           "sweep m.yaml -o o.svg",
                           "choose m.yaml",
                           "choose m.yaml -o o.yaml",
                           "draw m.yaml --variants all --what deformed -o o.pdf"})
    for (int megabytes = 1; megabytes <= 61; megabytes += 6) {
      const Outcome o = folder.run(std::string(call) + " --max-memory '" + std::to_string(megabytes) + " MB'");
      INFO(call << ", " << megabytes << " MB: " << o.err);
      CHECK((o.status == 0 || (o.status == 2 && o.err.find("not enough memory") != std::string::npos)));
    }
  CHECK_THAT(folder.run("solve m.yaml --max-memory lots").err, Contains("'lots' is not a size; write it as \"2 GB\""));
}
#endif

TEST_CASE("Time is bounded, and what takes longer writes nothing") {
  const Folder folder;
  std::string model =
      "corvex: 1\nunits: {length: m, force: kN}\nsections: {t: SHS 60x60x4}\npoints: {A: [0, 0], B: [2, 0]}\n"
      "members: {b: {through: [A, B], section: t, material: S235}}\nsupports: {A: fixed}\nloads:\n";
  folder.write("small.yaml", model + "  c: [{at: B, force: {y: -1}}]\n");
  for (int i = 0; i < rows(20000, 5000); ++i) model += "  c" + std::to_string(i) + ": [{at: B, force: {y: -1}}]\n";
  folder.write("many.yaml", model);
  folder.write("old.txt", "old");
  for (const char* call : {"solve many.yaml -o old.txt", "inspect many.yaml -o old.txt"}) {
    const Outcome o = folder.run(std::string(call) + " --max-time '0.05 s'");
    INFO(call << o.err);
    CHECK(o.status == 2);
    CHECK(o.out.empty());
    CHECK_THAT(o.err, Contains("this takes longer than --max-time allows"));
    CHECK(folder.content("old.txt") == "old");
  }
  CHECK(folder.run("solve small.yaml --max-time '10 min'").status == 0);
  CHECK_THAT(folder.run("solve small.yaml --max-time 5").err, Contains("'5' is not a time; write it as \"90 s\""));
  // As many findings as points are no matter of minutes, and as many load cases as that neither.
  std::string chain =
      "corvex: 1\nunits: {length: m, force: kN}\nsections: {t: SHS 60x60x4}\nsupports: {p0: fixed}\n"
      "loads: {w: [{gravity: down}]}\npoints:\n";
  const int points = rows(100000, 20000);
  for (int i = 0; i < points; ++i) chain += fmt::format("  p{0}: [{0}, 0]\n", i);
  chain += "members:\n";
  for (int i = 1; i < points; ++i)
    chain += fmt::format("  m{0}: {{through: [p{1}, p{0}], section: t, material: S235}}\n", i, i - 1);
  folder.write("chain.yaml", chain);
  const std::string bounded = " --max-time '400 s' -o old.txt";
  CHECK(folder.run("inspect chain.yaml" + bounded).status == 1);
  CHECK(folder.run("solve many.yaml" + bounded).status == 0);
}

}  // namespace tests_of_program_hostile
