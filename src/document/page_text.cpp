// Pages for terminals and text files.
#include <fmt/color.h>
#include <fmt/format.h>

#include <algorithm>

#include "corvex/page.hpp"
#include "document/number.hpp"

namespace corvex::document {
namespace {

const std::string indent = "  ";

std::string toned(const std::string& text, Tone tone, const Style& style) {
  if (!style.colour || tone == Tone::plain || text.empty()) return text;
  const auto look = tone == Tone::head      ? fmt::text_style(fmt::emphasis::bold)
                    : tone == Tone::good    ? fmt::fg(fmt::terminal_color::green)
                    : tone == Tone::warning ? fmt::fg(fmt::terminal_color::magenta)
                                            : fmt::emphasis::bold | fmt::fg(fmt::terminal_color::red);
  return fmt::format(look, "{}", text);
}

std::string spaces(std::size_t n) {
  return std::string(n, ' ');
}

std::string trimmed(const std::string& cell) {
  return cell.substr(0, cell.find_last_not_of(' ') + 1);
}

// Digits before the decimal point.
std::size_t before_point(const std::string& cell) {
  return width(cell.substr(0, cell.find_first_of(".e ")));
}

// One column, its cells as text of one width each.
struct Strip {
  const Column* column = nullptr;
  std::vector<std::string> lines;  // head, unit, then the rows
  std::vector<Tone> tones;
  std::size_t width = 0;
};

class TableText {
 public:
  TableText(const Table& table, const Style& style) : t_(for_people(table)), style_(style) {
    for (std::size_t c = 0; c < t_.columns.size(); ++c)
      if (t_.columns[c].use != For::data && !vacant(c)) strips_.push_back(strip(c));
  }

  std::string operator()() const {
    std::string text;
    for (const std::string& line : wrapped(t_.title, style_.width, "  "))
      text += toned(line, Tone::head, style_) + "\n";
    bool first = true;
    for (const auto& block : blocks()) {
      if (!first) text += "\n";
      text += block_text(block, first);
      first = false;
    }
    const std::size_t within = style_.width > indent.size() ? style_.width - indent.size() : 0;
    for (const std::string& line : wrapped(t_.after, within, indent)) text += indent + line + "\n";
    return text;
  }

 private:
  // A column without heading and without cells takes no room.
  bool vacant(std::size_t c) const {
    const Column& column = t_.columns[c];
    return column.head.empty() && column.unit.empty() &&
           std::all_of(t_.rows.begin(), t_.rows.end(), [&](const Row& row) {
             return c >= row.cells.size() || shown(column, row.cells[c], style_.digits).empty();
           });
  }

  std::string cell(std::size_t r, std::size_t c) const {
    const Row& row = t_.rows[r];
    if (c >= row.cells.size()) return "";
    return shown(t_.columns[c], row.cells[c], style_.digits);
  }

  Strip strip(std::size_t c) const {
    const Column& column = t_.columns[c];
    Strip s{.column = &column, .lines = {column.head, column.unit}, .tones = {Tone::plain, Tone::plain}};
    const bool decimal = column.kind != Column::Kind::words;
    std::size_t left = 0, right = 0;
    for (std::size_t r = 0; r < t_.rows.size(); ++r) {
      s.lines.push_back(cell(r, c));
      s.tones.push_back(c < t_.rows[r].cells.size() ? t_.rows[r].cells[c].tone : Tone::plain);
      const std::size_t before = decimal ? before_point(s.lines.back()) : width(s.lines.back());
      left = std::max(left, before);
      right = std::max(right, width(s.lines.back()) - before);
    }
    s.width = std::max({left + right, width(column.head), width(column.unit)});
    // Numbers stand to the right under a wide heading.
    if (decimal) left = s.width - right;
    for (std::size_t i = 0; i < s.lines.size(); ++i) {
      std::string& line = s.lines[i];
      const std::size_t lead = !decimal ? 0 : i < 2 ? s.width - width(line) : left - before_point(line);
      line = spaces(lead) + line + spaces(s.width - lead - width(line));
    }
    return s;
  }

  // Columns of one block: all, or on narrow terminals as many as fit, the labels first in each.
  std::vector<std::vector<const Strip*>> blocks() const {
    std::vector<const Strip*> labels;
    for (const Strip& s : strips_)
      if (s.column->label) labels.push_back(&s);
    const auto room = [](const std::vector<const Strip*>& block) {
      std::size_t all = 0;
      for (const Strip* s : block) all += s->width + indent.size();
      return all;
    };
    std::vector<std::vector<const Strip*>> all{labels};
    for (std::size_t i = 0; i < strips_.size();) {
      if (strips_[i].column->label) {
        ++i;
        continue;
      }
      std::vector<const Strip*> tied{&strips_[i++]};
      while (i < strips_.size() && strips_[i].column->tied) tied.push_back(&strips_[i++]);
      const bool empty = all.back().size() == labels.size();
      if (style_.width > 0 && !empty && room(all.back()) + room(tied) > style_.width) all.push_back(labels);
      all.back().insert(all.back().end(), tied.begin(), tied.end());
    }
    return all;
  }

