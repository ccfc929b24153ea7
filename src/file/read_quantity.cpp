#include "file/reader.hpp"

namespace corvex::file {

std::optional<Evaluated> Reader::formula(const Node& n, std::string_view what) {
  if (!is_text(n, what)) return std::nullopt;
  const auto result = evaluate(n.text, parameters_);
  if (result) return result.value();
  if (!result.error().text.empty())
    fail(n, fmt::format("'{}': {}", n.text, result.error().text), result.error().offset);
  return std::nullopt;
}

std::optional<double> Reader::convert(const Node& n, const Evaluated& e, const Wanted& w) {
  const Quantity& q = e.quantity;
  // A plain number is not a length of one; an angle is not a force; but rad cancels against a plain number.
  const bool radians = e.units && compatible(q.dimension, w.dimension);
  if (q.dimension.none() && !w.dimension.none() && !radians) {
    if (q.si == 0) return 0.0;
    if (w.bare && !e.units) return q.si * *w.bare;
    std::string text =
        fmt::format("'{}' {}; {} was expected, as {}", n.text,
                    e.units ? "is a plain number, since its units cancel" : "has no unit", w.what, w.example);
    if (w.unit_key && !e.units) text += fmt::format(" (or name {} under units:)", w.unit_key);
    fail(n, std::move(text));
    return std::nullopt;
  }
  if (compatible(q.dimension, w.dimension)) return q.si;
  std::string text = fmt::format("'{}' is {}; {} was expected, as {}", n.text, name(q.dimension), w.what, w.example);
  if (compatible(q.dimension * dimension::acceleration, w.dimension) && n.text.find("lb") != std::string_view::npos)
    text += " (lb is a mass; the force is lbf)";
  fail(n, std::move(text));
  return std::nullopt;
}

std::optional<double> Reader::quantity(const Node& n, const Wanted& wanted) {
  const auto e = formula(n, wanted.what);
  if (!e) return std::nullopt;
  return convert(n, *e, wanted);
}

std::optional<double> Reader::position(const Node& n, double member_length) {
  const auto e = formula(n, "a place on the member");
  if (!e) return std::nullopt;
  if (e->quantity.dimension.plain() && e->percent) return e->quantity.si * member_length;
  return convert(n, *e, length_);
}

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

namespace {

const Keys direction_keys = {
    {"x"}, {"y"}, {"z"}, {"up"}, {"down"}, {"size", false}, {"angle", false}, {"toward", false}, {"axes", false}};

}  // namespace

std::optional<Vector> Reader::vector(const Node& n, const Wanted& wanted) {
  const std::size_t size = structure_.is_plane() ? 2 : 3;
  Vector v;
  if (n.is_list()) {
    const auto parts = tree_->children(n);
    if (parts.size() != size) {
      fail(n, fmt::format("{} components were expected in {}, but there are {}", size,
                          structure_.is_plane() ? "a plane structure" : "space", parts.size()));
      return std::nullopt;
    }
    bool ok = true;
    for (std::size_t i = 0; i < size; ++i) {
      const auto c = quantity(parts[i], wanted);
      ok = ok && c;
      if (c) add_direction(v, std::string_view("xyz").substr(i, 1), *c);
    }
    return ok ? std::optional(v) : std::nullopt;
  }
  if (n.is_map()) {
    const auto ends = directions(n, wanted, false);
    return ends ? std::optional(ends->first) : std::nullopt;
  }
  fail(n, fmt::format("a direction is missing: write {{down: {}}} or a list of {} components",
                      n.is_empty() ? wanted.example : std::string(n.text), size));
  return std::nullopt;
}

std::optional<std::pair<Vector, Vector>> Reader::vector_pair(const Node& n, const Wanted& wanted) {
  // [[…], […]]: the first vector and the last.
  if (n.is_list() && n.count == 2 && tree_->children(n)[0].is_list()) {
    const auto first = vector(tree_->children(n)[0], wanted), last = vector(tree_->children(n)[1], wanted);
    if (!first || !last) return std::nullopt;
    return std::pair(*first, *last);
  }
  if (n.is_map()) return directions(n, wanted, true);
  const auto v = vector(n, wanted);
  return v ? std::optional(std::pair(*v, *v)) : std::nullopt;
}

std::optional<std::pair<Vector, Vector>> Reader::directions(const Node& map, const Wanted& wanted, bool may_change) {
  if (!check_keys(map, "a direction", direction_keys)) return std::nullopt;
  if (map.count == 0) {
    fail(map, "a direction was expected, as {down: " + std::string(wanted.example) + "}");
    return std::nullopt;
  }
  Vector first, last;
  bool ok = true;
  for (std::size_t i = 0; i < tree_->entries(map); ++i) {
    const auto& [key, value] = tree_->entry(map, i);
    // A wrong key has been told; what stands behind it is not looked at.
    if (Vector ignored; !add_direction(ignored, key.text, 0)) {
      ok = false;
      continue;
    }
    const bool pair = may_change && value.is_list();
    if (pair && value.count != 2) {
      fail(value, fmt::format("a first and a last value were expected, but there are {}", value.count));
      ok = false;
      continue;
    }
    const auto a = quantity(pair ? tree_->children(value)[0] : value, wanted);
    const auto b = pair ? quantity(tree_->children(value)[1], wanted) : a;
    ok = ok && a && b && add_direction(first, key.text, *a) && add_direction(last, key.text, *b);
  }
  return ok ? std::optional(std::pair(first, last)) : std::nullopt;
}

}  // namespace corvex::file
