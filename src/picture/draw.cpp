#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <new>

#include "corvex/envelope.hpp"
#include "corvex/number.hpp"
#include "corvex/writing.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {

bool is_envelope(const Solution& solution, const PictureOptions& options) {
  if (options.load_case != "envelope") return false;
  for (std::size_t i = 0; i < solution.size(); ++i)
    if (solution[i].name() == options.load_case) return false;
  return true;
}

std::size_t case_of(const Solution& solution, const PictureOptions& options) {
  for (std::size_t i = 0; i < solution.size(); ++i)
    if (solution[i].name() == options.load_case) return i;
  if (solution.assessed().size() == 1) return solution.assessed().front();
  return options.only.size() == 1 ? governing_case(solution, options.only.front()) : governing_case(solution);
}

}  // namespace corvex::picture

namespace corvex {
namespace {

// Error in the page size.
std::optional<Problem> slip(const PictureOptions& o) {
  constexpr double least = 200, most = 10000;
  if (!(o.width >= least && o.width <= most && o.height >= least && o.height <= most))
    return Problem{fmt::format("a picture of {:g} by {:g} pixels: each side must be from {:g} to {:g}", o.width,
                               o.height, least, most)};
  if (!(o.letters >= 0.5 && o.letters <= 4))
    return Problem{fmt::format("letters magnified {:g} times: 0.5 to 4 was expected", o.letters)};
  if (o.digits < least_digits || o.digits > most_digits)
    return Problem{
        fmt::format("{} significant digits: from {} to {} were expected", o.digits, least_digits, most_digits)};
  constexpr std::size_t most_modes = 1000;
  if (o.mode < 1 || o.mode > most_modes)
    return Problem{fmt::format("mode {}: from 1 to {} was expected", o.mode, most_modes)};
  return {};
}

std::optional<Problem> slip(const Solution& solution, const PictureOptions& o) {
  if (auto problem = slip(o)) return problem;
  if (!solution.ok()) return solution.problems().front();
  const Structure& s = solution.structure();
  if (o.scale && !(*o.scale >= 0 && std::isfinite(*o.scale)))
    return Problem{"the scale of displacements must be a number"};
  for (const MemberRef& m : o.only)
    if (!s.find(m)) return Problem{"the structure has no such member"};
  if (o.load_case.empty()) return {};
  if (picture::is_envelope(solution, o)) {
    constexpr PictureOf together[] = {PictureOf::axial,   PictureOf::shear,  PictureOf::moment,
                                      PictureOf::torsion, PictureOf::stress, PictureOf::utilisation};
    if (std::find(std::begin(together), std::end(together), o.of) == std::end(together))
      return Problem{"an envelope has no such picture: only N, V, M, T, stress and utilisation have an envelope"};
    return {};
  }
  for (std::size_t i = 0; i < solution.size(); ++i)
    if (solution[i].name() == o.load_case) return {};
  return Problem{fmt::format("there is no load case or combination '{}'", o.load_case)};
}

}  // namespace

namespace picture {

std::optional<Drawing> drawing_of(const Solution& solution, PictureOptions o, const Lettering& lettering,
                                  const std::vector<PictureSide>& beside, const Modes& shapes) {
  if (o.only.empty() && o.of == PictureOf::section) o.only = {MemberId(0)};
  if (o.of == PictureOf::section) return section_picture(solution, o, lettering);
  if (o.of == PictureOf::sheet) return sheet(solution, o, lettering);
  Scene scene(solution, o, lettering, beside);
  switch (o.of) {
    case PictureOf::structure: draw_structure(scene); break;
    case PictureOf::deformed: draw_deformed(scene); break;
    case PictureOf::stress: draw_stress(scene, false); break;
    case PictureOf::utilisation: draw_stress(scene, true); break;
    case PictureOf::reactions: draw_reactions(scene); break;
    case PictureOf::faces: draw_faces(scene); break;
    case PictureOf::vibration: draw_vibration(scene, shapes.vibration[o.mode - 1], o.mode); break;
    case PictureOf::buckling: draw_buckling(scene, shapes.buckling[0].modes[o.mode - 1], o.mode); break;
    default: scene.is_envelope() ? draw_envelope(scene, o.of) : draw_diagram(scene, o.of);
  }
  return scene.finished();
}

}  // namespace picture

namespace {

// Pango and Cairo end the program where memory runs out. In addition to the pixels they take about half of this.
void make_sure_of_memory(const PictureOptions& o) {
  constexpr double beside = 64e6, of_a_pixel = 16;
  const auto needed = static_cast<std::size_t>(beside + of_a_pixel * o.width * o.height);
  // A call of the function, not a new-expression: a compiler may leave out a pair of malloc and free.
  ::operator delete(::operator new(needed));
}

Expected<std::string, Problem> written(const picture::Drawing& drawing, ImageFormat format) {
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

}  // namespace

Expected<std::string, Problem> draw(const Sweep& sweep, const std::vector<SweepRun>& runs, const std::string& title,
                                    const PictureOptions& options, ImageFormat format) {
  if (const auto problem = slip(options)) return *problem;
  if (format == ImageFormat::gif) return Problem{"only deformed shapes and mode shapes can be animated"};
  if (Problems problems = check(sweep); !problems.empty()) return problems.front();
  if (sweep.show.empty()) return Problem{"there is no figure to plot"};
  make_sure_of_memory(options);
  const picture::Lettering lettering;
  if (const auto problem = lettering.missing_font()) return *problem;
  return written(picture::sweep_plot(sweep, runs, title, options, lettering), format);
}

namespace {

std::optional<Problem> slip(const std::vector<PictureSide>& sides, Together together, const PictureOptions& o) {
  constexpr std::size_t most = 12;
  if (sides.empty() || sides.size() > most)
    return Problem{fmt::format("{} solutions in one picture: from 1 to {} were expected", sides.size(), most)};
  if (auto problem = slip(sides.front().solution, o)) return problem;
  const bool of_member = o.of == PictureOf::section || o.of == PictureOf::sheet;
  const bool upon = o.of == PictureOf::deformed || o.of == PictureOf::axial || o.of == PictureOf::shear ||
                    o.of == PictureOf::moment || o.of == PictureOf::torsion;
  if (together == Together::overlaid && !upon)
    return Problem{"deformed shapes, N, V, M and T can be overlaid; other pictures are drawn side by side"};
  if (of_member) return Problem{"a section or a sheet shows one member of one model"};
  if (o.of == PictureOf::vibration || o.of == PictureOf::buckling)
    return Problem{"modes are drawn for one model: the mode shapes of variants differ"};
  const Solution& first = sides.front().solution;
  const std::string name = first[picture::case_of(first, o)].name();
  for (const PictureSide& side : sides) {
    if (!side.solution.ok()) return side.solution.problems().front();
    if (side.solution.structure().is_plane() != first.structure().is_plane())
      return Problem{fmt::format("{} is {}, and {} is not", sides.front().name,
                                 first.structure().is_plane() ? "plane" : "in space", side.name)};
    bool found = false;
    for (std::size_t i = 0; i < side.solution.size() && !found; ++i) found = side.solution[i].name() == name;
    if (!found) return Problem{fmt::format("{} has no load case or combination '{}'", side.name, name)};
  }
  return {};
}

}  // namespace

Expected<std::string, Problem> draw(const std::vector<PictureSide>& sides, Together together,
                                    const PictureOptions& options, ImageFormat format) {
  if (const auto problem = slip(sides, together, options)) return *problem;
  if (format == ImageFormat::gif || options.moving)
    return Problem{"a picture of several models cannot be animated: SVG, PNG or PDF"};
  make_sure_of_memory(options);
  const picture::Lettering lettering;
  if (const auto problem = lettering.missing_font()) return *problem;
  PictureOptions o = options;
  const Solution& first = sides.front().solution;
  o.load_case = first[picture::case_of(first, o)].name();
  if (together == Together::overlaid) {
    const std::vector<PictureSide> others(sides.begin() + 1, sides.end());
    picture::Scene scene(first, o, lettering, others);
    draw_overlay(scene, sides.front().name, o.of, lettering);
    return written(scene.finished(), format);
  }
  const picture::Grid grid = picture::grid_for(sides.size(), o.width, o.height);
  // Letters shrink with the page, but less than it.
  o.width = grid.width, o.height = grid.height;
  o.letters = std::min(4.0, o.letters * (sides.size() > 1 ? 1.4 : 1));
  std::vector<picture::Drawing> parts;
  for (const PictureSide& side : sides) {
    // By name, since the members of variants have other numbers.
    PictureOptions own = o;
    own.only.clear();
    for (const MemberRef& m : o.only) {
      const Structure& s = first.structure();
      if (const auto same = side.solution.structure().find_member(s[s.at(m)].name)) own.only.push_back(*same);
    }
    parts.push_back(*picture::drawing_of(side.solution, own, lettering, sides));
    // Each under its own name.
    for (auto& shape : parts.back().shapes)
      if (auto* text = std::get_if<picture::Text>(&shape); text && text->meaning.what == "title")
        text->words = side.name;
  }
  return written(side_by_side(std::move(parts), grid, first.structure().title(), options.width, options.height),
                 format);
}

namespace {

// The modes up to the one that is drawn; or that there are fewer.
Expected<Modes, Problem> modes_of(const Solution& solution, const PictureOptions& o) {
  if (o.mode < 1) return Problem{"modes are counted from 1"};
  const std::string name = solution[picture::case_of(solution, o)].name();
  const bool vibration = o.of == PictureOf::vibration;
  ModesOptions wanted;
  if (vibration)
    wanted.vibration = o.mode;
  else
    wanted.buckling = {{name, o.mode}};
  auto found = modes(solution, wanted);
  if (!found) return found.error().front();
  const std::size_t there = vibration ? found->vibration.size() : found->buckling.front().modes.size();
  if (there < o.mode)
    return Problem{vibration ? fmt::format("there are {} natural frequencies; number {} does not exist", there, o.mode)
                             : fmt::format("{} has {} buckling modes; number {} does not exist", name, there, o.mode)};
  return std::move(*found);
}

}  // namespace

Expected<std::string, Problem> draw(const Solution& solution, const PictureOptions& options, ImageFormat format) {
  if (const auto problem = slip(solution, options)) return *problem;
  make_sure_of_memory(options);
  const bool of_mode = options.of == PictureOf::vibration || options.of == PictureOf::buckling;
  if ((options.moving || format == ImageFormat::gif) && options.of != PictureOf::deformed && !of_mode)
    return Problem{"only deformed shapes and mode shapes can be animated"};
  if (options.moving && format != ImageFormat::svg && format != ImageFormat::gif)
    return Problem{"PNG and PDF cannot be animated: use SVG or GIF"};
  const picture::Lettering lettering;
  if (const auto problem = lettering.missing_font()) return *problem;
  PictureOptions o = options;
  o.moving = o.moving || format == ImageFormat::gif;
  Modes shapes;
  if (of_mode) {
    auto found = modes_of(solution, o);
    if (!found) return found.error();
    shapes = std::move(*found);
  }
  const auto found = picture::drawing_of(solution, o, lettering, {}, shapes);
  if (!found) return Problem{"this section is given by its properties only: it has no shape to draw"};
  return written(*found, format);
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

extern "C" [[gnu::visibility("default")]] void corvex_draw_sides(
    const std::vector<corvex::PictureSide>& sides, corvex::Together together, const corvex::PictureOptions& options,
    corvex::ImageFormat format, corvex::Expected<std::string, corvex::Problem>& drawn) {
  drawn = corvex::draw(sides, together, options, format);
}

extern "C" [[gnu::visibility("default")]] void corvex_draw_sweep(
    const corvex::Sweep& sweep, const std::vector<corvex::SweepRun>& runs, const std::string& title,
    const corvex::PictureOptions& options, corvex::ImageFormat format,
    corvex::Expected<std::string, corvex::Problem>& drawn) {
  drawn = corvex::draw(sweep, runs, title, options, format);
}
