// The forms in which results are told: short and whole tables, narrow and wide terminals, colour, CSV and Markdown by
// the end of a file's name; and what happens when the program is interrupted.
#include <algorithm>
#include <catch2/catch.hpp>
#include <fstream>
#include <set>
#include <sstream>

#include "support/program.hpp"
#include "support/rows.hpp"
#include "support/tables.hpp"

namespace tests_of_program_forms {

using namespace corvex::test;
using Catch::Matchers::Contains;
using Catch::Matchers::StartsWith;
using Json = nlohmann::json;

namespace {

const std::string examples = CORVEX_EXAMPLES "/cider-works/";
const std::string rack = "solve '" + examples + "pipe-rack.yaml'";

// What the program writes to a terminal of so many columns.
std::string on_terminal(const Folder& folder, const std::string& call, int columns, const std::string& before = "") {
  folder.write("call.sh",
               "stty cols " + std::to_string(columns) + "; " + before + " '" CORVEX_PROGRAM "' " + call + "\n");
  const std::string path = folder.path().string();
  const std::string command =
      "cd '" + path + "' && TERM=xterm script -qec 'sh call.sh' /dev/null >'" + path + ".tty' </dev/null";
  std::system(command.c_str());
  std::ifstream in(path + ".tty", std::ios::binary);
  std::stringstream text;
  text << in.rdbuf();
  std::filesystem::remove(path + ".tty");
  std::string all = text.str();
  all.erase(std::remove(all.begin(), all.end(), '\r'), all.end());
  return all;
}

std::size_t widest(const std::string& text) {
  std::istringstream in(text);
  std::size_t most = 0;
  for (std::string line; std::getline(in, line);)
    most = std::max(most, static_cast<std::size_t>(std::count_if(line.begin(), line.end(), [](char c) {
                      return (static_cast<unsigned char>(c) & 0xC0) != 0x80;
                    })));
  return most;
}

std::string without_colour(const std::string& text) {
  std::string plain;
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (text[i] == '\x1b') {
      while (text[i] != 'm') ++i;
    } else {
      plain += text[i];
    }
  }
  return plain;
}

}  // namespace

TEST_CASE("Tables are short, what governs first, and --all has the rest in the order of the model") {
  const Folder folder;
  const std::string text = folder.run(rack + " --case winter --format markdown").out;
  const std::string whole = folder.run(rack + " --case winter --format markdown --all").out;
  const auto brief = read_markdown(text, "winter"), all = read_markdown(whole, "winter");
  // Bars and beams stand in tables of their own.
  const auto safeties = [](const std::vector<ReadTable>& tables) {
    std::vector<double> found;
    for (const ReadTable& t : tables)
      for (std::size_t r = 0; t.has("safety factor") && r < t.rows.size(); ++r)
        found.push_back(t.cell(r, "safety factor") == "–" ? 1e30 : t.si(r, "safety factor"));
    return found;
  };
  std::vector<double> stress = safeties(brief), all_stress = safeties(all);
  REQUIRE(stress.size() == 6);
  CHECK(all_stress.size() == 15);
  // The least safeties of all are shown.
  std::sort(stress.begin(), stress.end());
  std::sort(all_stress.begin(), all_stress.end());
  CHECK(stress == std::vector<double>(all_stress.begin(), all_stress.begin() + 6));
  CHECK_THAT(text, Contains("and 9 more members: --all or --member NAME"));
  CHECK_THAT(whole, !Contains("more members"));
  CHECK(brief.at(1).rows.size() == 8);
  CHECK(all.at(1).rows.size() == 14);
  CHECK(all.at(1).rows.front().front() == "U");
  // Members by name are shown in full, however many there are.
  CHECK_THAT(folder.run(rack + " --case winter --member posts").out, !Contains("more"));
}

TEST_CASE("With several cases the envelope stands for them, and each shows its balance") {
  const Folder folder;
  const std::string text = folder.run(rack).out;
  CHECK_THAT(text, Contains("== envelope of 2 combinations ==") &&
                       Contains("\nReactions, global axes\n  point    case ") && !Contains("== winter =="));
  CHECK_THAT(text, Contains("All tables of one case: --case NAME"));
  const std::string all = folder.run(rack + " --all").out;
  const std::string whole = all.substr(all.find("== winter =="));
  CHECK_THAT(whole.substr(0, whole.find("== summer ==")), Contains("Internal forces") && Contains("Displacements"));
}

