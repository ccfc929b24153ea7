#include "file/csv.hpp"

#include <fmt/format.h>

#include "corvex/printable.hpp"
#include "file/file_text.hpp"

namespace corvex::file {
namespace {

class Scanner {
 public:
  Scanner(std::string_view text, const std::string& file) : text_(text), file_(file) {
    if (text_.starts_with("\xEF\xBB\xBF")) text_.remove_prefix(3);
    const std::string_view first = text_.substr(0, text_.find('\n'));
    if (first.find(',') == std::string_view::npos && first.find(';') != std::string_view::npos) separator_ = ';';
  }

  Expected<Table, Problems> run() {
    Table table;
    while (at_ < text_.size()) {
      std::vector<Cell> row = line();
      if (!problem_.empty()) return Problems{problem_at({file_, problem_line_, problem_column_}, problem_)};
      const bool empty = row.size() == 1 && row[0].text.empty();
      if (empty) continue;
      if (table.header.empty())
        table.header = std::move(row);
      else
        table.rows.push_back(std::move(row));
    }
    if (table.header.empty())
      return Problems{problem_at({file_, 0, 0}, "the table is empty; its first line names the columns")};
    return table;
  }

 private:
  std::vector<Cell> line() {
    std::vector<Cell> row;
    while (true) {
      row.push_back(cell());
      if (!problem_.empty()) return row;
      if (const std::string why = why_not_printable(row.back().text, true); !why.empty()) {
        told(row.back(), "this cell cannot be printed: " + why);
        return row;
      }
      if (at_ < text_.size() && text_[at_] == separator_) {
        step();
        continue;
      }
      if (at_ < text_.size() && text_[at_] == '\r') ++at_;
      if (at_ < text_.size() && text_[at_] == '\n') ++at_;
      ++line_;
      column_ = 1;
      return row;
    }
  }

  Cell cell() {
    while (here() == ' ' || here() == '\t') step();
    Cell c{{}, line_, column_};
    if (here() == '"') return quoted(std::move(c));
    while (at_ < text_.size() && here() != separator_ && here() != '\n' && here() != '\r') {
      c.text += here();
      step();
    }
    while (!c.text.empty() && (c.text.back() == ' ' || c.text.back() == '\t')) c.text.pop_back();
    return c;
  }

  // Two quotes represent one.
  Cell quoted(Cell c) {
    step();
    while (true) {
      if (at_ >= text_.size()) return told(c, "this quote is not closed");
      if (here() == '"') {
        step();
        if (here() != '"') break;
      } else if (here() == '\n') {
        return told(c, "this quote is not closed on its line");
      }
      c.text += here();
      step();
    }
    while (here() == ' ' || here() == '\t') step();
    if (at_ < text_.size() && here() != separator_ && here() != '\n' && here() != '\r')
      return told({{}, line_, column_}, fmt::format("'{}' was expected after the closing quote", separator_));
    return c;
  }

  Cell told(const Cell& at, std::string what) {
    problem_ = std::move(what);
    problem_line_ = static_cast<int>(at.line);
    problem_column_ = static_cast<int>(at.column);
    return at;
  }

  char here() const { return at_ < text_.size() ? text_[at_] : '\0'; }
  // Columns count characters, not bytes.
  void step() {
    ++at_;
    if (at_ >= text_.size() || (static_cast<unsigned char>(text_[at_]) & 0xC0) != 0x80) ++column_;
  }

  std::string_view text_;
  const std::string& file_;
  char separator_ = ',';
  std::size_t at_ = 0;
  std::uint32_t line_ = 1, column_ = 1;
  std::string problem_;
  int problem_line_ = 0, problem_column_ = 0;
};

}  // namespace

Expected<Table, Problems> read_table(std::string_view text, const std::string& file) {
  if (Problem why = why_not_text(text, file); !why.text.empty()) return Problems{std::move(why)};
  return Scanner(text, file).run();
}

}  // namespace corvex::file
