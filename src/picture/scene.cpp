#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

// Room for the title and the legend.
struct Margins {
  double side, top, bottom;
};
Margins margins(double letter) {
  return {10 * letter, 9 * letter, 9 * letter};
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

Sight sight(const Structure& s, std::optional<View> view) {
  const Vector up = s.up_direction();
  if (s.is_plane()) return {{1, 0, 0}, {0, 1, 0}};
  // Right, and away from the eye, on level ground.
  const Vector x{1, 0, 0}, away = cross(up, x);
  switch (view.value_or(View::space)) {
    case View::front: return {x, up};
    case View::side: return {away, up};
    case View::top: return {x, away};
    case View::space: break;
  }
  // From the right, in front and above: angles at which the edges of a cube do not fall together.
  constexpr double turned = 32 * std::numbers::pi / 180, tilted = 24 * std::numbers::pi / 180;
  const Vector right = x * std::cos(turned) + away * std::sin(turned);
  const Vector back = away * std::cos(turned) - x * std::sin(turned);
  return {right, up * std::cos(tilted) + back * std::sin(tilted)};
}

Scene::Scene(const Solution& solution, const PictureOptions& options, const Lettering& lettering)
    : s_(solution.structure()),
      o_(options),
      lettering_(lettering),
      case_index_(case_of(solution, options)),
      case_(solution[case_index_]),
      colours_(palette(options.dark)),
      sight_(sight(s_, options.view)),
      shown_(s_.members().size(), options.only.empty()),
      letter_(13 * std::clamp(std::min(options.width / 1280, options.height / 800), 0.6, 4.0)),
      labels_(lettering, {4, margins(letter_).top * 0.62, options.width - 4, options.height - 4}) {
  for (const MemberRef& m : options.only) shown_[s_.at(m).index] = true;
  drawing_.width = options.width;
  drawing_.height = options.height;
  drawing_.page = colours_.page;
  drawing_.title = s_.title();
  fit();
}

// The members that are shown fill the page, to scale.
void Scene::fit() {
  Box b{1e300, 1e300, -1e300, -1e300};
  const auto take = [&](const Vector& v) {
    const Spot p = sight_.flat(v);
    b = {std::min(b.left, p.x), std::min(b.top, p.y), std::max(b.right, p.x), std::max(b.bottom, p.y)};
  };
  for (std::size_t i = 0; i < shown_.size(); ++i) {
    if (!shown_[i]) continue;
    for (const PointId p : s_.members()[i].through) take(s_[p].position);
    take(s_.axis_start(s_.members()[i]));
    take(s_.axis_end(s_.members()[i]));
  }
  const Margins m = margins(letter_);
  const double w = drawing_.width - 2 * m.side, h = drawing_.height - m.top - m.bottom;
  const double wide = b.right - b.left, tall = b.bottom - b.top;
  // Slender structures leave as much beside them as diagrams need.
  scale_ = std::min(wide > 0 ? w / wide : 1e300, tall > 0 ? h / tall : 1e300);
  if (scale_ > 1e200) scale_ = w;
  centre_ = {(b.left + b.right) / 2, (b.top + b.bottom) / 2};
  middle_ = {drawing_.width / 2, m.top + h / 2};
}

Vector Scene::place(const Member& m, double along) const {
  const Vector from = s_.axis_start(m), to = s_.axis_end(m);
  return from + (to - from) * (along / s_.length_of(m));
}

void Scene::line(std::vector<Spot> spots, const Stroke& stroke, Meaning meaning) {
  drawing_.shapes.emplace_back(Path{.lines = {std::move(spots)}, .stroke = stroke, .meaning = std::move(meaning)});
}

void Scene::area(std::vector<Spot> spots, const Colour& fill, Meaning meaning) {
  drawing_.shapes.emplace_back(
      Path{.lines = {std::move(spots)}, .closed = true, .fill = fill, .meaning = std::move(meaning)});
}

void Scene::dot(const Spot& at, double radius, const Colour& colour, Meaning meaning) {
  std::vector<Spot> round;
  constexpr int corners = 20;
  for (int i = 0; i < corners; ++i) {
    const double angle = 2 * std::numbers::pi * i / corners;
    round.push_back(at + Spot{std::cos(angle), std::sin(angle)} * radius);
  }
  area(std::move(round), colour, std::move(meaning));
}

void Scene::arrow(const Spot& tail, const Spot& tip, const Colour& colour, Meaning meaning, double width) {
  const Spot along = unit(tip - tail), side = left_of(along);
  const double head = std::min(0.75 * letter_, length(tip - tail) * 0.8);
  const Spot base = tip - along * head;
  line({tail, base}, {colour, width}, {meaning.what, meaning.of});
  area({tip, base + side * (head * 0.36), base - side * (head * 0.36)}, colour, std::move(meaning));
  keep_clear(tail, tip);
}

void Scene::text(std::string words, const Spot& at, const Colour& colour, Meaning meaning, Anchor anchor, bool bold) {
  drawing_.shapes.emplace_back(Text{.at = at,
                                    .words = std::move(words),
                                    .size = 0.92 * letter_,
                                    .colour = colour,
                                    .anchor = anchor,
                                    .bold = bold,
                                    .meaning = std::move(meaning)});
}

void Scene::label(std::string words, const Spot& of, const Spot& towards, const Colour& colour, int importance,
                  Meaning meaning, bool bold, double distance, std::vector<Spot> else_of) {
  Label l{.of = of,
          .else_of = std::move(else_of),
          .towards = towards,
          .distance = distance * letter_ / 13,
          .importance = importance};
  l.text = {.words = std::move(words),
            .size = letter_,
            .colour = colour,
            .bold = bold,
            .meaning = std::move(meaning),
            .rimmed = true};
  labels_.add(std::move(l));
}

void Scene::members(const Stroke& stroke) {
  for (std::size_t i = 0; i < s_.members().size(); ++i) {
    if (!shown_[i]) continue;
    const Member& m = s_.members()[i];
    const Spot a = at(s_.axis_start(m)), b = at(s_.axis_end(m));
    line({a, b}, stroke, {"member", m.name});
    keep_clear(a, b);
  }
}

Drawing Scene::finished() {
  if (!s_.is_plane()) axes();
  std::size_t left_out = 0;
  std::vector<Text> placed = labels_.placed(left_out);
  for (Text& t : placed) drawing_.shapes.emplace_back(std::move(t));
  const double x = 1.6 * letter_;
  drawing_.shapes.emplace_back(Text{.at = {x, 1.9 * letter_},
                                    .words = s_.title(),
                                    .size = 1.3 * letter_,
                                    .colour = colours_.ink,
                                    .bold = true,
                                    .meaning = {"title"}});
  drawing_.shapes.emplace_back(Text{
      .at = {x, 3.7 * letter_}, .words = heading_, .size = letter_, .colour = colours_.ink, .meaning = {"heading"}});
  if (left_out > 0)
    legend_.push_back(
        fmt::format("{} label{} left out: there was no room", left_out, left_out == 1 ? " was" : "s were"));
  double y = drawing_.height - 1.5 * letter_;
  for (auto it = legend_.rbegin(); it != legend_.rend(); ++it, y -= 1.5 * letter_)
    drawing_.shapes.emplace_back(
        Text{.at = {x, y}, .words = *it, .size = 0.92 * letter_, .colour = colours_.quiet, .meaning = {"legend"}});
  return std::move(drawing_);
}

Box Scene::drawn() const {
  Box b{1e300, 1e300, -1e300, -1e300};
  for (const auto& shape : drawing_.shapes)
    if (const auto* path = std::get_if<Path>(&shape))
      for (const auto& line : path->lines)
        for (const Spot& p : line)
          b = {std::min(b.left, p.x), std::min(b.top, p.y), std::max(b.right, p.x), std::max(b.bottom, p.y)};
  return b;
}

void Scene::axes() {
  const double reach = 2.6 * letter_;
  const Spot origin{drawing_.width - 5.5 * letter_, drawing_.height - 5.5 * letter_};
  const std::pair<const char*, Vector> all[] = {{"x", {1, 0, 0}}, {"y", {0, 1, 0}}, {"z", {0, 0, 1}}};
  for (const auto& [name, v] : all) {
    const Spot seen = sight_.flat(v);
    // What points at the reader is a dot.
    if (length(seen) < 0.05) continue;
    arrow(origin, origin + seen * reach, colours_.quiet, {"global-axis", name}, 1.2);
    text(name, origin + seen * reach + unit(seen) * (0.7 * letter_), colours_.quiet, {"global-axis-name", name});
  }
  keep_clear(Box{origin.x - reach, origin.y - reach, origin.x + reach, origin.y + reach}.grown(letter_));
}

std::string figure(double si, const NamedUnit& unit, int digits, double size) {
  const double value = std::abs(si) <= 1e-9 * size ? 0 : si / unit.si;
  return number(value, digits) + (unit.text.empty() ? "" : " " + unit.text);
}

std::string place_words(const Scene& scene, const Member& m, double along) {
  const Structure& s = scene.structure();
  const double L = s.length_of(m);
  for (std::size_t k = 0; k < m.through.size(); ++k)
    if (std::abs(s.place_of(m, k) - along) < 1e-9 * L) return s[m.through[k]].name;
  return short_number(along / scene.units().length.si, 4) + " " + scene.units().length.text;
}

}  // namespace corvex::picture
