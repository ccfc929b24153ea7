// Tables as comma-separated values, by RFC 4180.
#include "file/csv.hpp"

#include <catch2/catch.hpp>
#include <random>

namespace tests_of_csv {

using namespace corvex::file;

namespace {

std::string quoted(const std::string& text) {
  std::string all = "\"";
  for (const char c : text) all += c == '"' ? "\"\"" : std::string(1, c);
  return all + "\"";
}

}  // namespace

TEST_CASE("Cells come back as they were written, with their lines and columns") {
  const auto t = read_table("name,x,note\r\nA, 1 ,\"a, \"\"b\"\"\"\n\nB,2.5,x\nC,3,\n", "t.csv");
  REQUIRE(t.ok());
  REQUIRE(t->header.size() == 3);
  REQUIRE(t->rows.size() == 3);
  CHECK(t->rows[0][1].text == "1");
  CHECK(t->rows[0][2].text == "a, \"b\"");
  CHECK(t->rows[1][0].line == 4);
  CHECK(t->rows[2][0].line == 5);
  CHECK(t->rows[0][1].column == 4);
  CHECK(t->rows[2][2].text.empty());
}

TEST_CASE("Random cells in quotes come back") {
  std::mt19937 random(2);
  const std::string letters = "a,;\" .1x";
  std::uniform_int_distribution<std::size_t> letter(0, letters.size() - 1), length(0, 6);
  for (int k = 0; k < 200; ++k) {
    std::vector<std::string> cells(4);
    std::string text = "p,q,r,s\n";
    for (std::string& c : cells) {
      for (std::size_t i = length(random); i-- > 0;) c += letters[letter(random)];
      // Not empty and without blanks around it, which are left out.
      c = "<" + c + ">";
      text += (&c == &cells.front() ? "" : ",") + quoted(c);
    }
    const auto t = read_table(text + "\n", "t.csv");
    REQUIRE(t.ok());
    REQUIRE(t->rows.size() == 1);
    for (std::size_t i = 0; i < 4; ++i) CHECK(t->rows[0][i].text == cells[i]);
  }
}

TEST_CASE("Semicolons separate where the first line has no commas") {
  const auto t = read_table("name;x\nA;1,5\n", "t.csv");
  REQUIRE(t.ok());
  CHECK(t->rows[0][1].text == "1,5");
}

TEST_CASE("What is no table is an error with its place") {
  for (const char* text : {"a,b\n1,\"2\n", "a,b\n1,\"2\"x\n", "", "a,b\n1,\"2\n3\"\n"}) {
    INFO(text);
    const auto t = read_table(text, "t.csv");
    REQUIRE_FALSE(t.ok());
    CHECK(t.error().front().place.file == "t.csv");
    CHECK_FALSE(t.error().front().text.empty());
  }
}

}  // namespace tests_of_csv
