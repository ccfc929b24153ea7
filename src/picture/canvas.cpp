#include "picture/canvas.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "corvex/number.hpp"

namespace corvex::picture {
namespace {

std::vector<Spot> circle(const Spot& at, double radius) {
  std::vector<Spot> round;
  constexpr int corners = 20;
  for (int i = 0; i < corners; ++i) {
    const double angle = 2 * std::numbers::pi * i / corners;
    round.push_back(at + Spot{std::cos(angle), std::sin(angle)} * radius);
  }
  return round;
}

}  // namespace

Palette palette(bool dark) {
  if (dark)
    return {.page = {24, 30, 36},
            .ink = {232, 236, 240},
            .quiet = {160, 172, 182},
            .faint = {84, 96, 106},
            .member = {168, 196, 216},
            .support = {176, 186, 194},
            .load = {240, 150, 110},
            .deformed = {92, 206, 184},
            .positive = {110, 170, 232},
            .negative = {240, 166, 92},
            .mark = {250, 220, 110}};
  return {.page = {255, 255, 255},
          .ink = {28, 38, 48},
          .quiet = {104, 116, 126},
          .faint = {188, 196, 204},
          .member = {44, 74, 100},
          .support = {92, 104, 114},
          .load = {172, 58, 30},
          .deformed = {12, 118, 102},
          .positive = {36, 100, 170},
          .negative = {196, 98, 24},
          .mark = {134, 30, 92}};
}

Canvas::Canvas(std::string title, const PictureOptions& options, const Lettering& lettering, double top)
    : o_(options),
      colours_(palette(options.dark)),
      letter_(13 * options.letters * std::clamp(std::min(options.width / 1280, options.height / 800), 0.6, 4.0)),
      lettering_(lettering),
      labels_(lettering, {4, top * letter_, options.width - 4, options.height - 4}) {
  drawing_.width = options.width;
  drawing_.height = options.height;
  drawing_.page = colours_.page;
  drawing_.title = std::move(title);
}

void Canvas::line(std::vector<Spot> spots, const Stroke& stroke, Meaning meaning) {
  drawing_.shapes.emplace_back(Path{.lines = {std::move(spots)}, .stroke = stroke, .meaning = std::move(meaning)});
}

void Canvas::area(std::vector<Spot> spots, const Colour& fill, Meaning meaning) {
  drawing_.shapes.emplace_back(
      Path{.lines = {std::move(spots)}, .closed = true, .fill = fill, .meaning = std::move(meaning)});
}

void Canvas::dot(const Spot& at, double radius, const Colour& colour, Meaning meaning) {
  area(circle(at, radius), colour, std::move(meaning));
}

void Canvas::ring(const Spot& at, double radius, const Stroke& stroke, Meaning meaning) {
  path({.lines = {circle(at, radius)}, .closed = true, .stroke = stroke, .meaning = std::move(meaning)});
}

void Canvas::arrow(const Spot& tail, const Spot& tip, const Colour& colour, Meaning meaning, double width) {
  const Spot along = unit(tip - tail), side = left_of(along);
  const double head = std::min(0.75 * letter_, length(tip - tail) * 0.8);
  const Spot base = tip - along * head;
  line({tail, base}, {colour, width}, {meaning.what, meaning.of});
  area({tip, base + side * (head * 0.36), base - side * (head * 0.36)}, colour, std::move(meaning));
  keep_clear(tail, tip);
}

void Canvas::words(std::string words, const Spot& at, const Colour& colour, Meaning meaning, const Style& style) {
  drawing_.shapes.emplace_back(Text{.at = at,
                                    .words = std::move(words),
                                    .size = style.size * letter_,
                                    .colour = colour,
                                    .anchor = style.anchor,
                                    .bold = style.bold,
                                    .meaning = std::move(meaning),
                                    .rimmed = style.rimmed});
}

void Canvas::label(std::string words, const LabelPlace& place, const Colour& colour, int importance, Meaning meaning,
                   LabelStyle style) {
  Label l{.of = place.of,
          .else_of = std::move(style.else_of),
          .towards = place.towards,
          .distance = style.distance * letter_ / 13,
          .importance = importance};
  l.text = {.words = std::move(words),
            .size = letter_,
            .colour = colour,
            .bold = style.bold,
            .meaning = std::move(meaning),
            .rimmed = true};
  labels_.add(std::move(l));
}

bool Canvas::words_along(std::string words, const TextLine& line, const Colour& colour, Meaning meaning, bool bold) {
  const auto& [from, to, side] = line;
  const double wide = lettering_.width(words, letter_, bold);
  if (length(to - from) < wide + 3 * letter_) return false;
  Spot along = unit(to - from);
  // Read from the left, or from below.
  if (along.x < -1e-9 || (std::abs(along.x) <= 1e-9 && along.y > 0)) along = along * -1;
  for (const double t : {0.5, 0.35, 0.65, 0.25, 0.75}) {
    const Spot at = from + (to - from) * t + side * (0.95 * letter_);
    // A row of squares along the words.
    std::vector<Box> boxes;
    const int parts = std::max(2, static_cast<int>(wide / letter_));
    for (int i = 0; i <= parts; ++i) {
      const Spot p = at + along * (wide * (static_cast<double>(i) / parts - 0.5));
      boxes.push_back({p.x - 0.6 * letter_, p.y - 0.6 * letter_, p.x + 0.6 * letter_, p.y + 0.6 * letter_});
    }
    const bool free = std::none_of(boxes.begin(), boxes.end(), [&](const Box& b) {
      return std::any_of(along_.begin(), along_.end(), [&](const Box& other) { return b.overlaps(other); });
    });
    if (!free) continue;
    for (const Box& b : boxes) keep_clear(b), along_.push_back(b);
    drawing_.shapes.emplace_back(Text{.at = at,
                                      .words = std::move(words),
                                      .size = letter_,
                                      .colour = colour,
                                      .anchor = Anchor::middle,
                                      .bold = bold,
                                      .meaning = std::move(meaning),
                                      .angle = std::atan2(along.y, along.x),
                                      .rimmed = true});
    return true;
  }
  return false;
}

// Broken at spaces where they are wider than the page.
std::vector<std::string> Canvas::legend_lines() const {
  const double room = drawing_.width - 3.2 * letter_ - foot_;
  std::vector<std::string> lines;
  for (const std::string& words : legend_) {
    std::string line;
    for (std::size_t at = 0; at < words.size();) {
      const std::size_t end = std::min(words.find(' ', at), words.size());
      const std::string longer = line + (line.empty() ? "" : " ") + words.substr(at, end - at);
      if (!line.empty() && lettering_.width(longer, 0.92 * letter_, false) > room) {
        lines.push_back(line);
        line = words.substr(at, end - at);
      } else {
        line = longer;
      }
      at = end + 1;
    }
    lines.push_back(line);
  }
  return lines;
}

Drawing Canvas::finished() {
  std::size_t left_out = 0;
  // Labels stay clear of the lines of explanation, and of one more that states what was left out.
  const std::vector<std::string> explained = legend_lines();
  double foot = drawing_.height - 1.5 * letter_;
  for (auto it = explained.rbegin(); it != explained.rend(); ++it, foot -= 1.5 * letter_) {
    const double wide = lettering_.width(*it, 0.92 * letter_, false);
    keep_clear(Box{1.6 * letter_, foot - 1.6 * letter_, 1.6 * letter_ + wide, foot + 0.7 * letter_});
  }
  std::vector<Text> placed = labels_.placed(left_out);
  for (Text& t : placed) drawing_.shapes.emplace_back(std::move(t));
  const double x = 1.6 * letter_;
  if (o_.titled) {
    drawing_.shapes.emplace_back(Text{.at = {x, 1.9 * letter_},
                                      .words = drawing_.title,
                                      .size = 1.3 * letter_,
                                      .colour = colours_.ink,
                                      .bold = true,
                                      .meaning = {"title"}});
    drawing_.shapes.emplace_back(Text{
        .at = {x, 3.7 * letter_}, .words = heading_, .size = letter_, .colour = colours_.ink, .meaning = {"heading"}});
  }
  if (left_out > 0)
    legend_.push_back(fmt::format("{} label{} omitted for lack of space", left_out, left_out == 1 ? " was" : "s were"));
  double y = drawing_.height - 1.5 * letter_;
  const std::vector<std::string> lines = legend_lines();
  for (auto it = lines.rbegin(); it != lines.rend(); ++it, y -= 1.5 * letter_)
    drawing_.shapes.emplace_back(
        Text{.at = {x, y}, .words = *it, .size = 0.92 * letter_, .colour = colours_.quiet, .meaning = {"legend"}});
  return std::move(drawing_);
}

Box Canvas::drawn() const {
  Box b{1e300, 1e300, -1e300, -1e300};
  for (const auto& shape : drawing_.shapes)
    if (const auto* path = std::get_if<Path>(&shape))
      for (const auto& line : path->lines)
        for (const Spot& p : line)
          b = {std::min(b.left, p.x), std::min(b.top, p.y), std::max(b.right, p.x), std::max(b.bottom, p.y)};
  return b;
}

std::string figure(double si, const NamedUnit& unit, int digits, double size) {
  const double value = std::abs(si) <= 1e-9 * size ? 0 : si / unit.si;
  return number(value, digits) + (unit.text.empty() ? "" : " " + unit.text);
}

}  // namespace corvex::picture
