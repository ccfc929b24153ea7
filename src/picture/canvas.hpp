// A page in the making: lines, areas and words in pixels, and the labels that still look for room.
#pragma once

#include "corvex/picture.hpp"
#include "picture/labels.hpp"

namespace corvex::picture {

// Blue and orange can be distinguished by everyone; ink is the colour of the structure, rust that of loads and
// reactions.
struct Palette {
  Colour page, ink, quiet, faint, member, support, load, deformed, positive, negative, mark;
};
Palette palette(bool dark);

// How words are written. Sizes are in letters of the page.
struct Style {
  double size = 1;
  bool bold = false;
  Anchor anchor = Anchor::start;
  bool rimmed = false;
};

class Canvas {
 public:
  // Labels stay below `top`.
  Canvas(std::string title, const PictureOptions& options, const Lettering& lettering, double top);

  const PictureOptions& options() const { return o_; }
  const ModelUnits& units() const { return o_.units; }
  const Palette& colours() const { return colours_; }
  // The size of letters, and of all symbols, in pixels.
  double letter() const { return letter_; }
  double width() const { return drawing_.width; }
  double height() const { return drawing_.height; }

  void line(std::vector<Spot> spots, const Stroke& stroke, Meaning meaning);
  void area(std::vector<Spot> spots, const Colour& fill, Meaning meaning);
  void path(Path path) { drawing_.shapes.emplace_back(std::move(path)); }
  void dot(const Spot& at, double radius, const Colour& colour, Meaning meaning);
  void ring(const Spot& at, double radius, const Stroke& stroke, Meaning meaning);
  // From tail to tip, with a filled head.
  void arrow(const Spot& tail, const Spot& tip, const Colour& colour, Meaning meaning, double width = 1.6);
  // Words at a fixed place, at half the height of the letters.
  void words(std::string words, const Spot& at, const Colour& colour, Meaning meaning, const Style& style = {});
  // Words along a line, on one side of it, where no other such words are; false if there is no space.
  struct TextLine {
    Spot from, to;  // the line
    Spot side;      // of length 1, perpendicular to it
  };
  bool words_along(std::string words, const TextLine& line, const Colour& colour, Meaning meaning, bool bold);
  // A label finds its own place near `of`, rather on the side `towards`; or near one of the others.
  struct LabelPlace {
    Spot of, towards;
  };
  struct LabelStyle {
    bool bold = false;
    double distance = 6;
    std::vector<Spot> else_of{};
  };
  void label(std::string words, const LabelPlace& place, const Colour& colour, int importance, Meaning meaning,
             LabelStyle style = {false, 6, {}});
  // Labels stay clear of this line.
  void keep_clear(const Spot& from, const Spot& to) { labels_.avoid_line(from, to); }
  void keep_clear(const Box& box) { labels_.avoid(box); }

  // Lines of explanation at the foot of the page.
  void explain(std::string words) {
    if (o_.explained) legend_.push_back(std::move(words));
  }
  // They end before the text at the right of the foot, which has this width.
  void keep_foot_clear(double width) { foot_ = width; }
  void heading(std::string words) { heading_ = std::move(words); }

  // Extent of the drawing so far, without labels.
  Box drawn() const;
  // With title, heading, labels and legend. To be called once.
  Drawing finished();

 private:
  std::vector<std::string> legend_lines() const;

  const PictureOptions& o_;
  Palette colours_;
  double letter_;
  const Lettering& lettering_;
  double foot_ = 0;
  Drawing drawing_;
  Labels labels_;
  std::string heading_;
  std::vector<std::string> legend_;
  std::vector<Box> along_;  // boxes of words along lines
};

// "1.458 kN·m"; rounding error relative to `size` is 0.
std::string figure(double si, const NamedUnit& unit, int digits, double size = 0);

}  // namespace corvex::picture
