// The head of a report: project, persons with dates, files with their checksums, program, revisions.
#include <fmt/format.h>
#include <glib.h>

#include <array>
#include <cstdlib>
#include <ctime>

#include "corvex/version.hpp"
#include "report/book.hpp"

namespace corvex::reporting {
namespace {

std::string with_date(const std::string& name, const std::string& date) {
  return date.empty() ? name : name.empty() ? date : name + ", " + date;
}

std::string sha256(const std::string& bytes) {
  gchar* const sum = g_compute_checksum_for_string(G_CHECKSUM_SHA256, bytes.data(), static_cast<gssize>(bytes.size()));
  std::string text(sum);
  g_free(sum);
  return text;
}

bool is_iso_date(const std::string& text) {
  static constexpr std::string_view form = "dddd-dd-dd";
  if (text.size() != form.size()) return false;
  for (std::size_t i = 0; i < form.size(); ++i)
    if (form[i] == 'd' ? text[i] < '0' || text[i] > '9' : text[i] != '-') return false;
  return true;
}

}  // namespace

std::vector<std::pair<std::string, std::string>> rows_of(const Model& model) {
  const DocumentHead& h = model.document;
  std::vector<std::pair<std::string, std::string>> rows = {{"Project", h.project},
                                                           {"Number", h.number},
                                                           {"Client", h.client},
                                                           {"Revision", h.revision},
                                                           {"Date", h.date},
                                                           {"Author", with_date(h.author, h.author_date)},
                                                           {"Checked", with_date(h.checked, h.checked_date)},
                                                           {"Approved", with_date(h.approved, h.approved_date)}};
  for (std::size_t i = 0; i < model.sources.size(); ++i) {
    const SourceFile& file = model.sources[i];
    rows.emplace_back(i == 0 ? "Model file" : "Table", fmt::format("{}, SHA-256 {}", file.name, sha256(*file.bytes)));
  }
  rows.emplace_back("Program", std::string("Corvex ") + CORVEX_VERSION);
  std::erase_if(rows, [](const auto& row) { return row.second.empty(); });
  return rows;
}

Table revisions_table(const DocumentHead& head) {
  Table t{.name = "revisions", .title = "Revisions"};
  t.columns = {document::words_column("revision", true), document::words_column("date"),
               document::words_column("description"), document::words_column("author")};
  for (const DocumentHead::Revision& r : head.revisions) t.row({r.revision, r.date, r.text, r.author});
  return t;
}

std::string creation_date(const DocumentHead& head) {
  if (const char* const epoch = std::getenv("SOURCE_DATE_EPOCH"); epoch && *epoch) {
    char* end = nullptr;
    const std::time_t seconds = std::strtoll(epoch, &end, 10);
    std::tm utc{};
    std::array<char, 32> text{};
    if (*end == '\0' && gmtime_r(&seconds, &utc) && std::strftime(text.data(), text.size(), "%Y-%m-%dT%H:%M:%SZ", &utc))
      return text.data();
  }
  return is_iso_date(head.date) ? head.date + "T00:00:00Z" : std::string();
}

}  // namespace corvex::reporting
