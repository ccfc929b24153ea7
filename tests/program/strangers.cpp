// Foreign models, names and arguments, and machines with little memory: every refusal has a message, and work stays
// within its bounds.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <random>
#include <regex>

#include "support/program.hpp"
#include "support/rows.hpp"
#include "support/text.hpp"
#include "support/trestle.hpp"

namespace tests_of_program_strangers {

using namespace corvex::test;
using Catch::Matchers::Contains;
namespace fs = std::filesystem;

namespace {

const std::string beam = R"(corvex: 1
title: beam
units: {length: mm, force: kN}
parameters: {snow: 1 kN/m, w: 4 mm}
sections: {tube: SHS 60x60x4, drawn: {shape: square tube, width: 60 mm, wall: w}}
points: {A: [0, 0], B: [3000, 0], C: [3000, 900]}
members:
  beam: {through: [A, B], section: tube, material: S235}
  post: {through: [B, C], section: drawn, material: S235}
supports: {A: fixed, C: pinned}
loads: {people: [{on: beam, line: {down: snow}}]}
hand: {let: {P: 2 kN}, expect: [{reaction: A, part: x, is: P*0, within: 100 kN}]}
limits: [{safety: 0.1}]
variants: {v: {parameters: {w: 5 mm}}}
sweeps: {n: {vary: {w: {from: 1 mm, to: 5 mm, count: 5}}, show: [{mass: total}]}}
choose: {tube: {from: SHS, height: at most 50 mm}}
)";

struct Model : Folder {
  explicit Model(const std::string& text = beam) { write("m.yaml", text); }
};

// Whether a text has no control characters and no invisible ones.
bool is_printable(const std::string& text) {
  for (const char c : text)
    if (const auto b = static_cast<unsigned char>(c); (b < 0x20 && c != '\n' && c != '\t') || b == 0x7F) return false;
  for (const char* hidden : {"\u200b", "\u200e", "\u200f", "\u202a", "\u202e", "\u2060", "\u2066", "\u206a", "\ufeff",
                             "\ufff9", "\u00ad", "\u3164", "\u180e", "\u061c", "\u0085", "\u009b"})
    if (text.find(hidden) != std::string::npos) return false;
  return true;
}

std::string repeated(const std::string& text, int times) {
  std::string all;
  for (int i = 0; i < times; ++i) all += text;
  return all;
}

#ifdef CORVEX_SHORT_ROWS
constexpr bool watched = true;
#else
constexpr bool watched = false;
#endif

}  // namespace

