// A report as PDF: A4, with contents, page numbers, links and an outline.
#include <fmt/format.h>

#include <algorithm>

#include "report/book.hpp"
#include "report/paper.hpp"
#include "report/set_math.hpp"
#include "report/set_table.hpp"
#include "report/tones.hpp"

namespace corvex::reporting {
namespace {

class PdfWriter {
 public:
  explicit PdfWriter(const Book& book) : book_(book), pages_(book.chapters.size(), 0) {}

  std::string whole() {
    head();
    contents();
    for (std::size_t i = 0; i < book_.chapters.size(); ++i) chapter(i);
    std::vector<Paper::Outline> outline;
    for (std::size_t i = 0; i < book_.chapters.size(); ++i)
      outline.push_back({fmt::format("{} {}", i + 1, book_.chapters[i].title), book_.chapters[i].name});
    return p_.finished({book_.title, book_.head.author, creation_date(book_.head)}, outline,
                       [&](const Ink& to, std::size_t page, std::size_t of) { margins(to, page, of); });
  }

 private:
  static constexpr double label_width = 92;

  void paragraph(const std::string& words, const TextStyle& style, double indent = 0, double space = 4) {
    const double w = Paper::text_width - indent;
    const double h = p_.measured(words, style, w).height;
    p_.need(h);
    p_.words(words, style, Paper::left + indent, p_.y, Align::left, w);
    p_.y += h + space;
  }

  void head() {
    paragraph(book_.title, {.size = 19, .bold = true}, 0, 6);
    if (!book_.changes.empty()) paragraph(book_.changes, {.colour = {90, 67, 0}}, 0, 6);
    if (book_.rows.empty()) return;
    p_.line(Paper::left, p_.y, Paper::right, p_.y, 0.6, pale_rule);
    p_.y += 5;
    for (const auto& [name, value] : book_.rows) labelled(name, value, Tone::plain);
    p_.y += 2;
    p_.line(Paper::left, p_.y, Paper::right, p_.y, 0.6, pale_rule);
    p_.y += 8;
    if (const Table revisions = revisions_table(book_.head); !revisions.rows.empty()) write(revisions);
  }

  void contents() {
    p_.y += 6;
    paragraph("Contents", {.size = 11, .bold = true});
    for (std::size_t i = 0; i < book_.chapters.size(); ++i) {
      const std::string title = fmt::format("{}  {}", i + 1, book_.chapters[i].title);
      const double h = p_.measured(title, {}).height, y = p_.y;
      p_.words(title, {.colour = link_blue}, Paper::left, y);
      // Known when all chapters are set.
      p_.op([this, i, y](const Ink& to) {
        draw_words(to, std::to_string(pages_[i]), {}, {Paper::right, y}, Align::right);
      });
      const double from = Paper::left + p_.measured(title, {}).width + 6;
      p_.op([from, y, h](const Ink& to) {
        cairo_set_source_rgb(to.cairo, 0.6, 0.65, 0.7);
        cairo_set_line_width(to.cairo, 0.5);
        const double dash[] = {0.6, 3};
        cairo_set_dash(to.cairo, dash, 2, 0);
        cairo_move_to(to.cairo, from, y + h * 0.72);
        cairo_line_to(to.cairo, Paper::right - 22, y + h * 0.72);
        cairo_stroke(to.cairo);
        cairo_set_dash(to.cairo, nullptr, 0, 0);
      });
      p_.link(book_.chapters[i].name, Paper::left, y, Paper::text_width, h);
      p_.y += h + 1.5;
    }
    p_.y += 8;
  }

  void chapter(std::size_t i) {
    const Chapter& c = book_.chapters[i];
    if (i > 0) p_.y += 12;
    p_.need(36 + (c.items.empty() ? 0 : beginning(c.items, 0)));
    pages_[i] = p_.page();
    chapter_ = i + 1;
    figures_ = 0;
    p_.destination(c.name);
    paragraph(fmt::format("{}  {}", i + 1, c.title), {.size = 14, .bold = true}, 0, 2);
    p_.line(Paper::left, p_.y, Paper::right, p_.y, 0.6, pale_rule);
    p_.y += 8;
    for (std::size_t k = 0; k < c.items.size(); ++k) {
      // A heading stays with what follows it.
      if (std::holds_alternative<Heading>(c.items[k]) && k + 1 < c.items.size())
        p_.need(24 + beginning(c.items, k + 1));
      if (k + 1 < c.items.size() && are_halves(c.items[k], c.items[k + 1])) {
        pair(std::get<Figure>(c.items[k]), std::get<Figure>(c.items[k + 1]));
        ++k;
      } else {
        std::visit([&](const auto& item) { write(item); }, c.items[k]);
      }
    }
  }

  static bool are_halves(const Item& a, const Item& b) {
    const auto half = [](const Item& item) {
      const Figure* const f = std::get_if<Figure>(&item);
      return f && f->half;
    };
    return half(a) && half(b);
  }

