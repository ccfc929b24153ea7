// `corvex new`: models to start from, which work as they are and tell editors their schema.
#include <catch2/catch.hpp>
#include <fstream>
#include <sstream>

#include "support/program.hpp"

namespace tests_of_program_new {

using Catch::Matchers::Contains;
using corvex::test::Folder;
using corvex::test::Outcome;

TEST_CASE("Every starter solves, and what it works out by hand agrees") {
  const std::string kind = GENERATE("beam", "trestle", "truss", "frame", "mast");
  const Folder folder;
  const Outcome o = folder.run("new --kind " + kind + " -o mine.yaml");
  REQUIRE(o.status == 0);
  CHECK(o.out.empty());
  CHECK(o.err == "wrote mine.yaml; next: corvex solve mine.yaml\n");
  const Outcome verified = folder.run("verify mine.yaml");
  INFO(verified.out << verified.err);
  CHECK(verified.status == 0);
  CHECK_THAT(verified.out, Contains("all") && Contains("values agree"));
  const Outcome solved = folder.run("solve mine.yaml");
  CHECK(solved.status == 0);
  CHECK_THAT(solved.out, Contains("equilibrium satisfied") && !Contains("e-1") && !Contains("nan"));
  // Comments tell what the parts are.
  const std::string text = folder.content("mine.yaml");
  CHECK(std::count(text.begin(), text.end(), '#') >= 4);
}

TEST_CASE("A starter names its schema, which is there") {
  const Folder folder;
  const Outcome o = folder.run("new");
  REQUIRE(o.status == 0);
  CHECK(o.out == folder.run("new --kind beam").out);
  const std::string start = "# yaml-language-server: $schema=file://";
  REQUIRE(o.out.rfind(start, 0) == 0);
  const std::string path = o.out.substr(start.size(), o.out.find('\n') - start.size());
  INFO(path);
  std::ifstream named(path), ours(CORVEX_SOURCE "/share/corvex/model.schema.json");
  std::stringstream a, b;
  a << named.rdbuf();
  b << ours.rdbuf();
  CHECK(a.str().size() > 1000);
  CHECK(a.str() == b.str());
}

}  // namespace tests_of_program_new