TEST_CASE("A terminal's width is kept, and nothing is lost by it") {
  const Folder folder;
  const std::string whole = folder.run("verify '" + examples + "conveyor-trestle.yaml'").out;
  const int columns = GENERATE(80, 117, 118, 120, 130, 200);
  for (const std::string& call :
       {rack, "verify '" + examples + "conveyor-trestle.yaml'", std::string("catalogue"),
        "trace '" + examples + "press-frame.yaml' 'left column'", "inspect '" + examples + "pipe-rack.yaml'",
        "compare '" + examples + "conveyor-trestle.yaml'", "sweep '" + examples + "conveyor-trestle.yaml' rail",
        "choose '" + examples + "walkway-beam.yaml'", "derive '" + examples + "walkway-beam.yaml'",
        "modes '" + examples + "../stability/swaying-trestle.yaml'"}) {
    INFO(call << ", " << columns << " columns");
    const std::string text = without_colour(on_terminal(folder, call + " 2>/dev/null", columns));
    CHECK(widest(text) <= static_cast<std::size_t>(columns));
    // Every word of the wide form is there: broken lines and tables have them in another order.
    std::istringstream words(folder.run(call).out);
    std::multiset<std::string> shown;
    std::istringstream narrow(text);
    for (std::string w; narrow >> w;) shown.insert(w);
    for (std::string w; words >> w;) {
      INFO(w);
      REQUIRE(shown.count(w) > 0);
    }
  }
}

TEST_CASE("On a narrow terminal what follows of a table has no empty rows") {
  const Folder folder;
  folder.write("model.yaml", R"(corvex: 1
title: Span
units: {length: mm, force: kN}
sections: {tube: RHS 80x40x4}
points: {A: [0, 0], M: [1500, 0], B: [3000, 0]}
members: {beam: {through: [A, M, B], section: tube, material: S235}}
supports: {A: pinned, B: roller}
loads:
  lift: [{on: beam, at: 1 m, force: {down: 6}}]
  turn: [{on: beam, at: 1500, moment: 0.5 kN*m}]
)");
  for (const int columns : {60, 70, 80, 100}) {
    const std::string text = without_colour(on_terminal(folder, "trace model.yaml beam", columns));
    INFO(text);
    const std::size_t from = text.find("== envelope ==");
    REQUIRE(from != std::string::npos);
    std::istringstream lines(text.substr(from));
    // Of a table with its marks apart, rows without a mark are not told again.
    std::size_t marked = 0, unmarked = 0;
    bool marks_alone = false;
    for (std::string line; std::getline(lines, line);) {
      if (line.find(" unit") != std::string::npos) marks_alone = line.find(" case") == std::string::npos;
      if (!marks_alone || line.find_first_of("0123456789") == std::string::npos) continue;
      ++(line.find("of the member") != std::string::npos ? marked : unmarked);
    }
    CHECK(unmarked == 0);
    if (columns == 60) CHECK(marked > 2);
  }
}

TEST_CASE("Colour is for terminals, and not for those who do not want it") {
  const Folder folder;
  std::string heavy = folder.run("new --kind beam").out;
  folder.write("beam.yaml", heavy);
  CHECK_THAT(on_terminal(folder, "solve beam.yaml", 120), Contains("\x1b["));
  CHECK_THAT(on_terminal(folder, "solve beam.yaml", 120, "NO_COLOR=1"), !Contains("\x1b["));
  CHECK_THAT(on_terminal(folder, "solve beam.yaml", 120, "TERM=dumb"), !Contains("\x1b["));
  CHECK_THAT(on_terminal(folder, "solve nothing.yaml", 120), Contains("\x1b["));
  CHECK_THAT(folder.run("solve beam.yaml").out, !Contains("\x1b["));
  CHECK_THAT(folder.run("solve nothing.yaml").err, !Contains("\x1b["));
  // Beside the colour it is the same text.
  CHECK(without_colour(on_terminal(folder, "solve beam.yaml", 300)) ==
        on_terminal(folder, "solve beam.yaml", 300, "NO_COLOR=1"));
}

