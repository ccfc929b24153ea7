#include "modes/mode_shapes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace corvex::solver {

ModeShape shape_of(const Structure& s, const Spans& spans, const FoundMode& found) {
  ModeShape shape;
  double most = 0;
  const auto offer = [&](const Vector& v) { most = std::max(most, length(v)); };
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    std::vector<ModeShape::Place>& places = shape.members.emplace_back();
    double own = 0;
    for (std::size_t k = spans.first[i]; k < spans.first[i + 1]; ++k) {
      const Eigen::VectorXd& by = found.spans[k];
      const Eigen::Index n = by.size() / 3;
      for (Eigen::Index j = places.empty() ? 0 : 1; j < n; ++j) {
        const double at =
            spans.all[k].start + spans.all[k].length * static_cast<double>(j) / static_cast<double>(n - 1);
        places.push_back({at, {by(3 * j), by(3 * j + 1), by(3 * j + 2)}});
        own = std::max(own, length(places.back().by));
      }
    }
    if (own > most * (1 + 1e-9)) most = own, shape.member_of_largest = i;
  }
  for (const Six& p : found.points) offer({p[0], p[1], p[2]});
  // The largest component counts positive, so that the same shape has the same sign.
  double sign = 1, largest = 0;
  const auto look = [&](double v) {
    if (std::abs(v) > largest * (1 + 1e-6)) largest = std::abs(v), sign = v < 0 ? -1 : 1;
  };
  for (const auto& member : shape.members)
    for (const ModeShape::Place& p : member) look(p.by.x), look(p.by.y), look(p.by.z);
  const double scale = most > 0 ? sign / most : 0;
  for (auto& member : shape.members)
    for (ModeShape::Place& p : member) p.by = p.by * scale;
  for (const Six& p : found.points)
    shape.points.push_back({Length::si(p[0] * scale), Length::si(p[1] * scale), Length::si(p[2] * scale),
                            Angle::si(p[3] * scale), Angle::si(p[4] * scale), Angle::si(p[5] * scale)});
  return shape;
}

Bow bow_of(const Structure& s, std::size_t member, const ModeShape& shape) {
  const auto& places = shape.members[member];
  Bow bow;
  if (places.size() < 3) return bow;
  const Axes axes = local_axes(s, s.members()[member]);
  const Vector first = axes.local(places.front().by), last = axes.local(places.back().by);
  for (const ModeShape::Place& p : places) {
    const double share = (p.at - places.front().at) / (places.back().at - places.front().at);
    const Vector v = axes.local(p.by);
    bow.y = std::max(bow.y, std::abs(v.y - first.y - (last.y - first.y) * share));
    bow.z = std::max(bow.z, std::abs(v.z - first.z - (last.z - first.z) * share));
  }
  return bow;
}

// "sway of 'C' along x", "bending of 'post' about its y axis".
std::string described(const Structure& s, const ModeShape& shape) {
  std::size_t most_point = 0, most_member = 0;
  double moved = 0, bowed = 0, swayed = 0;
  for (std::size_t p = 0; p < shape.points.size(); ++p) {
    const Displacement& d = shape.points[p];
    const double by = std::hypot(d.x.si(), d.y.si(), d.z.si());
    if (by > moved * (1 + 1e-9)) moved = by, most_point = p;
  }
  Bow most;
  for (std::size_t i = 0; i < shape.members.size(); ++i) {
    const Bow b = bow_of(s, i, shape);
    if (std::hypot(b.y, b.z) > bowed * (1 + 1e-9)) bowed = std::hypot(b.y, b.z), most_member = i, most = b;
    // Relative transverse displacement of its ends.
    const auto& places = shape.members[i];
    if (places.size() < 2) continue;
    const Vector ends = local_axes(s, s.members()[i]).local(places.back().by - places.front().by);
    swayed = std::max(swayed, std::hypot(ends.y, ends.z));
  }
  if (!(bowed > 0) && !(swayed > 0)) return "rotation of joints";
  if (bowed >= swayed) {
    const bool about_z = most.y >= most.z;
    return fmt::format("bending of '{}' about its {} axis", s.members()[most_member].name, about_z ? "z" : "y");
  }
  const Displacement& d = shape.points[most_point];
  const double by[] = {std::abs(d.x.si()), std::abs(d.y.si()), std::abs(d.z.si())};
  std::string directions;
  for (std::size_t k = 0; k < 3; ++k)
    if (by[k] >= 0.5 * *std::max_element(by, by + 3))
      directions += (directions.empty() ? "" : " and ") + std::string(1, "xyz"[k]);
  return fmt::format("sway of '{}' along {}", s.points()[most_point].name, directions);
}

}  // namespace corvex::solver
