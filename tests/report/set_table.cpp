// Tables upon paper: their pages, their heads, their parts.
#include "report/set_table.hpp"

#include <catch2/catch.hpp>

namespace tests_of_set_table {

using namespace corvex;
using namespace corvex::reporting;

namespace {

ReadTable table_of(std::size_t columns, std::size_t rows) {
  document::Table t{.name = "t", .title = "Reactions"};
  t.columns.push_back(document::words_column("point", true));
  for (std::size_t k = 1; k < columns; ++k) t.columns.push_back(document::number_column("F" + std::to_string(k), "kN"));
  for (std::size_t i = 0; i < rows; ++i) {
    std::vector<document::Cell> cells{"P" + std::to_string(i)};
    for (std::size_t k = 1; k < columns; ++k) cells.emplace_back(1000.5 + static_cast<double>(i * k));
    t.row(std::move(cells));
  }
  return read(t, 5);
}

}  // namespace

TEST_CASE("A short table stays on its page, a long one goes on over several") {
  Paper paper;
  const double before = paper.y;
  add_table(paper, table_of(4, 5));
  CHECK(paper.page() == 1);
  const double small = paper.y - before;
  CHECK(small > 5 * 8);
  add_table(paper, table_of(4, 200));
  CHECK(paper.page() >= 3);
  CHECK(paper.page() <= 8);
  CHECK(paper.y <= Paper::bottom + 1);
  const std::string pdf = paper.finished({"tables", "", ""}, {}, [](const Ink&, std::size_t, std::size_t) {});
  CHECK(pdf.rfind("%PDF", 0) == 0);
}

TEST_CASE("A table that is too wide becomes parts below each other") {
  Paper narrow, wide;
  add_table(narrow, table_of(5, 4));
  add_table(wide, table_of(40, 4));
  CHECK(wide.page() == 1);
  CHECK(wide.y - Paper::top > 2 * (narrow.y - Paper::top));
}

TEST_CASE("The room that a table needs to begin is that of its head and some rows") {
  Paper paper;
  const double few = beginning_of(paper, table_of(4, 2)), many = beginning_of(paper, table_of(4, 400));
  CHECK(few > 0);
  CHECK(many < Paper::bottom - Paper::top);
  CHECK(few <= many);
}

}  // namespace tests_of_set_table
