// Tables as a spreadsheet (Office Open XML), by libxlsxwriter.
#include <sys/mman.h>
#include <unistd.h>
#include <xlsxwriter.h>

#include <algorithm>
#include <cerrno>
#include <cmath>
#include <ctime>
#include <map>
#include <memory>
#include <new>
#include <system_error>

#include "corvex/page.hpp"
#include "corvex/writing.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

// The most that a sheet holds.
constexpr std::size_t most_rows = 1048576, most_text = 32767, most_name = 31;

// No more than so many bytes, and no character cut in two.
std::string at_most(std::size_t bytes, const std::string& text) {
  std::size_t end = std::min(bytes, text.size());
  while (end > 0 && end < text.size() && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
  return text.substr(0, end);
}

// Characters that the format does not accept in the name of a sheet: sizes in inches have a slash.
std::string sheet_name(std::string name) {
  for (char& c : name)
    if (std::string_view("[]:*?/\\").find(c) != std::string_view::npos) c = '-';
  return at_most(most_name, name);
}

class Sheets {
 public:
  Sheets(lxw_workbook* book, int digits) : book_(book), digits_(digits), head_(new_format(book)) {
    format_set_bold(head_);
    format_set_bottom(head_, LXW_BORDER_THIN);
    format_set_text_wrap(head_);
    format_set_align(head_, LXW_ALIGN_VERTICAL_TOP);
  }

  std::string add(const DataTable& t) {
    if (t.rows.size() + 1 > most_rows)
      return "the table '" + t.name + "' has more rows than a sheet can have; CSV files have no such limit";
    lxw_worksheet* sheet = workbook_add_worksheet(book_, sheet_name(t.name).c_str());
    // The names are valid: only memory can be missing.
    if (!sheet) throw std::bad_alloc();
    std::vector<std::size_t> widest(t.heads.size(), 8);
    const auto columns = static_cast<lxw_col_t>(t.heads.size());
    for (lxw_col_t c = 0; c < columns; ++c) {
      checked(worksheet_write_string(sheet, 0, c, t.heads[c].c_str(), head_));
      widest[c] = std::max(widest[c], std::min<std::size_t>(width(t.heads[c]), 14));
    }
    for (std::size_t r = 0; r < t.rows.size(); ++r)
      for (lxw_col_t c = 0; c < columns && c < t.rows[r].size(); ++c) {
        const Cell& cell = t.rows[r][c];
        const auto row = static_cast<lxw_row_t>(r + 1);
        if (cell.value && std::isfinite(*cell.value))
          checked(worksheet_write_number(sheet, row, c, *cell.value + 0.0, format_of(*cell.value)));
        else if (!cell.words.empty())
          checked(worksheet_write_string(sheet, row, c, at_most(most_text, cell.words).c_str(), nullptr));
        widest[c] = std::max(widest[c], std::min<std::size_t>(width(cell.words), 60));
      }
    for (lxw_col_t c = 0; c < columns; ++c)
      worksheet_set_column(sheet, c, c, static_cast<double>(widest[c]) + 1.5, nullptr);
    worksheet_freeze_panes(sheet, 1, 0);
    if (!t.rows.empty() && columns > 0)
      worksheet_autofilter(sheet, 0, 0, static_cast<lxw_row_t>(t.rows.size()), static_cast<lxw_col_t>(columns - 1));
    return {};
  }

 private:
  static void checked(lxw_error error) {
    if (error == LXW_ERROR_MEMORY_MALLOC_FAILED) throw std::bad_alloc();
  }

  static lxw_format* new_format(lxw_workbook* book) {
    lxw_format* format = workbook_add_format(book);
    if (!format) throw std::bad_alloc();
    return format;
  }

  // The cell holds every digit and shows `digits_` of them.
  lxw_format* format_of(double value) {
    int decimals = 0;
    if (const double size = std::abs(value); size > 0)
      decimals = std::clamp(digits_ - 1 - static_cast<int>(std::floor(std::log10(size) + 1e-12)), 0, 15);
    lxw_format*& format = formats_[decimals];
    if (!format) {
      format = new_format(book_);
      format_set_num_format(format, decimals == 0 ? "0" : ("0." + std::string(decimals, '0')).c_str());
    }
    return format;
  }

  lxw_workbook* book_;
  int digits_;
  lxw_format* head_;
  std::map<int, lxw_format*> formats_;
};

}  // namespace

namespace {

// Memory that looks like a file: the library writes to a path only.
class FileInMemory {
 public:
  FileInMemory() : fd_(memfd_create("spreadsheet", MFD_CLOEXEC)), error_(fd_ < 0 ? errno : 0) {}
  ~FileInMemory() {
    if (fd_ >= 0) close(fd_);
  }
  FileInMemory(const FileInMemory&) = delete;
  FileInMemory& operator=(const FileInMemory&) = delete;

  bool sound() const { return fd_ >= 0; }
  int error() const { return error_; }
  std::string path() const { return "/proc/self/fd/" + std::to_string(fd_); }
  std::string bytes() const {
    std::string all;
    char block[1 << 16];
    for (off_t at = 0;;) {
      const ssize_t n = pread(fd_, block, sizeof block, at);
      if (n <= 0) return all;
      all.append(block, static_cast<std::size_t>(n));
      at += n;
    }
  }

 private:
  int fd_, error_;
};

}  // namespace

std::string write_spreadsheet(const std::string& path, const std::string& title, const std::vector<DataTable>& tables,
                              int digits) {
  const FileInMemory file;
  const auto failed = [&](const std::string& why) { return "'" + path + "' cannot be written: " + why; };
  if (!file.sound()) return failed(std::generic_category().message(file.error()));
  std::unique_ptr<lxw_workbook, decltype(&lxw_workbook_free)> book(workbook_new(file.path().c_str()),
                                                                   &lxw_workbook_free);
  if (!book) throw std::bad_alloc();
  std::string name = at_most(255, title), program = "corvex";
  lxw_doc_properties properties{};
  properties.title = name.data();
  properties.comments = program.data();
  // Not the time of the run: the same model gives the same bytes.
  constexpr time_t year_2000 = 946'684'800;
  properties.created = year_2000;
  workbook_set_properties(book.get(), &properties);
  Sheets sheets(book.get(), digits);
  std::string why;
  for (const DataTable& t : tables)
    if (why.empty()) why = sheets.add(t);
  const lxw_error error = workbook_close(book.release());
  const int system = errno;
  // The library has several words for memory that it did not get.
  const auto memory_is_left = [] {
    constexpr std::size_t some = 4 << 20;
    return std::unique_ptr<char[]>(new (std::nothrow) char[some]) != nullptr;
  };
  const bool no_memory = error == LXW_ERROR_MEMORY_MALLOC_FAILED || system == ENOMEM;
  if (why.empty() && error != LXW_NO_ERROR && (no_memory || !memory_is_left())) throw std::bad_alloc();
  // The library writes to temporary files, and reports less than the system does.
  if (why.empty() && error != LXW_NO_ERROR)
    why = system == EMFILE || system == ENFILE
              ? std::generic_category().message(system)
              : "not enough memory, or not enough space in the folder for temporary files";
  return why.empty() ? write_file(path, file.bytes()) : failed(why);
}

}  // namespace corvex::document
