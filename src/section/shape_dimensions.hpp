// The dimensions of each shape under the names of the model file.
#pragma once

#include <span>

#include "corvex/section.hpp"

namespace corvex::section {

template <class S>
struct ShapeDimension {
  const char* key;
  Length S::*value;
  bool is_radius = false;  // may be left out: then the corner is sharp
};

// Of a shape that a few dimensions describe: its name and its dimensions.
template <class S>
struct ShapeDimensions;

template <>
struct ShapeDimensions<SquareTube> {
  using S = SquareTube;
  static constexpr const char* name = "square tube";
  static constexpr ShapeDimension<S> all[] = {{"width", &S::width}, {"wall", &S::wall}, {"corner", &S::corner, true}};
};
template <>
struct ShapeDimensions<RectangularTube> {
  using S = RectangularTube;
  static constexpr const char* name = "rectangular tube";
  static constexpr ShapeDimension<S> all[] = {
      {"height", &S::height}, {"width", &S::width}, {"wall", &S::wall}, {"corner", &S::corner, true}};
};
template <>
struct ShapeDimensions<RoundTube> {
  using S = RoundTube;
  static constexpr const char* name = "round tube";
  static constexpr ShapeDimension<S> all[] = {{"diameter", &S::diameter}, {"wall", &S::wall}};
};
template <>
struct ShapeDimensions<RoundBar> {
  using S = RoundBar;
  static constexpr const char* name = "round bar";
  static constexpr ShapeDimension<S> all[] = {{"diameter", &S::diameter}};
};
template <>
struct ShapeDimensions<RectangularBar> {
  using S = RectangularBar;
  static constexpr const char* name = "rectangular bar";
  static constexpr ShapeDimension<S> all[] = {{"height", &S::height}, {"width", &S::width}};
};
template <>
struct ShapeDimensions<IProfile> {
  using S = IProfile;
  static constexpr const char* name = "i profile";
  static constexpr ShapeDimension<S> all[] = {
      {"height", &S::height}, {"width", &S::width}, {"web", &S::web}, {"flange", &S::flange}, {"root", &S::root, true}};
};
template <>
struct ShapeDimensions<Channel> {
  using S = Channel;
  static constexpr const char* name = "channel";
  static constexpr ShapeDimension<S> all[] = {
      {"height", &S::height}, {"width", &S::width}, {"web", &S::web}, {"flange", &S::flange}, {"root", &S::root, true}};
};
template <>
struct ShapeDimensions<AngleProfile> {
  using S = AngleProfile;
  static constexpr const char* name = "angle";
  static constexpr ShapeDimension<S> all[] = {{"height", &S::height},
                                              {"width", &S::width},
                                              {"wall", &S::wall},
                                              {"root", &S::root, true},
                                              {"toe", &S::toe, true}};
};
template <>
struct ShapeDimensions<Tee> {
  using S = Tee;
  static constexpr const char* name = "tee";
  static constexpr ShapeDimension<S> all[] = {
      {"height", &S::height}, {"width", &S::width}, {"web", &S::web}, {"flange", &S::flange}, {"root", &S::root, true}};
};

template <class S>
concept HasDimensions = requires {
  ShapeDimensions<S>::all;
};

}  // namespace corvex::section
