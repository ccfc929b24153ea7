// Each kind of load has the same words and values in tables, pictures, the page, reports and derivations; outputs that
// once were wrong or misleading.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <pugixml.hpp>

#include "support/program.hpp"

namespace tests_of_program_load_words {

using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

// One load case for each kind of load, on a cantilever.
const std::string every_kind = R"(corvex: 1
title: every kind of load
units: {length: mm, force: kN}
sections: {t: SHS 60x60x4}
points: {A: [0, 0, 0], B: [2000, 0, 0]}
members: {beam: {through: [A, B], section: t, material: S235}}
supports: {A: fixed}
loads:
  force: [{on: beam, at: 1000, force: {down: 2}, through: {y: 0 mm, z: 20 mm}}]
  moment: [{at: B, moment: [0, 1.5 kN*m, 0]}]
  line: [{on: beam, line: {down: 0.8 kN/m}, through: centroid}]
  spread: [{on: beam, spread: {down: 0.5}}]
  heat: [{on: beam, heat: 35 K}]
  gradient: [{on: beam, heat: {plus-y: 40 K, minus-y: -5 K}}]
  fit: [{on: beam, shorten: 2 mm}]
  ground: [{at: A, settle: {down: 3 mm}}]
  weight: [{gravity: down}]
  braking: [{gravity: [0, 0, -5 m/s^2]}]
)";

struct Kind {
  const char *load_case, *on, *kind, *value, *remark;
};
const Kind kinds[] = {
    {"force", "beam at 1000 mm", "force", "2 kN", "through y = 0 mm, z = 20 mm of the section"},
    {"moment", "B", "moment", "1.5 kN·m", ""},
    {"line", "beam", "line load", "0.8 kN/m", "through the centroid"},
    {"spread", "beam", "force, spread evenly", "0.5 kN", ""},
    {"heat", "beam", "temperature change", "+35 K", ""},
    {"gradient", "beam", "temperature change", "+40 K on the side of +y, -5 K on that of -y", ""},
    {"fit", "beam", "lack of fit", "2 mm too short", ""},
    {"ground", "A", "settlement", "3 mm", ""},
    {"weight", "all members and masses", "self-weight", "9.807 m/s²", ""},
    {"braking", "all members and masses", "acceleration", "5 m/s²", ""},
};
// Those that arrows show; the others are shown in words.
bool has_arrows(const Kind& k) {
  const std::string kind = k.kind;
  return kind == "force" || kind == "moment" || kind == "line load" || kind == "force, spread evenly";
}

std::string plain(std::string text) {
  std::string all;
  for (const char c : text)
    if (c != '\n' || (!all.empty() && all.back() != ' ')) all += c == '\n' ? ' ' : c;
  return all;
}

// The rows of a table in Markdown that follow a heading, up to the next one.
std::string after(const std::string& text, const std::string& heading) {
  const std::size_t at = text.rfind(heading);
  REQUIRE(at != std::string::npos);
  return text.substr(at, text.find("\n#", at + heading.size()) - at);
}

}  // namespace

