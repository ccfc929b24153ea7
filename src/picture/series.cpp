#include "picture/series.hpp"

#include <cmath>
#include <iterator>
#include <numbers>

namespace corvex::picture {

Series series(const Palette& colours, std::size_t number) {
  const Colour all[] = {colours.positive, colours.negative, colours.deformed, colours.mark, colours.member};
  static const std::vector<double> dashes[] = {{}, {9, 4}, {2, 3}, {10, 3, 2, 3}, {5, 2}, {1, 5}};
  return {all[number % std::size(all)], dashes[number % std::size(dashes)], number};
}

void add_mark(Canvas& canvas, const Series& s, const Spot& at, bool hollow, Meaning meaning) {
  const double r = 0.34 * canvas.letter();
  std::vector<Spot> shape;
  switch (s.number % 4) {
    case 0: {
      constexpr int corners = 16;
      for (int i = 0; i < corners; ++i) {
        const double angle = 2 * std::numbers::pi * i / corners;
        shape.push_back(at + Spot{std::cos(angle), std::sin(angle)} * r);
      }
      break;
    }
    case 1: shape = {at + Spot{-r, -r}, at + Spot{r, -r}, at + Spot{r, r}, at + Spot{-r, r}}; break;
    case 2: shape = {at + Spot{0, -1.2 * r}, at + Spot{1.1 * r, 0.8 * r}, at + Spot{-1.1 * r, 0.8 * r}}; break;
    default: shape = {at + Spot{0, -1.3 * r}, at + Spot{1.3 * r, 0}, at + Spot{0, 1.3 * r}, at + Spot{-1.3 * r, 0}};
  }
  canvas.path({.lines = {std::move(shape)},
               .closed = true,
               .fill = hollow ? canvas.colours().page : s.colour,
               .stroke = Stroke{s.colour, 1.5},
               .meaning = std::move(meaning)});
}

void add_key(Canvas& canvas, const std::vector<std::string>& words, double width_of_widest) {
  const double sample = 4 * canvas.letter(), row = 1.6 * canvas.letter();
  const double right = canvas.width() - 1.6 * canvas.letter(),
               left = right - width_of_widest - sample - canvas.letter();
  double y = 1.9 * canvas.letter();
  for (std::size_t i = 0; i < words.size(); ++i, y += row) {
    const Series s = series(canvas.colours(), i);
    canvas.line({{left, y}, {left + sample, y}}, {s.colour, 2, s.dash}, {"key", words[i]});
    add_mark(canvas, s, {left + sample / 2, y}, false, {"key", words[i]});
    canvas.words(words[i], {left + sample + canvas.letter(), y}, canvas.colours().ink, {"key-words"});
  }
  canvas.keep_clear(Box{left, 0, right, y});
}

}  // namespace corvex::picture
