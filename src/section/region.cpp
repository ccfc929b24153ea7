#include "section/region.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "outline/area.hpp"

namespace corvex::section {
namespace {

Contour reversed(const Contour& c) {
  Contour back;
  for (auto e = c.rbegin(); e != c.rend(); ++e) back.push_back({e->to, e->from, e->centre, -e->sweep});
  return back;
}

Contour rectangle(double height, double width, double radius) {
  const double y = height / 2, z = width / 2;
  return rounded({{{-z, -y}, radius}, {{z, -y}, radius}, {{z, y}, radius}, {{-z, y}, radius}});
}

Contour circle(double radius) {
  Contour c;
  const Complex quarter[] = {{radius, 0}, {0, radius}, {-radius, 0}, {0, -radius}};
  for (int i = 0; i < 4; ++i) c.push_back({quarter[i], quarter[(i + 1) % 4], {}, std::numbers::pi / 2});
  return c;
}

Region tube(double height, double width, double wall, double corner, std::optional<Length> inside) {
  const double inner = inside ? inside->si() : std::max(corner - wall, 0.0);
  return {
      {rectangle(height, width, corner), reversed(rectangle(height - 2 * wall, width - 2 * wall, inner))}, true, true};
}

// Counter-clockwise whichever way it was drawn, or clockwise for a hole.
Contour polygon(const std::vector<Outline::Point>& points, bool hole) {
  std::vector<Corner> corners;
  double twice_area = 0;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const Outline::Point &a = points[i], &b = points[(i + 1) % points.size()];
    corners.push_back({{a.z.si(), a.y.si()}});
    twice_area += (a.z.si() - points[0].z.si()) * (b.y.si() - points[0].y.si()) -
                  (b.z.si() - points[0].z.si()) * (a.y.si() - points[0].y.si());
  }
  if ((twice_area > 0) == hole) std::reverse(corners.begin(), corners.end());
  // A point on a straight side is not a corner.
  std::vector<Corner> turning;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Complex before = corners[i].at - corners[(i + corners.size() - 1) % corners.size()].at,
                  after = corners[(i + 1) % corners.size()].at - corners[i].at;
    if (std::abs(std::arg(after / before)) > 1e-9) turning.push_back(corners[i]);
  }
  if (turning.size() > 2) corners = std::move(turning);
  return rounded(corners);
}

struct Draw {
  Region operator()(const SquareTube& s) const {
    return tube(s.width.si(), s.width.si(), s.wall.si(), s.corner.si(), s.inside_corner);
  }
  Region operator()(const RectangularTube& s) const {
    return tube(s.height.si(), s.width.si(), s.wall.si(), s.corner.si(), s.inside_corner);
  }
  Region operator()(const RoundTube& s) const {
    return {{circle(s.diameter.si() / 2), reversed(circle(s.diameter.si() / 2 - s.wall.si()))}, true, true};
  }
  Region operator()(const RoundBar& s) const { return {{circle(s.diameter.si() / 2)}, true, true}; }
  Region operator()(const RectangularBar& s) const { return {{rectangle(s.height.si(), s.width.si(), 0)}, true, true}; }
  Region operator()(const IProfile& s) const {
    const double y = s.height.si() / 2, z = s.width.si() / 2, w = s.web.si() / 2, f = y - s.flange.si(),
                 r = s.root.si();
    return {{rounded({{{-z, -y}},
                      {{z, -y}},
                      {{z, -f}},
                      {{w, -f}, r},
                      {{w, f}, r},
                      {{z, f}},
                      {{z, y}},
                      {{-z, y}},
                      {{-z, f}},
                      {{-w, f}, r},
                      {{-w, -f}, r},
                      {{-z, -f}}})},
            true,
            true};
  }
  Region operator()(const Channel& s) const {
    const double y = s.height.si() / 2, b = s.width.si(), w = s.web.si(), r = s.root.si(), toe = s.toe.si();
    const double tip = y - (s.flange.si() - s.slope * s.flange_at.si());
    const double root = y - (s.flange.si() + s.slope * (b - w - s.flange_at.si()));
    return {{rounded({{{0, -y}},
                      {{b, -y}},
                      {{b, -tip}, toe},
                      {{w, -root}, r},
                      {{w, root}, r},
                      {{b, tip}, toe},
                      {{b, y}},
                      {{0, y}}})},
            false,
            true};
  }
  Region operator()(const AngleProfile& s) const {
    const double h = s.height.si(), b = s.width.si(), t = s.wall.si(), toe = s.toe.si();
    return {{rounded({{{0, 0}}, {{b, 0}}, {{b, t}, toe}, {{t, t}, s.root.si()}, {{t, h}, toe}, {{0, h}}})}};
  }
  Region operator()(const Tee& s) const {
    const double h = s.height.si(), z = s.width.si() / 2, w = s.web.si() / 2, f = h - s.flange.si(), r = s.root.si();
    return {{rounded({{{-w, 0}}, {{w, 0}}, {{w, f}, r}, {{z, f}}, {{z, h}}, {{-z, h}}, {{-z, f}}, {{-w, f}, r}})},
            true,
            false};
  }
  Region operator()(const Outline& s) const {
    Region r{.contours = {polygon(s.points, false)}, .drawn = true};
    for (const auto& hole : s.holes) r.contours.push_back(polygon(hole, true));
    return r;
  }
  Region operator()(const GivenProperties&) const { return {}; }
};

// The mirror image of a polygon in one of the lines is the other polygon, corner by corner.
template <class Mirror>
bool is_image(const Contour& a, const Contour& b, const Mirror& mirror, double tiny) {
  const std::size_t n = a.size();
  if (b.size() != n) return false;
  const auto same = [&](Complex p, Complex q) { return std::abs(p - q) <= tiny; };
  for (std::size_t first = 0; first < n; ++first) {
    if (!same(b[first].from, mirror(a[0].from))) continue;
    std::size_t k = 1;
    // A mirror turns the sense of going round.
    while (k < n && same(b[(first + n - k) % n].from, mirror(a[k].from))) ++k;
    return k == n;
  }
  return false;
}

template <class Mirror>
bool is_own_image(const Region& r, const Mirror& mirror, double tiny) {
  return std::all_of(r.contours.begin(), r.contours.end(), [&](const Contour& a) {
    return std::any_of(r.contours.begin(), r.contours.end(),
                       [&](const Contour& b) { return is_image(a, b, mirror, tiny); });
  });
}

// For a drawn outline with its centroid at the origin.
void find_symmetry(Region& r) {
  const Extent x = extent(r);
  const double tiny = 1e-10 * std::hypot(x.right - x.left, x.top - x.bottom);
  r.left_right = is_own_image(
      r, [](Complex p) { return -std::conj(p); }, tiny);
  r.up_down = is_own_image(
      r, [](Complex p) { return std::conj(p); }, tiny);
}

}  // namespace

std::optional<Region> region(const Shape& shape) {
  Region r = std::visit(Draw(), shape);
  if (r.contours.empty()) return std::nullopt;
  Complex centroid = area_moments(r).centroid;
  // A line of symmetry stays where it is, to the last digit.
  if (r.left_right) centroid.real(0);
  if (r.up_down) centroid.imag(0);
  r.move(-centroid);
  if (r.drawn) find_symmetry(r);
  return r;
}

}  // namespace corvex::section
