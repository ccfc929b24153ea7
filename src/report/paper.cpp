#include "report/paper.hpp"

#include <cairo-pdf.h>
#include <fmt/format.h>

#include "picture/lettering.hpp"
#include "picture/raster.hpp"

namespace corvex::reporting {
namespace {

void set(PangoLayout* layout, const std::string& words, const TextStyle& style, double wrap) {
  picture::set_words(layout, words, style.size, style.bold);
  pango_layout_set_width(layout, wrap > 0 ? static_cast<int>(wrap * PANGO_SCALE) : -1);
  pango_layout_set_wrap(layout, PANGO_WRAP_WORD_CHAR);
  pango_layout_set_line_spacing(layout, 1.18F);
}

void set_source(cairo_t* c, const picture::Colour& colour) {
  cairo_set_source_rgba(c, colour.red / 255.0, colour.green / 255.0, colour.blue / 255.0, colour.opacity);
}

// Letters are placed exactly, not at whole points.
void place_exactly(PangoContext* context) {
  pango_context_set_round_glyph_positions(context, FALSE);
}

cairo_status_t append(void* to, const unsigned char* data, unsigned int n) {
  static_cast<std::string*>(to)->append(reinterpret_cast<const char*>(data), n);
  return CAIRO_STATUS_SUCCESS;
}

// Cairo writes the time of the call where no date is given, but the same input gives the same bytes. The entry is
// overwritten by blanks, so that no place in the file changes.
void remove_creation_date(std::string& pdf) {
  static constexpr std::string_view key = "/CreationDate (";
  const std::size_t begin = pdf.rfind(key);
  if (begin == std::string::npos) return;
  const std::size_t end = pdf.find(')', begin);
  if (end != std::string::npos) pdf.replace(begin, end + 1 - begin, end + 1 - begin, ' ');
}

}  // namespace

Paper::Paper()
    : pages_(1),
      map_(pango_cairo_font_map_new()),
      context_(pango_font_map_create_context(map_.get())),
      layout_((place_exactly(context_.get()), pango_layout_new(context_.get()))) {}

void Paper::new_page() {
  pages_.emplace_back();
  y = top;
}

Extent Paper::measured(const std::string& words, const TextStyle& style, double wrap) const {
  set(layout_.get(), words, style, wrap);
  int w = 0, h = 0;
  pango_layout_get_size(layout_.get(), &w, &h);
  constexpr double unit = PANGO_SCALE;
  return {w / unit, h / unit, pango_layout_get_baseline(layout_.get()) / unit};
}

void draw_words(const Ink& ink, const std::string& words, const TextStyle& style, const picture::Spot& at, Align align,
                double wrap) {
  set(ink.layout, words, style, wrap);
  int w = 0;
  pango_layout_get_size(ink.layout, &w, nullptr);
  set_source(ink.cairo, style.colour);
  cairo_move_to(ink.cairo, align == Align::right ? at.x - static_cast<double>(w) / PANGO_SCALE : at.x, at.y);
  pango_cairo_show_layout(ink.cairo, ink.layout);
}

void Paper::words(std::string words, const TextStyle& style, double x, double at_y, Align align, double wrap) {
  op([=, words = std::move(words)](const Ink& ink) { draw_words(ink, words, style, {x, at_y}, align, wrap); });
}

void Paper::line(double x1, double y1, double x2, double y2, double thickness, const picture::Colour& colour) {
  op([=](const Ink& ink) {
    set_source(ink.cairo, colour);
    cairo_set_line_width(ink.cairo, thickness);
    cairo_move_to(ink.cairo, x1, y1);
    cairo_line_to(ink.cairo, x2, y2);
    cairo_stroke(ink.cairo);
  });
}

void Paper::drawing(picture::Drawing drawing, double x, double at_y, double scale) {
  op([=, drawing = std::move(drawing)](const Ink& ink) {
    cairo_save(ink.cairo);
    cairo_translate(ink.cairo, x, at_y);
    cairo_scale(ink.cairo, scale, scale);
    cairo_rectangle(ink.cairo, 0, 0, drawing.width, drawing.height);
    cairo_clip(ink.cairo);
    picture::draw_upon(ink.cairo, drawing);
    cairo_restore(ink.cairo);
  });
}

void Paper::destination(const std::string& name) {
  op([=, here = y](const Ink& ink) {
    cairo_tag_begin(ink.cairo, CAIRO_TAG_DEST, fmt::format("name='{}' x={:.2f} y={:.2f}", name, left, here).c_str());
    cairo_tag_end(ink.cairo, CAIRO_TAG_DEST);
  });
}

void Paper::link(const std::string& name, double x, double at_y, double w, double h) {
  op([=](const Ink& ink) {
    cairo_tag_begin(ink.cairo, CAIRO_TAG_LINK,
                    fmt::format("dest='{}' rect=[{:.2f} {:.2f} {:.2f} {:.2f}]", name, x, at_y, w, h).c_str());
    cairo_tag_end(ink.cairo, CAIRO_TAG_LINK);
  });
}

std::string Paper::finished(const Properties& properties, const std::vector<Outline>& outline,
                            const std::function<void(const Ink&, std::size_t, std::size_t)>& each) {
  std::string bytes;
  cairo_surface_t* surface = cairo_pdf_surface_create_for_stream(append, &bytes, width, height);
  cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_TITLE, properties.title.c_str());
  if (!properties.author.empty())
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_AUTHOR, properties.author.c_str());
  if (!properties.created.empty())
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_CREATE_DATE, properties.created.c_str());
  cairo_t* cairo = cairo_create(surface);
  PangoLayout* layout = pango_cairo_create_layout(cairo);
  place_exactly(pango_layout_get_context(layout));
  for (std::size_t i = 0; i < pages_.size(); ++i) {
    const Ink ink{cairo, layout};
    for (const auto& draw : pages_[i]) draw(ink);
    each(ink, i + 1, pages_.size());
    cairo_show_page(cairo);
  }
  for (const Outline& o : outline)
    cairo_pdf_surface_add_outline(surface, CAIRO_PDF_OUTLINE_ROOT, o.title.c_str(),
                                  fmt::format("dest='{}'", o.destination).c_str(), CAIRO_PDF_OUTLINE_FLAG_OPEN);
  g_object_unref(layout);
  cairo_destroy(cairo);
  cairo_surface_finish(surface);
  cairo_surface_destroy(surface);
  if (properties.created.empty()) remove_creation_date(bytes);
  return bytes;
}

}  // namespace corvex::reporting
