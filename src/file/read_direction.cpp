// Directions: of loads, of steps between points, of rigid arms.
#include "corvex/placement.hpp"
#include "file/reader.hpp"

namespace corvex::file {

bool Reader::add_direction(Vector& v, std::string_view key, double value) const {
  if (key == "x")
    v.x += value;
  else if (key == "y")
    v.y += value;
  else if (key == "z")
    v.z += value;
  else if (key == "up")
    v += structure_.up_direction() * value;
  else if (key == "down")
    v += structure_.up_direction() * -value;
  else
    return false;
  return true;
}

std::optional<Vector> Reader::components(const Node& n, const Wanted& wanted) {
  const std::size_t size = structure_.is_plane() ? 2 : 3;
  const auto parts = tree_->children(n);
  if (parts.size() != size) {
    fail(n, fmt::format("{} components were expected in {}, but there are {}", size,
                        structure_.is_plane() ? "a plane structure" : "space", parts.size()));
    return std::nullopt;
  }
  Vector v;
  bool ok = true;
  for (std::size_t i = 0; i < size; ++i) {
    const auto c = quantity(parts[i], wanted);
    ok = ok && c;
    if (c) add_direction(v, std::string_view("xyz").substr(i, 1), *c);
  }
  return ok ? std::optional(v) : std::nullopt;
}

std::optional<Vector> Reader::vector(const Node& n, const Wanted& wanted) {
  const auto d = direction(n, wanted, {});
  return d ? std::optional(d->first) : std::nullopt;
}

std::optional<Reader::Directed> Reader::direction(const Node& n, const Wanted& wanted, const DirectionRules& rules) {
  // [[…], […]]: the first vector and the last.
  if (rules.may_change && n.is_list() && n.count == 2 && tree_->children(n)[0].is_list()) {
    const auto first = components(tree_->children(n)[0], wanted);
    const Node& second = tree_->children(n)[1];
    const auto last = is_list(second, "the last vector") ? components(second, wanted) : std::nullopt;
    if (!first || !last) return std::nullopt;
    return Directed{*first, *last};
  }
  if (n.is_map()) return direction_map(n, wanted, rules);
  if (n.is_list()) {
    const auto v = components(n, wanted);
    return v ? std::optional(Directed{*v, *v}) : std::nullopt;
  }
  fail(n, fmt::format("a direction is missing: write {{down: {}}} or a list of {} components",
                      n.is_empty() ? wanted.example : std::string(n.text), structure_.is_plane() ? 2 : 3));
  return std::nullopt;
}

std::optional<std::pair<double, double>> Reader::values(const Node& n, const Wanted& wanted, bool may_change) {
  const bool pair = may_change && n.is_list();
  if (pair && n.count != 2) {
    fail(n, fmt::format("a first and a last value were expected, but there are {}", n.count));
    return std::nullopt;
  }
  const auto a = quantity(pair ? tree_->children(n)[0] : n, wanted);
  const auto b = pair ? quantity(tree_->children(n)[1], wanted) : a;
  return a && b ? std::optional(std::pair(*a, *b)) : std::nullopt;
}

std::optional<Reader::Directed> Reader::direction_map(const Node& map, const Wanted& wanted,
                                                      const DirectionRules& rules) {
  static const Keys keys = {{"x"}, {"y"}, {"z"}, {"up"}, {"down"}, {"size"}, {"angle"}, {"toward"}, {"axes"}};
  if (!check_keys(map, "a direction", keys)) return std::nullopt;
  Directed d;
  if (const Node* axes = tree_->find(map, "axes")) {
    if (!rules.on_member) {
      fail(*axes, "only loads on members can be given in a member's axes");
      return std::nullopt;
    }
    const auto c = choice(*axes, "whose axes", {{"member"}, {"global"}});
    if (!c) return std::nullopt;
    d.axes = *c == 0 ? LoadAxes::member : LoadAxes::global;
  }
  if (tree_->find(map, "size")) return sized(map, wanted, rules, d);
  for (const std::string_view key : {"angle", "toward"})
    if (const Node* k = tree_->find_key(map, key)) {
      fail(*k, fmt::format("'{}' goes with 'size', as {{size: {}, {}: …}}", key, wanted.example, key));
      return std::nullopt;
    }
  bool ok = true, any = false;
  for (std::size_t i = 0; i < tree_->entries(map); ++i) {
    const auto& [key, value] = tree_->entry(map, i);
    if (key.text == "axes") continue;
    any = true;
    // A wrong key has been told; what stands behind it is not looked at.
    if (Vector ignored; !add_direction(ignored, key.text, 0)) {
      ok = false;
      continue;
    }
    if (d.axes == LoadAxes::member && (key.text == "up" || key.text == "down")) {
      fail(key, fmt::format("'{}' is a global direction; in the member's axes there are x, y, z", key.text));
      ok = false;
      continue;
    }
    const auto v = values(value, wanted, rules.may_change);
    ok = ok && v && add_direction(d.first, key.text, v->first) && add_direction(d.last, key.text, v->second);
  }
  if (!any) {
    fail(map, "a direction was expected, as {down: " + std::string(wanted.example) + "}");
    return std::nullopt;
  }
  return ok ? std::optional(d) : std::nullopt;
}

// A size with an angle, or toward a point.
std::optional<Reader::Directed> Reader::sized(const Node& map, const Wanted& wanted, const DirectionRules& rules,
                                              Directed d) {
  for (std::size_t i = 0; i < tree_->entries(map); ++i) {
    const Node& key = tree_->entry(map, i).key;
    if (key.text == "size" || key.text == "angle" || key.text == "toward" || key.text == "axes") continue;
    fail(key, fmt::format("'{}' does not go with 'size'", key.text));
    return std::nullopt;
  }
  const Node *angle = tree_->find(map, "angle"), *toward = tree_->find(map, "toward");
  if (!angle == !toward) {
    fail(map, "with 'size' goes either 'angle' or 'toward'");
    return std::nullopt;
  }
  const auto size = values(*tree_->find(map, "size"), wanted, rules.may_change);
  Vector unit;
  if (angle) {
    if (!structure_.is_plane()) {
      fail(*angle, "an angle tells a direction in the plane only; in space give components, or 'toward' a point");
      return std::nullopt;
    }
    const auto turn = quantity(*angle, angle_);
    if (!turn) return std::nullopt;
    unit = polar({}, Length::si(1), Angle::si(*turn));
  } else {
    const auto point = point_named(*toward);
    if (!rules.place) {
      fail(*toward, "'toward' goes with a load that stands at one place");
      return std::nullopt;
    }
    if (d.axes == LoadAxes::member) {
      fail(*toward, "'toward' is a direction already; it does not go with 'axes'");
      return std::nullopt;
    }
    if (!point) return std::nullopt;
    const Vector way = structure_[*point].position - *rules.place;
    if (!(length(way) > 0)) {
      fail(*toward, fmt::format("the load stands at {} itself: there is no direction toward it", toward->text));
      return std::nullopt;
    }
    unit = way / length(way);
  }
  if (!size) return std::nullopt;
  d.first = unit * size->first;
  d.last = unit * size->second;
  return d;
}

}  // namespace corvex::file