#ifndef CORVEX_SHORT_ROWS  // under a sanitizer memory is not bounded
// CORVEX_TRIALS sets the number of runs.
TEST_CASE("Memory or a stack that runs out is a message, for random calls and limits") {
  const char* wanted = std::getenv("CORVEX_TRIALS");
  const int runs = wanted ? std::atoi(wanted) : 150;
  Model folder;
  folder.write(
      "trestle.yaml",
      trestle +
          "variants:\n  heavy: {parameters: {wall: 5 mm}}\nhand: {expect: [{reaction: A, part: x, case: push, is: 0, within: 9 kN}]}\n");
  static constexpr const char* calls[] = {"solve {}",
                                          "solve {} --all",
                                          "solve {} --json",
                                          "solve {} --format markdown",
                                          "solve {} -o o.xlsx",
                                          "solve {} --csv d",
                                          "verify {}",
                                          "inspect {}",
                                          "inspect {} --json",
                                          "trace {} {member}",
                                          "modes {}",
                                          "modes {} --json",
                                          "compare {}",
                                          "compare {} -o c.xlsx",
                                          "derive {}",
                                          "derive {} -o d.html",
                                          "derive {} -o d.pdf",
                                          "report {} -o r.html",
                                          "report {} -o r.pdf",
                                          "report {} -o r.md",
                                          "view {} -o v.html",
                                          "draw {} -o o.svg",
                                          "draw {} -o o.png",
                                          "draw {} --what stress -o o.pdf",
                                          "draw {} --what deformed --animate -o o.gif",
                                          "draw {} --variants all --what deformed -o o.pdf",
                                          "catalogue {}",
                                          "sweep m.yaml",
                                          "sweep m.yaml -o s.png",
                                          "choose m.yaml",
                                          "catalogue",
                                          "new --kind truss"};
  static constexpr int stacks[] = {64, 80, 100, 128, 200, 256, 512, 1024, 4096, 8192};
  std::mt19937 random(static_cast<unsigned>(runs));
  int done = 0, short_of_memory = 0;
  for (int i = 0; i < runs; ++i) {
    const bool first = random() % 2 == 0;
    std::string call = calls[random() % std::size(calls)];
    call = std::regex_replace(call, std::regex("\\{member\\}"), first ? "beam" : "rail");
    call = std::regex_replace(call, std::regex("\\{\\}"), first ? "m.yaml" : "trestle.yaml");
    const double megabytes = 3 + static_cast<double>(random() % 1970) / 10;
    std::string before = fmt::format("ulimit -S -s {};", stacks[random() % std::size(stacks)]);
    // By the option, or by the shell.
    if (random() % 2 == 0 && call.find("new") == std::string::npos)
      call += fmt::format(" --max-memory '{} MB'", megabytes);
    else
      before += fmt::format(" ulimit -d {};", static_cast<int>(megabytes * 1000));
    const Outcome o = folder.run(call, "", before);
    INFO(before << " corvex " << call << ": " << o.status << " " << o.err);
    const bool no_memory = o.status == 2 && o.err.find("not enough memory") != std::string::npos;
    CHECK((o.status == 0 || o.status == 1 || no_memory));
    no_memory ? ++short_of_memory : ++done;
  }
  CHECK(done > runs / 10);
  CHECK(short_of_memory > runs / 20);
}

TEST_CASE("A spreadsheet for which there is not enough memory says so") {
  Model folder;
  folder.write("trestle.yaml", trestle);
  int short_of_memory = 0;
  // From what does not let the program begin to what is enough, in steps smaller than what the spreadsheet takes.
  for (const char* model : {"m.yaml", "trestle.yaml"})
    for (int hundredths = 240; hundredths <= 500; hundredths += 5) {
      const Outcome o = folder.run(fmt::format("solve {} -o o.xlsx --max-memory '{} MB'", model, hundredths / 100.0));
      INFO(model << " " << hundredths << ": " << o.status << " " << o.err);
      if (o.status == 0) continue;
      CHECK(o.status == 2);
      CHECK_THAT(o.err, Contains("not enough memory"));
      ++short_of_memory;
    }
  CHECK(short_of_memory > 10);
}
#endif

TEST_CASE("Work grows as its size does, and ends in the time that is allowed") {
  // Far more than each of them needs, far less than it needed when its work grew with the square of its size.
  const std::string bounded = " --max-time '300 s'";
  // A hand formula as long as a text may be.
  const int terms = watched ? 4000 : rows(12000, 6000);
  const Model formula(replaced(beam, "is: P*0", "is: \"" + repeated("P*1-", terms) + "0 kN\""));
  for (const char* call : {"verify m.yaml -o o.txt", "solve m.yaml -o o.txt", "solve m.yaml --json -o o.json"}) {
    const Outcome o = formula.run(call + bounded);
    INFO(call << o.err.substr(0, 300));
    CHECK(o.status < 2);
  }
  // As many runs of a sweep as anybody reads.
  const Model sweep(replaced(beam, "count: 5", fmt::format("count: {}", watched ? 300 : rows(6000, 1500))));
  CHECK(sweep.run("sweep m.yaml n -o o.json" + bounded).status == 0);
  // Joints are checked one after the other.
  const int panels = watched ? 500 : rows(5000, 1500);
  std::string truss =
      "corvex: 1\nunits: {length: m, force: kN}\nsections: {t: SHS 60x60x4}\n"
      "defaults: {section: t, material: S235, kind: link}\npoints:\n";
  for (int i = 0; i <= panels; ++i) truss += fmt::format("  B{0}: [{0}, 0]\n  T{0}: [{0}, 1]\n", i);
  truss += "members:\n";
  for (int i = 0; i <= panels; ++i) truss += fmt::format("  v{0}: {{through: [B{0}, T{0}]}}\n", i);
  for (int i = 0; i < panels; ++i)
    truss += fmt::format(
        "  b{0}: {{through: [B{0}, B{1}]}}\n  t{0}: {{through: [T{0}, T{1}]}}\n  d{0}: {{through: [B{0}, T{1}]}}\n", i,
        i + 1);
  truss += fmt::format("supports: {{B0: pinned, B{}: roller}}\nloads: {{x: [{{gravity: down}}]}}\n", panels);
  const Model bars(truss);
  const Outcome o = bars.run("derive m.yaml -o o.txt" + bounded);
  INFO(o.err.substr(0, 500));
  CHECK(o.status == 0);
}

