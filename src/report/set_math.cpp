#include "report/set_math.hpp"

#include <algorithm>

namespace corvex::reporting {
namespace {

using Kind = Math::Kind;
constexpr double usual = 9.6;            // size of letters
constexpr double smaller = 0.72;         // of exponents and indices
constexpr double axis = 0.3;             // height of the bar of a fraction over the base line, in letters
constexpr double bar = 0.55, gap = 1.6;  // points

// Above and below the base line.
struct Size {
  double width = 0, above = 0, below = 0;
};

class Setter {
 public:
  explicit Setter(Paper& paper) : paper_(paper) {}

  Size size(const Math& m, double letter) const {
    switch (m.kind) {
      case Kind::fraction: {
        const Size up = size(m.parts[0], letter), down = size(m.parts[1], letter);
        return {std::max(up.width, down.width) + 4, up.above + up.below + gap + axis * letter,
                down.above + down.below + gap - axis * letter};
      }
      case Kind::power: {
        const Size base = size(m.parts[0], letter), e = size(m.parts[1], letter * smaller);
        const double lift = lifted(base, e, letter);
        return {base.width + e.width + 0.5, std::max(base.above, lift + e.above), base.below};
      }
      case Kind::root: {
        const Size in = size(m.parts[0], letter);
        return {in.width + 0.75 * letter + 2, in.above + 2.5, in.below + 0.5};
      }
      case Kind::brackets: {
        Size in = row(m.parts, letter);
        in.width += 2 * bracket(in, letter);
        return in;
      }
      case Kind::row: return row(m.parts, letter);
      case Kind::name:
        if (!m.parts.empty()) {
          const Size base = word(m, letter), index = word(m.parts[0], letter * smaller);
          return {base.width + index.width + 0.5, base.above, std::max(base.below, 0.22 * letter + index.below)};
        }
        return word(m, letter);
      default: return word(m, letter);
    }
  }

  void draw(const Math& m, double x, double base, double letter) {
    switch (m.kind) {
      case Kind::fraction: {
        const Size own = size(m, letter), up = size(m.parts[0], letter), down = size(m.parts[1], letter);
        const double y = base - axis * letter;
        draw(m.parts[0], x + (own.width - up.width) / 2, y - gap - up.below, letter);
        draw(m.parts[1], x + (own.width - down.width) / 2, y + gap + down.above, letter);
        paper_.line(x + 1, y, x + own.width - 1, y, bar, TextStyle{}.colour);
        return;
      }
      case Kind::power: {
        const Size b = size(m.parts[0], letter), e = size(m.parts[1], letter * smaller);
        draw(m.parts[0], x, base, letter);
        draw(m.parts[1], x + b.width + 0.5, base - lifted(b, e, letter), letter * smaller);
        return;
      }
      case Kind::root: {
        const Size in = size(m.parts[0], letter);
        const double left = x + 0.75 * letter, over = base - in.above - 1.5;
        const picture::Colour ink = TextStyle{}.colour;
        paper_.line(x, base - 0.25 * letter, x + 0.2 * letter, base - 0.35 * letter, bar, ink);
        paper_.line(x + 0.2 * letter, base - 0.35 * letter, x + 0.4 * letter, base + in.below, 0.9, ink);
        paper_.line(x + 0.4 * letter, base + in.below, left - 1, over, bar, ink);
        paper_.line(left - 1, over, left + in.width + 1, over, bar, ink);
        draw(m.parts[0], left, base, letter);
        return;
      }
      case Kind::brackets: {
        const Size in = row(m.parts, letter);
        const double w = bracket(in, letter);
        paren(x, base, in, letter, false);
        draw_row(m.parts, x + w, base, letter);
        paren(x + w + in.width, base, in, letter, true);
        return;
      }
      case Kind::row: return draw_row(m.parts, x, base, letter);
      case Kind::name:
        draw_word(m, x, base, letter);
        if (!m.parts.empty())
          draw_word(m.parts[0], x + word(m, letter).width + 0.5, base + 0.22 * letter, letter * smaller);
        return;
      default: draw_word(m, x, base, letter);
    }
  }

 private:
  static double lifted(const Size& base, const Size& e, double letter) {
    return std::max(0.38 * letter, base.above - 0.55 * e.above);
  }
  // Signs between parts have air about them.
  static double air(const Math& m, double letter) {
    if (m.kind != Kind::sign || m.text == ",") return m.text == "," ? 0.1 * letter : 0;
    return m.text == "·" ? 0.12 * letter : m.text == "=" ? 0.35 * letter : 0.24 * letter;
  }
  // A sign at the beginning belongs to what follows.
  static double air(const std::vector<Math>& parts, std::size_t i, double letter) {
    if (parts[i].text == "(" || parts[i].text == ")") return 0;
    const bool leads =
        i == 0 || (parts[i - 1].kind == Kind::sign && (parts[i - 1].text == "=" || parts[i - 1].text == "("));
    return leads && parts[i].kind == Kind::sign && parts[i].text != "=" ? 0 : air(parts[i], letter);
  }
  static std::string shown(const Math& m) { return m.kind == Kind::unit ? "\u2009" + m.text : m.text; }

