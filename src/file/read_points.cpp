// Points: coordinates, places found from other points in any order, families, a table.
#include <algorithm>

#include "corvex/placement.hpp"
#include "file/bounds.hpp"
#include "file/entry_order.hpp"
#include "file/parts.hpp"
#include "structure/words.hpp"

namespace corvex::file {
namespace {

// "feet.3" is of the family "feet"; empty if the name has no number behind a dot.
std::string_view family_of(std::string_view name) {
  const std::size_t dot = name.rfind('.');
  const bool number = dot != std::string_view::npos && dot + 1 < name.size() &&
                      name.find_first_not_of("0123456789", dot + 1) == std::string_view::npos;
  return number ? name.substr(0, dot) : std::string_view();
}

struct PointEntry {
  enum class State { unread, reading, done, broken };
  std::size_t index = 0;
  State state = State::unread;
  bool family = false;
  std::vector<std::string> base{}, made{};
  std::size_t step = 0;  // points in one copy
};

class PointReader : PartReader {
 public:
  PointReader(const Context& c, TablesBeside& tables) : PartReader(c), tables_(tables) {}
  void run(const Node* n);

 private:
  void find_in_order(const Node& points);
  PointFamily family(const PointEntry& entry) const;
  const PointEntry* placed(const Node& points, std::string_view name);
  std::optional<Vector> place_named(const Node& points, const Node& n);
  std::vector<std::string> names_of(const Node& points, const Node& n);
  bool place(const Node& points, const Node& name, const Node& n, PointEntry& e);
  std::optional<Vector> point_from(const Node& points, const Node& name, const Node& n);
  std::optional<Vector> point_between(const Node& points, const Node& name, const Node& n);
  bool mirror(const Node& points, const Node& name, const Node& n, PointEntry& e);
  bool repeat(const Node& points, const Node& name, const Node& n, PointEntry& e);

  bool fits(const Node& at, std::size_t more);

