// `view`: the page as one file, what it holds, and how the program that serves it begins and ends. What the page does
// in a browser is tested in tests/page/.
#include <algorithm>
#include <catch2/catch.hpp>
#include <csignal>
#include <cstdlib>
#include <fstream>
#include <regex>

#include "support/models.hpp"
#include "support/program.hpp"
#include "support/trestle.hpp"

namespace tests_of_program_view {

using namespace corvex;
using namespace corvex::test;
using Catch::Matchers::Contains;
using Json = nlohmann::json;

namespace {

// What a page holds: a model with its cases for each variant.
Json data_of(const std::string& page) {
  const std::string begins = "<script type=\"application/json\" id=\"data\">";
  const std::size_t at = page.find(begins);
  REQUIRE(at != std::string::npos);
  const std::size_t end = page.find("</script>", at);
  return Json::parse(page.substr(at + begins.size(), end - at - begins.size()));
}

double piece_at(const Json& pieces, double x) {
  for (const Json& p : pieces) {
    if (x > p[1].get<double>() && &p != &pieces.back()) continue;
    double value = 0;
    for (std::size_t k = p.size(); k-- > 2;) value = value * (x - p[0].get<double>()) + p[k].get<double>();
    return value;
  }
  return 0;
}

}  // namespace

TEST_CASE("A page holds the figures of the results, in pieces and at places") {
  for (const NamedModel& named : shipped_models()) {
    const Folder folder;
    folder.write("m.yaml", named.text);
    INFO(named.name);
    const Outcome o = folder.run("view m.yaml -o p.html");
    INFO(o.err);
    REQUIRE(o.status == 0);
    const Json data = data_of(folder.content("p.html"));
    const auto model = read_model_text(named.text, "m.yaml");
    REQUIRE(model);
    const Solution solution = solve(model->structure);
    REQUIRE(data.size() >= 1);
    CHECK(data[0]["cases"].size() == solution.assessed().size());
    for (const std::size_t i : solution.assessed()) {
      const Json& one = data[0]["cases"][std::to_string(i)];
      for (std::size_t k = 0; k < model->structure.members().size(); k += 3) {
        const MemberResult m = solution[i][MemberId(k)];
        const Json& member = one["members"][k];
        const double L = m.length().si(), x = 0.37 * L;
        const double size = one["sizes"]["force"].get<double>() + 1e-12;
        CHECK(piece_at(member["pieces"]["axial"], x) == Approx(m.at(Length::si(x)).axial.si()).margin(1e-9 * size));
        // The first place is the start, the last the end; what stands there is the state of the section.
        const Json& first = member["places"].front();
        CHECK(first[0] == 0.0);
        CHECK(member["places"].back()[0].get<double>() == Approx(L));
        CHECK(first[2][0].get<double>() == Approx(m.at(Length()).axial.si()).margin(1e-9 * size));
        const auto mises = m.von_mises_at(Length());
        if (mises) CHECK(one["stress"]["members"][k].front()[3].get<double>() == Approx(mises->value.si()));
        CHECK(one["stress"]["members"][k].size() == member["places"].size());
      }
    }
  }
}

TEST_CASE("A page has the variants that can be solved, and says which cannot") {
  const Folder folder;
  folder.write("m.yaml",
               trestle + "variants:\n  heavy: {parameters: {wall: 5 mm}}\n  loose: {supports: {A: null, E: pinned}}\n");
  const Outcome o = folder.run("view m.yaml -o p.html");
  CHECK(o.status == 0);
  CHECK_THAT(o.err, Contains("move"));
  const Json data = data_of(folder.content("p.html"));
  REQUIRE(data.size() == 2);
  CHECK(data[1]["model"]["variant"] == "heavy");
  CHECK(data[0]["model"]["variants"] == Json::array({"heavy"}));
}

TEST_CASE("What a model says cannot end the element that holds it") {
  const Folder folder;
  std::string model = trestle;
  model.replace(model.find("title: Trestle"), 14, "title: \"</script><!--<script>&{{data}}\"");
  folder.write("m.yaml", model);
  REQUIRE(folder.run("view m.yaml -o p.html").status == 0);
  const std::string page = folder.content("p.html");
  CHECK(data_of(page)[0]["model"]["title"] == "</script><!--<script>&{{data}}");
  CHECK_THAT(page, Contains("<title>&lt;/script&gt;&lt;!--&lt;script&gt;&amp;{{data}}</title>"));
  // The program and the data: no third element.
  std::size_t count = 0;
  for (std::size_t at = 0; (at = page.find("<script", at)) != std::string::npos; ++at) ++count;
  // One more is part of the bundled program, as a word.
  CHECK(count <= 3);
  CHECK_THAT(page, Contains("default-src 'none'; script-src 'sha256-"));
}

TEST_CASE("The same model gives the same page") {
  const Folder folder;
  folder.write("m.yaml", trestle);
  REQUIRE(folder.run("view m.yaml -o p.html").status == 0);
  const std::string first = folder.content("p.html");
  REQUIRE(folder.run("view m.yaml -o p.html").status == 0);
  CHECK(folder.content("p.html") == first);
}

TEST_CASE("What cannot be viewed is told, and nothing is written") {
  const Folder folder;
  folder.write("m.yaml", trestle);
  folder.write("loose.yaml", std::regex_replace(trestle, std::regex("supports: .*"), "supports: {A: pinned}"));
  const std::pair<const char*, const char*> calls[] = {{"view m.yaml -o p.htm", "a page ends with .html"},
                                                       {"view loose.yaml -o p.html", "move"},
                                                       {"view none.yaml", "none.yaml"},
                                                       {"view none.yaml -o p.html", "none.yaml"},
                                                       {"view -", "standard input"},
                                                       {"view m.yaml --port 70000", "--port"},
                                                       {"view m.yaml --units parsec", "parsec"},
                                                       {"view m.yaml --variant heavy -o p.html", "heavy"},
                                                       {"view m.yaml -o no/p.html", "no/p.html"}};
  for (const auto& [call, said] : calls) {
    const Outcome o = folder.run(call);
    INFO(call << ": " << o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(said));
    CHECK(!folder.has("p.html"));
    CHECK(!folder.has("p.htm"));
  }
}

TEST_CASE("The server tells its address, ends when it is interrupted, and leaves nothing") {
  const Folder folder;
  folder.write("m.yaml", trestle);
  // Interrupted as soon as the address is there.
  const Outcome o = folder.run(
      "view m.yaml > address 2> words & { p=$!; for i in $(seq 200); do [ -s address ] && break; sleep 0.05; done; "
      "kill -INT $p; wait $p; echo status $?; }");
  INFO(o.out << folder.content("words"));
  CHECK_THAT(o.out, Contains("status 0"));
  CHECK(std::regex_match(folder.content("address"), std::regex(R"(http://127\.0\.0\.1:\d+/[0-9a-f]{32}/\n)")));
}

TEST_CASE("A port that another program has is told") {
  const Folder folder;
  folder.write("m.yaml", trestle);
  const Outcome o = folder.run(
      "view m.yaml > address 2> words & { p=$!; for i in $(seq 200); do [ -s address ] && break; sleep 0.05; done; "
      "port=$(sed 's|.*1:\\([0-9]*\\)/.*|\\1|' address); timeout 20 " CORVEX_PROGRAM
      " view m.yaml --port $port; echo status $?; kill -TERM $p; wait $p; }");
  INFO(o.out << o.err);
  CHECK_THAT(o.out, Contains("status 2"));
  CHECK_THAT(o.err, Contains("cannot be used"));
}

}  // namespace tests_of_program_view
