// A table as people read it: what each cell says, without columns that say nothing.
#pragma once

#include <string>
#include <vector>

#include "corvex/page.hpp"

namespace corvex::reporting {

struct ReadCell {
  std::string words{};
  document::Tone tone = document::Tone::plain;
};
struct ReadColumn {
  std::string head{}, unit{};
  bool words = false;  // set to the left; numbers are aligned at their decimal points
  bool label = false;  // repeated where a table is broken into parts
};
struct ReadRow {
  std::vector<ReadCell> cells{};
  std::vector<std::string> beneath{};
};
struct ReadTable {
  std::string title{}, after{};
  std::vector<ReadColumn> columns{};
  std::vector<ReadRow> rows{};
};

ReadTable read(const document::Table& table, int digits);

// How much of the words of a number stands before its decimal point.
std::size_t before_point(const std::string& number);

}  // namespace corvex::reporting