TEST_CASE("The end of a file's name says its form, and --format says it louder") {
  const Folder folder;
  for (const auto& [file, format] : {std::pair<std::string, std::string>{"r.md", "markdown"},
                                     {"r.csv", "csv"},
                                     {"r.json", "json"},
                                     {"r.txt", "table"}}) {
    INFO(file);
    REQUIRE(folder.run(rack + " -o " + file).status == 0);
    CHECK(folder.content(file) == folder.run(rack + " --format " + format).out);
    REQUIRE(folder.run(rack + " -o " + file + " --format markdown").status == 0);
    CHECK_THAT(read_markdown(folder.content(file), "").front().name, StartsWith("Limits"));
  }
}

TEST_CASE("CSV: all tables under their names, or one, with so many digits") {
  const Folder folder;
  const std::string all = folder.run(rack + " --format csv").out;
  CHECK_THAT(all, StartsWith("model\r\n") && Contains("\r\n\r\nreactions\r\ncase,point,Fx [kN],Fy [kN]\r\n"));
  const std::string one = folder.run(rack + " --format csv --table reactions").out;
  CHECK_THAT(one, StartsWith("case,point,Fx [kN],Fy [kN]\r\n"));
  CHECK_THAT(all, Contains(one));
  CHECK_THAT(folder.run(rack + " --format csv --table reactions --digits 3").out, Contains("winter,U,0,18.3\r\n"));
  const Outcome wrong = folder.run(rack + " --format csv --table reaction");
  CHECK(wrong.status == 2);
  CHECK_THAT(wrong.err, Contains("there is no table 'reaction'; did you mean 'reactions'?"));
  // A name with a comma or a quote stays one cell.
  std::string model = folder.run("new --kind beam").out;
  folder.write("beam.yaml", model);
  CHECK(folder.run("solve beam.yaml --csv out").status == 0);
  CHECK(read_csv_folder(folder.path() / "out").size() >= 7);
}

TEST_CASE("Profiles go into spreadsheets, those of inches too") {
  const Folder folder;
  REQUIRE(folder.run("catalogue 'SHS 4x4x1/4 in' 'SHS 60x60x4' -o sections.xlsx").status == 0);
  const auto sheets = read_spreadsheet(folder.path() / "sections.xlsx");
  REQUIRE(sheets.size() == 2);
  CHECK(sheets[1].rows.size() > 20);
}

TEST_CASE("What a form cannot do is refused") {
  const Folder folder;
  for (const auto& [options, why] :
       {std::pair<std::string, std::string>{"--format csv -o r.xlsx", ".xlsx is a spreadsheet"},
        {"--table reactions", "add --format csv"},
        {"--csv out -o r.txt", "files of its own"},
        {"--json --units mm", "SI units"},
        {"-o r.json --units mm", "SI units"},
        {"--units 'mm, cm'", "two units of length"},
        {"--units 'mm, , N'", "a unit is missing"},
        {"--units 'mm, newton'", "'newton'"},
        {"--units 'deflektion: mm'", "did you mean 'deflection'?"},
        {"--units 'force: mm'", "not a unit of force"},
        {"--units '2 mm'", "without a number"},
        {"--units 's'", "not a unit of a length"},
        {"--format pdf", "--format"},
        {"-o missing/r.xlsx", "cannot be written"},
        {"--csv /proc/out", "cannot be made"}}) {
    const Outcome o = folder.run(rack + " " + options);
    INFO(options << ": " << o.err);
    CHECK(o.status == 2);
    CHECK(o.out.empty());
    CHECK_THAT(o.err, Contains(why));
  }
  CHECK(std::filesystem::is_empty(folder.path()));
}

