// A report as one file of HTML: pictures are SVG in it, formulas MathML. It needs no network and runs nothing.
#include <fmt/format.h>

#include <algorithm>
#include <tuple>

#include "report/book.hpp"
#include "report/escape.hpp"
#include "report/rows.hpp"
#include "report/style.hpp"

namespace corvex::reporting {
namespace {

const char* tone_class(Tone tone) {
  switch (tone) {
    case Tone::good: return "good";
    case Tone::warning: return "warning";
    case Tone::bad: return "bad";
    default: return "";
  }
}

std::string with_class(const char* tag, const std::string& classes, const std::string& inside) {
  return classes.empty() ? fmt::format("<{0}>{1}</{0}>", tag, inside)
                         : fmt::format("<{0} class=\"{2}\">{1}</{0}>", tag, inside, classes);
}

class HtmlWriter {
 public:
  explicit HtmlWriter(const Book& book) : book_(book) {}

  std::string whole() {
    std::string body = head() + contents();
    for (std::size_t i = 0; i < book_.chapters.size(); ++i) {
      const Chapter& c = book_.chapters[i];
      body += fmt::format("<section id=\"{}\" aria-labelledby=\"h-{}\">\n<h2 id=\"h-{}\">{} {}</h2>\n", c.name, c.name,
                          c.name, i + 1, escaped(c.title));
      chapter_ = i + 1;
      for (const Item& item : c.items) body += std::visit([&](const auto& one) { return write(one); }, item);
      body += "</section>\n";
    }
    return fmt::format(
        "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\"/>\n<meta name=\"viewport\" "
        "content=\"width=device-width\"/>\n<meta http-equiv=\"Content-Security-Policy\" content=\"default-src 'none'; "
        "style-src 'unsafe-inline'\"/>\n<title>{}</title>\n<style>\n{}</style>\n</head>\n<body>\n<main>\n{}</main>\n"
        "</body>\n</html>\n",
        escaped(book_.title), report_style, body);
  }

 private:
  std::string head() const {
    std::string text = "<header>\n<h1>" + escaped(book_.title) + "</h1>\n";
    if (!book_.changes.empty()) text += "<p class=\"changes\">" + escaped(book_.changes) + "</p>\n";
    std::string rows;
    for (const auto& [name, value] : book_.rows)
      rows += fmt::format("<div><dt>{}</dt><dd>{}</dd></div>\n", name, escaped(value));
    if (!rows.empty()) text += "<dl class=\"head\">\n" + rows + "</dl>\n";
    return text + write(revisions_table(book_.head)) + "</header>\n";
  }

  std::string contents() const {
    std::string text = "<nav aria-label=\"Contents\">\n<ol>\n";
    for (const Chapter& c : book_.chapters)
      text += fmt::format("<li><a href=\"#{}\">{}</a></li>\n", c.name, escaped(c.title));
    return text + "</ol>\n</nav>\n";
  }

  std::string write(const Heading& h) const { return "<h3>" + escaped(h.text) + "</h3>\n"; }

  std::string write(const Words& w) const {
    std::string text, list;
    const auto close = [&] {
      if (!list.empty()) text += "<dl class=\"words\">\n" + list + "</dl>\n";
      list.clear();
    };
    for (const Line& line : w.lines) {
      const std::string tone = tone_class(line.tone);
      if (!line.label.empty()) {
        list +=
            fmt::format("<div><dt>{}</dt>{}</div>\n", escaped(line.label), with_class("dd", tone, escaped(line.text)));
        continue;
      }
      close();
      text += with_class("p", tone, escaped(line.text)) + "\n";
    }
    close();
    return text;
  }

