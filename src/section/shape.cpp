#include <fmt/format.h>

#include <cmath>

#include "corvex/number.hpp"
#include "corvex/section.hpp"
#include "section/outline_check.hpp"

namespace corvex {
namespace {

class Checker {
 public:
  std::vector<ShapeFault> operator()(const SquareTube& s) {
    positive("width", s.width), positive("wall", s.wall);
    wall_fits(s.wall, s.width, "width");
    corner_fits(s.corner, s.inside_corner, s.width, s.wall, "width");
    return faults_;
  }
  std::vector<ShapeFault> operator()(const RectangularTube& s) {
    positive("height", s.height), positive("width", s.width), positive("wall", s.wall);
    const bool upright = s.height > s.width;
    const Length narrow = upright ? s.width : s.height;
    wall_fits(s.wall, narrow, upright ? "width" : "height");
    corner_fits(s.corner, s.inside_corner, narrow, s.wall, upright ? "width" : "height");
    return faults_;
  }
  std::vector<ShapeFault> operator()(const RoundTube& s) {
    positive("diameter", s.diameter), positive("wall", s.wall);
    wall_fits(s.wall, s.diameter, "diameter");
    return faults_;
  }
  std::vector<ShapeFault> operator()(const RoundBar& s) {
    positive("diameter", s.diameter);
    return faults_;
  }
  std::vector<ShapeFault> operator()(const RectangularBar& s) {
    positive("height", s.height), positive("width", s.width);
    return faults_;
  }
  std::vector<ShapeFault> operator()(const IProfile& s) {
    flanged(s.height, s.width, s.web, s.flange, s.root);
    below("web", s.web, s.width, "the width");
    below("flange", s.flange * 2, s.height, "the height, on both sides,");
    below("root", s.root * 2, s.height - s.flange * 2, "the height between the flanges, on both sides,");
    below("root", s.root * 2, s.width - s.web, "the flange next to the web");
    return faults_;
  }
  std::vector<ShapeFault> operator()(const Channel& s) {
    flanged(s.height, s.width, s.web, s.flange, s.root);
    radius("toe", s.toe);
    below("web", s.web, s.width, "the width");
    const Length rise = (s.width - s.web - s.flange_at) * s.slope, drop = s.flange_at * s.slope;
    below("flange", (s.flange + rise) * 2, s.height, "the height, on both sides,");
    below("root", s.root * 2, s.height - (s.flange + rise) * 2, "the height between the flanges, on both sides,");
    below("toe", s.toe, s.flange - drop, "the tip of the flange");
    below("root", s.root + s.toe, s.width - s.web, "the flange next to the web, with the toe");
    return faults_;
  }
  std::vector<ShapeFault> operator()(const AngleProfile& s) {
    positive("height", s.height), positive("width", s.width), positive("wall", s.wall);
    radius("root", s.root), radius("toe", s.toe);
    const bool upright = s.height > s.width;
    const Length narrow = upright ? s.width : s.height;
    below("wall", s.wall, narrow, upright ? "the width" : "the height");
    if (s.toe > s.wall) fault("toe", "'toe' is greater than the wall");
    below("root", s.root + s.toe, narrow - s.wall, "the leg next to the wall, with the toe");
    return faults_;
  }
  std::vector<ShapeFault> operator()(const Tee& s) {
    flanged(s.height, s.width, s.web, s.flange, s.root);
    below("web", s.web, s.width, "the width");
    below("flange", s.flange, s.height, "the height");
    below("root", s.root, s.height - s.flange, "the web below the flange");
    below("root", s.root * 2, s.width - s.web, "the flange next to the web, on both sides,");
    return faults_;
  }
  std::vector<ShapeFault> operator()(const Outline& s) { return section::outline_faults(s); }
  std::vector<ShapeFault> operator()(const GivenProperties& s) {
    positive("A", s.A);
    optional("Iy", s.Iy), optional("Iz", s.Iz), optional("J", s.J);
    optional("Wy", s.Wy), optional("Wz", s.Wz), optional("Ay", s.Ay), optional("Az", s.Az);
    return faults_;
  }

 private:
  void fault(const char* key, std::string text) { faults_.push_back({key, std::move(text)}); }
  template <class Q>
  void positive(const char* key, Q value) {
    if (!(value.si() > 0)) fault(key, fmt::format("'{}' must be greater than zero", key));
    // As a length: what a slip of an exponent makes of a dimension, or of a power of one.
    const double size = std::pow(value.si(), 1 / Q::dimension().exponent[0]);
    if (size > 1e6 || (size > 0 && size < 1e-9)) fault(key, fmt::format("'{}' is out of range", key));
  }
  template <class Q>
  void optional(const char* key, const std::optional<Q>& value) {
    if (value) positive(key, *value);
  }
  void radius(const char* key, Length value) {
    if (!(value.si() >= 0)) fault(key, fmt::format("'{}' must not be below zero", key));
  }
  void flanged(Length height, Length width, Length web, Length flange, Length root) {
    positive("height", height), positive("width", width), positive("web", web), positive("flange", flange);
    radius("root", root);
  }
  // Only once all dimensions make sense by themselves.
  void below(const char* key, Length value, Length room, const char* what) {
    if (faults_.empty() && value.si() > 0 && value >= room)
      fault(key, fmt::format("'{}' does not fit: {} mm must be less than {} of {} mm", key,
                             short_number(value.in(units::mm), 4), what, short_number(room.in(units::mm), 4)));
  }
  void wall_fits(Length wall, Length outside, const char* what) {
    if (faults_.empty() && wall.si() * 2 >= outside.si())
      fault("wall", fmt::format("a wall of {} mm leaves no hole in a {} of {} mm; it must be less than half of it",
                                short_number(wall.in(units::mm), 4), what, short_number(outside.in(units::mm), 4)));
  }
  void corner_fits(Length corner, std::optional<Length> inside, Length outside, Length wall, const char* what) {
    radius("corner", corner);
    if (inside) radius("corner", *inside);
    if (!faults_.empty()) return;
    const Length within = inside.value_or(Length::si(std::max(0.0, (corner - wall).si())));
    if (corner * 2 > outside || within * 2 > outside - wall * 2)
      fault("corner", fmt::format("a corner of {} mm is more than half of a {} of {} mm",
                                  short_number(corner.in(units::mm), 4), what, short_number(outside.in(units::mm), 4)));
    // Across the corner the wall must not be cut through: the inside arc would reach beyond the outside one.
    else if ((wall.si() - corner.si() + within.si()) * std::sqrt(2.0) + corner.si() - within.si() <= 0)
      fault("corner", fmt::format("a corner of {} mm cuts through the wall of {} mm",
                                  short_number(corner.in(units::mm), 4), short_number(wall.in(units::mm), 4)));
  }

  std::vector<ShapeFault> faults_;
};

}  // namespace

std::vector<ShapeFault> check(const Shape& shape) {
  return std::visit(Checker(), shape);
}

std::string name(const Shape& shape) {
  static constexpr const char* names[] = {
      "square tube", "rectangular tube", "round tube", "round bar", "rectangular bar", "i profile", "channel", "angle",
      "tee",         "outline",          "properties"};
  return names[shape.index()];
}

}  // namespace corvex