TEST_CASE("Few digits are told, many are not") {
  const Folder folder;
  // Two cases that all but take each other back leave what rounding leaves of them.
  folder.write(
      "apart.yaml",
      "corvex: 1\nunits: {length: mm, force: kN}\nsections: {bar: {shape: round bar, diameter: 20 mm}}\n"
      "points: {A: [0, 0], B: [700, 300], C: [1300, 100]}\nmembers: {arm: {through: [A, B], section: bar, "
      "material: S235}, hand: {through: [B, C], section: bar, material: S235}}\n"
      "supports: {A: fixed}\nloads: {one: [{at: C, force: {down: 0.01}}], other: [{at: C, force: {down: 0.01}}]}\n"
      "combinations: {left: {one: 1, other: -0.9999999999}}\n");
  const Json c = Json::parse(folder.run("solve apart.yaml --json").out)["cases"]["left"];
  const int digits = c["digits"];
  INFO(digits);
  REQUIRE(digits < 6);
  REQUIRE(digits > 0);
  CHECK_THAT(folder.run("solve apart.yaml").out, Contains("about " + std::to_string(digits) + " reliable digit"));
  CHECK_THAT(folder.run(rack).out, !Contains("digit"));
  const Json answered = Json::parse(folder.run(rack + " --json").out);
  for (const auto& [name, other] : answered["cases"].items())
    if (name != "envelope") CHECK(other["digits"] >= 10);
}

namespace {

// A girder of so many bays, whose solution takes a while.
std::string girder(int bays) {
  std::string points = "points:\n", members = "members:\n";
  const auto member = [&](const std::string& name, const std::string& a, const std::string& b) {
    members += "  " + name + ": {through: [" + a + ", " + b + "], section: leg, material: S235}\n";
  };
  for (int i = 0; i <= bays; ++i) {
    const std::string n = std::to_string(i), next = std::to_string(i + 1);
    points += "  L" + n + ": [" + n + ", 0]\n  U" + n + ": [" + n + ", 1]\n";
    member("post " + n, "L" + n, "U" + n);
    if (i == bays) continue;
    member("low " + n, "L" + n, "L" + next);
    member("high " + n, "U" + n, "U" + next);
    member("slope " + n, "L" + n, "U" + next);
  }
  return "corvex: 1\nunits: {length: m, force: kN}\nsections: {leg: SHS 60x60x4}\n" + points + members +
         "supports: {L0: pinned, L" + std::to_string(bays) + ": roller}\nloads: {weight: [{gravity: down}]}\n";
}

}  // namespace

TEST_CASE("An interruption leaves no half-written file, and an old one as it was") {
  const Folder folder;
  folder.write("girder.yaml", girder(400));
  const std::string name = GENERATE("results.json", "results.xlsx", "results.txt");
  const std::string quick =
      " solve girder.yaml" + std::string(name == "results.json" ? " --places 60" : " --all") + " -o ";
  folder.write(name, "old");
  REQUIRE(folder.run(quick + "whole-" + name).status == 0);
  const auto size = [&](const std::string& file) { return std::filesystem::file_size(folder.path() / file); };
  for (int step = 1; step <= rows(10, 4); ++step) {
    const std::string seconds = std::to_string(step * 0.15);
    const std::string here = "cd '" + folder.path().string() + "' && ";
    const int code = std::system((here + "export COLUMNS=0; timeout -s INT " + seconds + " '" CORVEX_PROGRAM "'" +
                                  quick + name + " >/dev/null 2>&1")
                                     .c_str());
    INFO(name << " after " << seconds << " s");
    CHECK_FALSE(folder.has(name + ".part"));
    if (WIFEXITED(code) && WEXITSTATUS(code) == 0) break;
    // The time of its making, which a spreadsheet tells, may pack into a few bytes more or less.
    const bool old = size(name) == 3, sheet = name == "results.xlsx";
    const bool whole = sheet ? std::system((here + "unzip -tqq " + name + " >/dev/null 2>&1").c_str()) == 0
                             : size(name) == size("whole-" + name);
    CHECK((old || whole));
  }
}

TEST_CASE("Long work shows its progress on a terminal, and wipes it away") {
  const Folder folder;
  folder.write("girder.yaml", girder(rows(1500, 600)));
  const std::string text = on_terminal(folder, "solve girder.yaml --json --places 100 -o out.txt", 100);
  CHECK_THAT(text, Contains("corvex: computing forces and stresses, ") && Contains(" s"));
  CHECK(text.rfind("\x1b[K") > text.rfind("corvex: "));
  CHECK_THAT(folder.run("solve girder.yaml -o out.txt").err, !Contains("corvex: ") && !Contains("\x1b"));
}

}  // namespace tests_of_program_forms
