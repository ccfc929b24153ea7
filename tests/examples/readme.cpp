// The README shows what the program really prints, and its C++ compiles and says what it should.
#include <catch2/catch.hpp>
#include <fstream>
#include <sstream>

#include "support/program.hpp"

namespace tests_of_examples_readme {

namespace {

// A block of this language in the README, counted from 0.
std::string block(const std::string& language, int number = 0) {
  std::ifstream in(CORVEX_README);
  std::stringstream all;
  all << in.rdbuf();
  const std::string text = all.str(), fence = "```" + language + "\n";
  std::size_t begin = text.find(fence);
  for (; number > 0 && begin != std::string::npos; --number) begin = text.find(fence, begin + 3);
  REQUIRE(begin != std::string::npos);
  return text.substr(begin + fence.size(), text.find("```", begin + 3) - begin - fence.size());
}

}  // namespace

TEST_CASE("The README's model prints what the README says") {
  const corvex::test::Folder folder;
  folder.write("barrel.yaml", block("yaml"));
  const auto o = folder.run("solve barrel.yaml", "", "export COLUMNS=100;");
  CHECK(o.status == 0);
  CHECK(o.out == block("text"));
}

TEST_CASE("The README's hand calculation agrees") {
  const corvex::test::Folder folder;
  folder.write("barrel.yaml", block("yaml") + block("yaml", 1));
  const auto o = folder.run("verify barrel.yaml");
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Catch::Contains("all 2 values agree"));
}

TEST_CASE("The README's model of whatever joins, holds and loads solves") {
  const corvex::test::Folder folder;
  folder.write("roof.yaml", block("yaml", 2));
  const auto o = folder.run("solve roof.yaml --all");
  INFO(o.err);
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Catch::Contains("slack") && Catch::Contains("ropes.4"));
}

TEST_CASE("The README's C++ example is the one that is compiled") {
  std::ifstream in(std::string(CORVEX_EXAMPLES) + "/first.cpp");
  std::stringstream all;
  all << in.rdbuf();
  CHECK(all.str().find(block("cpp")) != std::string::npos);
  const corvex::test::Folder folder;
  const std::string run = "'" CORVEX_FIRST_EXAMPLE "' >'" + (folder.path() / "out").string() + "'";
  CHECK(std::system(run.c_str()) == 0);
  // 300 N along x at 0.9 m height: the foot is in tension on its −x side, which is the −y side of the leg.
  CHECK(folder.content("out") == "270.0 N·m at 0.00 m\n");
}

}  // namespace tests_of_examples_readme
