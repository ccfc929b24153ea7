// `corvex demo`: the models and their results in a folder, and what to look at.
#include <catch2/catch.hpp>
#include <filesystem>

#include "support/program.hpp"

namespace tests_of_program_demo {

using Catch::Matchers::Contains;
using corvex::test::Folder;
using corvex::test::Outcome;

TEST_CASE("The demo writes models and results that the program itself gives") {
  const Folder folder;
  const Outcome o = folder.run("demo works/demo");
  REQUIRE(o.status == 0);
  CHECK(o.err.empty());
  for (const std::string name :
       {"conveyor-trestle", "walkway-beam", "press-frame", "agitator-bracket", "pipe-rack", "tank-skid"}) {
    CHECK_THAT(o.out, Contains(name) && Contains("Look at"));
    const std::string base = "works/demo/" + name;
    REQUIRE(folder.has(base + ".yaml"));
    CHECK(folder.content(base + ".txt") == folder.run("solve " + base + ".yaml").out);
    for (const char* picture :
         {"structure", "deformed", "axial", "shear", "moment", "stress", "utilisation", "section", "sheet"}) {
      const std::string file = name + "-" + picture + ".svg";
      CHECK_THAT(folder.content("works/demo/" + file), Catch::Matchers::StartsWith("<svg"));
      CHECK_THAT(folder.content("works/demo/pictures.html"), Contains("src=\"" + file + "\""));
    }
    CHECK(folder.content(base + ".json") == folder.run("solve " + base + ".yaml --json --places 11").out);
  }
  // The report and the page of one model are written, and named at the end.
  CHECK_THAT(o.out, Contains("works/demo/conveyor-trestle-report.pdf") && Contains("works/demo/index.html"));
  CHECK_THAT(folder.content("works/demo/conveyor-trestle-report.pdf"), Catch::Matchers::StartsWith("%PDF"));
  REQUIRE(folder.run("report works/demo/tank-skid.yaml -o r.html").status == 0);
  CHECK(folder.content("works/demo/tank-skid-report.html") == folder.content("r.html"));
  // The index is a page with all models.
  for (const char* title : {"Bottling line, conveyor trestle", "Tank skid on rubber mounts"})
    CHECK_THAT(folder.content("works/demo/index.html"), Contains("\"title\":\"" + std::string(title)));
  const std::string trestle = "works/demo/conveyor-trestle", walkway = "works/demo/walkway-beam";
  CHECK(folder.content(trestle + "-compare.txt") == folder.run("compare " + trestle + ".yaml").out);
  CHECK(folder.content(trestle + "-variants-moment.svg") ==
        folder.run("draw " + trestle + ".yaml --variants all --what moment").out);
  CHECK(folder.content(trestle + "-sweep-rail.txt") == folder.run("sweep " + trestle + ".yaml rail").out);
  REQUIRE(folder.run("sweep " + walkway + ".yaml wall -o wall.svg").status == 0);
  CHECK(folder.content(walkway + "-sweep-wall.svg") == folder.content("wall.svg"));
  for (const std::string name : {"walkway-beam", "pipe-rack", "tank-skid"})
    CHECK(folder.content("works/demo/" + name + "-choose.txt") ==
          folder.run("choose works/demo/" + name + ".yaml").out);
  SECTION("again is no harm") {
    CHECK(folder.run("demo works/demo").status == 0);
  }
  SECTION("but changed models are somebody's work") {
    folder.write("works/demo/walkway-beam.yaml", "mine");
    const Outcome again = folder.run("demo works/demo");
    CHECK(again.status == 2);
    CHECK_THAT(again.err, Contains("walkway-beam.yaml") && Contains("differs"));
    CHECK(folder.content("works/demo/walkway-beam.yaml") == "mine");
  }
}

TEST_CASE("A folder that cannot be made is told") {
  const Folder folder;
  folder.write("file", "");
  const Outcome o = folder.run("demo file/inside");
  CHECK(o.status == 2);
  CHECK_THAT(o.err, Contains("cannot be made"));
}

}  // namespace tests_of_program_demo
