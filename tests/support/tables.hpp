// Tables that the program wrote, read back: CSV, Markdown and spreadsheets.
#pragma once

#include <filesystem>
#include <string>
#include <vector>

namespace corvex::test {

struct ReadTable {
  std::string name;                  // of the file or the sheet; in Markdown the heading
  std::vector<std::string> heads{};  // without their units
  std::vector<double> units{};       // the SI value of each column's unit
  std::vector<std::vector<std::string>> rows{};

  // The cell of a row in the column of that name; fails the test where there is none.
  const std::string& cell(std::size_t row, const std::string& head) const;
  bool has(const std::string& head) const;
  // The same as a number in SI units.
  double si(std::size_t row, const std::string& head) const;
};

ReadTable read_csv(const std::string& name, const std::string& text);
std::vector<ReadTable> read_csv_folder(const std::filesystem::path& folder);
// Tables under the heading `part` (all before the first one where it is empty).
std::vector<ReadTable> read_markdown(const std::string& text, const std::string& part);
std::vector<ReadTable> read_spreadsheet(const std::filesystem::path& path);

}  // namespace corvex::test