  Size word(const Math& m, double letter) const {
    const Extent e = paper_.measured(shown(m), {.size = letter});
    return {e.width, 0.76 * letter, m.kind == Kind::sign ? 0.1 * letter : 0.22 * letter};
  }
  void draw_word(const Math& m, double x, double base, double letter) {
    const TextStyle style{.size = letter};
    paper_.words(shown(m), style, x, base - paper_.measured(shown(m), style).baseline);
  }

  Size row(const std::vector<Math>& parts, double letter) const {
    Size all;
    for (std::size_t i = 0; i < parts.size(); ++i) {
      const Size s = size(parts[i], letter);
      all.width += s.width + 2 * air(parts, i, letter);
      all.above = std::max(all.above, s.above);
      all.below = std::max(all.below, s.below);
    }
    return all;
  }
  void draw_row(const std::vector<Math>& parts, double x, double base, double letter) {
    for (std::size_t i = 0; i < parts.size(); ++i) {
      const double space = air(parts, i, letter);
      draw(parts[i], x + space, base, letter);
      x += size(parts[i], letter).width + 2 * space;
    }
  }

  static double bracket(const Size& in, double letter) {
    return in.above + in.below > 1.4 * letter ? 0.42 * letter : 0.36 * letter;
  }
  // A letter, so that the text of the document has it, stretched to the height of its content.
  void paren(double x, double base, const Size& in, double letter, bool closing) {
    const std::string words = closing ? ")" : "(";
    const TextStyle style{.size = letter};
    const Extent e = paper_.measured(words, style);
    // Of the letter: above and below the base line.
    const double above = 0.76 * letter, below = 0.14 * letter;
    const double stretch = std::max(1.0, (in.above + in.below) / (above + below));
    const double w = bracket(in, letter), top = base - in.above;
    paper_.op([=](const Ink& ink) {
      cairo_save(ink.cairo);
      cairo_translate(ink.cairo, x + (w - e.width) / 2, top);
      cairo_scale(ink.cairo, 1, stretch);
      draw_words(ink, words, style, {0, above - e.baseline});
      cairo_restore(ink.cairo);
    });
  }

  Paper& paper_;
};

// Rows within rows, and brackets that are too wide for a line, laid open: an equation may be broken at any of their
// signs.
void lay_open(const Math& m, const Setter& setter, double room, std::vector<Math>& out) {
  const bool wide = m.kind == Kind::brackets && setter.size(m, usual).width > room;
  if (m.kind != Kind::row && !wide) return out.push_back(m);
  if (wide) out.push_back({Kind::sign, "(", {}});
  for (const Math& part : m.parts) lay_open(part, setter, room, out);
  if (wide) out.push_back({Kind::sign, ")", {}});
}

bool is_sign(const Math& m, std::initializer_list<const char*> signs) {
  return m.kind == Kind::sign && std::find(signs.begin(), signs.end(), m.text) != signs.end();
}

}  // namespace

void add_math(Paper& paper, const Math& math, double indent) {
  Setter setter(paper);
  std::vector<Math> parts;
  const double room = Paper::text_width - indent;
  lay_open(math, setter, room * 0.8, parts);
  std::vector<std::vector<Math>> lines(1);
  const auto width_with = [&](std::vector<Math> line, const std::vector<Math>& more) {
    line.insert(line.end(), more.begin(), more.end());
    return setter.size({Kind::row, {}, std::move(line)}, usual).width;
  };
  for (std::size_t i = 0; i < parts.size();) {
    // A term reaches from one sign of a sum or equation to the next.
    std::vector<Math> term{parts[i]};
    std::size_t next = i + 1;
    const auto breaks = [](const Math& m) { return is_sign(m, {"+", "−", "="}); };
    // A minus behind an equals sign belongs to what follows.
    for (; next < parts.size() && !(breaks(parts[next]) && !is_sign(parts[next - 1], {"="})); ++next)
      term.push_back(parts[next]);
    i = next;
    // Products that are too wide by themselves are broken at their signs.
    if (setter.size({Kind::row, {}, term}, usual).width > room) {
      for (const Math& m : term) {
        // A unit stays with its number, a sign with what stands before it.
        const bool bound = m.kind == Kind::unit || is_sign(m, {"·", ",", ")"});
        if (!bound && !lines.back().empty() && width_with(lines.back(), {m}) > room - 30) lines.emplace_back();
        lines.back().push_back(m);
      }
      continue;
    }
    if (!lines.back().empty() && width_with(lines.back(), term) > room) lines.emplace_back();
    lines.back().insert(lines.back().end(), term.begin(), term.end());
  }
  for (std::size_t i = 0; i < lines.size(); ++i) {
    const Math line{Kind::row, {}, lines[i]};
    const double space = i == 0 ? 0 : 14;
    double letter = usual;
    if (const double w = setter.size(line, letter).width; w > room - space) letter *= (room - space) / w;
    const Size s = setter.size(line, letter);
    paper.need(s.above + s.below + 5);
    setter.draw(line, Paper::left + indent + space, paper.y + 2 + s.above, letter);
    paper.y += s.above + s.below + 5;
  }
}

}  // namespace corvex::reporting
