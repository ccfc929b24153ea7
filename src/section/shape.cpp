#include <fmt/format.h>

#include <cmath>

#include "corvex/section.hpp"

namespace corvex {
namespace {

class Checker {
 public:
  std::vector<ShapeFault> operator()(const SquareTube& s) {
    positive("width", s.width), positive("wall", s.wall);
    wall_fits(s.wall, s.width, "width");
    return faults_;
  }
  std::vector<ShapeFault> operator()(const RectangularTube& s) {
    positive("height", s.height), positive("width", s.width), positive("wall", s.wall);
    const bool upright = s.height > s.width;
    wall_fits(s.wall, upright ? s.width : s.height, upright ? "width" : "height");
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
  std::vector<ShapeFault> operator()(const GivenProperties& s) {
    positive("A", s.A);
    optional("Iy", s.Iy), optional("Iz", s.Iz), optional("J", s.J);
    optional("Wy", s.Wy), optional("Wz", s.Wz), optional("Ay", s.Ay), optional("Az", s.Az);
    return faults_;
  }

 private:
  template <class Q>
  void positive(const char* key, Q value) {
    if (!(value.si() > 0)) faults_.push_back({key, fmt::format("'{}' must be greater than zero", key)});
    // As a length: what a slip of an exponent makes of a dimension, or of a power of one.
    const double size = std::pow(value.si(), 1 / Q::dimension().exponent[0]);
    if (size > 1e6 || (size > 0 && size < 1e-9)) faults_.push_back({key, fmt::format("'{}' is out of range", key)});
  }
  template <class Q>
  void optional(const char* key, const std::optional<Q>& value) {
    if (value) positive(key, *value);
  }
  void wall_fits(Length wall, Length outside, const char* what) {
    if (faults_.empty() && wall.si() * 2 >= outside.si())
      faults_.push_back({"wall", fmt::format("a wall of {:.4g} mm leaves no hole in a {} of {:.4g} mm; it must be "
                                             "below half of it",
                                             wall.in(mm), what, outside.in(mm))});
  }

  std::vector<ShapeFault> faults_;
};

}  // namespace

std::vector<ShapeFault> check(const Shape& shape) {
  return std::visit(Checker(), shape);
}

std::string name(const Shape& shape) {
  static constexpr const char* names[] = {"square tube", "rectangular tube", "round tube",
                                          "round bar",   "rectangular bar",  "properties"};
  return names[shape.index()];
}

}  // namespace corvex
