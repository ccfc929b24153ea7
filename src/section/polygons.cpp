#include "corvex/section.hpp"
#include "section/region.hpp"

namespace corvex {

std::vector<std::vector<Outline::Point>> outline_polygons(const Section& section, int pieces_of_arc) {
  std::vector<std::vector<Outline::Point>> polygons;
  const auto region = section::region(section.shape());
  if (!region) return polygons;
  for (const section::Contour& contour : region->contours) {
    auto& points = polygons.emplace_back();
    for (const section::Edge& e : contour) {
      const int n = e.is_arc() ? std::max(pieces_of_arc, 1) : 1;
      for (int i = 0; i < n; ++i) {
        const section::Complex p = e.at(-1 + 2.0 * i / n);
        points.push_back({.z = Length::si(p.real()), .y = Length::si(p.imag())});
      }
    }
  }
  return polygons;
}

}  // namespace corvex
