#include "report/set_table.hpp"

#include <algorithm>
#include <numeric>

#include "report/tones.hpp"

namespace corvex::reporting {
namespace {

using document::Tone;
constexpr double least_words = 62;  // points; words are not wrapped below this
constexpr double sizes[] = {8, 7.4, 6.8, 6.3};

struct Width {
  double whole = 0;
  double before = 0;  // of numbers, to the left of the point
};

class TableSetter {
 public:
  TableSetter(Paper& paper, const ReadTable& table) : p_(paper), t_(table) {}

  void whole() {
    if (t_.rows.empty()) return;
    std::vector<std::size_t> all(t_.columns.size());
    std::iota(all.begin(), all.end(), 0);
    for (const double size : sizes) {
      size_ = size;
      measure();
      if (narrowed(all)) return part(all, t_.title);
    }
    measure();
    bool first = true;
    for (const std::vector<std::size_t>& columns : parts()) {
      narrowed(columns);
      part(columns, first ? t_.title : t_.title.empty() ? "" : t_.title + ", further columns");
      first = false;
    }
  }

  double beginning() {
    if (t_.rows.empty()) return 0;
    std::vector<std::size_t> all(t_.columns.size());
    std::iota(all.begin(), all.end(), 0);
    for (const double size : sizes) {
      size_ = size;
      measure();
      if (narrowed(all)) break;
    }
    return beginning(all, t_.title);
  }

 private:
  double beginning(const std::vector<std::size_t>& columns, const std::string& title) const {
    double first_rows = 0;
    for (std::size_t r = 0; r < t_.rows.size() && r < 3; ++r) first_rows += height_of(t_.rows[r], columns);
    return (title.empty() ? 0 : 16) + head_height(columns) + std::min(first_rows, 160.0);
  }

  TextStyle style(bool bold = false) const { return {.size = size_, .bold = bold}; }

  void measure() {
    widths_.assign(t_.columns.size(), {});
    for (std::size_t c = 0; c < t_.columns.size(); ++c) {
      const ReadColumn& column = t_.columns[c];
      double before = 0, after = 0, whole = p_.measured(column.head, style(true)).width;
      whole = std::max(whole, p_.measured(unit(column), style()).width);
      for (const ReadRow& row : t_.rows) {
        if (c >= row.cells.size()) continue;
        const std::string& words = row.cells[c].words;
        if (column.words || before_point(words) == 0) {
          whole = std::max(whole, p_.measured(words, style(row.cells[c].tone == Tone::bad)).width);
          continue;
        }
        const std::size_t point = before_point(words);
        before = std::max(before, p_.measured(words.substr(0, point), style()).width);
        after = std::max(after, p_.measured(words.substr(point), style()).width);
      }
      widths_[c] = {std::max(whole, before + after), 0};
      widths_[c].before = widths_[c].whole - after;
    }
  }
  static std::string unit(const ReadColumn& c) { return c.unit.empty() ? "" : "[" + c.unit + "]"; }

  // Points between columns.
  double between() const { return (size_ > 7 ? 1.1 : 0.75) * size_; }
  double total(const std::vector<std::size_t>& columns) const {
    double w = -between();
    for (const std::size_t c : columns) w += widths_[c].whole + between();
    return w;
  }

  // Whether the columns fit, the widest of words wrapped where that suffices.
  bool narrowed(const std::vector<std::size_t>& columns) {
    while (total(columns) > Paper::text_width) {
      std::size_t widest = t_.columns.size();
      for (const std::size_t c : columns)
        if (t_.columns[c].words && (widest == t_.columns.size() || widths_[c].whole > widths_[widest].whole))
          widest = c;
      if (widest == t_.columns.size() || widths_[widest].whole <= least_words) return false;
      const double over = total(columns) - Paper::text_width;
      widths_[widest].whole = std::max(least_words, widths_[widest].whole - std::min(over, 12.0) - 0.01);
    }
    return true;
  }

  std::vector<std::vector<std::size_t>> parts() const {
    std::vector<std::size_t> labels;
    for (std::size_t c = 0; c < t_.columns.size(); ++c)
      if (t_.columns[c].label) labels.push_back(c);
    std::vector<std::vector<std::size_t>> all{labels};
    for (std::size_t c = 0; c < t_.columns.size(); ++c) {
      if (t_.columns[c].label) continue;
      std::vector<std::size_t> with = all.back();
      with.push_back(c);
      if (total(with) > Paper::text_width && all.back().size() > labels.size()) {
        all.push_back(labels);
        all.back().push_back(c);
      } else {
        all.back() = with;
      }
    }
    return all;
  }

  double height_of(const ReadRow& row, const std::vector<std::size_t>& columns) const {
    double h = p_.measured("0", style()).height;
    for (const std::size_t c : columns)
      if (c < row.cells.size() && t_.columns[c].words)
        h = std::max(h, p_.measured(row.cells[c].words, style(), widths_[c].whole + 0.5).height);
    for (const std::string& words : row.beneath)
      h += p_.measured(words, beneath(), Paper::text_width - set_in).height + 1;
    return h + 3;
  }
  TextStyle beneath() const { return {.size = size_ - 0.3, .colour = {61, 74, 85}}; }

