#include <algorithm>
#include <cmath>
#include <utility>
#include <variant>

#include "corvex/catalogue.hpp"
#include "file/parts.hpp"
#include "section/shape_dimensions.hpp"

namespace corvex::file {
namespace {

class SectionReader : PartReader {
 public:
  explicit SectionReader(const Context& c) : PartReader(c) {}
  void run(const Node& n);

 private:
  void read_designation(const Node& name, const Node& n);
  std::optional<Shape> read_shape(const Node& name, const Node& n);
  template <section::HasDimensions S>
  Shape read_dimensions(const Node& name, const Node& n);
  using ReadShape = Shape (SectionReader::*)(const Node& name, const Node& n);
  template <std::size_t... Index>
  void add_readers(std::vector<Key>& words, std::vector<ReadShape>& readers, std::index_sequence<Index...>) const;
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
  // The shapes of a few dimensions, then the two others.
  std::vector<Key> words;
  std::vector<ReadShape> readers;
  add_readers(words, readers, std::make_index_sequence<std::variant_size_v<Shape>>());
  words.push_back({"outline"}), words.push_back({"properties"});
  const auto shape = errors_.choice(*kind, "a shape", words);
  if (!shape) return std::nullopt;
  if (*shape < readers.size()) return (this->*readers[*shape])(name, n);
  const bool outline = *shape == readers.size();
  errors_.check_keys(n, fmt::format("{} {}", outline ? "an" : "a", kind->text), outline ? outline_keys : property_keys);
  return outline ? read_outline(name, n) : read_properties(name, n);
}

template <std::size_t... Index>
void SectionReader::add_readers(std::vector<Key>& words, std::vector<ReadShape>& readers,
                                std::index_sequence<Index...>) const {
  const auto add = [&]<class S>(const S*) {
    if constexpr (section::HasDimensions<S>) {
      words.push_back({section::ShapeDimensions<S>::name});
      readers.push_back(&SectionReader::read_dimensions<S>);
    }
  };
  (add(static_cast<const std::variant_alternative_t<Index, Shape>*>(nullptr)), ...);
}

// A shape of a few dimensions. Without a radius the corner is sharp.
template <section::HasDimensions S>
Shape SectionReader::read_dimensions(const Node& name, const Node& n) {
  using Dimensions = section::ShapeDimensions<S>;
  const std::string shape = Dimensions::name;
  Keys keys{{"shape"}};
  for (const auto& d : Dimensions::all) keys.push_back({d.key});
  errors_.check_keys(n, fmt::format("{} {}", shape.find_first_of("aeio") == 0 ? "an" : "a", shape), keys);
  S result;
  for (const auto& d : Dimensions::all) {
    const Node* v = d.is_radius ? tree_->find(n, d.key)
                                : errors_.need(n, d.key, name, fmt::format("section '{}' ({})", name.text, shape));
    result.*d.value = Length::si(v ? quantities_.read(*v, units_.section).value_or(0) : 0);
  }
  return result;
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
