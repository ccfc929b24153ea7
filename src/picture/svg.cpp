// Drawings as SVG, with real text: Cairo's own would turn letters into outlines.
#include <fmt/format.h>

#include <cmath>
#include <numbers>

#include "picture/drawing.hpp"
#include "picture/lettering.hpp"

namespace corvex::picture {
namespace {

std::string escaped(const std::string& text) {
  std::string out;
  for (const char c : text) {
    if (c == '&')
      out += "&amp;";
    else if (c == '<')
      out += "&lt;";
    else if (c == '>')
      out += "&gt;";
    else if (c == '"')
      out += "&quot;";
    else if (static_cast<unsigned char>(c) >= 0x20 || c == '\t')
      out += c;
  }
  return out;
}

// Hundredths of a pixel are enough, and no zeros at the end.
std::string hundredths(double v) {
  const double rounded = std::round(v * 100) / 100;
  return fmt::format("{:g}", rounded == 0 ? 0.0 : rounded);
}

std::string colour(const char* name, const Colour& c) {
  std::string text = fmt::format(" {}=\"#{:02x}{:02x}{:02x}\"", name, c.red, c.green, c.blue);
  if (c.opacity < 1) text += fmt::format(" {}-opacity=\"{}\"", name, hundredths(c.opacity));
  return text;
}

std::string meaning(const Meaning& m) {
  std::string text;
  if (!m.what.empty()) text += fmt::format(" class=\"{}\"", escaped(m.what));
  if (!m.of.empty()) text += fmt::format(" data-of=\"{}\"", escaped(m.of));
  return text;
}

std::string written(const std::vector<std::vector<Spot>>& lines, bool closed) {
  std::string d;
  for (const auto& line : lines) {
    for (std::size_t i = 0; i < line.size(); ++i)
      d += fmt::format("{}{} {}", i == 0 ? "M" : i == 1 ? "L" : " ", hundredths(line[i].x), hundredths(line[i].y));
    if (closed) d += "Z";
  }
  return d;
}

std::string written(const Path& p) {
  const std::string d = written(p.lines, p.closed);
  std::string text = "<path" + meaning(p.meaning) + " d=\"" + d + "\"";
  text += p.fill ? colour("fill", *p.fill) : std::string(" fill=\"none\"");
  if (p.stroke) {
    text += colour("stroke", p.stroke->colour) + fmt::format(" stroke-width=\"{}\"", hundredths(p.stroke->width));
    for (std::size_t i = 0; i < p.stroke->dash.size(); ++i)
      text += (i == 0 ? " stroke-dasharray=\"" : " ") + hundredths(p.stroke->dash[i]);
    if (!p.stroke->dash.empty()) text += "\"";
  }
  if (p.rest.empty()) return text + "/>\n";
  const std::string rest = written(p.rest, p.closed);
  return text + fmt::format(
                    "><animate attributeName=\"d\" dur=\"2s\" repeatCount=\"indefinite\" calcMode=\"spline\" "
                    "keyTimes=\"0;0.5;1\" keySplines=\"0.4 0 0.6 1;0.4 0 0.6 1\" values=\"{0};{1};{0}\"/></path>\n",
                    rest, d);
}

std::string written(const Text& t, const Colour& page) {
  static constexpr const char* anchors[] = {"start", "middle", "end"};
  std::string text = "<text" + meaning(t.meaning);
  // Half the height of capitals above the base line.
  text += fmt::format(" x=\"{}\" y=\"{}\" font-size=\"{}\"", hundredths(t.at.x), hundredths(t.at.y + 0.36 * t.size),
                      hundredths(t.size));
  if (t.anchor != Anchor::start) text += fmt::format(" text-anchor=\"{}\"", anchors[static_cast<int>(t.anchor)]);
  if (t.angle != 0)
    text += fmt::format(" transform=\"rotate({} {} {})\"", hundredths(t.angle * 180 / std::numbers::pi),
                        hundredths(t.at.x), hundredths(t.at.y));
  if (t.bold) text += " font-weight=\"bold\"";
  text += colour("fill", t.colour);
  if (t.rimmed) text += colour("stroke", page) + " stroke-width=\"3\" stroke-linejoin=\"round\" paint-order=\"stroke\"";
  return text + ">" + escaped(t.words) + "</text>\n";
}

}  // namespace

std::string as_svg(const Drawing& d) {
  std::string text = fmt::format(
      "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}\" height=\"{1}\" viewBox=\"0 0 {0} {1}\" "
      "font-family=\"'{2}', sans-serif\">\n<title>{3}</title>\n<rect width=\"{0}\" height=\"{1}\"",
      hundredths(d.width), hundredths(d.height), font_family, escaped(d.title));
  text += colour("fill", d.page) + "/>\n";
  for (const auto& shape : d.shapes) {
    if (const auto* p = std::get_if<Path>(&shape)) text += written(*p);
    if (const auto* t = std::get_if<Text>(&shape)) text += written(*t, d.page);
  }
  return text + "</svg>\n";
}

}  // namespace corvex::picture