  TablesBeside& tables_;
  std::map<std::string_view, PointEntry> entries_;
  std::map<std::string, Vector, std::less<>> places_;  // of points
};

void PointReader::run(const Node* n) {
  for (const auto& row : tables_.points) {
    const std::string name(row[0].text);
    const std::size_t before = errors_.count();
    Vector v;
    double* const parts[] = {&v.x, &v.y, &v.z};
    for (std::size_t k = 0; k < (structure_.is_plane() ? 2u : 3u); ++k)
      *parts[k] =
          errors_.in_file(tables_.files.at("points"), [&] { return quantities_.read(row[1 + k], units_.length); })
              .value_or(0);
    if (errors_.count() > before) {
      names_.mark_broken(name);
      continue;
    }
    places_[name] = v;
    tables_.places["point " + name] = {tables_.files.at("points"), static_cast<int>(row[0].line),
                                       static_cast<int>(row[0].column)};
    structure_.point(name, v);
  }
  if (!n) return;
  for (std::size_t i = 0; i < tree_->entries(*n); ++i) entries_.emplace(tree_->entry(*n, i).key.text, PointEntry{i});
  find_in_order(*n);
  for (std::size_t i = 0; i < tree_->entries(*n); ++i) {
    const std::string name(tree_->entry(*n, i).key.text);
    const PointEntry* entry = placed(*n, name);
    if (!entry) {
      names_.mark_broken(name);
      continue;
    }
    for (const std::string& made : entry->made) structure_.point(made, places_.find(made)->second);
  }
  for (const auto& [name, entry] : entries_)
    if (entry.family && entry.state == PointEntry::State::done) {
      names_.point_families[std::string(name)] = family(entry);
      structure_.family(std::string(name), names_.point_families[std::string(name)].members);
    }
}

// Points that are found from others after these, however long the chain.
void PointReader::find_in_order(const Node& points) {
  const auto needs = [&](std::size_t i) {
    std::vector<std::size_t> all;
    const auto add = [&](const Node& n) {
      if (!n.is_text()) return;
      for (const std::string_view name : {n.text, family_of(n.text)})
        if (const auto it = entries_.find(name); it != entries_.end()) {
          all.push_back(it->second.index);
          return;
        }
    };
    const Node& value = tree_->entry(points, i).value;
    for (const char* key : {"from", "mirror", "repeat"})
      if (const Node* n = tree_->find(value, key)) add(*n);
    if (const Node* ends = tree_->find(value, "between"); ends && ends->is_list())
      for (const Node& n : tree_->children(*ends)) add(n);
    return all;
  };
  visit_in_order(
      tree_->entries(points), needs, [&](std::size_t i) { placed(points, tree_->entry(points, i).key.text); },
      [&](std::size_t i) {
        const Node& key = tree_->entry(points, i).key;
        PointEntry& e = entries_.find(key.text)->second;
        if (e.state != PointEntry::State::broken)
          errors_.fail(key, fmt::format("point '{}' refers to itself", key.text));
        e.state = PointEntry::State::broken;
      });
}

PointFamily PointReader::family(const PointEntry& entry) const {
  PointFamily f;
  f.step = entry.step;
  for (const std::string& made : entry.made) f.members.push_back(*structure_.find_point(made));
  for (const std::string& base : entry.base)
    if (const auto id = structure_.find_point(base)) f.sequence.push_back(*id);
  f.sequence.insert(f.sequence.end(), f.members.begin(), f.members.end());
  for (std::size_t i = 0; i < f.sequence.size(); ++i) f.place.emplace(f.sequence[i].index, i);
  return f;
}

// The entry with its places worked out, those that it needs first; null if it is wrong.
const PointEntry* PointReader::placed(const Node& points, std::string_view name) {
  const auto it = entries_.find(name);
  if (it == entries_.end()) return nullptr;
  PointEntry& e = it->second;
  const Entry entry = tree_->entry(points, e.index);
  if (e.state == PointEntry::State::unread) {
    e.state = PointEntry::State::reading;
    const bool sound = place(points, entry.key, entry.value, e);
    if (e.state == PointEntry::State::reading) e.state = sound ? PointEntry::State::done : PointEntry::State::broken;
  }
  return e.state == PointEntry::State::done ? &e : nullptr;
}

std::optional<Vector> PointReader::place_named(const Node& points, const Node& n) {
  if (!errors_.is_text(n, "the name of a point")) return std::nullopt;
  for (const std::string_view name : {n.text, family_of(n.text)}) {
    const auto it = entries_.find(name);
    if (it == entries_.end()) continue;
    const PointEntry* entry = placed(points, name);
    if (!entry) return std::nullopt;
    if (name == n.text && entry->family) {
      errors_.fail(n,
                   fmt::format("'{}' is a family of points; one of them was expected, for example '{}.1'", name, name));
      return std::nullopt;
    }
    break;
  }
  if (const auto it = places_.find(n.text); it != places_.end()) return it->second;
  if (names_.is_marked(n.text)) return std::nullopt;
  std::vector<std::string> names;
  if (errors_.wants_hints()) {
    for (const auto& [name, entry] : entries_) names.emplace_back(name);
    for (const auto& [name, where] : places_)
      if (!entries_.contains(name)) names.push_back(name);
  }
  errors_.unknown(n, "point", names);
  return std::nullopt;
}

// The points of a name: one, or all of a family.
std::vector<std::string> PointReader::names_of(const Node& points, const Node& n) {
  if (!errors_.is_text(n, "the name of a point")) return {};
  if (entries_.contains(n.text)) {
    const PointEntry* entry = placed(points, n.text);
    return entry ? entry->made : std::vector<std::string>{};
  }
  return place_named(points, n) ? std::vector<std::string>{std::string(n.text)} : std::vector<std::string>{};
}

bool PointReader::place(const Node& points, const Node& name, const Node& n, PointEntry& e) {
  const std::string text(name.text);
  const auto one = [&](const std::optional<Vector>& v) {
    if (!v) return false;
    places_[text] = *v;
    e.made = {text};
    return true;
  };
  if (n.is_map()) {
    static const Keys keys = {{"from"}, {"by"},     {"length"}, {"angle"},  {"between"},
                              {"at"},   {"mirror"}, {"about"},  {"repeat"}, {"count"}};
    const std::string where = fmt::format("point '{}'", name.text);
    const std::size_t before = errors_.count();
    errors_.check_keys(n, where, keys);
    if (errors_.count() > before) return false;
    const auto only = [&](std::string_view kind, const std::vector<std::string_view>& with) {
      for (std::size_t i = 0; i < tree_->entries(n); ++i) {
        const Node& key = tree_->entry(n, i).key;
        if (key.text == kind || std::find(with.begin(), with.end(), key.text) != with.end()) continue;
        errors_.fail(key, fmt::format("'{}' does not go with '{}' in {}", key.text, kind, where));
        return false;
      }
      return true;
    };
    if (tree_->find(n, "from")) return only("from", {"by", "length", "angle"}) && one(point_from(points, name, n));
    if (tree_->find(n, "between")) return only("between", {"at"}) && one(point_between(points, name, n));
    if (tree_->find(n, "mirror")) return only("mirror", {"about"}) && mirror(points, name, n, e);
    if (tree_->find(n, "repeat")) return only("repeat", {"count", "by"}) && repeat(points, name, n, e);
    errors_.fail(
        n, fmt::format(
               "{}: a list of coordinates was expected, for example [0, 900 mm], or a map with one of: from, between, "
               "mirror, repeat",
               where));
    return false;
  }
  if (!n.is_list() || (n.count != 2 && n.count != 3)) {
    errors_.fail(
        n.is_list() ? n : name,
        fmt::format("point '{}': two coordinates (plane) or three (space) were expected, for example [0, 900 mm]",
                    name.text));
    return false;
  }
  const std::size_t size = structure_.is_plane() ? 2 : 3;
  if (n.count != size) return false;  // told when the structure was begun
  return one(directions_.vector(n, units_.length));
}

std::optional<Vector> PointReader::point_from(const Node& points, const Node& name, const Node& n) {
  const auto from = place_named(points, *tree_->find(n, "from"));
  const Node *by = tree_->find(n, "by"), *distance = tree_->find(n, "length"), *angle = tree_->find(n, "angle");
  if (by && (distance || angle)) {
    errors_.fail(*by, "'by' does not go with 'length' and 'angle'");
    return std::nullopt;
  }
  if (by) {
    const auto step = directions_.vector(*by, units_.length);
    if (!from || !step) return std::nullopt;
    return *from + *step;
  }
  const std::string where = fmt::format("point '{}' from another", name.text);
  if (!distance && !angle) {
    errors_.fail(name, where + " needs 'by', or 'length' and 'angle'");
    return std::nullopt;
  }
  distance = errors_.need(n, "length", name, where), angle = errors_.need(n, "angle", name, where);
  if (!distance || !angle) return std::nullopt;
  if (!structure_.is_plane()) {
    errors_.fail(*angle, "an angle defines a direction in a plane only; in space write by: [dx, dy, dz]");
    return std::nullopt;
  }
  const auto far = quantities_.read(*distance, units_.length), turn = quantities_.read(*angle, units_.angle);
  if (!from || !far || !turn) return std::nullopt;
  return polar(*from, Length::si(*far), Angle::si(*turn));
}

std::optional<Vector> PointReader::point_between(const Node& points, const Node& name, const Node& n) {
  const Node& ends = *tree_->find(n, "between");
  if (!errors_.is_list(ends, "between")) return std::nullopt;
  if (ends.count != 2) {
    errors_.fail(ends, fmt::format("two points were expected in 'between', but there are {}", ends.count));
    return std::nullopt;
  }
  const auto a = place_named(points, tree_->children(ends)[0]), b = place_named(points, tree_->children(ends)[1]);
  const Node* at = errors_.need(n, "at", name, fmt::format("point '{}' between two others", name.text));
  if (!a || !b || !at) return std::nullopt;
  const double L = length(*b - *a);
  if (!(L > 0)) {
    errors_.fail(ends, "both points are at the same place");
    return std::nullopt;
  }
  const auto x = quantities_.position(*at, L);
  if (!x) return std::nullopt;
  if (*x < 0 || *x > L * (1 + 1e-12)) {
    errors_.fail(*at, fmt::format("{} is not between the points, which are {} apart", length_words(structure_, *x),
                                  length_words(structure_, L)));
    return std::nullopt;
  }
  return between(*a, *b, *x / L);
}

bool PointReader::mirror(const Node& points, const Node& name, const Node& n, PointEntry& e) {
  const std::vector<std::string> base = names_of(points, *tree_->find(n, "mirror"));
  const Node* about = errors_.need(n, "about", name, fmt::format("the mirrored point '{}'", name.text));
  if (base.empty() || !about || !errors_.is_map(*about, "about")) return false;
  const std::size_t before = errors_.count();
  errors_.check_keys(*about, "about", structure_.is_plane() ? Keys{{"x"}, {"y"}} : Keys{{"x"}, {"y"}, {"z"}});
  if (errors_.count() > before) return false;
  if (tree_->entries(*about) != 1) {
    errors_.fail(*about, "one plane to mirror about was expected, for example {x: 2 m}");
    return false;
  }
  if (!fits(n, base.size())) return false;
  const Entry plane = tree_->entry(*about, 0);
  const auto at = quantities_.read(plane.value, units_.length);
  if (!at) return false;
  const Axis axis = plane.key.text == "x" ? Axis::x : plane.key.text == "y" ? Axis::y : Axis::z;
  e.family =
      entries_.contains(tree_->find(n, "mirror")->text) && placed(points, tree_->find(n, "mirror")->text)->family;
  for (std::size_t i = 0; i < base.size(); ++i) {
    e.made.push_back(e.family ? fmt::format("{}.{}", name.text, i + 1) : std::string(name.text));
    places_[e.made.back()] = mirrored(places_.find(base[i])->second, axis, Length::si(*at));
  }
  if (e.family) e.step = placed(points, tree_->find(n, "mirror")->text)->step;
  return true;
}

bool PointReader::fits(const Node& at, std::size_t more) {
  if (places_.size() + more <= most_points) return true;
  errors_.fail(at,
               fmt::format("this would make {} points; a model has at most {}", places_.size() + more, most_points));
  return false;
}

bool PointReader::repeat(const Node& points, const Node& name, const Node& n, PointEntry& e) {
  const std::string where = fmt::format("the repeated point '{}'", name.text);
  e.base = names_of(points, *tree_->find(n, "repeat"));
  const Node *times = errors_.need(n, "count", name, where), *by = errors_.need(n, "by", name, where);
  const auto count = times ? quantities_.whole_number(*times, "a count") : std::nullopt;
  const auto step = by ? directions_.vector(*by, units_.length) : std::nullopt;
  if (e.base.empty() || !count || !step) return false;
  const std::size_t copies = count.value_or(0);
  const Vector way = step.value_or(Vector());
  if (!fits(*times, copies * e.base.size())) return false;
  if (zero(way)) {
    errors_.fail(*by, "a step was expected: all repeated points would be at the first one");
    return false;
  }
  e.family = true;
  e.step = e.base.size();
  for (std::size_t k = 1; k <= copies; ++k)
    for (const std::string& base : e.base) {
      e.made.push_back(fmt::format("{}.{}", name.text, e.made.size() + 1));
      places_[e.made.back()] = places_.find(base)->second + way * static_cast<double>(k);
    }
  return true;
}

}  // namespace

void read_points(const Context& c, const Node* n, TablesBeside& tables) {
  PointReader(c, tables).run(n);
}

}  // namespace corvex::file
