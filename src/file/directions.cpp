#include "file/directions.hpp"

#include "corvex/placement.hpp"

namespace corvex::file {
bool Directions::add(Vector& v, std::string_view key, double value) const {
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

std::optional<Vector> Directions::components(const Node& n, const Wanted& wanted) {
  const std::size_t size = structure_.is_plane() ? 2 : 3;
  const auto parts = tree_->children(n);
  if (parts.size() != size) {
    errors_.fail(n, fmt::format("{} components were expected in {}, but there are {}", size,
                                structure_.is_plane() ? "a plane structure" : "space", parts.size()));
    return std::nullopt;
  }
  Vector v;
  bool ok = true;
  for (std::size_t i = 0; i < size; ++i) {
    const auto c = quantities_.read(parts[i], wanted);
    ok = ok && c;
    if (c) add(v, std::string_view("xyz").substr(i, 1), *c);
  }
  return ok ? std::optional(v) : std::nullopt;
}

std::optional<Vector> Directions::vector(const Node& n, const Wanted& wanted) {
  const auto d = read(n, wanted, {});
  return d ? std::optional(d->first) : std::nullopt;
}

std::optional<Directed> Directions::read(const Node& n, const Wanted& wanted, const DirectionRules& rules) {
  // [[…], […]]: the first vector and the last.
  if (rules.may_change && n.is_list() && n.count == 2 && tree_->children(n)[0].is_list()) {
    const auto first = components(tree_->children(n)[0], wanted);
    const Node& second = tree_->children(n)[1];
    const auto last = errors_.is_list(second, "the last vector") ? components(second, wanted) : std::nullopt;
    if (!first || !last) return std::nullopt;
    return Directed{*first, *last};
  }
  if (n.is_map()) return from_map(n, wanted, rules);
  if (n.is_list()) {
    const auto v = components(n, wanted);
    return v ? std::optional(Directed{*v, *v}) : std::nullopt;
  }
  errors_.fail(n, fmt::format("a direction is missing: write {{down: {}}} or a list of {} components",
                              n.is_empty() ? wanted.example : std::string(n.text), structure_.is_plane() ? 2 : 3));
  return std::nullopt;
}

std::optional<Directed> Directions::from_map(const Node& map, const Wanted& wanted, const DirectionRules& rules) {
  static const Keys keys = {{"x"}, {"y"}, {"z"}, {"up"}, {"down"}, {"size"}, {"angle"}, {"toward"}, {"axes"}};
  if (!errors_.check_keys(map, "a direction", keys)) return std::nullopt;
  Directed d;
  if (const Node* axes = tree_->find(map, "axes")) {
    if (!rules.on_member) {
      errors_.fail(*axes, "only loads on members can be given in a member's axes");
      return std::nullopt;
    }
    const auto c = errors_.choice(*axes, "whose axes", {{"member"}, {"global"}});
    if (!c) return std::nullopt;
    d.axes = *c == 0 ? LoadAxes::member : LoadAxes::global;
  }
  if (tree_->find(map, "size")) return sized(map, wanted, rules, d);
  for (const std::string_view key : {"angle", "toward"})
    if (const Node* k = tree_->find_key(map, key)) {
      errors_.fail(*k, fmt::format("'{}' needs 'size', for example {{size: {}, {}: …}}", key, wanted.example, key));
      return std::nullopt;
    }
  bool ok = true, any = false;
  for (std::size_t i = 0; i < tree_->entries(map); ++i) {
    const auto& [key, value] = tree_->entry(map, i);
    if (key.text == "axes") continue;
    any = true;
    // A wrong key has been told; what stands behind it is not looked at.
    if (Vector ignored; !add(ignored, key.text, 0)) {
      ok = false;
      continue;
    }
    if (d.axes == LoadAxes::member && (key.text == "up" || key.text == "down")) {
      errors_.fail(key, fmt::format("'{}' is a global direction; in the member's axes there are x, y, z", key.text));
      ok = false;
      continue;
    }
    const auto v = quantities_.first_and_last(value, wanted, rules.may_change);
    ok = ok && v && add(d.first, key.text, v->first) && add(d.last, key.text, v->second);
  }
  if (!any) {
    errors_.fail(map, "a direction was expected, for example {down: " + std::string(wanted.example) + "}");
    return std::nullopt;
  }
  return ok ? std::optional(d) : std::nullopt;
}

// A size with an angle, or toward a point.
std::optional<Directed> Directions::sized(const Node& map, const Wanted& wanted, const DirectionRules& rules,
                                          Directed d) {
  for (std::size_t i = 0; i < tree_->entries(map); ++i) {
    const Node& key = tree_->entry(map, i).key;
    if (key.text == "size" || key.text == "angle" || key.text == "toward" || key.text == "axes") continue;
    errors_.fail(key, fmt::format("'{}' does not go with 'size'", key.text));
    return std::nullopt;
  }
  const Node *angle = tree_->find(map, "angle"), *toward = tree_->find(map, "toward");
  if (!angle == !toward) {
    errors_.fail(map, "'size' needs either 'angle' or 'toward'");
    return std::nullopt;
  }
  const auto size = quantities_.first_and_last(*tree_->find(map, "size"), wanted, rules.may_change);
  Vector unit;
  if (angle) {
    if (!structure_.is_plane()) {
      errors_.fail(*angle,
                   "an angle defines a direction in a plane only; in space give components, or 'toward' a point");
      return std::nullopt;
    }
    const auto turn = quantities_.read(*angle, units_.angle);
    if (!turn) return std::nullopt;
    unit = polar({}, Length::si(1), Angle::si(*turn));
  } else {
    const auto point = names_.point(*toward);
    if (!rules.place) {
      errors_.fail(*toward, "'toward' needs a load that acts at one place");
      return std::nullopt;
    }
    if (d.axes == LoadAxes::member) {
      errors_.fail(*toward, "'toward' is a direction already; it does not go with 'axes'");
      return std::nullopt;
    }
    if (!point) return std::nullopt;
    const Vector way = structure_[*point].position - *rules.place;
    if (!(length(way) > 0)) {
      errors_.fail(*toward, fmt::format("the load acts at {} itself: there is no direction toward it", toward->text));
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