TEST_CASE("Large displacements under loads that are absurd end early, with the reason, told once") {
  const auto chain = [](int members, const std::string& force) {
    return "corvex: 1\nunits: {length: mm, force: kN}\nanalysis: {order: large}\nsections: {t: SHS 60x60x4}\npoints:\n"
           "  A: [0, 0]\n  P: {repeat: A, count: " +
           std::to_string(members) +
           ", by: [0, 500]}\nmembers:\n  a: {through: [A, P.1], section: t, material: S235}\n  m: {repeat: a, count: " +
           std::to_string(members - 1) + ", points: [P]}\nsupports: {A: fixed}\nloads: {x: [{at: P." +
           std::to_string(members) + ", force: {x: " + force + ", down: " + force + "}}]}\n";
  };
  const std::string bounded = " --max-time '400 s'";
  for (const char* force : {"5e7", "5e12", "1e25"}) {
    const Model folder(chain(watched ? 4 : 20, force));
    const Outcome o = folder.run("solve m.yaml" + bounded);
    INFO(force << o.err);
    CHECK(o.status == 2);
    const std::size_t first = o.err.find("[buckles]");
    REQUIRE(first != std::string::npos);
    CHECK(o.err.find("[buckles]", first + 1) == std::string::npos);
    CHECK((o.err.find("it is far too large for the structure") != std::string::npos ||
           o.err.find("no equilibrium is found for a billionth of the load") != std::string::npos));
  }
}

TEST_CASE("Names, arguments and file names are no orders to a terminal") {
  const Model folder;
  const std::string evil = "\x1b]0;x\x07\x1b[2J\u202e\u3164";
  // Every verb and option that takes a word.
  for (const char* call : {"solve {}",
                           "solve m.yaml --set {}=1",
                           "solve m.yaml --set /points/{}=1",
                           "solve m.yaml --variant {}",
                           "trace m.yaml {}",
                           "solve m.yaml --case {}",
                           "solve m.yaml --units {}",
                           "catalogue {}",
                           "{}",
                           "solve m.yaml --{}",
                           "solve m.yaml -o {}.svg",
                           "draw m.yaml -o {}.xyz",
                           "draw m.yaml --what {}",
                           "catalogue --min-Iz {}",
                           "solve m.yaml --max-memory {}",
                           "solve m.yaml --max-time {}",
                           "new --kind {}",
                           "sweep m.yaml {}",
                           "solve m.yaml --table {}",
                           "solve m.yaml --point {}",
                           "solve m.yaml --tables-from {} --set w={}",
                           "draw m.yaml --size {}",
                           "derive m.yaml --point {}",
                           "modes m.yaml --buckling {}",
                           "report m.yaml --parts {}",
                           "compare m.yaml --show {}",
                           "solve m.yaml --digits {}",
                           "solve m.yaml --member {}",
                           "view m.yaml --port {}"}) {
    const std::string arguments = std::regex_replace(call, std::regex("\\{\\}"), "\"$EVIL\"");
    const Outcome o = folder.run(arguments, "", "EVIL='" + evil + "';");
    INFO(call << ": " << o.err);
    CHECK(is_printable(o.out + o.err));
    CHECK(o.status == 2);
  }
  // A model in a file of such a name.
  const std::string name = "m" + evil.substr(1, 6) + "\x1b[31m\u202e.yaml";
  folder.write(name, beam);
  folder.write("wrong" + name, beam + "bad: 1\n");
  for (const char* call : {"solve \"$F\"", "solve \"$F\" --record", "inspect \"$F\"", "compare \"$F\" m.yaml",
                           "solve \"wrong$F\"", "inspect \"wrong$F\"", "verify \"$F\" --record", "modes \"$F\""}) {
    const Outcome o = folder.run(call, "", "F='" + name + "';");
    INFO(call << ": " << o.out << o.err);
    CHECK(is_printable(o.out + o.err));
  }
  // Names in the model.
  for (const char* hidden :
       {"\ufff9", "\ufffb", "\u206a", "\u00ad", "\u3164", "\u180e", "\u115f", "\u2061", "\U000e0100"}) {
    const Model bad(replaced(beam, "beam: {through", std::string("\"b") + hidden + "\": {through"));
    const Outcome o = bad.run("solve m.yaml");
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains("m.yaml:8:") && Contains("the invisible character U+"));
    CHECK(is_printable(o.out + o.err));
  }
}

