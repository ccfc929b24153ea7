// Curves of one picture, told apart by colour, dashes and marks.
#pragma once

#include "picture/canvas.hpp"

namespace corvex::picture {

struct Series {
  Colour colour;
  std::vector<double> dash;
  std::size_t number = 0;
};
Series series(const Palette& colours, std::size_t number);

// The mark of a series: a disc, a square, a triangle or a diamond; hollow marks are filled with the colour of the page.
void add_mark(Canvas& canvas, const Series& series, const Spot& at, bool hollow, Meaning meaning);

// Legend of the series, from the top right corner of the page downwards: a piece of its line, its mark and its words.
void add_key(Canvas& canvas, const std::vector<std::string>& words, double width_of_widest);

}  // namespace corvex::picture
