#include <algorithm>
#include <cmath>

#include "corvex/catalogue.hpp"
#include "file/parts.hpp"

namespace corvex::file {
namespace {

class SectionReader : PartReader {
 public:
  explicit SectionReader(const Context& c) : PartReader(c) {}
  void run(const Node& n);

 private:
  void read_designation(const Node& name, const Node& n);
  std::optional<Shape> read_shape(const Node& name, const Node& n);
  std::optional<Shape> shape_of(std::size_t shape, const Node& name, const Node& n, const Node& kind);
  std::optional<Shape> read_outline(const Node& name, const Node& n);
  std::vector<Outline::Point> outline_points(const Node& n, std::string_view what);
  std::optional<Shape> read_properties(const Node& name, const Node& n);
};

void SectionReader::run(const Node& n) {
  if (!errors_.is_map(n, "sections")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const std::size_t before = errors_.count();
    if (value.is_text() && !value.is_empty()) {
      read_designation(key, value);
    } else if (const auto shape = read_shape(key, value); shape && errors_.count() == before) {
      structure_.section(std::string(key.text), *shape);
    }
    if (errors_.count() != before) names_.mark_broken(key.text);
  }
}

void SectionReader::read_designation(const Node& name, const Node& n) {
  const auto found = profile(n.text);
  if (found)
    structure_.section(std::string(name.text), *found);
  else
    errors_.fail(n, found.error());
}

const Keys outline_keys = {{"shape"}, {"points"}, {"holes"}};
const Keys property_keys = {{"shape"}, {"A"}, {"Iy"}, {"Iz"}, {"J"}, {"Wy"}, {"Wz"}, {"Ay"}, {"Az"}};

std::optional<Shape> SectionReader::read_shape(const Node& name, const Node& n) {
  const std::string where = fmt::format("section '{}'", name.text);
  if (!errors_.is_map(n, where)) return std::nullopt;
  const Node* kind = errors_.need(n, "shape", name, where);
  if (!kind) return std::nullopt;
  const auto shape = errors_.choice(*kind, "a shape",
                                    {{"square tube"},
                                     {"rectangular tube"},
                                     {"round tube"},
                                     {"round bar"},
                                     {"rectangular bar"},
                                     {"i profile"},
                                     {"channel"},
                                     {"angle"},
                                     {"tee"},
                                     {"outline"},
                                     {"properties"}});
  if (!shape) return std::nullopt;
  if (*shape == 9 || *shape == 10) {
    errors_.check_keys(n, fmt::format("{} {}", *shape == 9 ? "an" : "a", kind->text),
                       *shape == 9 ? outline_keys : property_keys);
    return *shape == 9 ? read_outline(name, n) : read_properties(name, n);
  }
  return shape_of(*shape, name, n, *kind);
}

// A shape of a few dimensions.
std::optional<Shape> SectionReader::shape_of(std::size_t shape, const Node& name, const Node& n, const Node& kind) {
  const auto dimension = [&](const char* key) {
    const Node* v = errors_.need(n, key, name, fmt::format("section '{}' ({})", name.text, kind.text));
    return Length::si(v ? quantities_.read(*v, units_.section).value_or(0) : 0);
  };
  // A radius; without it the corner is sharp.
  const auto radius = [&](const char* key) {
    const Node* v = tree_->find(n, key);
    return Length::si(v ? quantities_.read(*v, units_.section).value_or(0) : 0);
  };
  const auto keys = [&](Keys keys) {
    keys.insert(keys.begin(), {"shape"});
    errors_.check_keys(n, fmt::format("{} {}", kind.text.find_first_of("aeio") == 0 ? "an" : "a", kind.text), keys);
  };
  switch (shape) {
    case 0:
      keys({{"width"}, {"wall"}, {"corner"}});
      return SquareTube{dimension("width"), dimension("wall"), radius("corner"), {}};
    case 1:
      keys({{"height"}, {"width"}, {"wall"}, {"corner"}});
      return RectangularTube{dimension("height"), dimension("width"), dimension("wall"), radius("corner"), {}};
    case 2: keys({{"diameter"}, {"wall"}}); return RoundTube{dimension("diameter"), dimension("wall")};
    case 3: keys({{"diameter"}}); return RoundBar{dimension("diameter")};
    case 4: keys({{"height"}, {"width"}}); return RectangularBar{dimension("height"), dimension("width")};
    case 5:
      keys({{"height"}, {"width"}, {"web"}, {"flange"}, {"root"}});
      return IProfile{dimension("height"), dimension("width"), dimension("web"), dimension("flange"), radius("root")};
    case 6:
      keys({{"height"}, {"width"}, {"web"}, {"flange"}, {"root"}});
      return Channel{.height = dimension("height"),
                     .width = dimension("width"),
                     .web = dimension("web"),
                     .flange = dimension("flange"),
                     .root = radius("root")};
    case 7:
      keys({{"height"}, {"width"}, {"wall"}, {"root"}, {"toe"}});
      return AngleProfile{dimension("height"), dimension("width"), dimension("wall"), radius("root"), radius("toe")};
    default:
      keys({{"height"}, {"width"}, {"web"}, {"flange"}, {"root"}});
      return Tee{dimension("height"), dimension("width"), dimension("web"), dimension("flange"), radius("root")};
  }
}

std::vector<Outline::Point> SectionReader::outline_points(const Node& n, std::string_view what) {
  std::vector<Outline::Point> points;
  if (!errors_.is_list(n, what)) return points;
  for (const Node& p : tree_->children(n)) {
    if (!p.is_list() || p.count != 2) {
      errors_.fail(p, fmt::format("{}: a point was expected as [z, y], to the right and up, but this is {}", what,
                                  p.is_list() ? fmt::format("a list of {}", p.count) : kind_name(p)));
      continue;
    }
    const auto z = quantities_.read(tree_->children(p)[0], units_.section),
               y = quantities_.read(tree_->children(p)[1], units_.section);
    points.push_back({Length::si(z.value_or(0)), Length::si(y.value_or(0))});
  }
  return points;
}

std::optional<Shape> SectionReader::read_outline(const Node& name, const Node& n) {
  const std::string where = fmt::format("section '{}' (outline)", name.text);
  Outline outline;
  if (const Node* points = errors_.need(n, "points", name, where))
    outline.points = outline_points(*points, "the points of an outline");
  if (const Node* holes = tree_->find(n, "holes"); holes && errors_.is_list(*holes, "the holes of an outline"))
    for (const Node& hole : tree_->children(*holes))
      outline.holes.push_back(outline_points(hole, "the points of a hole"));
  return outline;
}

std::optional<Shape> SectionReader::read_properties(const Node& name, const Node& n) {
  const std::string where = fmt::format("section '{}'", name.text);
  // Under `units: {section: mm}` a bare area is in mm², a second moment in mm⁴.
  const auto given = [&](const char* key, int powers, const char* what, const char* example) -> std::optional<double> {
    const Node* v = tree_->find(n, key);
    if (!v) return std::nullopt;
    Wanted w{what, power(dimension::length, powers), example, "section"};
    if (units_.section_length) w.bare = std::pow(*units_.section_length, powers);
    return quantities_.read(*v, w);
  };
  const auto as = [](auto type, std::optional<double> v) {
    using Type = decltype(type);
    return v ? std::optional(Type::si(*v)) : std::nullopt;
  };
  errors_.need(n, "A", name, where);
  GivenProperties p;
  p.A = Area::si(given("A", 2, "an area", "12.8 cm^2").value_or(0));
  p.Iy = as(SecondMoment(), given("Iy", 4, "a second moment of area", "47.1 cm^4"));
  p.Iz = as(SecondMoment(), given("Iz", 4, "a second moment of area", "47.1 cm^4"));
  p.J = as(SecondMoment(), given("J", 4, "a torsion constant", "72.5 cm^4"));
  p.Wy = as(SectionModulus(), given("Wy", 3, "a section modulus", "15.7 cm^3"));
  p.Wz = as(SectionModulus(), given("Wz", 3, "a section modulus", "15.7 cm^3"));
  p.Ay = as(Area(), given("Ay", 2, "a shear area", "6.4 cm^2"));
  p.Az = as(Area(), given("Az", 2, "a shear area", "6.4 cm^2"));
  return p;
}

}  // namespace

void read_sections(const Context& c, const Node& n) {
  SectionReader(c).run(n);
}

}  // namespace corvex::file