TEST_CASE("Each kind of load has the same words in table, picture, page, report and derivation") {
  const Folder folder;
  folder.write("m.yaml", every_kind);
  const Outcome report = folder.run("report m.yaml -o r.md");
  INFO(report.err);
  REQUIRE(report.status == 0);
  const std::string whole = folder.content("r.md");
  const Outcome page = folder.run("view m.yaml -o p.html");
  INFO(page.err);
  REQUIRE(page.status == 0);
  const std::string html = folder.content("p.html");
  const std::size_t begin = html.find("[{\"model\":");
  REQUIRE(begin != std::string::npos);
  const nlohmann::json data = nlohmann::json::parse(html.substr(begin, html.find("</script>", begin) - begin))[0];
  for (std::size_t i = 0; i < std::size(kinds); ++i) {
    const Kind& k = kinds[i];
    INFO(k.load_case);
    // Table and report.
    const std::string chapter = after(whole, std::string("Loads of '") + k.load_case + "'");
    CHECK_THAT(chapter, Contains(k.on) && Contains(k.kind) && Contains(k.remark));
    // Picture.
    const Outcome drawn = folder.run(std::string("draw m.yaml --case ") + k.load_case);
    REQUIRE(drawn.status == 0);
    pugi::xml_document svg;
    REQUIRE(svg.load_string(drawn.out.c_str()));
    std::string texts;
    for (const auto& t : svg.select_nodes("//text")) texts += std::string(t.node().text().get()) + "\n";
    const std::string kind = k.kind, value = k.value, remark = k.remark;
    if (has_arrows(k))
      CHECK_THAT(texts, Contains(value + (remark.empty() ? "" : " " + remark)));
    else
      CHECK_THAT(plain(texts), Contains(kind + " " + value));
    // The moment of the lever is no load that anybody entered.
    if (kind == "force") CHECK(svg.select_nodes("//*[@class='moment-load']").empty());
    // Page.
    const nlohmann::json& loads = data["model"]["loads"][i];
    const std::string words = data["model"]["cases"][i]["words"].dump();
    if (has_arrows(k)) {
      CHECK(words == "[]");
      CHECK(loads["forces"].size() + loads["lines"].size() == 1);
      const nlohmann::json& one = loads["forces"].empty() ? loads["lines"][0] : loads["forces"][0];
      CHECK(one.value("remark", "") == remark);
      if (kind == "force, spread evenly") CHECK(one["total"] == 500.0);
    } else {
      CHECK_THAT(words, Contains(kind + " " + value));
    }
    // Derivation.
    const Outcome derived = folder.run(std::string("derive m.yaml --case ") + k.load_case);
    INFO(derived.err);
    REQUIRE(derived.status == 0);
    CHECK_THAT(derived.out, Contains(kind == "settlement" ? "Settlements" : kind));
  }
}

TEST_CASE("Combined loads have their factors in words too") {
  const Folder folder;
  folder.write("m.yaml", every_kind + "combinations: {both: {heat: 1.5, fit: -2, braking: 1.2}}\n");
  const Outcome drawn = folder.run("draw m.yaml --case both");
  REQUIRE(drawn.status == 0);
  CHECK_THAT(drawn.out, Contains("temperature change +52.5 K") && Contains("lack of fit 4 mm too long") &&
                            Contains("acceleration 6 m/s²"));
}

TEST_CASE("The sheet of a member in space shows both planes") {
  const Folder folder;
  folder.write("m.yaml", R"(corvex: 1
units: {length: mm, force: kN}
sections: {t: SHS 60x60x4}
points: {A: [0, 0, 0], B: [2000, 0, 0]}
members: {beam: {through: [A, B], section: t, material: S235}}
supports: {A: fixed}
loads:
  both: [{at: B, force: [1, 0.5, -2]}, {at: B, moment: [0.3 kN*m, 0, 0]}]
  down: [{at: B, force: {down: 2}}]
)");
  const auto panels = [&](const std::string& load_case) {
    const Outcome o = folder.run("draw m.yaml --what sheet --member beam --case " + load_case);
    REQUIRE(o.status == 0);
    pugi::xml_document svg;
    REQUIRE(svg.load_string(o.out.c_str()));
    std::string all;
    for (const auto& t : svg.select_nodes("//text[@class='panel']")) all += std::string(t.node().text().get()) + ";";
    return all;
  };
  const std::string both = panels("both");
  for (const char* name : {"N;", "T;", "Vy;", "Vz;", "My;", "Mz;", "deflection y;", "deflection z;"})
    CHECK_THAT(both, Contains(name));
  CHECK_THAT(panels("down"), Contains("Mz;") && !Contains("My;"));
}

TEST_CASE("Derivations in space name principal axes where sections have them") {
  const Folder folder;
  folder.write("m.yaml", R"(corvex: 1
units: {length: mm, force: kN}
sections: {l: L 80x80x8, t: SHS 60x60x4}
points: {A: [0, 0, 0], B: [1000, 0, 0], C: [2000, 0, 0]}
members: {arm: {through: [A, B], section: l, material: S235}, tube: {through: [B, C], section: t, material: S235}}
supports: {A: fixed}
loads: {p: [{at: C, force: {down: 2}}]}
)");
  const Outcome o = folder.run("derive m.yaml");
  INFO(o.err);
  REQUIRE(o.status == 0);
  CHECK_THAT(o.out, Contains("EI1") && Contains("EI2") && Contains("principal axes") && !Contains("EIz"));
}