  // Words that end beyond the page, in the last column of the block.
  bool is_too_wide(const Strip& s, std::size_t i, std::size_t start) const {
    constexpr std::size_t least = 12;
    return style_.width >= start + least && s.column->kind == Column::Kind::words &&
           start + width(trimmed(s.lines[i])) > style_.width;
  }
  std::string broken(const Strip& s, std::size_t i, std::size_t start) const {
    std::string text;
    for (const std::string& part : wrapped(trimmed(s.lines[i]), style_.width - start, ""))
      text += (text.empty() ? "" : "\n" + spaces(start)) + toned(part, s.tones[i], style_);
    return text;
  }

  // A row that has only its labels in these columns: they are in the block before it.
  static bool says_nothing(const std::vector<const Strip*>& block, std::size_t i) {
    return std::all_of(block.begin(), block.end(), [&](const Strip* s) {
      return s->column->label || s->lines[i].find_first_not_of(' ') == std::string::npos;
    });
  }

  std::string block_text(const std::vector<const Strip*>& block, bool first) const {
    std::string text;
    auto words = t_.beneath.begin();
    std::size_t above = 0;  // the row that is written above this one
    for (std::size_t i = 0; i < t_.rows.size() + 2; ++i) {
      if (!first && i >= 2 && says_nothing(block, i)) continue;
      std::string line;
      std::size_t blank = indent.size(), start = indent.size();
      for (const Strip* s : block) {
        const bool again = s->column->grouped && above >= 2 && s->lines[i] == s->lines[above];
        const std::string cell = again ? spaces(s->width) : s->lines[i];
        if (s == block.back() && is_too_wide(*s, i, start)) {
          line += spaces(blank) + broken(*s, i, start);
          break;
        }
        start += s->width + 2;
        // Spaces are written when something follows them.
        const std::size_t from = cell.find_first_not_of(' ');
        if (from != std::string::npos) {
          const std::size_t to = cell.find_last_not_of(' ') + 1;
          line += spaces(blank + from) + toned(cell.substr(from, to - from), s->tones[i], style_);
          blank = cell.size() - to;
        } else {
          blank += cell.size();
        }
        blank += 2;
      }
      if (i >= 2 || !line.empty()) text += line + "\n";
      above = i;
      for (; first && words != t_.beneath.end() && words->first + 2 == i; ++words)
        for (const std::string& l : wrapped(words->second, style_.width > 6 ? style_.width - 6 : 0, "    "))
          text += "      " + l + "\n";
    }
    return text;
  }

  const Table t_;
  const Style& style_;
  std::vector<Strip> strips_;
};

std::string words_text(const Words& words, const Style& style) {
  std::size_t widest = 0;
  for (const Line& line : words.lines) widest = std::max(widest, width(line.label));
  std::string text;
  for (const Line& line : words.lines) {
    const std::string lead = line.label.empty() ? "" : line.label + ":" + spaces(widest - width(line.label) + 1);
    for (const std::string& l : wrapped(lead + line.text, style.width, "    "))
      text += toned(l, line.tone, style) + "\n";
  }
  return text;
}

}  // namespace

std::vector<std::string> wrapped(const std::string& text, std::size_t most, const std::string& further) {
  if (text.empty()) return {};
  if (most == 0 || width(text) <= most) return {text};
  std::vector<std::string> lines(1);
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = std::min(text.find(' ', text.find_first_not_of(' ', at)), text.size());
    std::string word = text.substr(at, end - at);
    if (lines.back().find_first_not_of(' ') != std::string::npos && width(lines.back()) + width(word) > most) {
      word.erase(0, word.find_first_not_of(' '));
      lines.push_back(further + word);
    } else {
      lines.back() += word;
    }
    at = end;
  }
  return lines;
}

std::string page_text(const Page& page, const Style& style) {
  std::string text;
  bool after_title = false;
  for (const auto& item : page) {
    std::string part;
    bool title = false, words = false;
    if (const auto* h = std::get_if<Heading>(&item)) {
      title = h->level == 1;
      part = toned(title ? h->text : "== " + h->text + " ==", Tone::head, style) + "\n";
    } else if (const auto* w = std::get_if<Words>(&item)) {
      part = words_text(*w, style);
      words = true;
    } else if (const auto& t = std::get<Table>(item); !for_people(t).rows.empty()) {
      part = TableText(t, style)();
    }
    if (part.empty()) continue;
    // Words stand close under the title.
    text += (text.empty() || (after_title && words) ? "" : "\n") + part;
    after_title = title;
  }
  return text;
}

}  // namespace corvex::document
