// Drawings as PNG and PDF, by Cairo.
#include "picture/raster.hpp"

#include <cairo-pdf.h>
#include <cairo.h>

#include <cmath>
#include <memory>

#include "picture/drawing.hpp"
#include "picture/lettering.hpp"

namespace corvex::picture {
namespace {

struct Free {
  void operator()(cairo_surface_t* s) const { cairo_surface_destroy(s); }
  void operator()(cairo_t* c) const { cairo_destroy(c); }
  void operator()(PangoLayout* l) const { g_object_unref(l); }
};
using Surface = std::unique_ptr<cairo_surface_t, Free>;

cairo_status_t append(void* to, const unsigned char* data, unsigned int n) {
  static_cast<std::string*>(to)->append(reinterpret_cast<const char*>(data), n);
  return CAIRO_STATUS_SUCCESS;
}

void set(cairo_t* c, const Colour& colour) {
  cairo_set_source_rgba(c, colour.red / 255.0, colour.green / 255.0, colour.blue / 255.0, colour.opacity);
}

void draw(cairo_t* c, const Path& p) {
  cairo_new_path(c);
  for (const auto& line : p.lines) {
    for (std::size_t i = 0; i < line.size(); ++i)
      i == 0 ? cairo_move_to(c, line[i].x, line[i].y) : cairo_line_to(c, line[i].x, line[i].y);
    if (p.closed) cairo_close_path(c);
  }
  if (p.fill) {
    set(c, *p.fill);
    cairo_fill_preserve(c);
  }
  if (p.stroke) {
    set(c, p.stroke->colour);
    cairo_set_line_width(c, p.stroke->width);
    cairo_set_dash(c, p.stroke->dash.data(), static_cast<int>(p.stroke->dash.size()), 0);
    cairo_stroke_preserve(c);
  }
}

// The path in straight pieces, within 0.4 of a pixel: enough for a rim. Curves would make a PDF twice as large.
void make_straight(cairo_t* c) {
  cairo_set_tolerance(c, 0.4);
  cairo_path_t* straight = cairo_copy_path_flat(c);
  cairo_new_path(c);
  cairo_append_path(c, straight);
  cairo_path_destroy(straight);
}

void draw(cairo_t* c, PangoLayout* layout, const Text& t, const Colour& page) {
  set_words(layout, t.words, t.size, t.bold);
  int width = 0;
  pango_layout_get_size(layout, &width, nullptr);
  const double w = static_cast<double>(width) / PANGO_SCALE;
  const double left = t.at.x - (t.anchor == Anchor::start ? 0 : t.anchor == Anchor::middle ? w / 2 : w);
  const double base = static_cast<double>(pango_layout_get_baseline(layout)) / PANGO_SCALE;
  cairo_save(c);
  cairo_translate(c, t.at.x, t.at.y);
  cairo_rotate(c, t.angle);
  cairo_translate(c, -t.at.x, -t.at.y);
  cairo_new_path(c);
  cairo_move_to(c, left, t.at.y + 0.36 * t.size - base);
  if (t.rimmed) {
    pango_cairo_layout_path(c, layout);
    make_straight(c);
    set(c, page);
    cairo_set_line_width(c, 3);
    cairo_set_line_join(c, CAIRO_LINE_JOIN_ROUND);
    cairo_set_dash(c, nullptr, 0, 0);
    cairo_stroke(c);
    cairo_move_to(c, left, t.at.y + 0.36 * t.size - base);
  }
  set(c, t.colour);
  pango_cairo_show_layout(c, layout);
  cairo_restore(c);
}

void draw(cairo_surface_t* surface, const Drawing& d) {
  const std::unique_ptr<cairo_t, Free> c(cairo_create(surface));
  draw_upon(c.get(), d);
}

}  // namespace

void draw_upon(cairo_t* c, const Drawing& d) {
  const std::unique_ptr<PangoLayout, Free> layout(pango_cairo_create_layout(c));
  set(c, d.page);
  cairo_paint(c);
  for (const auto& shape : d.shapes) {
    if (const auto* p = std::get_if<Path>(&shape)) draw(c, *p);
    if (const auto* t = std::get_if<Text>(&shape)) draw(c, layout.get(), *t, d.page);
  }
}

void paint(const Drawing& d, unsigned char* pixels, int width, int height) {
  const Surface surface(cairo_image_surface_create_for_data(pixels, CAIRO_FORMAT_RGB24, width, height, width * 4));
  draw(surface.get(), d);
  cairo_surface_flush(surface.get());
}

std::string as_png(const Drawing& d) {
  std::string bytes;
  const Surface surface(cairo_image_surface_create(CAIRO_FORMAT_RGB24, static_cast<int>(std::lround(d.width)),
                                                   static_cast<int>(std::lround(d.height))));
  draw(surface.get(), d);
  cairo_surface_write_to_png_stream(surface.get(), append, &bytes);
  return bytes;
}

std::string as_pdf(const Drawing& d) {
  std::string bytes;
  // 96 pixels are an inch, 72 points too.
  constexpr double points = 0.75;
  {
    const Surface surface(cairo_pdf_surface_create_for_stream(append, &bytes, d.width * points, d.height * points));
    cairo_pdf_surface_set_metadata(surface.get(), CAIRO_PDF_METADATA_TITLE, d.title.c_str());
    // The same input gives the same bytes.
    cairo_pdf_surface_set_metadata(surface.get(), CAIRO_PDF_METADATA_CREATE_DATE, "2000-01-01T00:00:00Z");
    cairo_surface_set_device_scale(surface.get(), points, points);
    draw(surface.get(), d);
  }
  return bytes;
}

}  // namespace corvex::picture