TEST_CASE("A largest shear stress has no sign") {
  const Folder folder;
  folder.write("m.yaml", R"(corvex: 1
units: {length: mm, force: kN}
sections: {t: SHS 60x60x4}
points: {A: [0, 0], B: [300, 0]}
members: {beam: {through: [A, B], section: t, material: S235}}
supports: {B: fixed}
loads: {p: [{at: A, force: {down: 20}}]}
)");
  const Outcome o = folder.run("derive m.yaml");
  REQUIRE(o.status == 0);
  const std::size_t at = o.out.find("τ_max = ");
  REQUIRE(at != std::string::npos);
  CHECK(o.out.substr(at, 12).find('-') == std::string::npos);
}

TEST_CASE("Forces of member ends at a joint cancel, rigid arms included") {
  const Folder folder;
  folder.write("m.yaml", R"(corvex: 1
units: {length: mm, force: kN}
sections: {post: SHS 100x100x5, rod: ROUND 25}
defaults: {material: S235}
points: {A: [0, 0], B: [0, 2000], G: [2000, 0], C: [1500, 2000]}
members:
  post: {through: [A, B], section: post}
  rod: {through: [B, G], section: rod, kind: link, offset: {start: [150, 0]}}
  arm: {through: [B, C], section: post, offset: {start: [200, 50]}}
supports: {A: fixed, G: pinned}
loads: {push: [{at: C, force: {x: 8, down: 3}}]}
)");
  const Outcome o = folder.run("solve m.yaml --ends --format csv --table ends");
  INFO(o.err);
  REQUIRE(o.status != 2);
  // case, member, end, joint, Fx, Fy, Mz
  const std::size_t begin = o.out.find("member,end,joint");
  INFO(o.out);
  REQUIRE(begin != std::string::npos);
  std::istringstream lines(o.out.substr(begin));
  std::string line;
  std::getline(lines, line);
  double sum[3] = {}, most = 0;
  int ends = 0;
  while (std::getline(lines, line) && !line.empty()) {
    std::vector<std::string> cells(1);
    for (const char c : line) c == ',' ? cells.emplace_back() : cells.back() += c, void();
    if (cells.size() < 7 || cells[3] != "B") continue;
    ++ends;
    for (std::size_t k = 0; k < 3; ++k) {
      const double v = cells[4 + k].empty() ? 0 : std::stod(cells[4 + k]);
      sum[k] += v;
      most = std::max(most, std::abs(v));
    }
  }
  CHECK(ends == 3);
  for (const double s : sum) CHECK(std::abs(s) < 1e-6 * most);
}

TEST_CASE("Signs are told for both bending moments and for torsion, with their axes") {
  const Folder folder;
  folder.write("m.yaml", every_kind);
  const std::string space = folder.run("solve m.yaml --case force").out;
  CHECK_THAT(plain(space), Contains("Mz + causes tension on the local -y side, My + on the local -z side") &&
                               Contains("T + is right-handed about x"));
  CHECK_THAT(space, Contains("Reactions, global axes") && Contains("Internal forces, local axes"));
}

TEST_CASE("Models of the same file name are told apart by their folders") {
  const Folder folder;
  for (const char* name : {"a", "b"}) {
    std::filesystem::create_directory(folder.path() / name);
    folder.write(std::string(name) + "/m.yaml", every_kind);
  }
  folder.write("other.yaml", every_kind);
  const std::string out = folder.run("compare a/m.yaml b/m.yaml other.yaml").out;
  CHECK_THAT(out, Contains("a/m") && Contains("b/m") && Contains("other") && !Contains("./"));
}

TEST_CASE("A misspelt load case is one error") {
  const Folder folder;
  folder.write("m.yaml", every_kind + R"(combinations: {uls: {forse: 1.5}}
limits: [{safety: 1.5, case: uls}]
hand: {expect: [{reaction: A, part: z, case: uls, is: 2 kN}]}
)");
  const Outcome o = folder.run("solve m.yaml");
  CHECK(o.status == 2);
  CHECK(std::count(o.err.begin(), o.err.end(), '\n') == 1);
  CHECK_THAT(o.err, Contains("did you mean 'force'?"));
}

