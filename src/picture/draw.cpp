#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <memory>
#include <new>

#include "corvex/envelope.hpp"
#include "corvex/writing.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {

std::size_t case_of(const Solution& solution, const PictureOptions& options) {
  for (std::size_t i = 0; i < solution.size(); ++i)
    if (solution[i].name() == options.load_case) return i;
  if (solution.judged().size() == 1) return solution.judged().front();
  return options.only.size() == 1 ? governing_case(solution, options.only.front()) : governing_case(solution);
}

}  // namespace corvex::picture

namespace corvex {
namespace {

std::optional<Problem> slip(const Solution& solution, const PictureOptions& o) {
  const Structure& s = solution.structure();
  constexpr double least = 200, most = 10000;
  if (!(o.width >= least && o.width <= most && o.height >= least && o.height <= most))
    return Problem{fmt::format("a picture of {:g} by {:g} pixels: each side has to be from {:g} to {:g}", o.width,
                               o.height, least, most)};
  constexpr int most_digits = 17;
  if (o.digits < 1 || o.digits > most_digits)
    return Problem{fmt::format("{} significant digits: from 1 to {} were expected", o.digits, most_digits)};
  if (o.scale && !(*o.scale >= 0 && std::isfinite(*o.scale)))
    return Problem{"the scale of movements has to be a number"};
  for (const MemberRef& m : o.only)
    if (!s.find(m)) return Problem{"there is no such member"};
  if (o.load_case.empty()) return {};
  for (std::size_t i = 0; i < solution.size(); ++i)
    if (solution[i].name() == o.load_case) return {};
  return Problem{fmt::format("there is no load case or combination '{}'", o.load_case)};
}

std::optional<picture::Drawing> drawing_of(const Solution& solution, PictureOptions o,
                                           const picture::Lettering& lettering) {
  if (o.only.empty() && o.of == PictureOf::section) o.only = {MemberId(0)};
  if (o.of == PictureOf::section) return picture::section_picture(solution, o, lettering);
  if (o.of == PictureOf::sheet) return picture::sheet(solution, o, lettering);
  picture::Scene scene(solution, o, lettering);
  switch (o.of) {
    case PictureOf::structure: draw_structure(scene); break;
    case PictureOf::deformed: draw_deformed(scene); break;
    case PictureOf::stress: draw_stress(scene, false); break;
    case PictureOf::use: draw_stress(scene, true); break;
    default: draw_diagram(scene, o.of);
  }
  return scene.finished();
}

}  // namespace

namespace {

// Pango and Cairo end the program where memory runs out. What they take beside the pixels is about half of this.
void make_sure_of_memory(const PictureOptions& o) {
  constexpr double beside = 64e6, of_a_pixel = 16;
  const auto needed = static_cast<std::size_t>(beside + of_a_pixel * o.width * o.height);
  const std::unique_ptr<void, decltype(&std::free)> room(std::malloc(needed), &std::free);
  if (!room) throw std::bad_alloc();
}

}  // namespace

Expected<std::string, Problem> draw(const Solution& solution, const PictureOptions& options, ImageFormat format) {
  if (const auto problem = slip(solution, options)) return *problem;
  make_sure_of_memory(options);
  if ((options.moving || format == ImageFormat::gif) && options.of != PictureOf::deformed)
    return Problem{"only the deformed shape moves"};
  if (options.moving && format != ImageFormat::svg && format != ImageFormat::gif)
    return Problem{"PNG and PDF stand still: a moving picture is SVG or GIF"};
  const picture::Lettering lettering;
  if (!lettering.has_font())
    return Problem{
        fmt::format("the font {} is not installed, and without it a picture has no words (package fonts-dejavu-core)",
                    picture::font_family)};
  PictureOptions o = options;
  o.moving = o.moving || format == ImageFormat::gif;
  const auto found = drawing_of(solution, o, lettering);
  if (!found) return Problem{"of this section only figures are given: there is no shape to draw"};
  const picture::Drawing& drawing = *found;
  switch (format) {
    case ImageFormat::svg: return as_svg(drawing);
    case ImageFormat::png: return as_png(drawing);
    case ImageFormat::pdf: return as_pdf(drawing);
    case ImageFormat::gif: break;
  }
  std::string gif = as_gif(drawing);
  if (gif.empty()) return Problem{"the GIF could not be written"};
  return gif;
}

std::optional<Problem> draw(const Solution& solution, const PictureOptions& options, const std::string& path) {
  const auto format = image_format(path);
  if (!format) return Problem{fmt::format("'{}': a picture ends with .svg, .png, .pdf or .gif", path)};
  const auto bytes = draw(solution, options, *format);
  if (!bytes) return bytes.error();
  if (std::string why = write_file(path, *bytes); !why.empty()) return Problem{std::move(why)};
  return {};
}

}  // namespace corvex

extern "C" [[gnu::visibility("default")]] void corvex_draw_picture(
    const corvex::Solution& solution, const corvex::PictureOptions& options, corvex::ImageFormat format,
    corvex::Expected<std::string, corvex::Problem>& drawn) {
  drawn = corvex::draw(solution, options, format);
}
