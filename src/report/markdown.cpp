// A report as Markdown, with its pictures as SVG files in the same folder.
#include <fmt/format.h>

#include "report/book.hpp"

namespace corvex::reporting {
namespace {

std::string code(const std::string& words) {
  // A backtick ends what is set as code.
  std::string text = words;
  for (char& c : text)
    if (c == '`') c = '\'';
  return "`" + text + "`";
}

// Characters with a meaning in Markdown are escaped, as by the writer of pages.
std::string plain(const std::string& words, int digits) {
  std::string text = document::page_markdown({Words{{{"", words}}}}, digits);
  while (!text.empty() && (text.back() == '\n' || text.back() == ' ')) text.pop_back();
  return text;
}

class MarkdownWriter {
 public:
  MarkdownWriter(const Book& book, const std::string& name) : book_(book), name_(name) {}

  Report whole() {
    document::Page head{Heading{book_.title, 1}};
    Words words;
    if (!book_.changes.empty()) words.lines.push_back({"", book_.changes});
    for (const auto& [label, value] : book_.rows) words.lines.push_back({label, value});
    if (!words.lines.empty()) head.emplace_back(std::move(words));
    if (Table revisions = revisions_table(book_.head); !revisions.rows.empty()) head.emplace_back(std::move(revisions));
    add(document::page_markdown(head, book_.digits));
    for (const Chapter& c : book_.chapters) {
      add(document::page_markdown({Heading{c.title, 2}}, book_.digits));
      for (const Item& item : c.items) std::visit([&](const auto& one) { write(one); }, item);
    }
    return std::move(out_);
  }

 private:
  void add(const std::string& part) {
    if (!part.empty()) out_.text += (out_.text.empty() ? "" : "\n") + part;
  }
  void write(const Heading& h) { add(document::page_markdown({Heading{h.text, 3}}, book_.digits)); }
  void write(const Words& w) { add(document::page_markdown({w}, book_.digits)); }
  void write(const Table& t) { add(document::page_markdown({t}, book_.digits)); }
  void write(const Figure& f) {
    const std::string file = name_ + "-" + f.name + ".svg";
    out_.pictures.emplace_back(file, picture::as_svg(f.drawing));
    add(fmt::format("![{}](<{}>)\n", plain(f.caption, book_.digits), file));
  }
  void write(const Worked& w) {
    std::string text = w.what.empty() ? "" : "**" + plain(w.what, book_.digits) + "**  \n";
    for (const auto& [words, math] : w.before) text += code(words) + "  \n";
    text += code(w.formula);
    if (!w.verdict.empty()) text += "  \n" + plain(w.verdict, book_.digits);
    for (const std::string& remark : w.remarks) text += "  \n" + plain(remark, book_.digits);
    add(text + "\n");
  }

  const Book& book_;
  const std::string& name_;
  Report out_;
};

}  // namespace

Report as_markdown(const Book& book, const std::string& name) {
  return MarkdownWriter(book, name).whole();
}

}  // namespace corvex::reporting
