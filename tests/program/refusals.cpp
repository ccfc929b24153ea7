// What is wrong: exit status 2, a helpful sentence with its place on standard error, nothing written
// anywhere, at once.
#include <catch2/catch.hpp>

#include "support/program.hpp"

namespace tests_of_program_refusals {

using Catch::Matchers::Contains;
using Catch::Matchers::StartsWith;
using corvex::test::Folder;
using corvex::test::Outcome;

namespace {

const std::string sound = R"(corvex: 1
units: {length: mm, force: kN}
sections: {leg: {shape: square tube, width: 60 mm, wall: 4 mm}}
points: {A: [0, 0], B: [0, 900]}
members:
  post: {through: [A, B], section: leg, material: S235}
supports: {A: fixed}
loads: {push: [{at: B, force: {x: 2}}]}
)";

std::string with(const std::string& what, const std::string& by) {
  std::string text = sound;
  const std::size_t at = text.find(what);
  REQUIRE(at != std::string::npos);
  return text.replace(at, what.size(), by);
}

}  // namespace

TEST_CASE("A wrong model ends with 2, says where and what, and writes nothing") {
  std::string deep = "a: ";
  deep.append(100000, '[');
  const auto [model, message] = GENERATE_COPY(table<std::string, std::string>({
      {with("section: leg", "setcion: leg"),
       "model.yaml:6:27: error: 'setcion' is not a key of member 'post'; did you mean 'section'?"},
      {with("width: 60 mm", "width: 60 kg"), "model.yaml:3:45: error: '60 kg' is a mass"},
      {with("wall: 4 mm", "wall: 4 kN"), "model.yaml:3:58: error: '4 kN' is a force; a section dimension was expected"},
      {with("[A, B], section", "[A, X], section"), "model.yaml:6:23: error: there is no point 'X'"},
      {with("B: [0, 900]", "B: [0, 900], B: [0, 1]"),
       "model.yaml:4:34: error: 'B' is given a second time here; the first is in line 4"},
      {"a: &a [lol, lol]\nb: &b [*a, *a]\nc: [*b, *b]\n", "model.yaml:1:4: error: an anchor"},
      {deep, "model.yaml:1:35: error: lists and maps are nested more than 32 deep"},
      {with("A: fixed", "A: roller"), "model.yaml:7:1: error: the structure slides along x: nothing restrains it"},
      {with("wall: 4 mm", "wall: 30 mm"), "model.yaml:3:58: error: a wall of 30 mm leaves no hole"},
      {with("{at: B,", "{at: B.1,"), "model.yaml:8:21: error: there is no point 'B.1'; there are: A, B"},
  }));
  const Folder folder;
  folder.write("model.yaml", model);
  for (const char* how : {"solve model.yaml -o out.txt", "solve model.yaml --json", "solve model.yaml"}) {
    const Outcome o = folder.run(how);
    CHECK(o.status == 2);
    CHECK(o.out.empty());
    CHECK_THAT(o.err, StartsWith(message));
    CHECK_FALSE(folder.has("out.txt"));
    CHECK_FALSE(folder.has("out.txt.part"));
  }
}

