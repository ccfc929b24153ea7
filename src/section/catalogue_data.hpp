// Nominal dimensions of the standards, in mm.
#pragma once

#include <initializer_list>
#include <vector>

namespace corvex::section {

// Named sizes: "IPE 200" is size 200 of its series.
struct ISize {
  double size, height, width, web, flange, root;
};
const std::vector<ISize>& ipe();
const std::vector<ISize>& hea();
const std::vector<ISize>& heb();
const std::vector<ISize>& hem();

struct ChannelSize {
  double size, height, width, web, flange, root;
  // Of tapered flanges: the radius of the toe; their slope and where the thickness is measured follow from the height.
  double toe = 0;
};
const std::vector<ChannelSize>& upe();
const std::vector<ChannelSize>& upn();

// Legs with the walls that they come with; the toe's radius is half of the root's.
struct AngleSize {
  double height, width, root;
  std::vector<double> walls;
};
const std::vector<AngleSize>& angles();

struct HollowSize {
  double height, width;
  std::vector<double> walls;
};
const std::vector<HollowSize>& cold_hollow();
const std::vector<HollowSize>& hot_hollow();
// Of inch sizes, in inches.
const std::vector<HollowSize>& inch_hollow();

struct RoundSize {
  double diameter;
  std::vector<double> walls;
};
const std::vector<RoundSize>& round_hollow();

struct FlatSize {
  double width;
  std::vector<double> thicknesses;
};
const std::vector<FlatSize>& flats();
const std::vector<double>& square_bars();
const std::vector<double>& round_bars();

// A pipe: nominal sizes in inches ("1 1/2") and millimetres, outside diameter, and its walls by name.
struct PipeWall {
  const char* name;
  double wall;
  double diameter = 0;  // outside, where it is not that of the size
};
struct PipeSize {
  const char* inches;
  double dn, diameter;
  std::vector<PipeWall> walls;
};
const std::vector<PipeSize>& pipes();

}  // namespace corvex::section
