// Tables: numbers that are added up have the same decimals, and words their width on a terminal.
#include <catch2/catch.hpp>

#include "document/number.hpp"

namespace tests_of_document_tables {

using namespace corvex::document;

TEST_CASE("Numbers that are added up have the decimals of the largest, so that the sum as printed is right") {
  Table t{.name = "t"};
  t.columns = {words_column("point", true), number_column("Fy", "kN")};
  for (const double v : {74.072, 74.072, 0.0312, -0.0004, 0.0, 148.1748}) t.row({"P", v});
  const auto cell = [&](std::size_t i, int digits) { return shown(t.columns[1], t.rows[i].cells[1], digits); };
  CHECK(cell(2, 4) == "0.03120");
  add_up(t, 1);
  CHECK(cell(0, 4) == "74.1");
  CHECK(cell(5, 4) == "148.2");
  CHECK(cell(2, 4) == "0.0");
  CHECK(cell(4, 4) == "0");
  CHECK(cell(2, 6) == "0.031");
  CHECK(cell(3, 6) == "0.000");
  // At two digits nothing is rounded before the decimal point: the sum of the printed numbers is the printed sum.
  CHECK(cell(0, 2) == "74");
  CHECK(cell(5, 2) == "148");
}

TEST_CASE("Words take the room that a terminal gives them") {
  CHECK(width("abc") == 3);
  CHECK(width("kN·m²") == 5);
  CHECK(width("日本") == 4);
  CHECK(width("e\xcc\x81") == 1);  // a mark upon the letter before it
  CHECK(count(1, "point") == "1 point");
  CHECK(count(3, "point") == "3 points");
}

}  // namespace tests_of_document_tables