TEST_CASE("A wrong call ends with 2 and a hint") {
  const Folder folder;
  folder.write("model.yaml", sound);
  const auto [call, message] = GENERATE(table<std::string, std::string>({
      {"new --kind bean", "--kind: 'bean' is not a valid value; did you mean 'beam'?"},
      {"new --kind bridge", "--kind: 'bridge' is not a valid value; valid values: beam, trestle, truss, frame, mast"},
      {"new -o model.yaml", "'model.yaml' already exists; choose another name"},
      {"new -o nowhere/model.yaml", "'nowhere/model.yaml' cannot be written"},
      {"sovle model.yaml", "there is no command 'sovle'; did you mean 'solve'?"},
      {"fly",
       "there is no command 'fly'; there are: new, inspect, solve, trace, modes, verify, derive, compare, sweep, choose, draw, view, report, catalogue, demo"},
      {"check model.yaml", "'check' is not implemented"},
      {"modes model.yaml --buckling pull", "there is no load case or combination 'pull'"},
      {"modes model.yaml --vibration 2000", "--vibration"},
      {"trace model.yaml", "MEMBER is required"},
      {"trace model.yaml past", "there is no member 'past'; did you mean 'post'?"},
      {"trace model.yaml post --case pull", "there is no load case or combination 'pull'; there are: push"},
      {"trace model.yaml post --at 2m", "is not on post, which is 900 mm long"},
      {"trace model.yaml post --at 2kN", "--at '2kN' is a force; a place was expected"},
      {"trace model.yaml post --at elbow", "--at 'elbow': 'elbow' is neither a parameter nor a unit"},
      {"trace model.yaml post --steps 1", "--steps"},
      {"derive model.yaml --case pull", "there is no load case or combination 'pull'; there are: push"},
      {"derive model.yaml --case envelope", "an envelope is of several cases: name one with --case"},
      {"derive model.yaml --member past", "there is no member 'past'; did you mean 'post'?"},
      {"derive model.yaml -o model.csv", "a derivation is text: a table, markdown, JSON, HTML or PDF"},
      {"derive model.yaml -o model.doc", "model.doc"},
      {"report model.yaml", "give an output file: -o FILE"},
      {"solve", "MODEL"},
      {"", "a command was expected"},
      {"solve model.yaml --jsno", "--jsno"},
      {"solve model.yaml --places 5", "--json"},
      {"solve model.yaml --json --places 0", "--places"},
      {"solve model.yaml --digits 99", "--digits"},
      {"solve nowhere.yaml", "nowhere.yaml: error: the file does not exist"},
      {"solve .", ".: error: this is a folder; a file was expected"},
      {"solve model.yaml -o nowhere/out.txt", "'nowhere/out.txt' cannot be written"},
  }));
  const Outcome o = folder.run(call);
  INFO(call << "\n" << o.err);
  CHECK(o.status == 2);
  CHECK(o.out.empty());
  CHECK_THAT(o.err, Contains(message));
}

TEST_CASE("A full disk is told") {
  const Folder folder;
  folder.write("model.yaml", sound);
  const Outcome o = folder.run("solve model.yaml -o /dev/full");
  CHECK(o.status == 2);
  CHECK_THAT(o.err, Contains("cannot be written"));
}

// The sanitizers' own bookkeeping needs more room than any limit leaves.
#ifndef CORVEX_SANITIZED
TEST_CASE("A model that will not fit into memory is refused before it is tried") {
  constexpr int n = 20;
  std::string points, members, supports;
  const auto name = [](int x, int y, int z) {
    return "P" + std::to_string(x) + "." + std::to_string(y) + "." + std::to_string(z);
  };
  int count = 0;
  const auto join = [&](const std::string& a, const std::string& b) {
    members += "  M" + std::to_string(++count) + ": {through: [" + a + ", " + b + "], section: tube, material: S235}\n";
  };
  for (int x = 0; x < n; ++x)
    for (int y = 0; y < n; ++y)
      for (int z = 0; z < n; ++z) {
        points += "  " + name(x, y, z) + ": [" + std::to_string(x) + ", " + std::to_string(y) + ", " +
                  std::to_string(z) + "]\n";
        if (z == 0) supports += "  " + name(x, y, z) + ": fixed\n";
        if (x + 1 < n) join(name(x, y, z), name(x + 1, y, z));
        if (y + 1 < n) join(name(x, y, z), name(x, y + 1, z));
        if (z + 1 < n) join(name(x, y, z), name(x, y, z + 1));
      }
  const Folder folder;
  folder.write(
      "model.yaml",
      "corvex: 1\nunits: {length: m}\nsections: {tube: {shape: square tube, width: 60 mm, wall: 4 mm}}\npoints:\n" +
          points + "members:\n" + members + "supports:\n" + supports + "loads: {weight: [{gravity: down}]}\n");
  // Enough for the program and for reading, less than the factor takes.
  const auto o = folder.run("solve model.yaml -o out.txt", "", "ulimit -v 250000;");
  CHECK(o.status == 2);
  CHECK_THAT(o.err, Contains("solving 45600 degrees of freedom takes about") && Contains("GB of memory, of which 0.3 GB are free"));
  CHECK_FALSE(folder.has("out.txt"));
}
#endif

}  // namespace tests_of_program_refusals
