// Corvex: pictures of structures and their results. (Target corvex::pictures.)
//
// One description of a picture becomes SVG (with real text), PNG or PDF. Everything is to scale; what is exaggerated
// says how many times. The same input gives the same bytes.
//
//     const corvex::PictureOptions options{.of = corvex::PictureOf::moment, .load_case = "product"};
//     const auto svg = corvex::draw(solution, options, corvex::ImageFormat::svg);
//     fmt::print("{}\n", svg ? svg->substr(0, 4) : svg.error().text);   // <svg
//
// Sides: N, V and T of either sign are drawn on the member's +y (or +z) side if positive; bending moments are drawn
// on the side that they pull, unless the other one is asked for. Pixels count as 1/96 inch in PDF. Letters are those of
// DejaVu Sans: a problem where it is not installed.
#pragma once

#include <iterator>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/file.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

enum class PictureOf {
  structure,  // names, supports, loads
  deformed,   // the exact shape over the undeformed one
  axial,
  shear,
  moment,
  torsion,
  stress,       // the largest normal stress of each section, along the members
  utilisation,  // von Mises stress as a share of the allowed one
  section,      // of one member: shape, axes, figures, the stress across it at its worst place
  sheet,        // one member alone: loads, N, V, M, rotation, deflection
  reactions,    // of the supports, as arrows, with the loads and both sums
  faces,        // the normal stress of both faces of each member, side by side
  vibration,    // the shape of a natural frequency (modes.hpp)
  buckling,     // the shape in which the case buckles
};
// From the front (plane structures: always), the right side, the top; or from a corner, all lines parallel.
enum class View { front, side, top, space };
enum class ImageFormat { svg, png, pdf, gif };

struct PictureOptions {
  PictureOf of = PictureOf::structure;
  // A load case or combination; if empty the one that governs. `envelope` is that of all assessed cases, where no case
  // has this name: of N, V, M and T both lines, of stress and utilisation the largest.
  std::string load_case{};
  // Plane structures have the front view, those in space the one from a corner, if not given.
  std::optional<View> view{};
  // Movements are drawn so many times; found from the size of the picture if not given.
  std::optional<double> scale{};
  double width = 1280, height = 800;
  // Magnification of letters and symbols, 0.5 to 4.
  double letters = 1;
  // Only these members; all if empty. Sections and sheets are of the first.
  std::vector<MemberRef> only{};
  bool dark = false;
  // Of structures: distances between the points along the edges of the page (not from a corner), and members as wide as
  // their sections are high.
  bool dimensions = false, real_width = false;
  // Of structures: what acts in the case.
  bool loads = true;
  // Bending moments are drawn on the tension side, otherwise on the compression side.
  bool moments_on_tension_side = true;
  // Of vibration and buckling: which mode, from 1 on.
  std::size_t mode = 1;
  // With the title of the structure and of the picture at the head; not needed in a document with captions.
  bool titled = true;
  // With lines of explanation at the foot.
  bool explained = true;
  // Deformed shapes and mode shapes are animated, in SVG; GIF is always animated.
  bool moving = false;
  // Findings of the model (findings.hpp): errors, warnings and crossings are marked in pictures of the
  // structure.
  Problems findings{};
  // Of figures that are written.
  ModelUnits units{};
  int digits = 4;
};

// The bytes of a file; or the reason: a case or member that is not there, a size that is too small, no font.
Expected<std::string, Problem> draw(const Solution& solution, const PictureOptions& options, ImageFormat format);
// Into a file, in the format that its name ends with (.svg, .png, .pdf, .gif); it is replaced whole or not at all. The
// reason, where it cannot be.
std::optional<Problem> draw(const Solution& solution, const PictureOptions& options, const std::string& path);
// The figures of a sweep, one panel each: the first thing that is varied along the axis, a curve for each combination
// of the others, the limits as lines. Of the options the size, the page, the units and the digits count.
Expected<std::string, Problem> draw(const Sweep& sweep, const std::vector<SweepRun>& runs, const std::string& title,
                                    const PictureOptions& options, ImageFormat format);
// A solution with its name in a picture of several: a variant of the first one, as a rule.
struct PictureSide {
  std::string name{};
  Solution solution;
};
// Overlaid in one picture: deformed shapes, or diagrams of N, V, M or T, told apart by colour, dashes and marks;
// or side by side, each in a picture of its own, all at one scale. Of the first one the case is taken that is shown
// in all, and the names of the members of `only`. At most twelve.
enum class Together { overlaid, side_by_side };
Expected<std::string, Problem> draw(const std::vector<PictureSide>& sides, Together together,
                                    const PictureOptions& options, ImageFormat format);

// By the end of a file's name; nothing where it is none of them.
inline std::optional<ImageFormat> image_format(std::string_view path) {
  constexpr std::string_view ends[] = {".svg", ".png", ".pdf", ".gif"};
  for (std::size_t i = 0; i < std::size(ends); ++i)
    if (path.ends_with(ends[i])) return static_cast<ImageFormat>(i);
  return {};
}

// For programs that load the library only when they draw: the name of `draw` to memory in it, and its kind.
inline constexpr const char* picture_entry = "corvex_draw_picture";
inline constexpr const char* sides_entry = "corvex_draw_sides";
using SidesEntry = void (*)(const std::vector<PictureSide>&, Together, const PictureOptions&, ImageFormat,
                            Expected<std::string, Problem>& drawn);
inline constexpr const char* sweep_entry = "corvex_draw_sweep";
using SweepEntry = void (*)(const Sweep&, const std::vector<SweepRun>&, const std::string& title, const PictureOptions&,
                            ImageFormat, Expected<std::string, Problem>& drawn);
using PictureEntry = void (*)(const Solution&, const PictureOptions&, ImageFormat,
                              Expected<std::string, Problem>& drawn);

}  // namespace corvex

#pragma GCC visibility pop