TEST_CASE("A model that cannot be solved is told once") {
  const Folder folder;
  folder.write("m.yaml", R"(corvex: 1
units: {length: mm, force: kN}
analysis: {order: second}
sections: {t: SHS 60x60x4}
points: {A: [0, 0], B: [0, 1500]}
members: {post: {through: [A, B], section: t, material: S235}}
supports: {A: fixed}
loads: {people: [{at: B, force: {down: 20}}]}
variants: {heavy: {loads: {people: [{at: B, force: {down: 200}}]}}}
)");
  folder.write("call.sh", "'" CORVEX_PROGRAM "' compare m.yaml\n");
  const std::string call =
      "cd '" + folder.path().string() + "' && TERM=xterm script -qec 'sh call.sh' shown </dev/null";
  std::system((call + " >/dev/null").c_str());
  const std::string shown = folder.content("shown");
  const std::string words = "the structure buckles";
  const std::size_t first = shown.find(words);
  INFO(shown);
  REQUIRE(first != std::string::npos);
  CHECK(shown.find(words, first + 1) == std::string::npos);
  CHECK_THAT(shown, Contains("'heavy' cannot be solved"));
}

TEST_CASE("Figures that differ by round-off are drawn level, on ticks that differ") {
  const Folder folder;
  folder.write("m.yaml", R"(corvex: 1
units: {length: mm, force: kN}
parameters: {E: 210 GPa}
materials: {steel: {like: S235, E: E}}
sections: {t: SHS 60x60x4}
points: {A: [0, 0], B: [1000, 0]}
members: {beam: {through: [A, B], section: t, material: steel}}
supports: {A: fixed}
loads: {p: [{at: B, force: {down: 1.726379}}]}
sweeps: {stiffer: {vary: {E: [150 GPa, 170 GPa, 190 GPa, 210 GPa]}, show: [{moment: beam, take: min}]}}
)");
  const Outcome o = folder.run("sweep m.yaml -o s.svg");
  INFO(o.err);
  REQUIRE(o.status == 0);
  pugi::xml_document svg;
  REQUIRE(svg.load_string(folder.content("s.svg").c_str()));
  std::vector<std::string> ticks;
  for (const auto& t : svg.select_nodes("//text[@class='tick']")) ticks.emplace_back(t.node().text().get());
  CHECK(ticks.size() > 4);
  std::sort(ticks.begin(), ticks.end());
  CHECK(std::adjacent_find(ticks.begin(), ticks.end()) == ticks.end());
}

TEST_CASE("Messages give lengths in the unit of the model, and units are those of the trade") {
  const Folder folder;
  folder.write("m.yaml", every_kind + "hand: {expect: [{moment: beam, at: 2100 mm, case: force, is: 0 kN*m}]}\n");
  CHECK_THAT(folder.run("solve m.yaml").err, Contains("2100 mm is not on member 'beam', which is 2000 mm long"));
  folder.write("f.yaml", R"(corvex: 1
units: {length: mm, force: kN}
sections: {t: SHS 60x60x4}
points: {A: [0, 0], B: [1000, 0], C: [2000, 0]}
members: {beam: {through: [A, B, C], section: t, material: S235}}
supports: {A: fixed, C: fixed}
loads: {p: [{at: B, force: {down: 2}}]}
)");
  const std::string text = folder.run("derive f.yaml").out, json = folder.run("derive f.yaml --json").out;
  CHECK_THAT(text, !Contains("/kN/mm"));
  CHECK_THAT(json, Contains("\"N·m\"") && !Contains("kg/s^2"));
}

TEST_CASE("A note says that loads along a member leave out its rigid arms") {
  const Folder folder;
  folder.write("m.yaml", R"(corvex: 1
units: {length: mm, force: kN}
sections: {col: SHS 80x80x4}
points: {A: [0, 0], B: [0, 2000], C: [1500, 2000]}
members:
  col: {through: [A, B], section: col, material: S235}
  arm: {through: [B, C], section: col, material: S235, offset: {start: [200, 0]}}
supports: {A: fixed}
loads: {line: [{on: arm, line: {down: 2 kN/m}}]}
)");
  CHECK_THAT(folder.run("solve m.yaml").err,
             Contains("'arm': line loads and self-weight act on the 1300 mm of its axis, not along its rigid arms "
                      "(200 mm at 'B') [unloaded-arm]"));
}

}  // namespace tests_of_program_load_words