TEST_CASE("A path that leads nowhere, an empty name and a number that is none are told as what they are") {
  const Model folder;
  const std::pair<const char*, const char*> calls[] = {
      {"solve ''", "a name was expected, but it is empty"},
      {"solve m.yaml -o ''", "a name was expected, but it is empty"},
      {"draw m.yaml -o ''", "a name was expected, but it is empty"},
      {"compare '' m.yaml", "a name was expected, but it is empty"},
      {"draw m.yaml --scale nan -o o.svg", "'nan': a number above 0"},
      {"draw m.yaml --scale 1e308 -o o.svg", "'1e308': a number above 0"},
      {"draw m.yaml --scale -1 -o o.svg", "'-1': a number above 0"},
      {"solve m.yaml --set /points/B/00=1", "'00' is not an entry of /points/B"},
      {"solve m.yaml --set /points/B=[1e300,0]", "out of range"}};
  for (const auto& [call, said] : calls) {
    const Outcome o = folder.run(call);
    INFO(call << ": " << o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(said) && !Contains("structure: error") && !Contains(" inf "));
  }
  folder.write("t.yaml", replaced(beam, "units:", "tables: {points: missing.csv}\nunits:"));
  CHECK_THAT(folder.run("solve t.yaml").err, Contains("'missing.csv': the file does not exist"));
  folder.write("u.yaml", replaced(beam, "units:", "tables: {points: ../missing.csv}\nunits:"));
  CHECK_THAT(folder.run("solve u.yaml").err, Contains("is outside the folder of the model"));
}

TEST_CASE("A spreadsheet has the same bytes whenever it is written, and tells what was missing") {
  const Model folder;
  REQUIRE(folder.run("solve m.yaml -o a.xlsx").status == 0);
  // Times of the format count in steps of two seconds.
  REQUIRE(std::system("sleep 2.1") == 0);
  REQUIRE(folder.run("solve m.yaml -o b.xlsx").status == 0);
  CHECK(folder.content("a.xlsx") == folder.content("b.xlsx"));
  // Sanitizers need descriptors of their own.
  if (watched) return;
  const Outcome o = folder.run("solve m.yaml -o c.xlsx", "", "exec bash -c 'ulimit -n 5; exec \"$0\" \"$@\"'");
  INFO(o.err);
  CHECK(o.status == 2);
  CHECK_THAT(o.err, Contains("Too many open files"));
}

TEST_CASE("Files are written where there is no /proc") {
  const Model folder;
  // In a namespace of its own; where that is not allowed there is nothing to be seen. Sanitizers need /proc.
  if (watched || std::system("unshare -m true 2>/dev/null") != 0) return;
  const Outcome o = folder.run("solve m.yaml -o o.txt && cat o.txt", "",
                               "export LD_LIBRARY_PATH='" CORVEX_BUILD
                               "/lib'; unshare -m sh -c 'mount -t tmpfs none /proc && exec \"$0\" \"$@\"'");
  INFO(o.err);
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Contains("beam"));
}

}  // namespace tests_of_program_strangers