  double head_height(const std::vector<std::size_t>& columns) const {
    const bool units =
        std::any_of(columns.begin(), columns.end(), [&](std::size_t c) { return !t_.columns[c].unit.empty(); });
    const double line = p_.measured("0", style(true)).height;
    return line * (units ? 2 : 1) + 5;
  }

  void head(const std::vector<std::size_t>& columns, const std::string& title) {
    if (!title.empty()) {
      const TextStyle bold{.size = 9, .bold = true};
      p_.words(title, bold, Paper::left, p_.y, Align::left, Paper::text_width);
      p_.y += p_.measured(title, bold, Paper::text_width).height + 3;
    }
    const double line = p_.measured("0", style(true)).height;
    double x = Paper::left;
    TextStyle of_unit = style();
    of_unit.colour = quiet;
    for (const std::size_t c : columns) {
      const ReadColumn& column = t_.columns[c];
      const double at = column.words ? x : x + widths_[c].whole;
      const Align align = column.words ? Align::left : Align::right;
      p_.words(column.head, style(true), at, p_.y, align);
      if (!column.unit.empty()) p_.words(unit(column), of_unit, at, p_.y + line, align);
      x += widths_[c].whole + between();
    }
    p_.y += head_height(columns) - 3;
    p_.line(Paper::left, p_.y, Paper::left + std::min(total(columns), Paper::text_width), p_.y, 0.6, rule);
    p_.y += 3;
  }

  void part(const std::vector<std::size_t>& columns, const std::string& title) {
    p_.need(beginning(columns, title));
    head(columns, title);
    for (std::size_t r = 0; r < t_.rows.size(); ++r) {
      const double h = height_of(t_.rows[r], columns);
      if (p_.y + h > Paper::bottom) {
        p_.new_page();
        head(columns, title.empty() ? "" : title + " (continued)");
        row(with_names(r), columns, h);
        continue;
      }
      row(t_.rows[r], columns, h);
    }
    if (!t_.after.empty()) {
      const TextStyle small{.size = 7.6, .colour = quiet};
      const double h = p_.measured(t_.after, small, Paper::text_width).height;
      p_.need(h);
      p_.words(t_.after, small, Paper::left, p_.y + 1, Align::left, Paper::text_width);
      p_.y += h;
    }
    p_.y += 10;
  }

  // A row at the top of a page shows the names that it shares with the rows before it.
  ReadRow with_names(std::size_t r) const {
    ReadRow row = t_.rows[r];
    for (std::size_t c = 0; c < row.cells.size(); ++c)
      for (std::size_t above = r; above > 0 && t_.columns[c].label && row.cells[c].words.empty(); --above)
        row.cells[c] = t_.rows[above - 1].cells[c];
    return row;
  }

  void row(const ReadRow& row, const std::vector<std::size_t>& columns, double height) {
    double x = Paper::left, tallest = p_.measured("0", style()).height;
    for (const std::size_t c : columns) {
      const double w = widths_[c].whole;
      if (c < row.cells.size() && !row.cells[c].words.empty()) {
        const std::string& words = row.cells[c].words;
        TextStyle s = style(row.cells[c].tone == Tone::bad);
        s.colour = colour_of(row.cells[c].tone);
        if (t_.columns[c].words) {
          p_.words(words, s, x, p_.y, Align::left, w + 0.5);
          tallest = std::max(tallest, p_.measured(words, s, w + 0.5).height);
        } else if (const std::size_t point = before_point(words); point == 0) {
          p_.words(words, s, x + w, p_.y, Align::right);
        } else {
          const double whole = p_.measured(words.substr(0, point), s).width;
          p_.words(words, s, x + widths_[c].before - whole, p_.y);
        }
      }
      x += w + between();
    }
    double y = p_.y + tallest + 1;
    for (const std::string& words : row.beneath) {
      p_.words(words, beneath(), Paper::left + set_in, y, Align::left, Paper::text_width - set_in);
      y += p_.measured(words, beneath(), Paper::text_width - set_in).height + 1;
    }
    p_.y += height;
    p_.line(Paper::left, p_.y - 1.6, Paper::left + std::min(total(columns), Paper::text_width), p_.y - 1.6, 0.35,
            faint);
  }

  static constexpr double set_in = 10;
  Paper& p_;
  const ReadTable& t_;
  double size_ = sizes[0];
  std::vector<Width> widths_;
};

}  // namespace

double beginning_of(Paper& paper, const ReadTable& table) {
  return TableSetter(paper, table).beginning();
}

void add_table(Paper& paper, const ReadTable& table) {
  TableSetter(paper, table).whole();
}

}  // namespace corvex::reporting
