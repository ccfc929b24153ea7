// Letters: how much room words take, by Pango and the font DejaVu Sans.
#pragma once

#include <pango/pangocairo.h>

#include <memory>
#include <optional>
#include <string>

#include "corvex/problem.hpp"

namespace corvex::picture {

inline constexpr const char* font_family = "DejaVu Sans";

class Lettering {
 public:
  Lettering();

  // The font, if it is not installed: letters would be missing or be replaced by those of another font.
  std::optional<Problem> missing_font() const;
  double width(const std::string& words, double size, bool bold) const;

 private:
  struct Free {
    void operator()(void* object) const { g_object_unref(object); }
  };
  std::unique_ptr<PangoFontMap, Free> map_;
  std::unique_ptr<PangoContext, Free> context_;
  std::unique_ptr<PangoLayout, Free> layout_;
  bool has_font_ = false;
};

// A layout set to these words.
void set_words(PangoLayout* layout, const std::string& words, double size, bool bold);

}  // namespace corvex::picture