  // The part of the next items that must follow a heading on the same page.
  double beginning(const std::vector<Item>& items, std::size_t k) {
    if (const auto* f = std::get_if<Figure>(&items[k])) return height_of(*f);
    if (const auto* t = std::get_if<Table>(&items[k])) return beginning_of(p_, read(*t, book_.digits));
    // After a line of words, or a further heading, comes what it speaks of.
    const auto* words = std::get_if<Words>(&items[k]);
    const bool leads = std::holds_alternative<Heading>(items[k]) || (words && words->lines.size() == 1);
    return leads && k + 1 < items.size() ? 30 + beginning(items, k + 1) : 80;
  }

  void write(const Heading& h) {
    p_.y += 6;
    paragraph(h.text, {.size = 10.5, .bold = true}, 0, 5);
  }

  void labelled(const std::string& label, const std::string& words, Tone tone) {
    const TextStyle style{.bold = tone == Tone::bad, .colour = colour_of(tone)};
    const double w = Paper::text_width - label_width;
    const TextStyle of_label{.colour = quiet};
    const double h =
        std::max(p_.measured(words, style, w).height, p_.measured(label, of_label, label_width - 8).height);
    p_.need(h);
    p_.words(label, of_label, Paper::left, p_.y, Align::left, label_width - 8);
    p_.words(words, style, Paper::left + label_width, p_.y, Align::left, w);
    p_.y += h + 3;
  }

  void write(const Words& w) {
    for (const Line& line : w.lines) {
      if (!line.label.empty())
        labelled(line.label, line.text, line.tone);
      else
        paragraph(line.text, {.bold = line.tone == Tone::bad, .colour = colour_of(line.tone)});
    }
    p_.y += 4;
  }

  void write(const Table& t) { add_table(p_, read(t, book_.digits)); }

  static constexpr double half_width = Paper::text_width / 2 - 6;
  static double width_of(const Figure& f) { return f.half ? half_width : Paper::text_width; }
  static double scale_of(const Figure& f) { return width_of(f) / f.drawing.width; }
  static double height_of(const Figure& f) { return f.drawing.height * scale_of(f) + 26; }
  // The height of the caption.
  double place(const Figure& f, double x) {
    const TextStyle small{.size = 8, .colour = quiet};
    const std::string caption = fmt::format("Figure {}.{}: {}", chapter_, ++figures_, f.caption);
    const double below = p_.y + f.drawing.height * scale_of(f) + 3;
    p_.drawing(f.drawing, x, p_.y, scale_of(f));
    p_.words(caption, small, x, below, Align::left, width_of(f));
    return p_.measured(caption, small, width_of(f)).height;
  }
  void write(const Figure& f) {
    p_.need(height_of(f));
    const double caption = place(f, Paper::left);
    p_.y += f.drawing.height * scale_of(f) + 3 + caption + 10;
  }
  void pair(const Figure& a, const Figure& b) {
    p_.need(std::max(height_of(a), height_of(b)));
    const double caption = std::max(place(a, Paper::left), place(b, Paper::right - half_width));
    p_.y += std::max(a.drawing.height * scale_of(a), b.drawing.height * scale_of(b)) + 3 + caption + 10;
  }

  void write(const Worked& w) {
    constexpr double indent = 10;
    p_.need(w.what.empty() ? 24 : 58);
    if (!w.what.empty()) paragraph(w.what, {.bold = true}, 0, 1);
    for (const auto& [words, math] : w.before) add_math(p_, math, indent);
    add_math(p_, w.math, indent);
    if (!w.verdict.empty())
      paragraph(w.verdict, {.size = 8.6, .bold = w.tone == Tone::bad, .colour = colour_of(w.tone)}, indent, 2);
    for (const std::string& remark : w.remarks) paragraph(remark, {.size = 8, .colour = quiet}, indent, 2);
    p_.y += w.what.empty() ? 1 : 6;
  }

  // Above and below the text of each page.
  void margins(const Ink& to, std::size_t page, std::size_t of) const {
    const TextStyle small{.size = 7.6, .colour = quiet};
    std::string left = book_.title, right;
    if (!book_.head.number.empty()) left = book_.head.number + "  " + left;
    if (!book_.head.revision.empty()) right = "revision " + book_.head.revision;
    if (!book_.head.date.empty()) right += (right.empty() ? "" : ", ") + book_.head.date;
    if (page > 1) {
      // A long title ends before the text on the right.
      constexpr std::size_t most = 80;
      if (left.size() > most) left = cut(left, most) + "…";
      draw_words(to, left, small, {Paper::left, 36});
      draw_words(to, right, small, {Paper::right, 36}, Align::right);
    }
    draw_words(to, fmt::format("page {} of {}", page, of), small, {Paper::right, Paper::height - 44}, Align::right);
  }
  // Whole characters only.
  static std::string cut(const std::string& text, std::size_t most) {
    while (most > 0 && (static_cast<unsigned char>(text[most]) & 0xC0) == 0x80) --most;
    return text.substr(0, most);
  }

  const Book& book_;
  Paper p_;
  std::vector<std::size_t> pages_;
  std::size_t chapter_ = 0;
  int figures_ = 0;
};

}  // namespace

std::string as_pdf(const Book& book) {
  return PdfWriter(book).whole();
}

}  // namespace corvex::reporting
