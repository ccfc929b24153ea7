// Findings of a model, and the model as it was read.
#include <fmt/format.h>

#include <algorithm>

#include "corvex/document.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

Tone tone_of(const Problem& p) {
  if (p.is_accepted() || p.severity == Problem::Severity::note) return Tone::plain;
  return p.severity == Problem::Severity::error ? Tone::bad : Tone::warning;
}

std::string joined(const std::vector<std::string>& names, std::size_t most) {
  std::string text;
  for (std::size_t i = 0; i < names.size() && i < most; ++i) text += (i > 0 ? ", " : "") + names[i];
  return names.size() > most ? text + fmt::format(" and {} more", names.size() - most) : text;
}

std::string ordinal(int n) {
  const int last = n % 100 >= 11 && n % 100 <= 13 ? 0 : n % 10;
  return fmt::format("{}{}", n, last == 1 ? "st" : last == 2 ? "nd" : last == 3 ? "rd" : "th");
}

}  // namespace

std::string findings_in_words(const Problems& findings) {
  std::size_t of[3] = {}, accepted = 0;
  for (const Problem& p : findings) p.is_accepted() ? ++accepted : ++of[static_cast<std::size_t>(p.severity)];
  std::string text;
  const auto add = [&](std::size_t n, const std::string& words) {
    if (n > 0) text += (text.empty() ? "" : ", ") + words;
  };
  add(of[0], count(of[0], "error"));
  add(of[1], count(of[1], "warning"));
  add(of[2], count(of[2], "note"));
  add(accepted, fmt::format("{} accepted", accepted));
  return text.empty() ? "nothing found" : text;
}

namespace {

std::string determinacy(const Inspection& inspection) {
  const auto moves = [](const Problem& p) { return p.finding == "free-to-move"; };
  if (std::any_of(inspection.findings.begin(), inspection.findings.end(), moves)) return ", a mechanism";
  if (!inspection.indeterminacy) return "";
  const int n = *inspection.indeterminacy;
  if (n == 0) return ", statically determinate";
  if (n < 0) return ", a mechanism";
  return fmt::format(", statically indeterminate to the {} degree", ordinal(n));
}

}  // namespace

Table findings_table(const Problems& findings) {
  static constexpr const char* severities[] = {"error", "warning", "note"};
  Table t{.name = "findings", .title = "Findings"};
  t.columns = {
      words_column("severity", true), number_column("line"),  words_column("finding", true),   words_column("on"),
      words_column("text"),           words_column("remedy"), words_column("accepted because")};
  t.columns[1].most_digits = 9;
  for (std::size_t k = 4; k < 7; ++k) t.columns[k].use = For::data;
  for (const Problem& p : findings) {
    const std::vector<std::string> objects = objects_of(p);
    Cell severity(severities[static_cast<std::size_t>(p.severity)]);
    severity.tone = tone_of(p);
    const Cell line = p.place.line > 0 ? Cell(p.place.line, std::to_string(p.place.line)) : Cell();
    t.row({severity, line, p.finding, joined(objects, 6), p.text, p.remedy, p.because});
    t.say_beneath(p.text);
    if (p.is_accepted())
      t.say_beneath("accepted: " + p.because);
    else if (const Problem* next = &p == &findings.back() ? nullptr : &p + 1;
             !p.remedy.empty() && (!next || next->is_accepted() || next->remedy != p.remedy))
      t.say_beneath("remedy: " + p.remedy);
  }
  return t;
}

Page inspection_page(const ModelUnits& units, const Structure& structure, const Inspection& inspection, int digits) {
  Page page;
  add_head(page, units, structure, digits);
  auto& words = std::get<Words>(page[1]);
  words.lines.front().text += determinacy(inspection);
  words.lines.push_back({"", findings_in_words(inspection.findings) + ".",
                         asks_for_attention(inspection.findings) ? Tone::warning : Tone::good});
  if (!inspection.findings.empty()) page.emplace_back(findings_table(inspection.findings));
  if (structure.members().empty()) return page;
  add_model(page, units, structure);
  return page;
}

}  // namespace corvex::document
