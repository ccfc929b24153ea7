// Elements of a picture: lines, areas and words on a page, in pixels, x to the right and y down.
//
// Pictures are described once and written as SVG, PNG or PDF afterwards. Every shape says what it is and of whom, so
// that an SVG can be read back.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace corvex::picture {

struct Spot {
  double x = 0, y = 0;

  Spot operator+(const Spot& o) const { return {x + o.x, y + o.y}; }
  Spot operator-(const Spot& o) const { return {x - o.x, y - o.y}; }
  Spot operator*(double f) const { return {x * f, y * f}; }
};
double length(const Spot& s);
// The same direction with length one; zero for zero.
Spot unit(const Spot& s);
// A quarter turn to the left, as seen on the page.
Spot left_of(const Spot& s);

struct Box {
  double left = 0, top = 0, right = 0, bottom = 0;

  bool overlaps(const Box& o) const { return left < o.right && o.left < right && top < o.bottom && o.top < bottom; }
  bool holds(const Box& o) const { return o.left >= left && o.right <= right && o.top >= top && o.bottom <= bottom; }
  Box grown(double by) const { return {left - by, top - by, right + by, bottom + by}; }
};

struct Colour {
  std::uint8_t red = 0, green = 0, blue = 0;
  double opacity = 1;

  Colour with(double o) const { return {red, green, blue, o}; }
};
struct Stroke {
  Colour colour;
  double width = 1;
  std::vector<double> dash{};
};

// Type of a shape ("member", "support", "moment") and the object it belongs to ("rail").
struct Meaning {
  std::string what, of{};
};
struct Path {
  std::vector<std::vector<Spot>> lines;
  bool closed = false;
  std::optional<Colour> fill{};
  std::optional<Stroke> stroke{};
  Meaning meaning{};
  // The same lines at rest: animations move between there and here. Empty for fixed parts
  // still.
  std::vector<std::vector<Spot>> rest{};
};
enum class Anchor { start, middle, end };
struct Text {
  Spot at{};  // at half the height of the letters
  std::string words{};
  double size = 12;
  Colour colour{};
  Anchor anchor = Anchor::start;
  bool bold = false;
  Meaning meaning{};
  double angle = 0;  // turned clockwise about `at`, in radians
  // A rim in the colour of the page keeps it readable on lines.
  bool rimmed = false;
};

struct Drawing {
  double width = 0, height = 0;
  Colour page;
  std::string title;
  std::vector<std::variant<Path, Text>> shapes;
};

std::string as_svg(const Drawing& drawing);
std::string as_png(const Drawing& drawing);
std::string as_pdf(const Drawing& drawing);
// Moving; empty where the library fails.
std::string as_gif(const Drawing& drawing);
// Onto pixels of 4 bytes, blue first, line after line.
void paint(const Drawing& drawing, unsigned char* pixels, int width, int height);

}  // namespace corvex::picture
