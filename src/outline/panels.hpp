// The outline cut into panels for the boundary integral equation: short near corners, long where nothing is near.
#pragma once

#include <optional>

#include "outline/outline.hpp"

namespace corvex::section {

// A turn (rad) below this one between two sides is that of a curve drawn by straight lines.
inline constexpr double least_corner = 0.35;

struct Panel {
  Edge edge;
  // Which edge of the region it is a piece of, and from where to where.
  std::size_t contour = 0, of = 0;
  double from = -1, to = 1;
};

// A built-in tube: its torsion is the area that it encloses, whatever its corners do. A drawn outline with holes may be
// one, or an open one with holes in its wall.
inline bool is_tube(const Region& region) {
  return region.contours.size() > 1 && !region.drawn;
}

// Of a place from an edge.
double distance(Complex p, const Edge& e);

// With a finer grading, panels are shorter by that factor and corners are approached further. Where the region is
// its own mirror image only the part with z ≥ 0 and y ≥ 0 is cut up.
std::vector<Panel> panels(const Region& region, double grading);

}  // namespace corvex::section