  std::string write(const Table& table) const {
    const ReadTable t = read(table, book_.digits);
    if (t.rows.empty()) return {};
    std::string text =
        "<div class=\"wide\" tabindex=\"0\" role=\"region\" aria-label=\"" + escaped(t.title) + "\">\n<table>\n";
    if (!t.title.empty()) text += "<caption>" + escaped(t.title) + "</caption>\n";
    text += "<thead><tr>";
    for (const ReadColumn& c : t.columns) {
      const std::string unit = c.unit.empty() ? "" : " <span class=\"unit\">[" + escaped(c.unit) + "]</span>";
      // A column without a heading holds the verdict, or a sign.
      const bool bare = c.head.empty() && c.unit.empty();
      text += bare ? "<td></td>"
                   : fmt::format("<th scope=\"col\"{}>{}{}</th>", c.words ? "" : " class=\"n\"", escaped(c.head), unit);
    }
    text += "</tr></thead>\n<tbody>\n";
    const std::vector<std::size_t> after = longest_fractions(t);
    for (const ReadRow& row : t.rows) {
      text += "<tr>";
      for (std::size_t c = 0; c < row.cells.size(); ++c) {
        std::string classes = tone_class(row.cells[c].tone);
        std::string words = escaped(row.cells[c].words);
        if (!t.columns[c].words) {
          classes += classes.empty() ? "n" : " n";
          words += padding(row.cells[c].words, after[c]);
        }
        text += with_class("td", classes, words);
      }
      text += "</tr>\n";
      for (const std::string& words : row.beneath)
        text +=
            fmt::format("<tr class=\"beneath\"><td colspan=\"{}\">{}</td></tr>\n", t.columns.size(), escaped(words));
    }
    text += "</tbody>\n</table>\n</div>\n";
    if (!t.after.empty()) text += "<p class=\"after\">" + escaped(t.after) + "</p>\n";
    return text;
  }

  // Numbers are aligned at their decimal points: shorter ones are filled up with invisible digits.
  static std::vector<std::size_t> longest_fractions(const ReadTable& t) {
    std::vector<std::size_t> longest(t.columns.size(), 0);
    for (const ReadRow& row : t.rows)
      for (std::size_t c = 0; c < row.cells.size(); ++c)
        if (is_number(row.cells[c].words))
          longest[c] = std::max(longest[c], row.cells[c].words.size() - before_point(row.cells[c].words));
    return longest;
  }
  static bool is_number(const std::string& words) {
    return !words.empty() && words.find_first_not_of("0123456789.-+") == std::string::npos;
  }
  static std::string padding(const std::string& words, std::size_t longest) {
    if (!is_number(words)) return {};
    const std::size_t own = words.size() - before_point(words);
    if (own >= longest) return {};
    std::string fill(longest - own, '0');
    if (own == 0) fill[0] = '.';
    return "<span class=\"fill\" aria-hidden=\"true\">" + fill + "</span>";
  }

  std::string write(const Figure& f) {
    return fmt::format("<figure{}>\n{}<figcaption>Figure {}.{}: {}</figcaption>\n</figure>\n",
                       f.half ? " class=\"half\"" : "", accessible_svg(f), chapter_, ++figure_[chapter_],
                       escaped(f.caption));
  }
  // The picture scales with the page, and says what it is.
  std::string accessible_svg(const Figure& f) const {
    std::string svg = picture::as_svg(f.drawing);
    const std::string opening = "<svg ";
    svg.replace(0, opening.size(), fmt::format("<svg role=\"img\" aria-label=\"{}\" ", escaped(f.caption)));
    return svg;
  }

  std::string write(const Worked& w) const {
    std::string text = "<div class=\"worked\">\n";
    if (!w.what.empty()) text += "<p class=\"what\">" + escaped(w.what) + "</p>\n";
    for (const auto& [words, math] : w.before) text += "<math display=\"block\">" + mathml(math) + "</math>\n";
    text += "<math display=\"block\">" + mathml(w.math) + "</math>\n";
    if (!w.verdict.empty()) text += with_class("p", tone_class(w.tone), escaped(w.verdict)) + "\n";
    for (const std::string& remark : w.remarks) text += "<p class=\"after\">" + escaped(remark) + "</p>\n";
    return text + "</div>\n";
  }

  const Book& book_;
  std::size_t chapter_ = 0;
  std::vector<int> figure_ = std::vector<int>(64, 0);
};

}  // namespace

std::string as_html(const Book& book) {
  return HtmlWriter(book).whole();
}

}  // namespace corvex::reporting
