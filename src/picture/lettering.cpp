#include "picture/lettering.hpp"

#include <fmt/format.h>

#include <string_view>

namespace corvex::picture {

Lettering::Lettering()
    : map_(pango_cairo_font_map_new()),
      context_(pango_font_map_create_context(map_.get())),
      layout_(pango_layout_new(context_.get())) {
  PangoFontFamily** families = nullptr;
  int n = 0;
  pango_font_map_list_families(map_.get(), &families, &n);
  for (int i = 0; i < n; ++i) has_font_ |= std::string_view(pango_font_family_get_name(families[i])) == font_family;
  g_free(families);
}

std::optional<Problem> Lettering::missing_font() const {
  if (has_font_) return {};
  return Problem{
      fmt::format("the font {} is not installed; it is needed for text (package fonts-dejavu-core)", font_family)};
}

double Lettering::width(const std::string& words, double size, bool bold) const {
  set_words(layout_.get(), words, size, bold);
  int width = 0;
  pango_layout_get_size(layout_.get(), &width, nullptr);
  return static_cast<double>(width) / PANGO_SCALE;
}

void set_words(PangoLayout* layout, const std::string& words, double size, bool bold) {
  PangoFontDescription* font = pango_font_description_new();
  pango_font_description_set_family(font, font_family);
  pango_font_description_set_weight(font, bold ? PANGO_WEIGHT_BOLD : PANGO_WEIGHT_NORMAL);
  // In pixels, whatever the resolution is taken for.
  pango_font_description_set_absolute_size(font, size * PANGO_SCALE);
  pango_layout_set_font_description(layout, font);
  pango_font_description_free(font);
  pango_layout_set_text(layout, words.c_str(), static_cast<int>(words.size()));
}

}  // namespace corvex::picture
