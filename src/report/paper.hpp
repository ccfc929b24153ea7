// Pages of A4 in the making. What is drawn is kept until all pages are known, so that each can say how many there are
// and contents can name pages that come later. Lengths are points, 1/72 inch.
#pragma once

#include <pango/pangocairo.h>

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "picture/drawing.hpp"

namespace corvex::reporting {

struct Ink {
  cairo_t* cairo;
  PangoLayout* layout;
};

struct TextStyle {
  double size = 9.2;
  bool bold = false;
  picture::Colour colour{28, 38, 48};
};
enum class Align { left, right };

struct Extent {
  double width = 0, height = 0, baseline = 0;
};

class Paper {
 public:
  static constexpr double width = 595.276, height = 841.89;
  static constexpr double left = 56.69, right = width - 56.69, top = 66, bottom = height - 62;
  static constexpr double text_width = right - left;

  Paper();

  // Where the next thing stands, from the top of the page.
  double y = top;
  std::size_t page() const { return pages_.size(); }  // from 1
  // Goes to the next page where less than this is left.
  void need(double space) {
    if (y + space > bottom && y > top) new_page();
  }
  void new_page();

  Extent measured(const std::string& words, const TextStyle& style, double wrap = 0) const;
  // With the upper left corner (or right corner) at a place of this page.
  void words(std::string words, const TextStyle& style, double x, double at_y, Align align = Align::left,
             double wrap = 0);
  void line(double x1, double y1, double x2, double y2, double thickness, const picture::Colour& colour);
  void drawing(picture::Drawing drawing, double x, double at_y, double scale);
  // A place that links lead to; and a link from a rectangle.
  void destination(const std::string& name);
  void link(const std::string& name, double x, double at_y, double w, double h);
  // Anything else, drawn when all pages are known.
  void op(std::function<void(const Ink&)> draw) { pages_.back().push_back(std::move(draw)); }

  struct Outline {
    std::string title, destination;
  };
  // `each` adds the parts common to every page: arguments are the page number from 1, and the number of pages.
  // Properties of the file; without a creation date it has none.
  struct Properties {
    std::string title, author, created;
  };
  std::string finished(const Properties& properties, const std::vector<Outline>& outline,
                       const std::function<void(const Ink&, std::size_t, std::size_t)>& each);

 private:
  struct Free {
    void operator()(void* object) const { g_object_unref(object); }
  };
  std::vector<std::vector<std::function<void(const Ink&)>>> pages_;
  std::unique_ptr<PangoFontMap, Free> map_;
  std::unique_ptr<PangoContext, Free> context_;
  std::unique_ptr<PangoLayout, Free> layout_;
};

// Words drawn at once; their extent.
void draw_words(const Ink& ink, const std::string& words, const TextStyle& style, const picture::Spot& at,
                Align align = Align::left, double wrap = 0);

}  // namespace corvex::reporting
